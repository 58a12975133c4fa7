import fc from 'fast-check';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { demold, demoldSchema, MOLD_STUFF, moldsToKeepBusy, train, trainSchema } from './demold.ts';

const BASE = { pourC: 168, moldC: 20, ambientC: 20, wallMm: 12 } as const;
const waits = (input: v.InferInput<typeof demoldSchema>) => demold(check(demoldSchema, input)).seconds;

describe('against exact solutions', () => {
  // A very conductive, heavy wall keeps the surface at mold temperature: Fourier series, mean and centre of slab and rod.
  const sink = { conductivityWPerMK: 9000, densityKgPerM3: 9e4, cpJPerKgK: 9e4 };
  const alpha = 0.16 / (1020 * 1800);
  const slab = (half: number, s: number, what: 'mean' | 'centre') => {
    let sum = 0;
    for (let n = 0; n < 200; n++) {
      const k = (2 * n + 1) * (Math.PI / 2);
      const decay = Math.exp((-k * k * alpha * s) / half ** 2);
      sum += what === 'mean' ? (2 / (k * k)) * decay : (2 * (n % 2 === 0 ? 1 : -1) * decay) / k;
    }
    return sum;
  };
  // First zeros of the Bessel function J0, and 2/(zero·J1(zero)).
  const ZEROS = [2.404825557695773, 5.520078110286311, 8.653727912911013, 11.791534439014281, 14.930917708487785];
  const rod = (radius: number, s: number) =>
    ZEROS.reduce((sum, z) => sum + (4 / (z * z)) * Math.exp((-z * z * alpha * s) / radius ** 2), 0);

  test.each([
    ['a slab’s mean', 'slab', 'mean', (s: number) => slab(0.007, s, 'mean')],
    ['a slab’s centre', 'slab', 'centre', (s: number) => slab(0.007, s, 'centre')],
    ['a rod’s mean', 'cylinder', 'mean', (s: number) => rod(0.007, s)],
  ] as const)('%s', (_what, shape, criterion, share) => {
    const input = { ...BASE, moldC: 60, ambientC: 60, wallMm: 400, shape, criterion, thicknessMm: 14, mold: sink };
    const seconds = waits({ ...input, demoldC: 80 });
    expect(60 + (168 - 60) * share(seconds)).toBeCloseTo(80, 0);
  });
});

describe('waits', () => {
  test('poured cooler than it is opened at: no wait', () => {
    expect(waits({ ...BASE, shape: 'slab', thicknessMm: 10, pourC: 70, mold: MOLD_STUFF.silicone })).toBe(0);
  });

  test('thicker waits longer, silicone longer than aluminium', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('slab' as const, 'cylinder' as const),
        fc.double({ min: 4, max: 24, noNaN: true }),
        fc.double({ min: 1.05, max: 1.6, noNaN: true }),
        (shape, thicknessMm, by) => {
          const one = { ...BASE, shape, thicknessMm, mold: MOLD_STUFF.aluminium };
          const wait = waits(one);
          expect(waits({ ...one, thicknessMm: thicknessMm * by })).toBeGreaterThan(wait);
          expect(waits({ ...one, mold: MOLD_STUFF.silicone })).toBeGreaterThan(wait);
        },
      ),
      { numRuns: 15 },
    );
  });

  test('from an ambient mold no shot waits less than the one before, and the first is the single wait', () => {
    for (const mold of [MOLD_STUFF.aluminium, MOLD_STUFF.silicone, MOLD_STUFF.resin]) {
      const one = { ...BASE, shape: 'cylinder' as const, thicknessMm: 9, mold };
      const { demoldS } = train(check(trainSchema, { ...one, shots: 5 }));
      expect(demoldS[0]).toBeCloseTo(waits(one), 6);
      for (let i = 1; i < demoldS.length; i++)
        expect(demoldS[i]).toBeGreaterThanOrEqual((demoldS[i - 1] as number) - 1e-6);
    }
  });

  test('a day in the open gives the mold back as it was', () => {
    const one = { ...BASE, shape: 'slab' as const, thicknessMm: 8, mold: MOLD_STUFF.aluminium };
    const { demoldS } = train(check(trainSchema, { ...one, shots: 2, openS: 90_000 }));
    expect(demoldS[1]).toBeCloseTo(demoldS[0] as number, 2);
  });
});

test.each([
  [300, 100, 4],
  [299, 100, 3],
  [0, 100, 1],
])('a wait of %d s and %d s of one’s own hands: %d molds', (waitS, handS, molds) =>
  expect(moldsToKeepBusy(waitS, handS)).toBe(molds),
);
