import { boundsOf, type Mesh, moved, type Vec3 } from './mesh.ts';

/** Degrees about x, then y, then z. */
export interface Turn {
  x: number;
  y: number;
  z: number;
}

export type Matrix3 = [Vec3, Vec3, Vec3];
const RAD = Math.PI / 180;

/** Rows of the matrix that turns about x first, then y, then z. */
export function matrixOf({ x, y, z }: Turn): Matrix3 {
  const [sx, cx] = [Math.sin(x * RAD), Math.cos(x * RAD)];
  const [sy, cy] = [Math.sin(y * RAD), Math.cos(y * RAD)];
  const [sz, cz] = [Math.sin(z * RAD), Math.cos(z * RAD)];
  return [
    [cz * cy, cz * sy * sx - sz * cx, cz * sy * cx + sz * sx],
    [sz * cy, sz * sy * sx + cz * cx, sz * sy * cx - cz * sx],
    [-sy, cy * sx, cy * cx],
  ];
}

/** The turn that a matrix of unit rows stands for. Where y is a right angle, turns about x and z are one: told as one about x. */
export function turnOf([[a], [d, e, f], [g, h, i]]: Matrix3): Turn {
  const straight = Math.abs(g) > 1 - 1e-9;
  return {
    x: (straight ? Math.atan2(-f, e) : Math.atan2(h, i)) / RAD,
    y: Math.asin(Math.min(1, Math.max(-1, -g))) / RAD,
    z: straight ? 0 : Math.atan2(d, a) / RAD,
  };
}

export const applied = ([[a, b, c], [d, e, f], [g, h, i]]: Matrix3, [x, y, z]: Vec3): Vec3 => [
  a * x + b * y + c * z,
  d * x + e * y + f * z,
  g * x + h * y + i * z,
];

/** Turned and scaled, then set down with its nose at 0 and its middle on the axis. */
export function stood(mesh: Mesh, turn: Turn, scale: number): Mesh {
  const m = matrixOf(turn);
  const turned = moved(mesh, (p) => applied(m, p).map((at) => at * scale) as Vec3);
  const { min, max } = boundsOf(turned.positions);
  return moved(turned, ([x, y, z]) => [x - min[0], y - (min[1] + max[1]) / 2, z - (min[2] + max[2]) / 2]);
}
