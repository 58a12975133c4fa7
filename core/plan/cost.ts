import * as v from 'valibot';
import { fraction, id, list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { ceilNear, floorNear, roundMoney } from '../rounding.ts';

/** Money in whole minor units. */
const minor = whole(0, 1e12);
const below1 = v.pipe(fraction, v.ltValue(1));

const NEEDED = 'is needed where the mold has a price';

export const baitCostSchema = v.pipe(
  v.strictObject({
    /** What is in one bait, colour and salt included. */
    plastic: list(v.strictObject({ id, grams: nonNegative(1e6), pricePerKgMinor: minor }), 'id'),
    /** What goes into or onto the whole pack. */
    pieces: v.optional(list(v.strictObject({ id, count: nonNegative(1e6), priceMinor: minor }), 'id', 0), []),
    /** Hands, a bait. */
    minutes: nonNegative(1e5),
    baits: v.optional(whole(1, 1e5), 1),
    wagePerHourMinor: v.optional(minor, 0),
    moldPriceMinor: v.optional(minor, 0),
    moldShots: v.optional(positive(1e9)),
    baitsPerShot: v.optional(positive(1e5)),
    rejectFraction: v.optional(below1, 0),
    wasteFraction: v.optional(nonNegative(100), 0),
    marginFraction: v.optional(below1, usual('marginWanted')),
  }),
  v.forward(
    v.check(({ moldPriceMinor, moldShots }) => moldPriceMinor === 0 || moldShots !== undefined, NEEDED),
    ['moldShots'],
  ),
  v.forward(
    v.check(({ moldPriceMinor, baitsPerShot }) => moldPriceMinor === 0 || baitsPerShot !== undefined, NEEDED),
    ['baitsPerShot'],
  ),
);

export const COST_PARTS = ['plasticMinor', 'piecesMinor', 'labourMinor', 'moldMinor'] as const;
export type CostPart = (typeof COST_PARTS)[number];

/**
 * Parts as whole minor units that add up to their rounded sum: floors, then one more to the largest remainders, the
 * first of equal ones first.
 * Source: largest remainders (Hamilton's method).
 */
export function shareExactly(parts: number[], total: number): number[] {
  const floors = parts.map(floorNear);
  const left = total - floors.reduce((sum, part) => sum + part, 0);
  const byRemainder = parts
    .map((part, index) => ({ index, remainder: part - (floors[index] as number) }))
    .sort((a, b) => b.remainder - a.remainder || a.index - b.index);
  for (const { index } of byRemainder.slice(0, left)) floors[index] = (floors[index] as number) + 1;
  return floors;
}

/**
 * What a pack of baits costs, and its price at a wanted margin. Rejects give their plastic back, not their time.
 * @returns minor units: the exact cost, the rounded one, its parts that add up to it, the price; what an hour earns at that
 * price before any wage, left out without minutes.
 * Source: cost of materials, hands and tools a piece; price = cost ÷ (1 − margin).
 */
export function baitCost(input: v.InferOutput<typeof baitCostSchema>) {
  const { baits, rejectFraction, marginFraction } = input;
  const good = 1 - rejectFraction;
  const perBait = input.plastic.reduce((sum, { grams, pricePerKgMinor }) => sum + (grams * pricePerKgMinor) / 1000, 0);
  const plastic = perBait * (1 + input.wasteFraction) * baits;
  const pieces = input.pieces.reduce((sum, { count, priceMinor }) => sum + count * priceMinor, 0);
  const hours = (input.minutes * baits) / good / 60;
  const labour = hours * input.wagePerHourMinor;
  const mold =
    input.moldPriceMinor === 0
      ? 0
      : (input.moldPriceMinor * baits) / ((input.moldShots as number) * (input.baitsPerShot as number) * good);
  const costExactMinor = plastic + pieces + labour + mold;
  const costMinor = roundMoney(costExactMinor);
  const parts = shareExactly([plastic, pieces, labour, mold], costMinor);
  const priceMinor = roundMoney(costExactMinor / (1 - marginFraction));
  return {
    costExactMinor,
    costMinor,
    ...(Object.fromEntries(COST_PARTS.map((part, index) => [part, parts[index]])) as Record<CostPart, number>),
    priceMinor,
    ...(hours > 0 ? { perHourMinor: (priceMinor - plastic - pieces - mold) / hours } : {}),
  };
}

export const breakEvenSchema = v.pipe(
  v.strictObject({
    startUpMinor: minor,
    boughtPackMinor: minor,
    packCount: whole(1, 1e6),
    usableCount: whole(1, 1e6),
    ownMinor: minor,
  }),
  v.forward(
    v.check(({ usableCount, packCount }) => usableCount <= packCount, 'more are usable than are in the pack'),
    ['usableCount'],
  ),
);

/**
 * How many baits of one's own pay for what was bought to begin: bought packs hold scrap too.
 * @returns minor units a bait, and baits.
 * @throws Failure `never` where a bait of one's own saves nothing.
 * Source: break-even point, fixed cost ÷ saving a piece.
 */
export function breakEven(input: v.InferOutput<typeof breakEvenSchema>) {
  const boughtEachMinor = input.boughtPackMinor / input.usableCount;
  const savingEachMinor = boughtEachMinor - input.ownMinor;
  if (!(savingEachMinor > 0))
    throw new Failure('never', 'A bait of your own costs no less than a bought one that is usable: it never pays.');
  return { boughtEachMinor, savingEachMinor, baits: ceilNear(input.startUpMinor / savingEachMinor) };
}
