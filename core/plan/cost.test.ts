import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { baitCost, baitCostSchema, breakEven, breakEvenSchema, COST_PARTS, shareExactly } from './cost.ts';
import { reorder, reorderSchema, season, seasonSchema, share, shareSchema } from './season.ts';

const refusal = (work: () => unknown) => {
  try {
    work();
  } catch (error) {
    if (error instanceof Failure) return [error.code, error.path];
    throw error;
  }
  return 'taken';
};
const PLASTIC = [{ id: 'Soft 22', grams: 10, pricePerKgMinor: 1500 }];
const cost = (asked: object) => baitCost(check(baitCostSchema, { plastic: PLASTIC, minutes: 0, ...asked }));

describe('what a bait costs', () => {
  // 13.1 mL × 1.02 g/mL × 14.50 a kg.
  test('plastic alone: 19.4 cents', () =>
    expect(cost({ plastic: [{ id: 'p', grams: 13.1 * 1.02, pricePerKgMinor: 1450 }] }).costExactMinor).toBeCloseTo(
      19.3749,
      9,
    ));
  test.each([
    ['a pack of ten', { baits: 10 }, 150, [150, 0, 0, 0]],
    ['waste is bought too', { baits: 10, wasteFraction: 0.1 }, 165, [165, 0, 0, 0]],
    // 2 min × 10 ÷ 0.8 ÷ 60 × 12.00: a reject’s plastic is melted again, its minutes are gone.
    [
      'rejects cost hands',
      { baits: 10, minutes: 2, wagePerHourMinor: 1200, rejectFraction: 0.2 },
      650,
      [150, 0, 500, 0],
    ],
    // 80.00 × 10 ÷ (1000 × 4 × 0.8)
    [
      'a mold wears out',
      { baits: 10, moldPriceMinor: 8000, moldShots: 1000, baitsPerShot: 4, rejectFraction: 0.2 },
      175,
      [150, 0, 0, 25],
    ],
    [
      'a bag and half a sheet of labels',
      {
        pieces: [
          { id: 'bag', count: 1, priceMinor: 12 },
          { id: 'label', count: 0.5, priceMinor: 5 },
        ],
      },
      30,
      [15, 15, 0, 0],
    ],
    [
      'a pack of three pieces: the first of equal remainders takes the odd one',
      { pieces: [{ id: 'eye', count: 0.5, priceMinor: 1 }], plastic: [{ id: 'p', grams: 1, pricePerKgMinor: 500 }] },
      1,
      [1, 0, 0, 0],
    ],
  ])('%s', (_, asked, whole, parts) => {
    const found = cost(asked);
    expect(found.costMinor).toBe(whole);
    expect(COST_PARTS.map((part) => found[part])).toEqual(parts);
  });
  test('the price leaves the margin; without a wage an hour’s earnings are told', () => {
    // 150 ÷ 0.6; 100 in 20 minutes.
    expect(cost({ baits: 10, minutes: 2 })).toMatchObject({ priceMinor: 250, perHourMinor: 300 });
    expect(cost({ baits: 10 })).not.toHaveProperty('perHourMinor');
  });
  test.each([
    ['a mold without its life', { moldPriceMinor: 500, baitsPerShot: 4 }, 'moldShots'],
    ['a mold without its cavities', { moldPriceMinor: 500, moldShots: 4 }, 'baitsPerShot'],
    ['all rejects', { rejectFraction: 1 }, 'rejectFraction'],
    ['no plastic', { plastic: [] }, 'plastic'],
    ['one plastic twice', { plastic: [...PLASTIC, ...PLASTIC] }, 'plastic.1.id'],
    ['half a cent', { wagePerHourMinor: 0.5 }, 'wagePerHourMinor'],
    ['all of the price is margin', { marginFraction: 1 }, 'marginFraction'],
  ])('%s is refused', (_, asked, path) => expect(refusal(() => cost(asked))).toEqual(['invalid-input', path]));

  test('parts add up to the cost whatever they are, none is off by one or more', () => {
    const amount = fc.double({ min: 0, max: 1e5, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(amount, amount, amount, amount), (parts) => {
        const total = Math.round(parts.reduce((sum, one) => sum + one, 0));
        const shared = shareExactly(parts, total);
        expect(shared.reduce((sum, one) => sum + one, 0)).toBe(total);
        for (const [index, one] of shared.entries())
          expect(Math.abs(one - (parts[index] as number))).toBeLessThan(1.000001);
      }),
    );
  });
});

