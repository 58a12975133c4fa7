import { type Mesh, pruned, type Soup, WELD_MM } from './mesh.ts';
import { type Places, placesOf, roomFor } from './places.ts';

export interface Welded {
  mesh: Mesh;
  /** Triangles left out because two of their corners became one. */
  collapsed: number;
  /** For each triangle of the mesh, which one of the soup it was. */
  from: Uint32Array;
}

const hash = (x: number, y: number, z: number) =>
  (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) >>> 0;

/** A cell much wider than the weld has few corners near its border, a narrow one few in all. */
const CELL_MM = 64 * WELD_MM;

/**
 * Which place each place is joined to: itself, or an earlier one within `weldMm`. What it was joined to once it stays joined to,
 * whatever comes nearer later: else one corner of two triangles could become two, and a closed mesh would open.
 * Places sit in a grid of cells; a neighbouring cell is looked into only from near its border.
 */
function joinedTo({ points }: Places, weldMm: number): { joined: Uint32Array; isAny: boolean } {
  const count = points.length / 3;
  const cell = Math.max(2 * weldMm, CELL_MM);
  const border = weldMm / cell;
  const perMm = 1 / cell;
  const mask = roomFor(2 * count) - 1;
  const heads = new Int32Array(mask + 1).fill(-1);
  const next = new Int32Array(count);
  const joined = new Uint32Array(count);
  const near = weldMm * weldMm;
  let isAny = false;

  const find = (cx: number, cy: number, cz: number, x: number, y: number, z: number): number => {
    for (let at = heads[hash(cx, cy, cz) & mask] as number; at >= 0; at = next[at] as number) {
      const dx = (points[3 * at] as number) - x;
      const dy = (points[3 * at + 1] as number) - y;
      const dz = (points[3 * at + 2] as number) - z;
      if (joined[at] === at && dx * dx + dy * dy + dz * dz <= near) return at;
    }
    return -1;
  };
  /** −1, 0 or +1: whether a value this far into its cell is near the cell before or after. */
  const side = (into: number) => (into < border ? -1 : into > 1 - border ? 1 : 0);
  const beside = (cx: number, cy: number, cz: number, x: number, y: number, z: number): number => {
    const [sx, sy, sz] = [side(x * perMm - cx), side(y * perMm - cy), side(z * perMm - cz)];
    if (!(sx || sy || sz)) return -1;
    for (let way = 1; way < 8; way++) {
      if ((way & 1 && !sx) || (way & 2 && !sy) || (way & 4 && !sz)) continue;
      const found = find(cx + (way & 1 ? sx : 0), cy + (way & 2 ? sy : 0), cz + (way & 4 ? sz : 0), x, y, z);
      if (found >= 0) return found;
    }
    return -1;
  };

  for (let at = 0; at < count; at++) {
    const [x, y, z] = [points[3 * at] as number, points[3 * at + 1] as number, points[3 * at + 2] as number];
    const [cx, cy, cz] = [Math.floor(x * perMm), Math.floor(y * perMm), Math.floor(z * perMm)];
    let found = find(cx, cy, cz, x, y, z);
    if (found < 0) found = beside(cx, cy, cz, x, y, z);
    joined[at] = found < 0 ? at : found;
    isAny ||= found >= 0;
    const slot = hash(cx, cy, cz) & mask;
    next[at] = heads[slot] as number;
    heads[slot] = at;
  }
  return { joined, isAny };
}

/** Joins corners that lie within `weldMm` of each other. */
export function weld(given: Soup | Places, weldMm = WELD_MM): Welded {
  const places = given instanceof Float64Array ? placesOf(given) : given;
  const count = places.of.length;
  const { joined, isAny } = joinedTo(places, weldMm);
  const from = new Uint32Array(count / 3);
  const triangles = new Uint32Array(count);
  let kept = 0;
  for (let i = 0; i < count; i += 3) {
    const a = joined[places.of[i] as number] as number;
    const b = joined[places.of[i + 1] as number] as number;
    const c = joined[places.of[i + 2] as number] as number;
    if (a === b || b === c || c === a) continue;
    triangles[kept] = a;
    triangles[kept + 1] = b;
    triangles[kept + 2] = c;
    from[kept / 3] = i / 3;
    kept += 3;
  }
  const mesh: Mesh = { positions: places.points, triangles: kept < count ? triangles.slice(0, kept) : triangles };
  return {
    mesh: kept < count || isAny ? pruned(mesh) : mesh,
    collapsed: (count - kept) / 3,
    from: kept < count ? from.slice(0, kept / 3) : from,
  };
}

/** A mesh's triangles, each with corners of its own again. */
export function soupOf({ positions, triangles }: Mesh): Soup {
  const soup = new Float64Array(3 * triangles.length);
  for (let i = 0; i < triangles.length; i++) {
    const at = 3 * (triangles[i] as number);
    soup[3 * i] = positions[at] as number;
    soup[3 * i + 1] = positions[at + 1] as number;
    soup[3 * i + 2] = positions[at + 2] as number;
  }
  return soup;
}
