/** A triangle mesh whose corners are shared. */
export interface Mesh {
  /** x, y, z of each corner, mm: length 3·corners. */
  positions: Float64Array;
  /** Three corner indices a triangle, counter-clockwise from outside: length 3·triangles. */
  triangles: Uint32Array;
}

/** Triangles as a file lists them, each with corners of its own: nine numbers a triangle, mm. */
export type Soup = Float64Array;

export type Vec3 = [number, number, number];

export interface Bounds {
  min: Vec3;
  max: Vec3;
}

/** How long work tells that it goes on; `done` runs from 0 to 1. */
export type Progress = (done: number) => void;

/** Corners nearer than this are one, mm. */
export const WELD_MM = 1e-4;

export const cornerCount = (mesh: Mesh) => mesh.positions.length / 3;
export const triangleCount = (mesh: Mesh) => mesh.triangles.length / 3;

export function corner(mesh: Mesh, index: number): Vec3 {
  const p = mesh.positions;
  return [p[3 * index] as number, p[3 * index + 1] as number, p[3 * index + 2] as number];
}

export const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const plus = (a: Vec3, b: Vec3, scale = 1): Vec3 => [
  a[0] + scale * b[0],
  a[1] + scale * b[1],
  a[2] + scale * b[2],
];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec3) => Math.hypot(a[0], a[1], a[2]);
export const unit = (a: Vec3): Vec3 => {
  const size = length(a);
  return [a[0] / size, a[1] / size, a[2] / size];
};

/** Two unit vectors that stand square on `direction` and on each other. */
export function across(direction: Vec3): [Vec3, Vec3] {
  const helper: Vec3 = Math.abs(direction[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0];
  const u = unit(cross(direction, helper));
  return [u, cross(direction, u)];
}

export function boundsOf(positions: ArrayLike<number>): Bounds {
  // Once through, each axis in variables of its own: three passes over a large file cost more than reading it.
  let [x0, y0, z0] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  let [x1, y1, z1] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i + 2 < positions.length; i += 3) {
    const [x, y, z] = [positions[i] as number, positions[i + 1] as number, positions[i + 2] as number];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
    if (z < z0) z0 = z;
    if (z > z1) z1 = z;
  }
  return { min: [x0, y0, z0], max: [x1, y1, z1] };
}

/** Twice-area normals of all triangles: length 3·triangles, mm² · 2. */
export function doubleNormals({ positions: p, triangles: t }: Mesh): Float64Array {
  const out = new Float64Array(t.length);
  for (let i = 0; i < t.length; i += 3) {
    const a = 3 * (t[i] as number);
    const b = 3 * (t[i + 1] as number);
    const c = 3 * (t[i + 2] as number);
    const ax = p[a] as number;
    const ay = p[a + 1] as number;
    const az = p[a + 2] as number;
    const ux = (p[b] as number) - ax;
    const uy = (p[b + 1] as number) - ay;
    const uz = (p[b + 2] as number) - az;
    const vx = (p[c] as number) - ax;
    const vy = (p[c + 1] as number) - ay;
    const vz = (p[c + 2] as number) - az;
    out[i] = uy * vz - uz * vy;
    out[i + 1] = uz * vx - ux * vz;
    out[i + 2] = ux * vy - uy * vx;
  }
  return out;
}

/** The same mesh turned by a function of its corners; the winding is kept. */
export function moved(mesh: Mesh, move: (point: Vec3) => Vec3): Mesh {
  const positions = new Float64Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3) positions.set(move(corner(mesh, i / 3)), i);
  return { positions, triangles: mesh.triangles };
}

/** Meshes as one, each a part of its own. */
export function together(...meshes: Mesh[]): Mesh {
  const positions = new Float64Array(meshes.reduce((sum, mesh) => sum + mesh.positions.length, 0));
  const triangles = new Uint32Array(meshes.reduce((sum, mesh) => sum + mesh.triangles.length, 0));
  let [at, to] = [0, 0];
  for (const mesh of meshes) {
    positions.set(mesh.positions, at);
    for (let i = 0; i < mesh.triangles.length; i++) triangles[to + i] = at / 3 + (mesh.triangles[i] as number);
    at += mesh.positions.length;
    to += mesh.triangles.length;
  }
  return { positions, triangles };
}

/** Where a triangle's middle is. */
export function middleOf(mesh: Mesh, triangle: number): Vec3 {
  const { positions: p, triangles: t } = mesh;
  const out: Vec3 = [0, 0, 0];
  for (let k = 0; k < 3; k++) {
    const at = 3 * (t[3 * triangle + k] as number);
    out[0] += (p[at] as number) / 3;
    out[1] += (p[at + 1] as number) / 3;
    out[2] += (p[at + 2] as number) / 3;
  }
  return out;
}

/** The same mesh without corners that no triangle uses, which would count as part of its size. */
export function pruned({ positions, triangles }: Mesh): Mesh {
  const at = new Int32Array(positions.length / 3).fill(-1);
  const kept: number[] = [];
  const renumbered = triangles.map((from) => {
    if (at[from] === -1) at[from] = kept.push(from) - 1;
    return at[from] as number;
  });
  const out = new Float64Array(3 * kept.length);
  kept.forEach((from, to) => {
    for (let k = 0; k < 3; k++) out[3 * to + k] = positions[3 * from + k] as number;
  });
  return { positions: out, triangles: renumbered };
}
