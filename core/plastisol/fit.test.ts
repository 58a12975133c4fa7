import fc from 'fast-check';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { fitHardness, fitSchema } from './fit.ts';
import { mixRemelt, remeltSchema } from './remelt.ts';

const fitted = (input: v.InferInput<typeof fitSchema>) => fitHardness(check(fitSchema, input));
const mix = (parts: { grams: number; heats: number | null }[], shareThreshold?: number) =>
  mixRemelt(check(remeltSchema, { parts, ...(shareThreshold === undefined ? {} : { shareThreshold }) }));
const SOFT = { id: 'soft', nominal: 22 };
const FIRM = { id: 'firm', nominal: 58 };

describe('each plastic’s own hardness', () => {
  test('of one part by hand: n readings of mean m are weighed n/σ² against 1/τ²', () => {
    const readings = [24, 25, 26].map((hardness) => ({ fractions: { soft: 1 }, hardness }));
    const found = fitted({ parts: [SOFT], readings });
    // 3/4 against 1/36: (0.75 · 25 + 22/36) / (0.75 + 1/36).
    expect(found.parts.soft?.hardness).toBeCloseTo((0.75 * 25 + 22 / 36) / (0.75 + 1 / 36), 9);
    expect(found.parts.soft?.sd).toBeCloseTo(1 / Math.sqrt(0.75 + 1 / 36), 9);
    expect(found.n).toBe(3);
  });

  test('without readings the labels stand, as uncertain as labels are', () => {
    const found = fitted({ parts: [SOFT, FIRM], readings: [] });
    expect([found.parts.soft, found.parts.firm, 'residualSd' in found]).toEqual([
      { hardness: expect.closeTo(22, 9), sd: expect.closeTo(6, 9) },
      { hardness: expect.closeTo(58, 9), sd: expect.closeTo(6, 9) },
      false,
    ]);
  });

  test('many readings of true plastics find them, whatever the labels say', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 5, max: 80, noNaN: true }), { minLength: 2, maxLength: 5 }),
        fc.array(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 5, maxLength: 5 }), {
          minLength: 4,
          maxLength: 8,
        }),
        (truth, mixed) => {
          const parts = truth.map((_, i) => ({ id: `p${i}`, nominal: 40 }));
          const whole = (i: number) => truth.map((_, j) => (i === j ? 1 : 0));
          const shares = [...truth.map((_, i) => whole(i)), ...mixed.map((row) => row.slice(0, truth.length))];
          const readings = shares.flatMap((row) => {
            const sum = row.reduce((all, one) => all + one, 0);
            const fractions = Object.fromEntries(row.map((one, i) => [`p${i}`, one / sum]));
            const hardness = row.reduce((all, one, i) => all + (one / sum) * (truth[i] as number), 0);
            return Array.from({ length: 40 }, () => ({ fractions, hardness }));
          });
          const found = fitted({ parts, readings });
          truth.forEach((h, i) => {
            expect(Math.abs((found.parts[`p${i}`]?.hardness ?? 0) - h)).toBeLessThan(0.25);
            expect(found.parts[`p${i}`]?.sd).toBeLessThan(0.4);
          });
          expect(found.residualSd).toBeLessThan(0.2);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('more readings never make it less sure', () => {
    const readings = [0.2, 0.5, 0.9].map((soft) => ({ fractions: { soft, firm: 1 - soft }, hardness: 40 }));
    const sds = [0, 1, 2, 3].map(
      (n) => fitted({ parts: [SOFT, FIRM], readings: readings.slice(0, n) }).parts.soft?.sd ?? 0,
    );
    for (const [i, sd] of sds.slice(1).entries()) expect(sd).toBeLessThanOrEqual((sds[i] as number) + 1e-12);
  });

  test.each([
    [
      'a plastic that is none of the parts',
      [{ fractions: { soft: 0.5, other: 0.5 }, hardness: 40 }],
      'readings.0.fractions',
    ],
    [
      'shares that are no whole',
      [
        { fractions: { soft: 1 }, hardness: 24 },
        { fractions: { soft: 0.6, firm: 0.3 }, hardness: 40 },
      ],
      'readings.1.fractions',
    ],
    ['a hardness off the scale', [{ fractions: { soft: 1 }, hardness: 101 }], 'readings.0.hardness'],
  ])('%s is refused where it stands', (_what, readings, path) => {
    try {
      fitted({ parts: [SOFT, FIRM], readings: readings as never });
      expect.unreachable();
    } catch (error) {
      expect([(error as Failure).code, (error as Failure).path]).toEqual(['invalid-input', path]);
    }
  });
});

describe('heats of what is mixed', () => {
  const part = fc.record({
    grams: fc.double({ min: 0.1, max: 1000, noNaN: true }),
    heats: fc.option(fc.nat(9), { nil: null }),
  });
  test.each([
    [
      'a small tired share does not show',
      [
        { grams: 900, heats: 1 },
        { grams: 100, heats: 6 },
      ],
      1,
    ],
    [
      'exactly a fifth does',
      [
        { grams: 800, heats: 1 },
        { grams: 200, heats: 6 },
      ],
      6,
    ],
    [
      'tired ones add up',
      [
        { grams: 80, heats: 0 },
        { grams: 12, heats: 4 },
        { grams: 8, heats: 7 },
      ],
      4,
    ],
    [
      'what nobody knows counts towards none',
      [
        { grams: 50, heats: null },
        { grams: 50, heats: 2 },
      ],
      2,
    ],
    [
      'and takes their share down',
      [
        { grams: 90, heats: null },
        { grams: 10, heats: 2 },
      ],
      0,
    ],
    ['fresh is none', [{ grams: 500, heats: 0 }], 0],
  ])('%s', (_what, parts, heats) => expect(mix(parts)).toMatchObject({ heats, afterCooking: heats + 1 }));

  test('grams and what is unknown of them', () => {
    expect(
      mix([
        { grams: 30, heats: null },
        { grams: 90, heats: 1 },
      ]),
    ).toMatchObject({ grams: 120, unknownFraction: 0.25 });
  });

  test('a part told in two is the same; a more tired part never makes it fresher', () => {
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 8 }),
        fc.nat(),
        fc.integer({ min: 0, max: 12 }),
        (parts, at, more) => {
          const split = parts.flatMap((one, i) =>
            i === at % parts.length
              ? [
                  { ...one, grams: one.grams / 2 },
                  { ...one, grams: one.grams / 2 },
                ]
              : [one],
          );
          const before = mix(parts);
          expect(mix(split)).toMatchObject({
            heats: before.heats,
            unknownFraction: expect.closeTo(before.unknownFraction, 9),
          });
          const tired = Math.max(before.heats, more);
          expect(mix([...parts, { grams: 37, heats: tired }]).heats).toBeGreaterThanOrEqual(before.heats);
        },
      ),
    );
  });
});
