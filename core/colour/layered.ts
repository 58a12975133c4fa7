import type { Place } from '../plan/layers.ts';
import type { Chords, Look } from '../shape/chords.ts';
import { layerOver, type Optics, type Rgb } from './light.ts';

/** A melt with its place in a bait and its share of it, 0 to 1. */
export interface Part {
  place: Place;
  share: number;
  optics: Optics;
}

/** So much of one part behind a point; the nearest to the eye first. */
export interface Piece {
  part: number;
  mm: number;
}

/** From the belly up; what is not among them lies within, at an end, or is set into the skin. */
export const STACKED: readonly Place[] = ['whole', 'belly', 'side', 'swirl', 'back'];
/**
 * Set into the skin, where they usually sit: along the side from the head back, over the back, and on the head, as shares of the
 * length and of the height there. Of both sides, one is seen.
 */
const IN_THE_SKIN = {
  spots: { along: [0.28, 0.37, 0.46, 0.55, 0.64, 0.73], high: 0.62 },
  eyes: { along: [0.07], high: 0.6 },
  stripes: { along: [0.3, 0.4, 0.5, 0.6, 0.7], high: 0.92, low: 0.5 },
} as const satisfies Partial<Record<Place, { along: readonly number[]; high: number; low?: number }>>;

/** What of a bait lies under a height, 0 to 1; the height over the lowest point, as a share of all of it. Seen from the side. */
export function shareUnder({ columns, rows, thickMm }: Chords, height: number): number {
  let [under, total] = [0, 0];
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let x = 0; x < columns; x++) sum += thickMm[row * columns + x] as number;
    total += sum;
    // Rows run down; the one that the level cuts counts in part.
    under += sum * Math.min(1, Math.max(0, height * rows - (rows - row - 1)));
  }
  return total > 0 ? under / total : 0;
}

/** What of a bait lies within this picture, mL. */
export const filledMl = ({ thickMm, cellMm }: Chords): number =>
  (thickMm.reduce((sum, mm) => sum + mm, 0) * cellMm * cellMm) / 1000;

/** Where the parts of a bait meet: levels over its middle between those that lie on each other, and where its tail begins. */
/** Whether it is set into the skin, at places that nobody tells. */
export const isInSkin = (place: Place): place is keyof typeof IN_THE_SKIN => place in IN_THE_SKIN;

export interface Seams {
  /** Parts from the belly up, each with the level that it ends at, mm over the middle. */
  stack: { part: number; toMm: number }[];
  /** From a column of the picture on, and from a share of its length. */
  tail: { part: number; fromColumn: number; fromShare: number } | null;
  core: { part: number; wide: number } | null;
  /** Set into the skin of the side that is seen, mm of the picture: half balls, or half rods from one height down to another. */
  skin: { part: number; radiusMm: number; at: { xMm: number; yMm: number; toMm: number }[] }[];
}

/** The level under which a share lies, mm over the middle of its height: halved until it is known. */
function levelOf(side: Chords, share: number): number {
  let [low, high] = [0, 1];
  for (let n = 0; n < 40; n++) {
    const middle = (low + high) / 2;
    if (shareUnder(side, middle) < share) low = middle;
    else high = middle;
  }
  return (low - 0.5) * side.rows * side.cellMm;
}

/** The column from which on a share of the bait lies towards the tail. */
function tailFrom({ columns, rows, thickMm }: Chords, share: number): number {
  const sums = Array.from({ length: columns }, (_, x) => {
    let sum = 0;
    for (let row = 0; row < rows; row++) sum += thickMm[row * columns + x] as number;
    return sum;
  });
  const total = sums.reduce((a, b) => a + b, 0);
  let left = share * total;
  for (let x = columns - 1; x >= 0; x--) {
    left -= sums[x] as number;
    if (left <= 0) return x;
  }
  return 0;
}

/** What is set into the skin: half balls or half rods, all alike, on both sides of the bait. Where the shape has no such place there is none. */
function skinOf(parts: Part[], side: Chords): Seams['skin'] {
  const { columns, rows, cellMm, thickMm } = side;
  return parts.flatMap(({ place, share }, part) => {
    if (!isInSkin(place)) return [];
    const { along, high, low = high }: { along: readonly number[]; high: number; low?: number } = IN_THE_SKIN[place];
    const sideMm3 = (1000 * share * filledMl(side)) / 2;
    const at = along.flatMap((one) => {
      const column = Math.min(columns - 1, Math.floor(one * columns));
      let [top, bottom] = [-1, -1];
      for (let row = 0; row < rows; row++)
        if ((thickMm[row * columns + column] as number) > 0) {
          if (top < 0) top = row;
          bottom = row;
        }
      const yMm = (up: number) => (bottom - up * (bottom - top)) * cellMm;
      return top < 0 ? [] : [{ xMm: column * cellMm, yMm: yMm(high), toMm: yMm(low) }];
    });
    const longMm = at.reduce((sum, { yMm, toMm }) => sum + toMm - yMm, 0);
    const radiusMm =
      longMm > 0
        ? Math.sqrt((2 * sideMm3) / (Math.PI * longMm))
        : Math.cbrt((3 * sideMm3) / along.length / (2 * Math.PI));
    return [{ part, radiusMm, at }];
  });
}

