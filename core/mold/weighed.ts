import * as v from 'valibot';
import { list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';

const reading = v.strictObject({
  /** Trimmed baits, whole shots as they come out, or sprues with their runners. */
  of: v.picklist(['bait', 'shot', 'sprue']),
  count: whole(1, 10_000),
  grams: positive(1e6),
  /** Of the plastic it was poured of; salt makes it heavier. */
  densityGPerMl: v.optional(positive(25), usual('plastisolGPerMl')),
});

export const weighedSchema = v.strictObject({
  cavities: whole(1, 1000),
  /** What was taken until something was weighed. */
  estimate: v.strictObject({ cavityMl: positive(1e5), channelsMl: v.optional(nonNegative(1e5), 0) }),
  /** What stays in each bait and is no plastic: grams and mL a bait. */
  insertG: v.optional(nonNegative(1e5), 0),
  insertMl: v.optional(nonNegative(1e5), 0),
  readings: list(reading),
});
export type WeighedInput = v.InferOutput<typeof weighedSchema>;

/** All of one kind together: what was weighed more of counts for more. */
function meanMl(readings: WeighedInput['readings'], insertG: number) {
  const of = readings.reduce((sum, row) => sum + row.count, 0);
  const ml = readings.reduce((sum, row) => sum + (row.grams - row.count * insertG) / row.densityGPerMl, 0);
  return of === 0 ? null : { ml: ml / of, of };
}

/**
 * What a cavity and the sprue with its runner really hold, from what was weighed; the estimate stays for what was not.
 * Volumes are of plastic, mL. Baits and shots weighed: channels = shot − cavities × bait. Shots alone: both parts of the
 * estimate grow or shrink alike.
 * @returns `cavityFrom` and `channelsFrom`: how many of each were weighed, 0 where the estimate still stands; `spread`, the
 *   standard deviation between readings of baits as a share of their mean (null under two); `toEstimate`, measured ÷ estimate.
 * @throws nothing: a shot lighter than its baits, or a bait lighter than its insert, is told in `problem`, and the estimate
 *   stands. Source: mass ÷ density.
 */
export function weighed({ cavities, estimate, insertG, insertMl, readings }: WeighedInput) {
  const kind = (of: 'bait' | 'shot' | 'sprue') => readings.filter((row) => row.of === of);
  const baits = meanMl(kind('bait'), insertG);
  const shots = meanMl(kind('shot'), insertG * cavities);
  const sprues = meanMl(kind('sprue'), 0);
  const plainMl = Math.max(0, estimate.cavityMl - insertMl);
  const estimateMl = cavities * plainMl + estimate.channelsMl;
  const asEstimated = {
    cavityMl: plainMl,
    channelsMl: estimate.channelsMl,
    cavityFrom: 0,
    channelsFrom: 0,
    spread: null as number | null,
    toEstimate: 1,
    problem: null as string | null,
  };
  let channels = sprues;
  let cavity = baits;
  if (shots && cavity && !channels) channels = { ml: shots.ml - cavities * cavity.ml, of: shots.of };
  else if (shots && channels && !cavity) cavity = { ml: (shots.ml - channels.ml) / cavities, of: shots.of };
  else if (shots && !cavity && !channels) {
    const factor = shots.ml / estimateMl;
    cavity = { ml: plainMl * factor, of: shots.of };
    channels = { ml: estimate.channelsMl * factor, of: shots.of };
  }
  const slack = 1e-9 * estimateMl;
  if ((cavity && cavity.ml <= slack) || (channels && channels.ml < -slack)) {
    const problem =
      cavity && cavity.ml <= slack
        ? 'A bait weighs less than what is set into it; weigh again, or correct the inserts.'
        : 'The baits of a shot weigh more than the whole shot; weigh one of them again.';
    return { ...asEstimated, problem };
  }
  const each = kind('bait').map((row) => (row.grams / row.count - insertG) / row.densityGPerMl);
  const mean = each.reduce((sum, ml) => sum + ml, 0) / each.length;
  const variance = each.reduce((sum, ml) => sum + (ml - mean) ** 2, 0) / (each.length - 1);
  return {
    ...asEstimated,
    cavityMl: cavity?.ml ?? plainMl,
    channelsMl: Math.max(0, channels?.ml ?? estimate.channelsMl),
    cavityFrom: cavity?.of ?? 0,
    channelsFrom: channels?.of ?? 0,
    spread: each.length > 1 ? Math.sqrt(variance) / mean : null,
    toEstimate: cavity && plainMl > 0 ? cavity.ml / plainMl : 1,
  };
}
