import { flakesIn } from '../../../core/colour/flakes.ts';
import { flakeSeen, type Melt } from '../../../core/colour/foresee.ts';
import { litBy } from '../../../core/colour/grounds.ts';
import { layerOver, linearOf, type Rgb } from '../../../core/colour/light.ts';
import type { Chords } from '../../../core/shape/chords.ts';

/** What a melt is looked at over, and in which light. */
export interface Ground {
  linear: Rgb;
  light: Rgb;
}

/** Steps of the table of colours by thickness. */
const STEPS = 128;
/** More flakes than this are not told apart on a screen. */
const MOST_FLAKES = 9000;

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

const plot = (pixels: Uint8ClampedArray, at: number, [r, g, b]: Rgb, bright = 1) => {
  pixels[4 * at] = byte(r * bright);
  pixels[4 * at + 1] = byte(g * bright);
  pixels[4 * at + 2] = byte(b * bright);
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

/** How light falls on a point: what of its colour shows, what gloss adds to it, and what a pearl's sheen does, leant so far. */
function lightAt({ columns, rows, cellMm, nearMm }: Chords, x: number, y: number, lean: number) {
  const here = nearMm[y * columns + x] as number;
  const near = (cx: number, cy: number) =>
    cx < 0 || cy < 0 || cx >= columns || cy >= rows || nearMm[cy * columns + cx] === 0
      ? here - cellMm
      : (nearMm[cy * columns + cx] as number);
  const slopeX = (near(x - 2, y) - near(x + 2, y)) / (4 * cellMm);
  const slopeY = (near(x, y - 2) - near(x, y + 2)) / (4 * cellMm);
  const size = Math.sqrt(slopeX * slopeX + slopeY * slopeY + 1);
  const [nx, ny, nz] = [slopeX / size, slopeY / size, 1 / size];
  const facing = Math.max(0, nx * LAMP.x + ny * LAMP.y + nz * LAMP.z);
  // Half way between the lamp and the eye.
  const half = Math.sqrt(2 * (1 + LAMP.z));
  const shine = Math.max(0, (nx * LAMP.x + ny * LAMP.y + nz * (LAMP.z + 1)) / half);
  const leant = Math.max(0, nx * Math.sin(lean) + ny * -0.45 + nz * Math.cos(lean) * 0.89);
  return { bright: 0.66 + 0.46 * facing, gloss: GLOSS * shine ** 48, sheen: SHEEN * leant ** 9 };
}

/** A bait in its melt: each point as thick as it is, lit from the upper left, its flakes where they lie. */
export function paintBait(chords: Chords, melt: Melt, ground: Ground, lean: number): ImageData {
  const { columns, rows, thickMm } = chords;
  const image = new ImageData(columns, rows);
  const most = thickMm.reduce((a, b) => Math.max(a, b), 0) || 1;
  const table = tableOf(melt, ground, most);
  const seenAt = (mm: number) => table[Math.min(STEPS, Math.round((mm / most) * STEPS))] as Rgb;
  for (let y = 0, at = 0; y < rows; y++) {
    for (let x = 0; x < columns; x++, at++) {
      const mm = thickMm[at] as number;
      if (mm === 0) continue;
      const { bright, gloss, sheen } = lightAt(chords, x, y, lean);
      const colour = seenAt(mm);
      const add = gloss + melt.sheen * sheen;
      const shown: Rgb = [colour[0] * bright + add, colour[1] * bright + add, colour[2] * bright + add];
      plot(image.data, at, litBy(shown, ground.light));
    }
  }
  strewn(image, chords, melt, ground, seenAt);
  return image;
}

/** Flakes anywhere in the plastic alike: more of them behind thick places, the deep ones veiled. */
function strewn(image: ImageData, chords: Chords, melt: Melt, ground: Ground, seenAt: (mm: number) => Rgb): void {
  const { columns, rows, cellMm, thickMm } = chords;
  const sums = new Float64Array(thickMm.length);
  let total = 0;
  for (let i = 0; i < thickMm.length; i++) {
    total += thickMm[i] as number;
    sums[i] = total;
  }
  const totalMl = (total * cellMm ** 2) / 1000;
  melt.flakes.forEach((flake, nth) => {
    const next = dice(71 + 977 * nth);
    const colour = linearOf(flake.hex);
    const { perMl } = flakesIn(flake);
    const count = Math.min(MOST_FLAKES, Math.round(perMl * totalMl));
    const half = flake.sizeMm / cellMm / 2;
    for (let i = 0; i < count; i++) {
      const at = cellWith(sums, next() * total);
      const deep = next() * (thickMm[at] as number);
      const shown = flakeSeen(colour, melt.optics, deep, seenAt(thickMm[at] as number));
      // It lies any way: some glint, most are seen askew.
      const glint = 0.55 + 1.1 * next() ** 3;
      const [wide, tall] = flake.cut === 'string' ? [half, half / 6] : [half, half * (0.35 + 0.65 * next())];
      const isUp = next() < 0.5;
      const spot: Spot = {
        x: at % columns,
        y: Math.floor(at / columns),
        wide: isUp ? tall : wide,
        tall: isUp ? wide : tall,
      };
      dab(
        image,
        rows,
        columns,
        thickMm,
        spot,
        litBy([shown[0] * glint, shown[1] * glint, shown[2] * glint], ground.light),
      );
    }
  });
}

interface Spot {
  x: number;
  y: number;
  wide: number;
  tall: number;
}

function dab(
  { data }: ImageData,
  rows: number,
  columns: number,
  thickMm: Float32Array,
  { x, y, wide, tall }: Spot,
  colour: Rgb,
): void {
  const [dx, dy] = [Math.max(0, Math.round(wide - 0.5)), Math.max(0, Math.round(tall - 0.5))];
  for (let row = Math.max(0, y - dy); row <= Math.min(rows - 1, y + dy); row++)
    for (let column = Math.max(0, x - dx); column <= Math.min(columns - 1, x + dx); column++) {
      const at = row * columns + column;
      if ((thickMm[at] as number) > 0) plot(data, at, colour);
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
  for (let y = 0, at = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, at++) plot(image.data, at, litBy(line[x] as Rgb, ground.light));
  const thickMm = Float32Array.from({ length: columns * rows }, (_, i) => mmAt(i % columns));
  const flat: Chords = { columns, rows, cellMm: 1 / WEDGE_PER_MM, thickMm, nearMm: thickMm };
  strewn(
    image,
    flat,
    melt,
    ground,
    (mm) => line[Math.min(columns - 1, Math.max(0, Math.round(((mm - thin) / (thick - thin)) * columns)))] as Rgb,
  );
  return image;
}
