import * as v from 'valibot';
import { fraction, list, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';

const part = v.strictObject({
  grams: positive(1e7),
  /** How often it was cooked; null where nobody knows. */
  heats: v.nullable(whole(0, 1000)),
});

export const remeltSchema = v.strictObject({
  parts: list(part),
  /** A tired share below this does not make the whole cup tired. */
  shareThreshold: v.optional(fraction, usual('tiredShare')),
});

/**
 * How often a cup of several parts counts as cooked: the most heats that a fifth of it, or more, has seen.
 * @returns grams; `heats` of what is mixed, `afterCooking` once this cup is cooked; `unknownFraction` of the grams whose
 *   heats nobody knows (they count towards none).
 * Source: workshop practice: plastisol yellows and hardens with each heat, and a small tired share does not show.
 */
export function mixRemelt({ parts, shareThreshold = usual('tiredShare') }: v.InferInput<typeof remeltSchema>) {
  const grams = parts.reduce((sum, one) => sum + one.grams, 0);
  const known = parts.filter((one): one is typeof one & { heats: number } => one.heats !== null);
  const share = (least: number) =>
    known.filter((one) => one.heats >= least).reduce((sum, one) => sum + one.grams, 0) / grams;
  const heats = Math.max(0, ...known.map((one) => one.heats).filter((least) => share(least) >= shareThreshold - 1e-9));
  const unknownG = parts.reduce((sum, one) => sum + (one.heats === null ? one.grams : 0), 0);
  return { grams, heats, afterCooking: heats + 1, unknownFraction: unknownG / grams };
}