describe('when it pays', () => {
  const asked = { startUpMinor: 24000, boughtPackMinor: 600, packCount: 10, usableCount: 7, ownMinor: 35 };
  const pays = (change: object) => breakEven(check(breakEvenSchema, { ...asked, ...change }));
  test('240.00 of start-up against 0.857 bought and 0.35 of one’s own: 474 baits', () =>
    expect(pays({}).baits).toBe(474));
  test('a whole number is not one more', () =>
    expect(pays({ boughtPackMinor: 700, ownMinor: 50, startUpMinor: 5000 }).baits).toBe(100));
  test('at the same price it never does', () =>
    expect(refusal(() => pays({ boughtPackMinor: 700, ownMinor: 100 }))).toEqual(['never', undefined]));
  test('more usable than bought is refused', () =>
    expect(refusal(() => pays({ usableCount: 11 }))).toEqual(['invalid-input', 'usableCount']));
});

describe('stock', () => {
  const seasonOf = (asked: object) => season(check(seasonSchema, { gainMinor: 4, lossMinor: 1, ...asked }));
  test.each([
    // t of one degree at 0.8 is tan(0.3 π) = 1.3764; mean 100, s = √200, × √1.5.
    ['two seasons', { sold: [90, 110] }, Math.ceil(100 + Math.sqrt(200) * Math.sqrt(1.5) * Math.tan(0.3 * Math.PI))],
    // t of two degrees at 0.8 is 0.6 × √(2 ÷ (4 × 0.8 × 0.2)) = 1.0607.
    ['three seasons', { sold: [120, 150, 90] }, Math.ceil(120 + 30 * Math.sqrt(4 / 3) * 0.6 * Math.sqrt(2 / 0.64))],
    ['all alike: just that', { sold: [50, 50, 50] }, 50],
    ['nothing sold', { sold: [0] }, 0],
    // 100 + 10 × 0.8416
    ['one season', { sold: [100] }, 109],
    ['a loss as large as the gain: the middle', { sold: [100], gainMinor: 1 }, 100],
    ['hardly any gain: never under none', { sold: [1, 20], gainMinor: 1, lossMinor: 99 }, 0],
  ])('%s', (_, asked, baits) => expect(seasonOf(asked).baits).toBe(baits));

  const again = (asked: object) => reorder(check(reorderSchema, { weeklyG: 100, leadWeeks: 4, levelG: 0, ...asked }));
  test.each([
    ['steady use', {}, 400, 400, undefined],
    ['what is planned comes on top', { plannedG: 50, packG: 100 }, 450, 450, 5],
    ['enough is there', { levelG: 400, packG: 100 }, 400, 0, 0],
    // 1.6449 × 10 × 2
    ['its spread over the wait', { weeklySdG: 10 }, 432.897, 432.897, undefined],
    ['half of all cases: no safety', { weeklySdG: 10, serviceLevel: 0.5 }, 400, 400, undefined],
  ])('%s', (_, asked, at, short, packs) => {
    const found = again(asked);
    expect(found.reorderAtG).toBeCloseTo(at, 3);
    expect(found.shortG).toBeCloseTo(short, 3);
    expect(found.packs).toBe(packs);
  });

  test('63 good for nine bags of eight: seven to each, or seven full ones and seven left', () =>
    expect(share(check(shareSchema, { bags: 9, perBag: 8, good: 63 }))).toEqual({
      each: 7,
      eachLeft: 0,
      fullBags: 7,
      fullLeft: 7,
      short: 9,
    }));
  test('shared out either way, no bait is lost and none invented', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.integer({ min: 1, max: 50 }),
        fc.nat(20_000),
        (bags, perBag, good) => {
          const { each, eachLeft, fullBags, fullLeft, short } = share({ bags, perBag, good });
          expect(each * bags + eachLeft).toBe(good);
          expect(fullBags * perBag + fullLeft).toBe(good);
          expect(each).toBeLessThanOrEqual(perBag);
          expect(fullBags).toBeLessThanOrEqual(bags);
          // One more to each, or one more full bag, is more than there are.
          if (each < perBag) expect(eachLeft).toBeLessThan(bags);
          if (fullBags < bags) expect(fullLeft).toBeLessThan(perBag);
          expect(short).toBe(Math.max(0, bags * perBag - good));
        },
      ),
    );
  });
});
