import * as v from 'valibot';
import { LIST_CAP, TOO_LARGE } from '../bounds.ts';
import { dosed, optics, reflected, thickness, thicknesses } from './fields.ts';
import { hexOf, layerOver, luminance, meltOf, type Optics, opacityOf, type Rgb } from './light.ts';

export const meltFields = {
  base: optics,
  items: v.pipe(v.array(dosed), v.maxLength(LIST_CAP, TOO_LARGE)),
} as const;

export const predictSchema = v.pipe(
  v.strictObject({
    ...meltFields,
    thicknessMm: v.optional(thickness),
    thicknessesMm: v.optional(thicknesses),
    background: reflected,
  }),
  v.check(
    (input) => (input.thicknessMm === undefined) !== (input.thicknessesMm === undefined),
    'give one thickness or a list of them, one of the two',
  ),
);

export interface Seen {
  linear: Rgb;
  hex: string;
  luminanceY: number;
  /** Of what is under it, how much it hides: 0 to 1. */
  opacity: number;
}

export function seenAt(melt: Optics, thicknessMm: number, background: Rgb): Seen {
  const linear = layerOver(melt, thicknessMm, background);
  return { linear, hex: hexOf(linear), luminanceY: luminance(linear), opacity: opacityOf(melt, thicknessMm) };
}

/**
 * The colour of a melt at a thickness over a ground.
 * @returns linear-light sRGB, 0 to 1; as hex; Y; opacity; or all of these for each of a list of thicknesses.
 * Source: Kubelka–Munk in three bands, two constants; K and S of what is dosed add up by mL/L.
 */
export function predict(input: v.InferOutput<typeof predictSchema>): Seen | { layers: Seen[] } {
  const melt = meltOf(input.base, input.items);
  if (input.thicknessMm !== undefined) return seenAt(melt, input.thicknessMm, input.background);
  return { layers: (input.thicknessesMm ?? []).map((mm) => seenAt(melt, mm, input.background)) };
}
