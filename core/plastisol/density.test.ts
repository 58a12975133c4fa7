import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cupGPerMl, mixedGPerMl, plasticGPerMl, remeltGPerMl } from './density.ts';

describe('what a mL of what is stirred together weighs', () => {
  test.each([
    ['one alone', [{ grams: 50, gPerMl: 1.02 }], 1.02],
    [
      '100 mL of each of two',
      [
        { grams: 100, gPerMl: 1 },
        { grams: 120, gPerMl: 1.2 },
      ],
      1.1,
    ],
    ['nothing', [], null],
    [
      'nothing of one',
      [
        { grams: 0, gPerMl: 3 },
        { grams: 9, gPerMl: 0.9 },
      ],
      0.9,
    ],
  ])('%s', (_, parts, gPerMl) => {
    const found = mixedGPerMl(parts);
    if (gPerMl === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(gPerMl, 12);
  });

  test('between the lightest and the heaviest of it, and the volumes add', () => {
    const part = fc.record({
      grams: fc.double({ min: 0.1, max: 500, noNaN: true }),
      gPerMl: fc.double({ min: 0.5, max: 3, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 6 }), (parts) => {
        const found = mixedGPerMl(parts) as number;
        expect(found).toBeGreaterThanOrEqual(Math.min(...parts.map((one) => one.gPerMl)) - 1e-9);
        expect(found).toBeLessThanOrEqual(Math.max(...parts.map((one) => one.gPerMl)) + 1e-9);
        const ml = parts.reduce((sum, one) => sum + one.grams / one.gPerMl, 0);
        expect(found * ml).toBeCloseTo(
          parts.reduce((sum, one) => sum + one.grams, 0),
          6,
        );
      }),
    );
  });

  test('a plastic is of its parts by mass; of none, plastisol as usual', () => {
    // Half and half by mass of 1 and 1.25 g/mL: 2 g are 1 + 0.8 mL.
    expect(
      plasticGPerMl([
        { share: 0.5, gPerMl: 1 },
        { share: 0.5, gPerMl: 1.25 },
      ]),
    ).toBeCloseTo(2 / 1.8, 12);
    expect(plasticGPerMl([])).toBe(1.02);
  });

  test('remelt is denser by the salt that is known to be in it', () => {
    expect(remeltGPerMl([{ grams: 102, saltG: 0 }])).toBeCloseTo(1.02, 12);
    expect(remeltGPerMl([{ grams: 123.65, saltG: 21.65 }])).toBeCloseTo(123.65 / 110, 12);
    expect(remeltGPerMl([])).toBe(1.02);
  });

  test('a salted cup is denser by as much as its salt', () => {
    const cup = { plasticG: 102, plasticGPerMl: 1.02, dosedG: 0, saltG: 0 };
    expect(cupGPerMl(cup)).toBeCloseTo(1.02, 12);
    // 102 g of plastic are 100 mL, 21.65 g of salt 10 mL, a gram of colour one.
    expect(cupGPerMl({ ...cup, dosedG: 22.65, saltG: 21.65 })).toBeCloseTo(124.65 / 111, 9);
    expect(cupGPerMl({ ...cup, plasticG: 115, plasticGPerMl: 1.15 })).toBeCloseTo(1.15, 12);
    expect(cupGPerMl({ plasticG: 0, plasticGPerMl: 1.02, dosedG: 0, saltG: 0 })).toBe(1.02);
  });
});
