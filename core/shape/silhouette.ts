import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Mesh } from './mesh.ts';
import { Solids } from './solids.ts';

/** A bait's own outline as SVG paths in a box of 1 × 1, nose to the left; from the side the back is up. */
export interface Silhouette {
  above: string;
  side: string;
  /** Width and height over length. */
  wide: number;
  tall: number;
}

/** How closely it is followed, as a share of the length: a sixth of a pixel where it is drawn 150 long. */
const CLOSE = 0.001;
const MOST_POINTS = 400;

const figure = (share: number) => String(Number(share.toFixed(4)));

function pathOf(solid: Manifold, longMm: number, down: 1 | -1): { path: string; high: number } {
  const seen = solid.project();
  try {
    const { min, max } = seen.bounds();
    const [x0, y0, high] = [min[0] as number, min[1] as number, (max[1] as number) - (min[1] as number)];
    for (let share = CLOSE; ; share *= 2) {
      const drawn = seen.simplify(share * longMm);
      const rings = drawn.toPolygons();
      drawn.delete();
      if (rings.reduce((sum, ring) => sum + ring.length, 0) > MOST_POINTS && share < 0.1) continue;
      const at = ([x, y]: [number, number]) => {
        const up = (y - y0) / high;
        return `${figure((x - x0) / longMm)} ${figure(down === 1 ? 1 - up : up)}`;
      };
      return { path: rings.map((ring) => `M${ring.map(at).join('L')}Z`).join(''), high: high / longMm };
    }
  } finally {
    seen.delete();
  }
}

/**
 * What a closed mesh covers from above and from the side; null for one that the modeller takes for no solid.
 * Source: the union of all its triangles laid flat, by manifold.
 */
export function silhouetteOf(kit: ManifoldToplevel, mesh: Mesh): Silhouette | null {
  const solids = new Solids(kit);
  try {
    const solid = solids.solid(mesh);
    const { min, max } = solid.boundingBox();
    const longMm = (max[0] as number) - (min[0] as number);
    if (solid.isEmpty() || !(longMm > 0)) return null;
    const above = pathOf(solid, longMm, -1);
    const side = pathOf(solids.keep(solid.rotate([-90, 0, 0])), longMm, 1);
    return { above: above.path, side: side.path, wide: above.high, tall: side.high };
  } catch {
    // No manifold: such a bait is drawn by its kind.
    return null;
  } finally {
    solids.clear();
  }
}
