import * as v from 'valibot';
import { nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';

export const packCountSchema = v.strictObject({
  wanted: whole(1, 1000),
  /** What lies on the scale, its bag not counted. */
  grams: nonNegative(1e6),
  /** What one bait weighs, how far one is from another, and how sure the first is. */
  eachG: positive(1e5),
  eachSdG: nonNegative(1e5),
  meanSdG: v.optional(nonNegative(1e5), 0),
  scaleSdG: v.optional(nonNegative(1e3), usual('scaleSdG')),
});

/** So many standard deviations are no chance any more. */
const SURE = 3;
/** More than any bag holds. */
const MOST = 10_000;

/** `unsure`: it may be right, and half a bait more or less would not be seen. `odd`: no whole number of these baits. */
export type PackVerdict = 'right' | 'short' | 'over' | 'odd' | 'unsure';

/**
 * Counts baits by what they weigh together.
 * @returns how many they are, how few and how many they may be, baits off what is wanted, by how many standard deviations half a bait shows, the verdict.
 * Source: sum of independent masses, √(n·s² + n²·u² + scale²); three standard deviations.
 */
export function packCount({ wanted, grams, eachG, eachSdG, meanSdG, scaleSdG }: v.InferOutput<typeof packCountSchema>) {
  const sd = (n: number) => Math.sqrt(n * eachSdG ** 2 + (n * meanSdG) ** 2 + scaleSdG ** 2);
  const count = Math.round(grams / eachG);
  const offG = grams - wanted * eachG;
  const room = SURE * sd(wanted);
  const half = eachG / 2;
  const verdict = (): PackVerdict => {
    if (Math.abs(offG) <= room) return half >= room ? 'right' : 'unsure';
    if (count !== wanted && Math.abs(grams - count * eachG) <= SURE * sd(count)) return offG > 0 ? 'over' : 'short';
    return 'odd';
  };
  const may = (n: number) => n >= 0 && Math.abs(grams - n * eachG) <= SURE * sd(n);
  let [least, most] = [count, count];
  while (may(least - 1)) least -= 1;
  while (most < MOST && may(most + 1)) most += 1;
  const sdG = sd(wanted);
  const halfAtSd = sdG > 0 ? { halfAtSd: half / sdG } : {};
  return { count, least, most, offBaits: offG / eachG, sdG, ...halfAtSd, verdict: verdict() };
}

/** A bag that was weighed as it was packed. */
export interface WeighedBag {
  grams: number;
  baits: number;
}

export interface BaitMass {
  eachG: number;
  eachSdG: number;
  meanSdG: number;
  /** Bags that say so; none: its volume alone. */
  bags: number;
}

/** As many bags as a spread that is only supposed is worth. */
const SUPPOSED = 5;

/**
 * What a bait weighs, out of bags that were weighed before; without any, by its volume.
 * @param byVolumeG what its volume would weigh.
 * Source: ratio of sums; pooled variance with a supposed one of so many bags.
 */
export function baitMass(byVolumeG: number, bags: WeighedBag[]): BaitMass {
  const baits = bags.reduce((sum, bag) => sum + bag.baits, 0);
  const eachG = baits > 0 ? bags.reduce((sum, bag) => sum + bag.grams, 0) / baits : byVolumeG;
  const supposed = (usual('baitSpread') * eachG) ** 2;
  const squares = bags.reduce((sum, bag) => sum + (bag.grams - bag.baits * eachG) ** 2 / bag.baits, 0);
  const eachSdG = Math.sqrt((SUPPOSED * supposed + squares) / (SUPPOSED + Math.max(0, bags.length - 1)));
  const meanSdG = baits > 0 ? eachSdG / Math.sqrt(baits) : usual('byVolumeSd') * eachG;
  return { eachG, eachSdG, meanSdG, bags: bags.length };
}
