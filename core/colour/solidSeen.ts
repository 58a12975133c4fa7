import type { Inward } from '../shape/inward.ts';
import type { Section } from '../shape/section.ts';
import { type Part, type Piece, type Seams, throughAll, withCore } from './layered.ts';
import type { Rgb } from './light.ts';

/** The part that lies at a height over the bait's middle, mm, at a share of its length; the core left out. */
function partAt({ stack, tail }: Seams, along: number, highMm: number): number {
  if (tail && along >= tail.fromShare) return tail.part;
  return (stack.find(({ toMm }) => highMm < toMm) ?? stack.at(-1))?.part ?? 0;
}

/** Looks along a line of plastic so many times. */
const STEPS = 24;

/** The parts behind a place of the skin, square to it, the outermost first. */
function piecesBehind(seams: Seams, { mm, along, high, rise }: Inward, i: number): Piece[] {
  const deep = mm[i] as number;
  const pieces: Piece[] = [];
  for (let step = 0; step < STEPS; step++) {
    const at = ((step + 0.5) / STEPS) * deep;
    const part = partAt(seams, along[i] as number, (high[i] as number) + at * (rise[i] as number));
    const last = pieces.at(-1);
    if (last?.part === part) last.mm += deep / STEPS;
    else pieces.push({ part, mm: deep / STEPS });
  }
  const isTail = seams.tail !== null && (along[i] as number) >= seams.tail.fromShare;
  return isTail ? pieces : withCore(pieces, seams.core);
}

/**
 * What each triangle of a bait shows of its melts, over a ground behind it: linear light, three numbers a triangle.
 * A pearl belly shines through a thin back, since what lies deeper is the ground of what lies over it.
 */
export function tintsOf(inward: Inward, parts: Part[], seams: Seams, ground: Rgb): Float32Array {
  const tints = new Float32Array(3 * inward.mm.length);
  for (let i = 0; i < inward.mm.length; i++)
    tints.set(throughAll(piecesBehind(seams, inward, i), parts, ground), 3 * i);
  return tints;
}

/** Which part lies in each cell of a section; −1 where there is no plastic. */
export function partsIn({ at, columns, rows, cellMm, topMm, inside }: Section, seams: Seams): Int8Array {
  const parts = new Int8Array(inside.length).fill(-1);
  const isTail = seams.tail !== null && at >= seams.tail.fromShare;
  // A core is a rod through the middle of what is cut, as wide and as tall as its share of it.
  const box = { left: columns, right: -1, top: rows, bottom: -1 };
  for (let i = 0; i < inside.length; i++) {
    if (!inside[i]) continue;
    const [column, row] = [i % columns, Math.floor(i / columns)];
    parts[i] = partAt(seams, at, topMm - row * cellMm);
    box.left = Math.min(box.left, column);
    box.right = Math.max(box.right, column);
    box.top = Math.min(box.top, row);
    box.bottom = Math.max(box.bottom, row);
  }
  if (!seams.core || isTail) return parts;
  const [cx, cy] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  const [rx, ry] = [((box.right - box.left) / 2) * seams.core.wide, ((box.bottom - box.top) / 2) * seams.core.wide];
  for (let i = 0; i < parts.length; i++) {
    const [x, y] = [((i % columns) - cx) / (rx || 1), (Math.floor(i / columns) - cy) / (ry || 1)];
    if (inside[i] && x * x + y * y <= 1) parts[i] = seams.core.part;
  }
  return parts;
}

/** How thick each part is down the middle of a section, mm, by part; what is not there is not among them. */
export function thickAtMiddle({ columns, rows, cellMm, inside }: Section, parts: Int8Array): Map<number, number> {
  // The middle is where most plastic stands over each other: a body that is not drawn in the middle of its box is cut there too.
  const heightOf = (column: number) => {
    let n = 0;
    for (let row = 0; row < rows; row++) n += inside[row * columns + column] as number;
    return n;
  };
  const columnsBy = Array.from({ length: columns }, (_, column) => column).sort(
    (a, b) => heightOf(b) - heightOf(a) || Math.abs(a - columns / 2) - Math.abs(b - columns / 2),
  );
  const middle = columnsBy[0] ?? 0;
  const thick = new Map<number, number>();
  for (let row = 0; row < rows; row++) {
    const part = parts[row * columns + middle] as number;
    if (part >= 0) thick.set(part, (thick.get(part) ?? 0) + cellMm);
  }
  return thick;
}
