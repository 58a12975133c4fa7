import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { baitMass, packCount } from './packCount.ts';

const of = (grams: number, more = {}) =>
  packCount({ wanted: 8, grams, eachG: 13.4, eachSdG: 0.3, meanSdG: 0, scaleSdG: 0, ...more });

describe('counted by what they weigh together', () => {
  test('eight of 13.4 g with a spread of 0.3 g: half a bait shows at eight standard deviations', () => {
    // 6.7 g ÷ (√8 · 0.3 g) = 7.9, worked out by hand.
    expect(of(107.2).halfAtSd).toBeCloseTo(7.896, 3);
  });
  test.each([
    ['all of them', 107.2, {}, 'right', 8],
    ['just within three standard deviations', 107.2 - 2.54, {}, 'right', 8],
    ['just beyond them: none is missing whole, but something is', 107.2 - 2.56, {}, 'odd', 8],
    ['one too few', 93.8, {}, 'short', 7],
    ['two too many', 134, {}, 'over', 10],
    ['half of one torn off', 100.5, {}, 'odd', 8],
    ['nothing on the scale', 0, {}, 'short', 0],
    // 7.4 baits: 5.4 g more than seven, three times √7 · 0.3 g is 2.4 g.
    ['six and something that is none of them', 7.4 * 13.4, {}, 'odd', 7],
    ['ten and a half one', 10.4 * 13.4, {}, 'odd', 10],
    // √(8 · 0.3² + 2²) is 2.17 g, and three times that 6.5 g: half a bait is 6.7 g.
    ['a coarse scale that just tells half a bait', 107.2 + 6.4, { scaleSdG: 2 }, 'right', 8],
    ['one that does not', 107.2, { scaleSdG: 2.2 }, 'unsure', 8],
    ['of a weight that nobody measured yet, half a bait is not seen', 107.2, { meanSdG: 0.4 }, 'unsure', 8],
    ['but two are', 80.4, { meanSdG: 0.4 }, 'short', 6],
  ])('%s', (_, grams, more, verdict, count) => {
    expect(of(grams, more)).toMatchObject({ verdict, count });
  });
  test.each([
    ['a weight known from bags', 107.2, {}, 8, 8],
    ['one by its volume: off by 5 %, three times that of eight is 16 g', 107.2, { meanSdG: 0.67 }, 7, 9],
    ['nothing: none, or one that is very light', 0, { meanSdG: 0.67 }, 0, 0],
    ['none or one, of a weight that is hardly known', 2, { meanSdG: 4, scaleSdG: 0.7 }, 0, 1],
    ['one or none, on a scale that is off by as much', 7, { scaleSdG: 2.5 }, 0, 1],
  ])('of %s it says how few and how many they may be', (_, grams, more, least, most) => {
    expect(of(grams, more)).toMatchObject({ least, most });
  });
  test.each([
    [107.2, 0],
    [93.8, -1],
    [100.5, -0.5],
    [134, 2],
  ])('%d g are so many baits off', (grams, off) => expect(of(grams).offBaits).toBeCloseTo(off, 9));
  test('without any spread there is no telling how many standard deviations half a bait is', () => {
    expect(of(107.2, { eachSdG: 0 })).toEqual({ count: 8, least: 8, most: 8, offBaits: 0, sdG: 0, verdict: 'right' });
  });
  test('whatever lies there: a whole number of equal baits is told as that number', () => {
    const any = fc.record({ wanted: fc.integer({ min: 1, max: 40 }), there: fc.integer({ min: 0, max: 60 }) });
    fc.assert(
      fc.property(any, fc.double({ min: 1, max: 60, noNaN: true }), ({ wanted, there }, eachG) => {
        const said = packCount({ wanted, grams: there * eachG, eachG, eachSdG: eachG * 0.01, meanSdG: 0, scaleSdG: 0 });
        expect([said.count, said.verdict]).toEqual([
          there,
          there === wanted ? 'right' : there > wanted ? 'over' : 'short',
        ]);
      }),
    );
  });
});

describe('what a bait weighs', () => {
  test('by its volume until a bag was weighed, and said to be no better than that', () => {
    expect(baitMass(13.4, [])).toEqual({ eachG: 13.4, eachSdG: 0.022 * 13.4, meanSdG: 0.05 * 13.4, bags: 0 });
  });
  test('of two bags of eight: their sum over sixteen, the spread between what is supposed and what was seen', () => {
    const said = baitMass(10, [
      { grams: 106, baits: 8 },
      { grams: 108.4, baits: 8 },
    ]);
    // 214.4 ÷ 16; squares 1.2²/8 twice = 0.36; supposed (0.022·13.4)² = 0.08691 five times.
    expect(said.eachG).toBeCloseTo(13.4, 9);
    expect(said.eachSdG).toBeCloseTo(Math.sqrt((5 * 0.086907 + 0.36) / 6), 4);
    expect(said.meanSdG).toBeCloseTo(said.eachSdG / 4, 9);
  });
});
