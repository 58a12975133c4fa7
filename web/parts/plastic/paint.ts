import { flakesIn } from '../../../core/colour/flakes.ts';
import { flakeSeen, type Melt } from '../../../core/colour/foresee.ts';
import { litBy } from '../../../core/colour/grounds.ts';
import { type Part, piecesAt, type Seams, throughAll } from '../../../core/colour/layered.ts';
import { layerOver, linearOf, luminance, type Rgb } from '../../../core/colour/light.ts';
import type { Chords, Look } from '../../../core/shape/chords.ts';

/** What a melt is looked at over, and in which light. */
export interface Ground {
  linear: Rgb;
  light: Rgb;
}

/** Steps of the table of colours by thickness. */
const STEPS = 128;
/** More flakes than this are not told apart on a screen. */
const MOST_FLAKES = 9000;
/** Less light than this of a flake is not seen. */
const UNSEEN = 0.05;

/** Linear light to a byte of sRGB: 4096 steps, made once. Source: IEC 61966-2-1. */
const BYTES = Uint8ClampedArray.from({ length: 4096 }, (_, i) => {
  const v = i / 4095;
  return Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055));
});
const byte = (linear: number) => BYTES[Math.max(0, Math.min(4095, Math.round(linear * 4095)))] as number;

/** The same dots each time: only what is dosed moves them. */
function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

/** The melt at each of many thicknesses up to the most, over the ground: worked out once a painting. */
function tableOf(melt: Melt, ground: Ground, mostMm: number): Rgb[] {
  return Array.from({ length: STEPS + 1 }, (_, i) => layerOver(melt.optics, (mostMm * i) / STEPS, ground.linear));
}

const plot = (pixels: Uint8ClampedArray, at: number, [r, g, b]: Rgb) => {
  pixels[4 * at] = byte(r);
  pixels[4 * at + 1] = byte(g);
  pixels[4 * at + 2] = byte(b);
  pixels[4 * at + 3] = 255;
};

/** Where light falls from, towards the eye: over the left shoulder. */
const LAMP = (() => {
  const [x, y, z] = [-0.42, -0.62, 0.66];
  const size = Math.hypot(x, y, z);
  return { x: x / size, y: y / size, z: z / size };
})();
const GLOSS = 0.32;
const SHEEN = 0.5;

/** How light falls on each point of a bait: what of its colour shows, what gloss adds to it, and what a pearl's sheen does. */
interface Shade {
  lean: number;
  bright: Float32Array;
  gloss: Float32Array;
  sheen: Float32Array;
}
/** It is the shape's and not the melt's: worked out once for each shape and lean. */
const shades = new WeakMap<Chords, Shade>();

function shadeOf(chords: Chords, lean: number): Shade {
  const known = shades.get(chords);
  if (known?.lean === lean) return known;
  const { columns, rows, cellMm, nearMm, thickMm } = chords;
  const made = () => new Float32Array(thickMm.length);
  const shade: Shade = { lean, bright: made(), gloss: made(), sheen: made() };
  const [leanX, leanZ] = [Math.sin(lean), Math.cos(lean) * 0.89];
  // Half way between the lamp and the eye.
  const half = Math.sqrt(2 * (1 + LAMP.z));
  for (let y = 0, at = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++, at++) {
      if (thickMm[at] === 0) continue;
      const rim = (nearMm[at] as number) - cellMm;
      const near = (cx: number, cy: number) => {
        const other = cy * columns + cx;
        return cx < 0 || cy < 0 || cx >= columns || cy >= rows || thickMm[other] === 0
          ? rim
          : (nearMm[other] as number);
      };
      const slopeX = (near(x - 2, y) - near(x + 2, y)) / (4 * cellMm);
      const slopeY = (near(x, y - 2) - near(x, y + 2)) / (4 * cellMm);
      const size = Math.sqrt(slopeX * slopeX + slopeY * slopeY + 1);
      const [nx, ny, nz] = [slopeX / size, slopeY / size, 1 / size];
      shade.bright[at] = 0.66 + 0.46 * Math.max(0, nx * LAMP.x + ny * LAMP.y + nz * LAMP.z);
      shade.gloss[at] = GLOSS * Math.max(0, (nx * LAMP.x + ny * LAMP.y + nz * (LAMP.z + 1)) / half) ** 48;
      shade.sheen[at] = SHEEN * Math.max(0, nx * leanX + ny * -0.45 + nz * leanZ) ** 9;
    }
  }
  shades.set(chords, shade);
  return shade;
}

