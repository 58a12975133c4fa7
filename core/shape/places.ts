import type { Soup } from './mesh.ts';

/** Triangles whose corners are told by the places they lie in, each place once. */
export interface Places {
  /** x, y, z of each place, mm, in the order in which corners first lie there. */
  points: Float64Array;
  /** For each corner of each triangle, its place. */
  of: Uint32Array;
}

/** The least power of two that is at least this. */
export function roomFor(count: number): number {
  let size = 1;
  while (size < count) size *= 2;
  return size;
}

/** Where the corners of triangles lie in memory: `size` bytes each, three in a row, triangles `stride` bytes apart. */
export interface Rows {
  view: DataView;
  from: number;
  stride: number;
  /** Three numbers of single or of double precision. */
  size: 12 | 24;
  triangles: number;
}

/** A number's bits as one word: all of them in single precision, a mixture of both halves in double. */
const wordAt = (view: DataView, at: number, isDouble: boolean) =>
  isDouble ? view.getInt32(at, true) ^ Math.imul(view.getInt32(at + 4, true), 0x27d4eb2f) : view.getInt32(at, true);

/**
 * Which corners are the same to the last bit: in a closed mesh five of six, so that only the sixth is worked with. Nothing is
 * copied to tell: fresh memory costs a large file more than the looking.
 * @returns for each corner its place, and for each place where its first corner lies.
 */
function sameCorners({ view, from, stride, size, triangles }: Rows): { of: Uint32Array; first: Uint32Array } {
  const corners = 3 * triangles;
  const isDouble = size === 24;
  const step = size / 3;
  const mask = roomFor(triangles) - 1;
  const heads = new Int32Array(mask + 1).fill(-1);
  const next = new Int32Array(corners);
  const first = new Uint32Array(corners);
  const of = new Uint32Array(corners);
  let count = 0;
  for (let i = 0, row = from; i < corners; row += stride) {
    for (let here = row; here < row + 3 * size; here += size, i++) {
      const x = wordAt(view, here, isDouble);
      const y = wordAt(view, here + step, isDouble);
      const z = wordAt(view, here + 2 * step, isDouble);
      const mixed = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);
      const slot = (mixed ^ (mixed >>> 15)) & mask;
      let place = heads[slot] as number;
      for (; place >= 0; place = next[place] as number) {
        const there = first[place] as number;
        if (
          wordAt(view, there, isDouble) === x &&
          wordAt(view, there + step, isDouble) === y &&
          wordAt(view, there + 2 * step, isDouble) === z &&
          (!isDouble || isSameAt(view, there, here))
        )
          break;
      }
      if (place < 0) {
        place = count++;
        first[place] = here;
        next[place] = heads[slot] as number;
        heads[slot] = place;
      }
      of[i] = place;
    }
  }
  return { of, first: first.slice(0, count) };
}

/** Whether three doubles are the same bits here and there. */
function isSameAt(view: DataView, there: number, here: number): boolean {
  for (let k = 0; k < 24; k += 4) if (view.getInt32(there + k, true) !== view.getInt32(here + k, true)) return false;
  return true;
}

/** Each place of the corners once. @param scale what one step of the numbers is, mm. */
export function placesIn(rows: Rows, scale = 1): Places {
  const { of, first } = sameCorners(rows);
  const { view, size } = rows;
  const points = new Float64Array(3 * first.length);
  const step = size / 3;
  for (let place = 0; place < first.length; place++) {
    const at = first[place] as number;
    for (let axis = 0; axis < 3; axis++) {
      const number = at + axis * step;
      points[3 * place + axis] = scale * (step === 4 ? view.getFloat32(number, true) : view.getFloat64(number, true));
    }
  }
  return { of, points };
}

export const placesOf = (soup: Soup, scale = 1): Places =>
  placesIn(
    {
      view: new DataView(soup.buffer, soup.byteOffset, soup.byteLength),
      from: 0,
      stride: 72,
      size: 24,
      triangles: soup.length / 9,
    },
    scale,
  );
