import { type Mesh, pruned, type Soup, WELD_MM } from './mesh.ts';

export interface Welded {
  mesh: Mesh;
  /** Triangles left out because two of their corners became one. */
  collapsed: number;
}

const hash = (x: number, y: number, z: number) =>
  (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) >>> 0;

/**
 * Joins corners that lie within `weldMm` of each other.
 * Corners sit in a grid of cells sixteen times as wide; a neighbouring cell is looked into only near its border.
 */
export function weld(soup: Soup, weldMm = WELD_MM): Welded {
  const count = soup.length / 3;
  const cell = 16 * weldMm;
  let size = 1;
  while (size < count) size *= 2;
  const heads = new Int32Array(size).fill(-1);
  const next = new Int32Array(count);
  const points = new Float64Array(soup.length);
  const near = weldMm * weldMm;
  let used = 0;

  const find = (cx: number, cy: number, cz: number, x: number, y: number, z: number): number => {
    for (let at = heads[hash(cx, cy, cz) & (size - 1)] as number; at >= 0; at = next[at] as number) {
      const dx = (points[3 * at] as number) - x;
      const dy = (points[3 * at + 1] as number) - y;
      const dz = (points[3 * at + 2] as number) - z;
      if (dx * dx + dy * dy + dz * dz <= near) return at;
    }
    return -1;
  };
  /** −1, 0 or +1: whether a value this far into its cell is near the cell before or after. */
  const side = (into: number) => (into < 1 / 16 ? -1 : into > 15 / 16 ? 1 : 0);

  const join = (x: number, y: number, z: number): number => {
    const [fx, fy, fz] = [x / cell, y / cell, z / cell];
    const [cx, cy, cz] = [Math.floor(fx), Math.floor(fy), Math.floor(fz)];
    let found = find(cx, cy, cz, x, y, z);
    if (found >= 0) return found;
    const [sx, sy, sz] = [side(fx - cx), side(fy - cy), side(fz - cz)];
    if (sx || sy || sz) {
      for (let mask = 1; mask < 8; mask++) {
        const [ox, oy, oz] = [mask & 1 ? sx : 0, mask & 2 ? sy : 0, mask & 4 ? sz : 0];
        if ((mask & 1 && !sx) || (mask & 2 && !sy) || (mask & 4 && !sz)) continue;
        found = find(cx + ox, cy + oy, cz + oz, x, y, z);
        if (found >= 0) return found;
      }
    }
    const slot = hash(cx, cy, cz) & (size - 1);
    points[3 * used] = x;
    points[3 * used + 1] = y;
    points[3 * used + 2] = z;
    next[used] = heads[slot] as number;
    heads[slot] = used;
    return used++;
  };

  const triangles = new Uint32Array(count);
  let kept = 0;
  for (let i = 0; i < soup.length; i += 9) {
    const a = join(soup[i] as number, soup[i + 1] as number, soup[i + 2] as number);
    const b = join(soup[i + 3] as number, soup[i + 4] as number, soup[i + 5] as number);
    const c = join(soup[i + 6] as number, soup[i + 7] as number, soup[i + 8] as number);
    if (a === b || b === c || c === a) continue;
    triangles[kept++] = a;
    triangles[kept++] = b;
    triangles[kept++] = c;
  }
  const mesh: Mesh = { positions: points.slice(0, 3 * used), triangles: triangles.slice(0, kept) };
  return { mesh: kept < count ? pruned(mesh) : mesh, collapsed: (count - kept) / 3 };
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
