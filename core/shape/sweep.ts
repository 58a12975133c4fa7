import { type Mesh, moved, type Vec3 } from './mesh.ts';

/** One ring of a sweep: its middle and its points in turn round it. */
export type Ring = Vec3[];

/**
 * A closed solid through rings of equally many points, its ends closed by fans. Rings run along the sweep, points
 * counter-clockwise seen from its end, so that outside is outside.
 */
export function sweep(rings: Ring[]): Mesh {
  const n = rings[0]?.length ?? 0;
  const middle = (ring: Ring): Vec3 =>
    ring.reduce<Vec3>((sum, p) => [sum[0] + p[0] / n, sum[1] + p[1] / n, sum[2] + p[2] / n], [0, 0, 0]);
  const [first, last] = [rings[0] as Ring, rings.at(-1) as Ring];
  const positions = Float64Array.from([...rings.flat(2), ...middle(first), ...middle(last)]);
  const triangles: number[] = [];
  const [start, end] = [rings.length * n, rings.length * n + 1];
  for (let k = 0; k < n; k++) {
    const next = (k + 1) % n;
    for (let r = 0; r + 1 < rings.length; r++) {
      const [a, b, c, d] = [r * n + k, r * n + next, (r + 1) * n + next, (r + 1) * n + k];
      triangles.push(a, b, c, a, c, d);
    }
    const back = (rings.length - 1) * n;
    triangles.push(start, next, k, end, back + k, back + next);
  }
  return { positions, triangles: Uint32Array.from(triangles) };
}

/** An ellipse round `middle`, spanned by two half-axes; a power over 2 makes it squarer. */
export function ellipse(middle: Vec3, one: Vec3, two: Vec3, points: number, power = 2): Ring {
  return Array.from({ length: points }, (_, k) => {
    const turn = (2 * Math.PI * k) / points;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const u = Math.sign(c) * Math.abs(c) ** (2 / power);
    const w = Math.sign(s) * Math.abs(s) ** (2 / power);
    return [0, 1, 2].map((i) => (middle[i] as number) + u * (one[i] as number) + w * (two[i] as number)) as Vec3;
  });
}

/** Shares from 0 to 1, closer together at both ends, where a rounded end needs them. */
export const rounded = (count: number) =>
  Array.from({ length: count + 1 }, (_, i) => (1 - Math.cos((Math.PI * i) / count)) / 2);

/** How wide a rounded end still is at a share of the way, when the rounding takes up `share` of it. */
export const endRound = (at: number, share: number) =>
  at > 1 - share ? Math.sqrt(Math.max(0, 1 - ((at - 1 + share) / share) ** 2)) : 1;

/** Turned about the vertical by `turn`, then set at `to`. */
export function turned(mesh: Mesh, turn: number, to: Vec3, drop = 0): Mesh {
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  const [sd, cd] = [Math.sin(drop), Math.cos(drop)];
  const positions = new Float64Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x0, y, z0] = [mesh.positions[i] as number, mesh.positions[i + 1] as number, mesh.positions[i + 2] as number];
    const [x, z] = [x0 * cd + z0 * sd, z0 * cd - x0 * sd];
    positions[i] = to[0] + x * c - y * s;
    positions[i + 1] = to[1] + x * s + y * c;
    positions[i + 2] = to[2] + z;
  }
  return { positions, triangles: mesh.triangles };
}

/** Turned about the axis from nose to tail. */
export function rolled(mesh: Mesh, turn: number): Mesh {
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  return moved(mesh, ([x, y, z]) => [x, y * c - z * s, y * s + z * c]);
}