const tailOf = (part: number, fromColumn: number, { columns }: Chords) => ({
  part,
  fromColumn,
  fromShare: fromColumn / columns,
});

/** @param side the bait seen from the side: its shape says how high so much of it reaches. */
export function seamsOf(parts: Part[], side: Chords): Seams {
  const at = (places: readonly Place[]) => parts.flatMap(({ place }, part) => (places.includes(place) ? [part] : []));
  const stacked = at(STACKED).sort(
    (a, b) => STACKED.indexOf((parts[a] as Part).place) - STACKED.indexOf((parts[b] as Part).place),
  );
  const whole = stacked.reduce((sum, part) => sum + (parts[part] as Part).share, 0) || 1;
  let filled = 0;
  const stack = stacked.map((part) => {
    filled += (parts[part] as Part).share / whole;
    return { part, toMm: filled > 1 - 1e-9 ? Number.POSITIVE_INFINITY : levelOf(side, filled) };
  });
  const [tail] = at(['tail']);
  const [core] = at(['core']);
  return {
    stack,
    tail: tail === undefined ? null : tailOf(tail, tailFrom(side, (parts[tail] as Part).share), side),
    // A core is as long as the bait: what it takes of a section is its width squared.
    core: core === undefined ? null : { part: core, wide: Math.sqrt((parts[core] as Part).share) },
    skin: skinOf(parts, side),
  };
}

/** A core stands in the middle of whatever is seen: half of what is round it before it, half behind. */
export function withCore(pieces: Piece[], core: Seams['core']): Piece[] {
  if (!core) return pieces;
  const total = pieces.reduce((sum, { mm }) => sum + mm, 0);
  const [from, to] = [(total * (1 - core.wide)) / 2, (total * (1 + core.wide)) / 2];
  let at = 0;
  const [before, after]: [Piece[], Piece[]] = [[], []];
  for (const { part, mm } of pieces) {
    const end = at + mm;
    if (at < from) before.push({ part, mm: Math.min(end, from) - at });
    if (end > to) after.push({ part, mm: end - Math.max(at, to) });
    at = end;
  }
  return [...before, { part: core.part, mm: to - from }, ...after];
}

/** The parts behind one point of a picture, the nearest to the eye first. */
export function piecesAt(chords: Chords, look: Look, seams: Seams, index: number): Piece[] {
  const deep = piecesUnder(chords, look, seams, index);
  return look === 'side' ? withSkin(deep, chords, seams.skin, index) : deep;
}

/** It lies as deep in the skin as its half ball or rod is there; what it fills is taken off what lies under it. */
function withSkin(pieces: Piece[], { columns, cellMm }: Chords, skin: Seams['skin'], index: number): Piece[] {
  const [x, y] = [(index % columns) * cellMm, Math.floor(index / columns) * cellMm];
  for (const { part, radiusMm, at } of skin)
    for (const { xMm, yMm, toMm } of at) {
      const isRod = toMm > yMm;
      if (isRod && (y < yMm || y >= toMm)) continue;
      const off = (x - xMm) ** 2 + (isRod ? 0 : (y - yMm) ** 2);
      if (off >= radiusMm ** 2) continue;
      const total = pieces.reduce((sum, { mm }) => sum + mm, 0);
      const drop = Math.min(total, Math.sqrt(radiusMm ** 2 - off));
      let gone = drop;
      const rest = pieces.flatMap(({ part: under, mm }) => {
        const left = Math.max(0, mm - gone);
        gone = Math.max(0, gone - mm);
        return left > 0 ? [{ part: under, mm: left }] : [];
      });
      return [{ part, mm: drop }, ...rest];
    }
  return pieces;
}

function piecesUnder(chords: Chords, look: Look, { stack, tail, core }: Seams, index: number): Piece[] {
  const mm = chords.thickMm[index] as number;
  if (mm <= 0) return [];
  const column = index % chords.columns;
  if (tail && column >= tail.fromColumn) return [{ part: tail.part, mm }];
  if (look === 'side') {
    const row = Math.floor(index / chords.columns);
    const height = (chords.rows / 2 - row - 0.5) * chords.cellMm;
    const layer = stack.find(({ toMm }) => height < toMm) ?? stack.at(-1);
    return layer ? withCore([{ part: layer.part, mm }], core) : [];
  }
  // From above: from its top down to its bottom, through every level.
  const top = chords.nearMm[index] as number;
  const bottom = top - mm;
  const pieces: Piece[] = [];
  for (let i = stack.length - 1, high = top; i >= 0; i--) {
    const low = Math.max(bottom, i === 0 ? bottom : (stack[i - 1]?.toMm ?? bottom));
    if (low < high) pieces.push({ part: (stack[i] as Seams['stack'][number]).part, mm: high - low });
    high = Math.min(high, low);
  }
  return withCore(pieces, core);
}

/** What is seen through all of them: each is the ground of the one before it. */
export const throughAll = (pieces: Piece[], parts: Part[], ground: Rgb): Rgb =>
  pieces.reduceRight<Rgb>((under, { part, mm }) => layerOver((parts[part] as Part).optics, mm, under), ground);
