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

/** Black that hides what is under it, in the order in which bytes lie in memory. */
const OPAQUE = 0xff000000;
const LEAST_CELL_MM = 0.08;

/**
 * @param down which axis runs across the picture: 2 seen from the side, 1 from above.
 * @param most cells along the length at most.
 * @param up 1 where that axis runs up the picture, −1 where it runs down.
 */
export function shadowOf({ positions: p, triangles: t }: Mesh, down: 1 | 2, up: 1 | -1, most: number): Shadow {
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
  const cellMm = Math.max(LEAST_CELL_MM, (highX - lowX) / most);
  const columns = Math.ceil((highX - lowX) / cellMm) + 2;
  const rows = Math.ceil((highY - lowY) / cellMm) + 2;
  const [leftMm, firstMm] = [lowX - cellMm, lowY - cellMm];
  const pixels = new Uint8ClampedArray(4 * columns * rows);
  const covered = new Uint32Array(pixels.buffer);
  for (let i = 0; i < t.length; i += 3) {
    const a = 3 * (t[i] as number);
    const b = 3 * (t[i + 1] as number);
    const c = 3 * (t[i + 2] as number);
    let ax = ((p[a] as number) - leftMm) / cellMm - 0.5;
    let bx = ((p[b] as number) - leftMm) / cellMm - 0.5;
    let cx = ((p[c] as number) - leftMm) / cellMm - 0.5;
    let ay = (-up * (p[a + down] as number) - firstMm) / cellMm - 0.5;
    let by = (-up * (p[b + down] as number) - firstMm) / cellMm - 0.5;
    let cy = (-up * (p[c + down] as number) - firstMm) / cellMm - 0.5;
    // Of a closed solid the faces toward the eye cover all that it covers.
    if (!((bx - ax) * (cy - ay) - (cx - ax) * (by - ay) > 1e-9)) continue;
    if (ay > by) [ax, ay, bx, by] = [bx, by, ax, ay];
    if (by > cy) [bx, by, cx, cy] = [cx, cy, bx, by];
    if (ay > by) [ax, ay, bx, by] = [bx, by, ax, ay];
    const last = Math.floor(cy);
    for (let y = Math.ceil(ay); y <= last; y++) {
      const long = cy > ay ? ax + ((cx - ax) * (y - ay)) / (cy - ay) : ax;
      const short =
        y < by || cy === by
          ? by > ay
            ? ax + ((bx - ax) * (y - ay)) / (by - ay)
            : bx
          : bx + ((cx - bx) * (y - by)) / (cy - by);
      const to = y * columns + Math.floor(Math.max(long, short) + 1e-6);
      for (let at = y * columns + Math.ceil(Math.min(long, short) - 1e-6); at <= to; at++) covered[at] = OPAQUE;
    }
  }
  return { columns, rows, cellMm, leftMm, topMm: -up * firstMm, pixels };
}

/** A shadow as the screen takes it: a picture, made here. */
export interface Pictured extends Omit<Shadow, 'pixels'> {
  picture: ImageBitmap;
}

export async function pictured({ pixels, ...shadow }: Shadow): Promise<Pictured> {
  return { ...shadow, picture: await createImageBitmap(new ImageData(pixels, shadow.columns, shadow.rows)) };
}
