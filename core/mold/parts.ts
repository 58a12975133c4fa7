import type { Manifold } from 'manifold-3d';
import { boundsOf, type Mesh, WELD_MM } from '../shape/mesh.ts';
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

/** Indices by rising x, to within a part in 2³¹ of the whole width: figures alone sort many times faster than rows. */
function alongX({ positions: p }: Mesh, count: number): Float64Array {
  const { min, max } = boundsOf(p);
  const steps = 2 ** 31 / Math.max(1e-9, max[0] - min[0]);
  const keys = new Float64Array(count);
  for (let i = 0; i < count; i++) keys[i] = Math.floor(((p[3 * i] as number) - min[0]) * steps) * count + i;
  return keys.sort().map((key) => key % count);
}

/** Whether any two corners lie so near each other that a reader may take them for one: swept along x. */
function hasNear(mesh: Mesh): boolean {
  const { positions: p } = mesh;
  const count = p.length / 3;
  const order = alongX(mesh, count);
  for (let i = 0; i < count; i++) {
    const a = order[i] as number;
    for (let k = i + 1; k < count; k++) {
      const b = order[k] as number;
      // The order is only so fine: twice the weld is past any doubt.
      const dx = (p[3 * b] as number) - (p[3 * a] as number);
      if (dx > 2 * WELD_MM) break;
      if (Math.abs(dx) > WELD_MM) continue;
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
