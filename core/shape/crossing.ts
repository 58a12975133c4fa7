import { BufferAttribute, BufferGeometry, Matrix4, type Triangle, type Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { Mesh, Vec3 } from './mesh.ts';

/** Deeper than rounding, mm. */
const DEEP_MM = 1e-3;
/** Places named, each at least so far from the others. */
const MOST_PLACES = 4;
const APART_MM = 5;

/** Whether an edge goes through a triangle's inside, and where. */
function through(p: Vector3, q: Vector3, { a, b, c }: Pick<Triangle, 'a' | 'b' | 'c'>): Vec3 | null {
  const [ux, uy, uz] = [b.x - a.x, b.y - a.y, b.z - a.z];
  const [vx, vy, vz] = [c.x - a.x, c.y - a.y, c.z - a.z];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const size = Math.hypot(nx, ny, nz);
  if (!(size > 1e-12)) return null;
  const dp = (nx * (p.x - a.x) + ny * (p.y - a.y) + nz * (p.z - a.z)) / size;
  const dq = (nx * (q.x - a.x) + ny * (q.y - a.y) + nz * (q.z - a.z)) / size;
  if (!((dp > DEEP_MM && dq < -DEEP_MM) || (dp < -DEEP_MM && dq > DEEP_MM))) return null;
  const share = dp / (dp - dq);
  const [x, y, z] = [p.x + share * (q.x - p.x), p.y + share * (q.y - p.y), p.z + share * (q.z - p.z)];
  const [wx, wy, wz] = [x - a.x, y - a.y, z - a.z];
  // Barycentric, by areas over the normal.
  const s = (nx * (wy * vz - wz * vy) + ny * (wz * vx - wx * vz) + nz * (wx * vy - wy * vx)) / size ** 2;
  const t = (nx * (uy * wz - uz * wy) + ny * (uz * wx - ux * wz) + nz * (ux * wy - uy * wx)) / size ** 2;
  const least = 1e-4;
  return s > least && t > least && s + t < 1 - least ? [x, y, z] : null;
}

/**
 * Where a surface runs through itself: places at which an edge of one triangle goes through another that it shares no corner
 * with. Empty: nowhere. Source: edges against triangles, found by a tree of boxes against itself.
 */
export function crossings(mesh: Mesh): Vec3[] {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
  geometry.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  const tree = new MeshBVH(geometry, { indirect: true } as ConstructorParameters<typeof MeshBVH>[1]);
  const t = mesh.triangles;
  const places: Vec3[] = [];
  const touch = (one: number, two: number) => {
    for (let i = 0; i < 3; i++) for (let k = 0; k < 3; k++) if (t[3 * one + i] === t[3 * two + k]) return true;
    return false;
  };
  tree.bvhcast(tree, new Matrix4(), {
    intersectsTriangles: (first, second, i, k) => {
      const [one, two] = [tree.resolveTriangleIndex(i), tree.resolveTriangleIndex(k)];
      if (one >= two || touch(one, two)) return false;
      const { a, b, c } = first;
      const at =
        through(a, b, second) ??
        through(b, c, second) ??
        through(c, a, second) ??
        through(second.a, second.b, first) ??
        through(second.b, second.c, first) ??
        through(second.c, second.a, first);
      if (at && places.every((other) => Math.hypot(...at.map((v, n) => v - (other[n] as number))) > APART_MM))
        places.push(at);
      return places.length >= MOST_PLACES;
    },
  });
  return places;
}
