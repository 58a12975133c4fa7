import type { Manifold } from 'manifold-3d';
import { type Mesh, WELD_MM } from '../shape/mesh.ts';
import { meshOf } from '../shape/solids.ts';
import { shellsOf, topologyOf } from '../shape/topology.ts';
import { soupOf, weld } from '../shape/weld.ts';
import type { MoldPart } from './pieces.ts';
import { ml } from './shop.ts';

/** Whether two corners of any triangle lie in the same place: a file would hold a triangle without area. */
function hasCollapsed({ positions: p, triangles: t }: Mesh): boolean {
  const same = (a: number, b: number) => p[a] === p[b] && p[a + 1] === p[b + 1] && p[a + 2] === p[b + 2];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * (t[i] as number), 3 * (t[i + 1] as number), 3 * (t[i + 2] as number)];
    if (same(a, b) || same(b, c) || same(c, a)) return true;
  }
  return false;
}

/** Slivers below this are dissolved: no file, printer or cutter tells them apart, mm. */
const SLIVER_MM = 1e-3;

/** A finished solid as a part of its mold. */
export function partOf(name: MoldPart['name'], solid: Manifold): MoldPart {
  const tidy = solid.simplify(SLIVER_MM);
  const made = meshOf(tidy);
  tidy.delete();
  return {
    name,
    mesh: hasCollapsed(made) ? weld(soupOf(made), 0).mesh : made,
    volumeMl: ml(solid),
    areaMm2: solid.surfaceArea(),
  };
}

/**
 * What a reader of the file finds, whether it joins corners that are the same or those that are nearly so: closed with every
 * edge between two triangles, and how many pieces.
 */
export function asFile({ mesh }: MoldPart): { closed: boolean; shells: number } {
  const read = [0, WELD_MM].map((mm) => {
    const { mesh: joined } = weld(soupOf(mesh), mm);
    const topology = topologyOf(joined);
    return {
      closed: topology.openEdges === 0 && topology.turnedEdges === 0,
      shells: shellsOf(joined, topology).shells,
    };
  });
  return { closed: read.every((one) => one.closed), shells: Math.max(...read.map((one) => one.shells)) };
}
