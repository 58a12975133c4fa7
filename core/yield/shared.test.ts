import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { shareOutG } from './shared.ts';

describe('what was weighed once for several cups', () => {
  test.each([
    [
      'by what was drawn of each',
      90,
      [
        [60, 100],
        [30, 100],
      ],
      [60, 30],
    ],
    [
      'never more than left a cup',
      90,
      [
        [60, 50],
        [30, 100],
      ],
      [50, 40],
    ],
    [
      'one after the other where two are short',
      90,
      [
        [50, 20],
        [30, 30],
        [10, 200],
      ],
      [20, 30, 40],
    ],
    [
      'all of it used up, but for the last digit: what each gave',
      0.1 + 0.2,
      [
        [60, 0.1],
        [30, 0.2 - 1e-17],
      ],
      [0.1, 0.2],
    ],
    [
      'all of it, a hair more than was there: never by what was drawn',
      90 * (1 + 1e-12),
      [
        [60, 10],
        [30, 80],
      ],
      [10, 80],
    ],
    [
      'nothing drawn: by what is gone',
      30,
      [
        [0, 20],
        [0, 40],
      ],
      [10, 20],
    ],
    [
      'more than all gave: by what was drawn',
      90,
      [
        [60, 20],
        [30, 20],
      ],
      [60, 30],
    ],
    [
      'nothing at all',
      0,
      [
        [60, 50],
        [30, 100],
      ],
      [0, 0],
    ],
  ])('%s', (_, total, cups, shares) => {
    const given = shareOutG(
      total,
      cups.map(([drawnG, mostG]) => ({ drawnG: drawnG as number, mostG: mostG as number })),
    );
    given.forEach((grams, i) => {
      expect(grams).toBeCloseTo(shares[i] as number, 9);
    });
  });

  test('a cup that had next to nothing underflows nothing: what was weighed is still all there', () => {
    expect(shareOutG(5e-7, [{ drawnG: 0, mostG: 5e-324 }])).toEqual([5e-7]);
  });

  test('adds up, and takes from none more than it had', () => {
    const grams = fc.double({ min: 0, max: 1000, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.record({ drawnG: grams, mostG: grams }), { minLength: 1, maxLength: 6 }),
        grams,
        (cups, total) => {
          const given = shareOutG(total, cups);
          expect(given.reduce((sum, one) => sum + one, 0)).toBeCloseTo(total, 6);
          const most = cups.reduce((sum, cup) => sum + cup.mostG, 0);
          if (total <= most)
            given.forEach((one, i) => {
              expect(one).toBeLessThanOrEqual((cups[i]?.mostG ?? 0) + 1e-6);
            });
        },
      ),
    );
  });
});
