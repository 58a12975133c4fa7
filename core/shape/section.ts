import { boundsOf, type Mesh } from './mesh.ts';

/** A bait cut square across its length, cell by cell from the top, its left side left: seen from the nose. */
export interface Section {
  /** Where along the length, 0 at the nose, 1 at the tail. */
  at: number;
  columns: number;
  rows: number;
  cellMm: number;
  /** Height of the middle of the first row over the middle of the bait's whole height, mm. */
  topMm: number;
  /** 1 where there is plastic. */
  inside: Uint8Array;
}

/** Cells lie a hair off the grid, so that no corner of a drawn mesh falls on a line of them. */
const OFF = 1.7e-4;

/** Where triangles cross the plane x, as pieces of its outline: y and z of both ends, mm. */
function outlineAt({ positions: p, triangles: t }: Mesh, x: number): number[] {
  const ends: number[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const cuts: [number, number][] = [];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [3 * (t[i + k] as number), 3 * (t[i + ((k + 1) % 3)] as number)];
      const [ax, bx] = [(p[a] as number) - x, (p[b] as number) - x];
      if (ax < 0 === bx < 0) continue;
      const share = ax / (ax - bx);
      cuts.push([
        (p[a + 1] as number) + share * ((p[b + 1] as number) - (p[a + 1] as number)),
        (p[a + 2] as number) + share * ((p[b + 2] as number) - (p[a + 2] as number)),
      ]);
    }
    const [one, other] = cuts;
    if (one && other) ends.push(...one, ...other);
  }
  return ends;
}

/**
 * A bait cut across at a share of its length.
 * @param mesh closed, mm. @param at 0 (nose) to 1 (tail). @param cells along the larger side of the bait's own section.
 * Source: even–odd rule along each row.
 */
export function sectionAt(mesh: Mesh, at: number, cells: number): Section {
  const { min, max } = boundsOf(mesh.positions);
  const [wide, tall] = [max[1] - min[1], max[2] - min[2]];
  const cellMm = Math.max(wide, tall, 1e-6) / cells;
  const [columns, rows] = [Math.max(1, Math.ceil(wide / cellMm)), Math.max(1, Math.ceil(tall / cellMm))];
  const ends = outlineAt(mesh, min[0] + Math.min(1 - 1e-6, Math.max(1e-6, at)) * (max[0] - min[0]));
  const inside = new Uint8Array(columns * rows);
  const topMm = (max[2] - min[2]) / 2 - cellMm / 2;
  for (let row = 0; row < rows; row++) {
    const z = max[2] - (row + 0.5 + OFF) * cellMm;
    const crossed: number[] = [];
    for (let i = 0; i < ends.length; i += 4) {
      const [ay, az, by, bz] = ends.slice(i, i + 4) as [number, number, number, number];
      if (az < z === bz < z) continue;
      crossed.push(ay + ((z - az) / (bz - az)) * (by - ay));
    }
    crossed.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossed.length; i += 2) {
      const from = Math.ceil(((crossed[i] as number) - min[1]) / cellMm - 0.5);
      const to = Math.floor(((crossed[i + 1] as number) - min[1]) / cellMm - 0.5);
      for (let column = Math.max(0, from); column <= Math.min(columns - 1, to); column++)
        inside[row * columns + column] = 1;
    }
  }
  return { at, columns, rows, cellMm, topMm, inside };
}
