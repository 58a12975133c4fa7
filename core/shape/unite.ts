import type { ManifoldToplevel } from 'manifold-3d';
import { survey } from './measure.ts';
import type { Mesh } from './mesh.ts';
import { meshOf, Solids } from './solids.ts';

/**
 * Parts that reach into each other as one solid: what they share counts once. Parts that lie inside another stay hollows.
 * @param mesh closed, every part the right way out. @returns null where there is nothing to unite, or the modeller takes none of it.
 */
export function united(kit: ManifoldToplevel, mesh: Mesh): Mesh | null {
  const { shell, shells, depth, watertight, flipped } = survey(mesh);
  if (!watertight || flipped || shells < 2) return null;
  const solids = new Solids(kit);
  try {
    const part = (which: number) =>
      solids.solid({
        positions: mesh.positions,
        triangles: mesh.triangles.filter((_, i) => shell[Math.floor(i / 3)] === which),
      });
    const all = Array.from({ length: shells }, (_, i) => i);
    const whole = all.filter((i) => (depth[i] as number) % 2 === 0).map(part);
    const hollows = all
      .filter((i) => (depth[i] as number) % 2 === 1)
      .map((i) => {
        const inside = mesh.triangles.filter((_, k) => shell[Math.floor(k / 3)] === i);
        // Drawn as a solid: its surface runs the other way round.
        for (let k = 0; k < inside.length; k += 3)
          [inside[k + 1], inside[k + 2]] = [inside[k + 2] as number, inside[k + 1] as number];
        return solids.solid({ positions: mesh.positions, triangles: inside });
      });
    if (whole.length < 2) return null;
    const sum = solids.keep(kit.Manifold.union(whole));
    const made = hollows.length > 0 ? solids.keep(kit.Manifold.difference([sum, ...hollows])) : sum;
    return made.isEmpty() ? null : meshOf(made);
  } catch {
    // What the modeller does not take stays as it is, and is told.
    return null;
  } finally {
    solids.clear();
  }
}
