import { converter, formatHex } from 'culori';

/** Reflectance or light in three bands, linear-light sRGB: red, green, blue; 0 to 1. */
export type Rgb = [r: number, g: number, b: number];

/** What a melt does to light in each band, a mm of it: absorbs (K), scatters (S). */
export interface Optics {
  k: Rgb;
  s: Rgb;
}

const toLinear = converter('lrgb');

/** Source: CIE Y of linear-light sRGB, IEC 61966-2-1. */
export const luminance = ([r, g, b]: Rgb): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** As a screen shows it, clipped to what it can show. */
export const hexOf = ([r, g, b]: Rgb): string => formatHex({ mode: 'lrgb', r, g, b });

export function linearOf(hex: string): Rgb {
  const found = toLinear(hex);
  if (!found) throw new RangeError(`${hex} is no colour`);
  return [found.r, found.g, found.b];
}

export const bands = (of: (band: 0 | 1 | 2) => number): Rgb => [of(0), of(1), of(2)];

/** Less than this scatters nothing, a mm. */
const CLEAR = 1e-9;
/** Below this b·S·d its product with its hyperbolic cotangent is its series. */
const THIN = 1e-4;

/**
 * What comes back of the light that falls on a layer over a ground, in one band.
 * @param k, s a mm. @param d mm. @param ground reflectance under it, 0 to 1.
 * Source: Kubelka 1948, two constants; surface reflection is left uncorrected, so K and S are effective values.
 */
export function reflectance(k: number, s: number, d: number, ground: number): number {
  if (d === 0) return ground;
  if (s < CLEAR) return ground * Math.exp(-2 * k * d);
  const [kd, sd] = [k * d, s * d];
  if (k === 0) return ((1 - ground) * sd + ground) / ((1 - ground) * sd + 1);
  // Multiplied through by S·d, so that nothing grows without bounds in a thin or an all but clear layer.
  const path = Math.sqrt(kd * (kd + 2 * sd));
  const turn = path < THIN ? 1 + (path * path) / 3 : path / Math.tanh(path);
  const back = (sd - ground * (sd + kd) + ground * turn) / (sd + kd - ground * sd + turn);
  // What both sides of a thick layer share cancels: never below nothing, never above all.
  return Math.min(1, Math.max(0, back));
}

/** All three bands of a layer over a ground. */
export const layerOver = ({ k, s }: Optics, d: number, ground: Rgb): Rgb =>
  bands((i) => reflectance(k[i], s[i], d, ground[i]));

const BLACK: Rgb = [0, 0, 0];
const WHITE: Rgb = [1, 1, 1];

/** How much of what is under a layer it hides: luminance over black, over that over white; 1 where nothing comes back of either. */
export function opacityOf(melt: Optics, d: number): number {
  const white = luminance(layerOver(melt, d, WHITE));
  return white === 0 ? 1 : luminance(layerOver(melt, d, BLACK)) / white;
}

export interface Dosed extends Optics {
  mlPerL: number;
}

/** A melt out of its plain plastic and what is dosed into it: K and S add up. */
export const meltOf = (base: Optics, items: Dosed[]): Optics => ({
  k: bands((i) => items.reduce((sum, item) => sum + item.k[i] * item.mlPerL, base.k[i])),
  s: bands((i) => items.reduce((sum, item) => sum + item.s[i] * item.mlPerL, base.s[i])),
});

/** Two melts stirred together, so much of the first: K and S add up by their shares. */
export const mixedOptics = (one: Optics, other: Optics, share: number): Optics => ({
  k: bands((i) => one.k[i] * share + other.k[i] * (1 - share)),
  s: bands((i) => one.s[i] * share + other.s[i] * (1 - share)),
});
