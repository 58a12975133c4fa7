import jstat from 'jstat';
import * as v from 'valibot';
import { LIST_CAP, nonNegative, positive, TOO_LARGE, whole } from '../bounds.ts';
import { ceilNear, floorNear } from '../rounding.ts';

export const seasonSchema = v.strictObject({
  /** Baits of past seasons, a figure each. */
  sold: v.pipe(v.array(whole(0, 1e9)), v.minLength(1), v.maxLength(LIST_CAP, TOO_LARGE)),
  /** What one more that is sold brings, what one that stays lying costs. */
  gainMinor: whole(1, 1e12),
  lossMinor: whole(1, 1e12),
});

/**
 * How many baits to have for a season: so many that one more is as likely to lose as to gain.
 * @returns the share of seasons in which that is enough, and baits.
 * Source: newsvendor's critical ratio, gain ÷ (gain + loss); predictive quantile of normal seasons, mean +
 * s·√(1 + 1/n)·t(n − 1); of a single season a count's own spread, x + √x·z.
 */
export function season({ sold, gainMinor, lossMinor }: v.InferOutput<typeof seasonSchema>) {
  const ratio = gainMinor / (gainMinor + lossMinor);
  const n = sold.length;
  const mean = sold.reduce((sum, one) => sum + one, 0) / n;
  const sd = Math.sqrt(sold.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, n - 1));
  const wanted =
    n === 1
      ? mean + Math.sqrt(mean) * jstat.normal.inv(ratio, 0, 1)
      : mean + (sd === 0 ? 0 : sd * Math.sqrt(1 + 1 / n) * jstat.studentt.inv(ratio, n - 1));
  return { ratio, baits: Math.max(0, ceilNear(wanted)) };
}

export const reorderSchema = v.strictObject({
  weeklyG: nonNegative(1e9),
  weeklySdG: v.optional(nonNegative(1e9), 0),
  leadWeeks: nonNegative(520),
  plannedG: v.optional(nonNegative(1e9), 0),
  serviceLevel: v.optional(v.pipe(v.number(), v.minValue(0.5), v.maxValue(0.999)), 0.95),
  levelG: nonNegative(1e9),
  packG: v.optional(positive(1e9)),
});

/**
 * At which level a material is ordered again, so that it lasts until it comes in so many of a hundred times.
 * @returns grams; how many packs make up what is short, left out where no pack's size is told.
 * Source: reorder point, demand over the lead time + z·sd·√lead.
 */
export function reorder(input: v.InferOutput<typeof reorderSchema>) {
  const z = jstat.normal.inv(input.serviceLevel, 0, 1);
  const reorderAtG =
    input.weeklyG * input.leadWeeks + input.plannedG + z * input.weeklySdG * Math.sqrt(input.leadWeeks);
  const shortG = Math.max(0, reorderAtG - input.levelG);
  return { reorderAtG, shortG, ...(input.packG === undefined ? {} : { packs: ceilNear(shortG / input.packG) }) };
}

export const shareSchema = v.strictObject({ bags: whole(1, 1e6), perBag: whole(1, 1e6), good: whole(0, 1e9) });

/**
 * Fewer good baits than bags want: the same less to each bag, or as many full bags as there are.
 * @returns baits and bags, and what is left over either way.
 */
export function share({ bags, perBag, good }: v.InferOutput<typeof shareSchema>) {
  const each = Math.min(perBag, floorNear(good / bags));
  const fullBags = Math.min(bags, floorNear(good / perBag));
  return {
    each,
    eachLeft: good - each * bags,
    fullBags,
    fullLeft: good - fullBags * perBag,
    short: Math.max(0, bags * perBag - good),
  };
}