/** A pearl’s sheen is lost in light that comes back from under it: over white it hardly shows, over dark it is strong. */
const pearlOver = (under: Rgb) => 1.25 - Math.min(1, luminance(under));

/** Lights a picture point by point. @param seenAt what the plastic shows there; null beside the bait. */
function lit(
  { data }: ImageData,
  chords: Chords,
  { light: [lightR, lightG, lightB] }: Ground,
  lean: number,
  pearl: number,
  seenAt: (index: number) => Rgb | null,
): void {
  const { bright, gloss, sheen } = shadeOf(chords, lean);
  for (let at = 0; at < bright.length; at++) {
    const colour = seenAt(at);
    if (!colour) continue;
    const b = bright[at] as number;
    const add = (gloss[at] as number) + pearl * pearlOver(colour) * (sheen[at] as number);
    data[4 * at] = byte((colour[0] * b + add) * lightR);
    data[4 * at + 1] = byte((colour[1] * b + add) * lightG);
    data[4 * at + 2] = byte((colour[2] * b + add) * lightB);
    data[4 * at + 3] = 255;
  }
}

/** A bait in its melt: each point as thick as it is, lit from the upper left, its flakes where they lie. */
export function paintBait(chords: Chords, melt: Melt, ground: Ground, lean: number): ImageData {
  const { columns, rows, thickMm } = chords;
  const image = new ImageData(columns, rows);
  const most = thickMm.reduce((a, b) => Math.max(a, b), 0) || 1;
  const table = tableOf(melt, ground, most);
  const seenAt = (index: number) =>
    table[Math.min(STEPS, Math.round(((thickMm[index] as number) / most) * STEPS))] as Rgb;
  lit(image, chords, ground, lean, melt.sheen, (at) => ((thickMm[at] as number) > 0 ? seenAt(at) : null));
  strewn(image, chords, ground, { melt, seed: 0, mm: thickMm, seenAt });
  return image;
}

/** A bait of several melts: behind each point the parts that lie there, each the ground of the one before it. */
export function paintLayered(
  chords: Chords,
  look: Look,
  { parts, melts, seams }: { parts: Part[]; melts: Melt[]; seams: Seams },
  ground: Ground,
): ImageData {
  const { columns, rows, thickMm } = chords;
  const image = new ImageData(columns, rows);
  const seen: (Rgb | null)[] = new Array(thickMm.length).fill(null);
  const mm = parts.map(() => new Float32Array(thickMm.length));
  const before = parts.map(() => new Float32Array(thickMm.length));
  for (let at = 0; at < thickMm.length; at++) {
    const pieces = piecesAt(chords, look, seams, at);
    if (pieces.length === 0) continue;
    seen[at] = throughAll(pieces, parts, ground.linear);
    let deep = 0;
    for (const piece of pieces) {
      const [own, over] = [mm[piece.part] as Float32Array, before[piece.part] as Float32Array];
      if (own[at] === 0) over[at] = deep;
      own[at] = (own[at] as number) + piece.mm;
      deep += piece.mm;
    }
  }
  const sheen = melts.reduce((most, melt) => Math.max(most, melt.sheen), 0);
  lit(image, chords, ground, 0.2, sheen, (at) => seen[at] ?? null);
  melts.forEach((melt, part) => {
    strewn(image, chords, ground, {
      melt,
      seed: part,
      mm: mm[part] as Float32Array,
      before: before[part] as Float32Array,
      seenAt: (at) => seen[at] as Rgb,
    });
  });
  return image;
}

interface Strewing {
  melt: Melt;
  seed: number;
  /** How much of this melt lies behind each point, and how much of others before it. */
  mm: Float32Array;
  before?: Float32Array;
  seenAt(index: number): Rgb;
}

