import type { Mesh } from '../../core/shape/mesh.ts';

/** What a solid covers seen along an axis: a picture that is opaque where it is, laid out as the screen draws it. */
export interface Shadow {
  columns: number;
  rows: number;
  cellMm: number;
  /** Left edge along x, mm. */
  leftMm: number;
  /** Top edge along the other axis, mm. */
  topMm: number;
  pixels: Uint8ClampedArray<ArrayBuffer>;
}

/** Cells along the length at most: about two a pixel of a wide screen. */
const MOST_COLUMNS = 1000;
const LEAST_CELL_MM = 0.08;

/**
 * @param down which axis runs across the picture: 2 seen from the side, 1 from above.
 * @param up 1 where that axis runs up the picture, −1 where it runs down.
 */
export function shadowOf({ positions: p, triangles: t }: Mesh, down: 1 | 2, up: 1 | -1): Shadow {
  let [lowX, highX] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let [lowY, highY] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < p.length; i += 3) {
    const x = p[i] as number;
    const y = -up * (p[i + down] as number);
    if (x < lowX) lowX = x;
    if (x > highX) highX = x;
    if (y < lowY) lowY = y;
    if (y > highY) highY = y;
  }
  const cellMm = Math.max(LEAST_CELL_MM, (highX - lowX) / MOST_COLUMNS);
  const columns = Math.ceil((highX - lowX) / cellMm) + 2;
  const rows = Math.ceil((highY - lowY) / cellMm) + 2;
  const [leftMm, firstMm] = [lowX - cellMm, lowY - cellMm];
  const pixels = new Uint8ClampedArray(4 * columns * rows);
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * (t[i] as number), 3 * (t[i + 1] as number), 3 * (t[i + 2] as number)];
    const ax = ((p[a] as number) - leftMm) / cellMm - 0.5;
    const bx = ((p[b] as number) - leftMm) / cellMm - 0.5;
    const cx = ((p[c] as number) - leftMm) / cellMm - 0.5;
    const ay = (-up * (p[a + down] as number) - firstMm) / cellMm - 0.5;
    const by = (-up * (p[b + down] as number) - firstMm) / cellMm - 0.5;
    const cy = (-up * (p[c + down] as number) - firstMm) / cellMm - 0.5;
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    // Of a closed solid the faces toward the eye cover all that it covers.
    if (!(area > 1e-9)) continue;
    const toY = Math.floor(Math.max(ay, by, cy));
    for (let y = Math.ceil(Math.min(ay, by, cy)); y <= toY; y++) {
      // Where this row enters and leaves the triangle.
      let [from, to] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
      const meet = (x0: number, y0: number, x1: number, y1: number) => {
        if (y < Math.min(y0, y1) || y > Math.max(y0, y1)) return;
        const x = y0 === y1 ? x0 : x0 + ((x1 - x0) * (y - y0)) / (y1 - y0);
        if (x < from) from = x;
        if (x > to) to = x;
      };
      meet(ax, ay, bx, by);
      meet(bx, by, cx, cy);
      meet(cx, cy, ax, ay);
      for (let x = Math.ceil(from - 1e-6); x <= to + 1e-6; x++) pixels[4 * (y * columns + x) + 3] = 255;
    }
  }
  return { columns, rows, cellMm, leftMm, topMm: -up * firstMm, pixels };
}
