import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { batchFromCup, fromCupSchema, inGlasses } from './batch.ts';

// A mold of 4 × 10 mL with a sprue of 5: 45 mL of baits and channel, 47.7 with 6 % of feed.
const mold = { cavities: 4, cavityMl: 10, sprueMl: 5 };
const fromCup = (availableMl: number, cup: object = {}) =>
  batchFromCup(check(fromCupSchema, { availableMl, mold, ...cup }));

describe('the shots that a cup gives', () => {
  test.each([
    // By hand, 8 mL of film: 55.7 for one, 103.4 for two.
    [55.7, {}, 1, 0],
    [103.3, {}, 1, 47.6],
    [103.4, {}, 2, 0],
    // An injector of 100 mL holds 3 of dead volume: two shots a load, 3 mL more for each load begun.
    [58.7, { injectorMl: 100 }, 1, 0],
    [106.4, { injectorMl: 100 }, 2, 0],
    [157, { injectorMl: 100 }, 2, 50.6],
    [157.1, { injectorMl: 100 }, 3, 0],
    [204.8, { injectorMl: 100 }, 4, 0],
    [204.9, { injectorMl: 100 }, 4, 0.1],
    // Exactly one shot a load.
    [109.4, { injectorMl: 50.7 }, 2, 0],
  ])('%f mL %j: %i, %f mL left', (availableMl, cup, shots, leftMl) => {
    const found = fromCup(availableMl, cup);
    expect(found).toMatchObject({ shots, baits: shots * 4 });
    expect(found.leftoverMl).toBeCloseTo(leftMl, 9);
    // Nothing is left where it comes out even: no hair of a rounding is shown.
    if (leftMl === 0) expect(found.leftoverMl).toBe(0);
  });

  test.each([
    [55.6, {}, 'One shot needs 55.7 mL in the cup.'],
    [58.6, { injectorMl: 100 }, 'One shot needs 58.7 mL in the cup.'],
    [
      200,
      { injectorMl: 50 },
      'One shot takes 47.7 mL and the injector gives 47 mL; use a larger one, or fill in two draws.',
    ],
    [
      200,
      { injectorMl: 2 },
      'One shot takes 47.7 mL and the injector gives 0 mL; use a larger one, or fill in two draws.',
    ],
  ])('%f mL %j is refused: %s', (availableMl, cup, words) => {
    expect(() => fromCup(availableMl, cup)).toThrow(words);
  });
});

test.each([
  [1, 500, 1, 0.002],
  [500, 500, 1, 1],
  [500.1, 500, 2, 0.5001],
  [1000, 500, 2, 1],
  [1250, 500, 3, 1250 / 1500],
])('%f mL in glasses of %f: %i, each %f full', (cookMl, glassMl, glasses, fill) => {
  expect(inGlasses(cookMl, glassMl)).toEqual({ glasses, fill: expect.closeTo(fill, 12) });
});
