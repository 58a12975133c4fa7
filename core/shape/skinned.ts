import type { ManifoldToplevel } from 'manifold-3d';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { boundsOf, type Mesh, type Progress } from './mesh.ts';
import { meshOf, Solids } from './solids.ts';

/** A cell of the new skin: so many along its length, and never finer than this, mm. */
const ALONG = 200;
const LEAST_CELL_MM = 0.2;
/** Specks and bubbles of so few cells come of the drawing, not of the bait. */
const SPECK = 40;
/** Steps of the coarse field that says how far the surface is at the least, in cells. */
const COARSE = 3;

/** Directions that no drawn edge has; inside is what most of them call so. */
const WAYS = [
  [0.8123, 0.4319, 0.3917],
  [-0.3517, 0.8931, 0.2803],
  [0.2219, -0.3413, 0.9134],
].map(([x, y, z]) => new Vector3(x, y, z).normalize());

/**
 * A skin drawn anew round all that a surface encloses, however it runs through itself or gapes a little: what it goes round
 * at least once is inside. Corners come out rounded by about a cell.
 * @param wantedMm the cell; else by the length. @returns the mesh and the cell, mm; null where nothing is enclosed.
 * Source: a signed distance (winding by rays, nearest point by a tree of boxes), drawn out by manifold's level set.
 */
export function skinned(
  kit: ManifoldToplevel,
  mesh: Mesh,
  progress?: Progress,
  wantedMm?: number,
): { mesh: Mesh; cellMm: number } | null {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
  geometry.setIndex(new BufferAttribute(mesh.triangles.slice(), 1));
  const tree = new MeshBVH(geometry, { indirect: true } as ConstructorParameters<typeof MeshBVH>[1]);
  const { min, max } = boundsOf(mesh.positions);
  const long = Math.max(...max.map((high, k) => high - (min[k] as number)));
  const cellMm = wantedMm ?? Math.max(LEAST_CELL_MM, long / ALONG);
  const point = new Vector3();
  const ray = new Ray();
  const winds = (way: Vector3): boolean => {
    ray.origin.copy(point);
    ray.direction.copy(way);
    let winding = 0;
    for (const hit of tree.raycast(ray, DoubleSide)) winding += (hit.face?.normal.dot(way) ?? 0) > 0 ? 1 : -1;
    return winding > 0;
  };
  const isInside = (): boolean => {
    const [one, two, three] = WAYS as [Vector3, Vector3, Vector3];
    const first = winds(one);
    return first === winds(two) ? first : winds(three);
  };
  const exact = (): number => {
    const distance = tree.closestPointToPoint(point)?.distance ?? long;
    return isInside() ? distance : -distance;
  };
  // Far from the surface nobody needs to know how far: a coarse field says that it is far.
  const coarseMm = COARSE * cellMm;
  const far = new Map<number, number>();
  const sides = max.map((high, k) => Math.ceil((high - (min[k] as number)) / coarseMm) + 6);
  const distance = (x: number, y: number, z: number): number => {
    const [i, j, k] = [x - min[0], y - min[1], z - min[2]].map((off) => Math.round(off / coarseMm) + 3) as [
      number,
      number,
      number,
    ];
    const key = (k * (sides[1] as number) + j) * (sides[0] as number) + i;
    const [cx, cy, cz] = [min[0] + (i - 3) * coarseMm, min[1] + (j - 3) * coarseMm, min[2] + (k - 3) * coarseMm];
    let known = far.get(key);
    if (known === undefined) {
      point.set(cx, cy, cz);
      known = exact();
      far.set(key, known);
    }
    const least = Math.abs(known) - Math.hypot(x - cx, y - cy, z - cz);
    if (least > 1.3 * cellMm) return Math.sign(known) * least;
    point.set(x, y, z);
    return exact();
  };
  const room = 2.5 * cellMm;
  const solids = new Solids(kit);
  try {
    let asked = 0;
    const about = max.reduce((product, high, k) => product * ((high - (min[k] as number) + 2 * room) / cellMm), 2);
    const made = solids.keep(
      kit.Manifold.levelSet(
        ([x, y, z]) => {
          if (++asked % 20_000 === 0) progress?.(Math.min(0.95, asked / about));
          return distance(x, y, z);
        },
        { min: min.map((low) => low - room) as never, max: max.map((high) => high + room) as never },
        cellMm,
        0,
        cellMm / 20,
      ),
    );
    // Fewer triangles where it is flat anyway.
    const whole = solids.keep(made.simplify(cellMm / 25));
    const pieces = whole.decompose().map((piece) => solids.keep(piece));
    const large = pieces.filter((piece) => Math.abs(piece.volume()) > SPECK * cellMm ** 3);
    const out = meshOf(large.length === pieces.length ? whole : solids.keep(kit.Manifold.compose(large)));
    return out.triangles.length === 0 ? null : { mesh: out, cellMm };
  } finally {
    solids.clear();
  }
}
