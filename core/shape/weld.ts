import { type Mesh, pruned, type Soup, WELD_MM } from './mesh.ts';

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
 * Joins corners that lie within `weldMm` of each other. What a place was joined to once it stays joined to, whatever comes
 * nearer later: else one corner of two triangles could become two, and a closed mesh would open.
 * Corners sit in a grid of cells; a neighbouring cell is looked into only from near its border.
 */
export function weld(soup: Soup, weldMm = WELD_MM): Welded {
  const count = soup.length / 3;
  const cell = Math.max(2 * weldMm, CELL_MM);
  const border = weldMm / cell;
  let size = 1;
  // In a closed mesh six corners meet in one.
  while (size < count / 3) size *= 2;
  const mask = size - 1;
  const heads = new Int32Array(size).fill(-1);
  const next = new Int32Array(count);
  const points = new Float64Array(soup.length);
  /** Which place each known place was joined to: itself, or an earlier one. */
  const joined = new Uint32Array(count);
  const near = weldMm * weldMm;
  let used = 0;
  let drawnTogether = false;

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
    const [sx, sy, sz] = [side(x / cell - cx), side(y / cell - cy), side(z / cell - cz)];
    if (!(sx || sy || sz)) return -1;
    for (let way = 1; way < 8; way++) {
      if ((way & 1 && !sx) || (way & 2 && !sy) || (way & 4 && !sz)) continue;
      const found = find(cx + (way & 1 ? sx : 0), cy + (way & 2 ? sy : 0), cz + (way & 4 ? sz : 0), x, y, z);
      if (found >= 0) return found;
    }
    return -1;
  };

  const triangles = new Uint32Array(count);
  const from = new Uint32Array(count / 3);
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const x = soup[3 * i] as number;
    const y = soup[3 * i + 1] as number;
    const z = soup[3 * i + 2] as number;
    const cx = Math.floor(x / cell);
    const cy = Math.floor(y / cell);
    const cz = Math.floor(z / cell);
    const slot = hash(cx, cy, cz) & mask;
    let found = -1;
    let known = false;
    for (let at = heads[slot] as number; at >= 0; at = next[at] as number) {
      const dx = (points[3 * at] as number) - x;
      const dy = (points[3 * at + 1] as number) - y;
      const dz = (points[3 * at + 2] as number) - z;
      const apart = dx * dx + dy * dy + dz * dz;
      if (apart === 0) {
        found = joined[at] as number;
        known = true;
        break;
      }
      if (found < 0 && apart <= near && joined[at] === at) found = at;
    }
    if (!known) {
      if (found < 0) found = beside(cx, cy, cz, x, y, z);
      points[3 * used] = x;
      points[3 * used + 1] = y;
      points[3 * used + 2] = z;
      next[used] = heads[slot] as number;
      heads[slot] = used;
      joined[used] = found < 0 ? used : found;
      drawnTogether ||= found >= 0;
      found = joined[used] as number;
      used++;
    }
    triangles[kept++] = found;
    if (i % 3 < 2) continue;
    const [a, b, c] = [triangles[kept - 3], triangles[kept - 2], triangles[kept - 1]];
    if (a === b || b === c || c === a) kept -= 3;
    else from[kept / 3 - 1] = (i - 2) / 3;
  }
  const mesh: Mesh = { positions: points.slice(0, 3 * used), triangles: triangles.slice(0, kept) };
  return {
    mesh: kept < count || drawnTogether ? pruned(mesh) : mesh,
    collapsed: (count - kept) / 3,
    from: from.slice(0, kept / 3),
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
