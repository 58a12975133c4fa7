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

/** Whether any two corners lie so near each other that a reader may take them for one: swept along x. */
function hasNear({ positions: p }: Mesh): boolean {
  const count = p.length / 3;
  const xs = Float64Array.from({ length: count }, (_, i) => p[3 * i] as number);
  const order = Uint32Array.from({ length: count }, (_, i) => i).sort((a, b) => (xs[a] as number) - (xs[b] as number));
  for (let i = 0; i < count; i++) {
    const a = order[i] as number;
    for (let k = i + 1; k < count; k++) {
      const b = order[k] as number;
      if ((xs[b] as number) - (xs[a] as number) > WELD_MM) break;
      const dy = Math.abs((p[3 * a + 1] as number) - (p[3 * b + 1] as number));
      if (dy <= WELD_MM && Math.abs((p[3 * a + 2] as number) - (p[3 * b + 2] as number)) <= WELD_MM) return true;
    }
  }
  return false;
}

/** How many pieces hang together by their corners. */
function piecesOf({ positions, triangles: t }: Mesh): number {
  const parent = Uint32Array.from({ length: positions.length / 3 }, (_, i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i] as number] as number;
      i = parent[i] as number;
    }
    return i;
  };
  let pieces = parent.length;
  for (let i = 0; i < t.length; i++) {
    const [a, b] = [root(t[i] as number), root(t[i % 3 === 2 ? i - 2 : i + 1] as number)];
    if (a === b) continue;
    parent[a] = b;
    pieces--;
  }
  return pieces;
}

/**
 * What a reader of the file finds, whether it joins corners that are the same or those that are nearly so: closed with every
 * edge between two triangles, and how many pieces. What the modeller made is closed; only corners that fall together open it.
 */
export function asFile({ mesh }: MoldPart): { closed: boolean; shells: number } {
  if (!hasNear(mesh)) return { closed: true, shells: piecesOf(mesh) };
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
