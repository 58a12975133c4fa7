import {
  BoxGeometry,
  type BufferGeometry,
  ConeGeometry,
  LatheGeometry,
  SphereGeometry,
  TorusGeometry,
  Vector2,
} from 'three';
import { type Mesh, moved } from './mesh.ts';
import { weld } from './weld.ts';

// Solids whose figures are known exactly, for tests and benchmarks.

export function meshOf(geometry: BufferGeometry): Mesh {
  const index = geometry.index?.array ?? [];
  const positions = geometry.attributes.position?.array ?? [];
  const soup = new Float64Array(3 * index.length);
  for (let i = 0; i < index.length; i++)
    for (let k = 0; k < 3; k++) soup[3 * i + k] = positions[3 * (index[i] as number) + k] as number;
  return weld(soup).mesh;
}

/** About `triangles` triangles. */
const around = (triangles: number) => Math.round(Math.sqrt(triangles / 2));

export const sphere = (radius: number, triangles: number) =>
  meshOf(new SphereGeometry(radius, around(triangles), around(triangles)));
export const torus = (radius: number, tube: number, triangles: number) => {
  const n = around(triangles / 2);
  return meshOf(new TorusGeometry(radius, tube, n, 2 * n));
};
export const cone = (radius: number, height: number, triangles: number) =>
  meshOf(new ConeGeometry(radius, height, Math.round(triangles / 4), 1));
export const box = (x: number, y: number, z: number) => meshOf(new BoxGeometry(x, y, z));
export const ellipsoid = (a: number, b: number, c: number, triangles: number) =>
  moved(sphere(1, triangles), ([x, y, z]) => [a * x, b * y, c * z]);

/** A solid of revolution round the y axis through points (radius, height), from the bottom up. */
export const lathe = (points: [number, number][], segments = 128) =>
  meshOf(
    new LatheGeometry(
      points.map(([r, y]) => new Vector2(r, y)),
      segments,
    ),
  );

/** A tube open at both ends, standing on its end along y. */
export const tube = (outer: number, inner: number, height: number, segments = 128) =>
  lathe(
    [
      [inner, 0],
      [outer, 0],
      [outer, height],
      [inner, height],
      [inner, 0],
    ],
    segments,
  );

/** The same with its inside out. */
export const turnedOut = ({ positions, triangles }: Mesh): Mesh => ({
  positions,
  triangles: triangles.map((_, i) => triangles[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1] as number) as Uint32Array,
});