/** Flakes anywhere in the plastic alike: more of them behind thick places, the deep ones veiled. */
function strewn(image: ImageData, chords: Chords, ground: Ground, { melt, seed, mm, before, seenAt }: Strewing): void {
  const { columns, cellMm } = chords;
  const sums = new Float64Array(mm.length);
  let total = 0;
  for (let i = 0; i < mm.length; i++) {
    total += mm[i] as number;
    sums[i] = total;
  }
  const totalMl = (total * cellMm ** 2) / 1000;
  melt.flakes.forEach((flake, nth) => {
    const next = dice(71 + 977 * nth + 131 * seed);
    const colour = linearOf(flake.hex);
    const { perMl } = flakesIn(flake);
    const count = Math.min(MOST_FLAKES, Math.round(perMl * totalMl));
    const half = flake.sizeMm / cellMm / 2;
    const { k, s } = melt.optics;
    const clearest = Math.min(k[0] + s[0], k[1] + s[1], k[2] + s[2]);
    for (let i = 0; i < count; i++) {
      const at = cellWith(sums, next() * total);
      const deep = next() * (mm[at] as number) + (before?.[at] ?? 0);
      // So deep that nothing of it comes back: it would only hide the light on the skin.
      if (Math.exp(-2 * clearest * deep) < UNSEEN) continue;
      // It lies any way: some glint, most are seen askew; what veils it stays as light as it is.
      const glint = 0.55 + 1.1 * next() ** 3;
      const own: Rgb = [colour[0] * glint, colour[1] * glint, colour[2] * glint];
      const shown = flakeSeen(own, melt.optics, deep, seenAt(at));
      const [wide, tall] = flake.cut === 'string' ? [half, half / 6] : [half, half * (0.35 + 0.65 * next())];
      const isUp = next() < 0.5;
      const spot: Spot = {
        at,
        x: at % columns,
        y: Math.floor(at / columns),
        wide: isUp ? tall : wide,
        tall: isUp ? wide : tall,
      };
      dab(image, chords, spot, litBy(shown, ground.light));
    }
  });
}

interface Spot {
  at: number;
  x: number;
  y: number;
  /** Half as wide and as tall as it is seen, points. */
  wide: number;
  tall: number;
}

function dab(
  { data }: ImageData,
  { columns, rows, thickMm }: Chords,
  { at, x, y, wide, tall }: Spot,
  colour: Rgb,
): void {
  // Smaller than a point it covers a part of one.
  const covers = 4 * wide * tall;
  if (covers < 1) {
    const share = Math.max(0.08, covers);
    for (let k = 0; k < 3; k++)
      data[4 * at + k] = Math.round((data[4 * at + k] as number) * (1 - share) + byte(colour[k] as number) * share);
    return;
  }
  const [dx, dy] = [Math.max(0, Math.round(wide - 0.5)), Math.max(0, Math.round(tall - 0.5))];
  for (let row = Math.max(0, y - dy); row <= Math.min(rows - 1, y + dy); row++)
    for (let column = Math.max(0, x - dx); column <= Math.min(columns - 1, x + dx); column++) {
      const here = row * columns + column;
      if ((thickMm[here] as number) > 0) plot(data, here, colour);
    }
}

/** The first cell whose running sum reaches this. */
function cellWith(sums: Float64Array, wanted: number): number {
  let [low, high] = [0, sums.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sums[middle] as number) < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Thinnest and thickest of a wedge, mm. */
export const WEDGE_MM = [1, 15] as const;
/** Points of a wedge a millimetre: flakes are as large on it as they are. */
const WEDGE_PER_MM = 5;

/** A wedge that is poured thin to thick, seen flat: thickness grows from left to right. */
export function paintWedge(melt: Melt, ground: Ground, columns: number, rows: number): ImageData {
  const image = new ImageData(columns, rows);
  const [thin, thick] = WEDGE_MM;
  const mmAt = (x: number) => thin + ((thick - thin) * (x + 0.5)) / columns;
  const line = Array.from({ length: columns }, (_, x) => layerOver(melt.optics, mmAt(x), ground.linear));
  for (let x = 0; x < columns; x++) plot(image.data, x, litBy(line[x] as Rgb, ground.light));
  // All rows are the first again.
  for (let y = 1; y < rows; y++) image.data.copyWithin(4 * y * columns, 0, 4 * columns);
  const thickMm = Float32Array.from({ length: columns * rows }, (_, i) => mmAt(i % columns));
  const flat: Chords = { columns, rows, cellMm: 1 / WEDGE_PER_MM, thickMm, nearMm: thickMm };
  strewn(image, flat, ground, { melt, seed: 0, mm: thickMm, seenAt: (at) => line[at % columns] as Rgb });
  return image;
}
