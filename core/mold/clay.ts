import * as v from 'valibot';
import { positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { ceilNear } from '../rounding.ts';

export const bakeSchema = v.strictObject({
  thicknessMm: positive(1000),
  minutesPer6mm: v.optional(positive(1e4), usual('bakeMinPer6Mm')),
});

/**
 * Minutes in the oven for a polymer clay master, by its thickest section.
 * Source: the usual packet rule, 15 min per 6 mm at 130–135 °C; the packet at hand wins.
 */
export function bake(input: v.InferOutput<typeof bakeSchema>): { minutes: number } {
  return { minutes: ceilNear((input.minutesPer6mm * input.thicknessMm) / 6) };
}
