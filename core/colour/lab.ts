import { convertLrgbToRgb, convertRgbToXyz65, convertXyz65ToLab65, differenceCiede2000, type Lab65 } from 'culori';
import { linearOf, type Rgb } from './light.ts';

const ciede2000 = differenceCiede2000();

/** A colour as eyes weigh it. Source: CIELAB, D65. */
export const labOf = ([r, g, b]: Rgb): Lab65 =>
  convertXyz65ToLab65(convertRgbToXyz65(convertLrgbToRgb({ r, g, b }))) as Lab65;

/** How far two colours look apart: 1 is just seen side by side, 2 is told by most. Source: CIEDE2000. */
export const deltaE = (one: Lab65, other: Lab65): number => ciede2000(one, other);

export const deltaEOfHex = (one: string, other: string): number => deltaE(labOf(linearOf(one)), labOf(linearOf(other)));

/** Names of hues, each from this angle on, degrees in a* b*. */
const HUES = [
  [345, 'red'],
  [310, 'pink'],
  [285, 'violet'],
  [190, 'blue'],
  [115, 'green'],
  [75, 'yellow'],
  [45, 'orange'],
  [0, 'red'],
] as const;
export type Lacking = (typeof HUES)[number][1] | 'light' | 'dark';

/** What one colour has more of than another: the hue that leads to it, or light or darkness where that is most of it. */
export function moreOf(wanted: Lab65, got: Lab65): Lacking {
  const [l, a, b] = [wanted.l - got.l, wanted.a - got.a, wanted.b - got.b];
  if (Math.abs(l) > Math.hypot(a, b)) return l > 0 ? 'light' : 'dark';
  const angle = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  return (HUES.find(([from]) => angle >= from) ?? (HUES[HUES.length - 1] as (typeof HUES)[number]))[1];
}
