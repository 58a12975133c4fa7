import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { calculate } from '../calculators.ts';
import type { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { calibrate } from './calibrate.ts';
import { deltaEOfHex, labOf, moreOf } from './lab.ts';
import { bands, layerOver, linearOf, meltOf, type Rgb, reflectance } from './light.ts';
import { type Matched, match, matchSchema } from './match.ts';
import { chanceOf, made, madeUpStore, PLAIN, someOf, WHITE } from './testing.ts';

const part = (max: number) => fc.double({ min: 0, max, noNaN: true });
const rgb = (max: number) => fc.tuple(part(max), part(max), part(max)) as fc.Arbitrary<Rgb>;
const optics = fc.record({ k: rgb(2), s: rgb(1) });
const codeOf = async (name: string, input: unknown) =>
  calculate(name, input).then(
    () => 'no refusal',
    (error: Failure) => `${error.code} ${error.path ?? ''}`.trim(),
  );

describe('what comes back of light', () => {
  test('is never less than nothing nor more than all', () => {
    fc.assert(
      fc.property(part(1e4), part(1e4), part(1e4), part(1), (k, s, d, ground) => {
        const back = reflectance(k, s, d, ground);
        expect(back).toBeGreaterThanOrEqual(0);
        expect(back).toBeLessThanOrEqual(1);
      }),
      { numRuns: 2000 },
    );
  });
  test('more absorption never makes it lighter', () => {
    fc.assert(
      fc.property(part(5), part(5), part(2), part(30), part(1), (k, more, s, d, ground) => {
        expect(reflectance(k + more, s, d, ground)).toBeLessThanOrEqual(reflectance(k, s, d, ground) + 1e-9);
      }),
      { numRuns: 2000 },
    );
  });
  test('two layers, the first as the ground of the second, are one of both', () => {
    fc.assert(
      fc.property(optics, part(12), part(12), rgb(1), (melt, one, two, ground) => {
        const both = layerOver(melt, one + two, ground);
        const after = layerOver(melt, two, layerOver(melt, one, ground));
        for (const i of [0, 1, 2] as const) expect(after[i]).toBeCloseTo(both[i], 8);
      }),
      { numRuns: 1000 },
    );
  });
  test('each of the formula’s branches meets its neighbour', () => {
    for (const ground of [0, 0.3, 1]) {
      expect(reflectance(0.2, 1.001e-9, 8, ground)).toBeCloseTo(reflectance(0.2, 0, 8, ground), 7);
      expect(reflectance(1e-12, 0.2, 8, ground)).toBeCloseTo(reflectance(0, 0.2, 8, ground), 7);
      expect(reflectance(0.2, 0.1, 1e-9, ground)).toBeCloseTo(ground, 7);
      // b·S·d just under and just over where the series stands in.
      const [under, over] = [0.999, 1.001].map((f) => reflectance(1, 1, (f * 1e-4) / Math.sqrt(3), ground)) as [
        number,
        number,
      ];
      expect(over / (under || 1)).toBeCloseTo(under === 0 ? 0 : 1, 2);
    }
    // By hand: K = 0.1, S = 0.2, 5 mm over black: a = 1.5, b = √1.25, coth(b) = 1.240…, R = 1 ÷ (a + b·coth b).
    const b = Math.sqrt(1.25);
    expect(reflectance(0.1, 0.2, 5, 0)).toBeCloseTo(1 / (1.5 + b / Math.tanh(b)), 12);
  });
});

test('a step measured over black and over white gives back what it was made of', () => {
  const step = fc.record({
    k: fc.tuple(part(0.4), part(0.4), part(0.4)) as fc.Arbitrary<Rgb>,
    s: fc.tuple(part(0.2), part(0.2), part(0.2)) as fc.Arbitrary<Rgb>,
    mlPerL: fc.double({ min: 0.5, max: 12, noNaN: true }),
    mm: fc.double({ min: 0.5, max: 4, noNaN: true }),
  });
  fc.assert(
    fc.property(step, ({ k, s, mlPerL, mm }) => {
      const melt = meltOf(PLAIN, [{ k, s, mlPerL }]);
      const [overBlack, overWhite] = [layerOver(melt, mm, [0, 0, 0]), layerOver(melt, mm, WHITE)];
      // What hides its ground to a millionth cannot be measured, by anyone.
      fc.pre([0, 1, 2].every((i) => (overWhite[i] as number) - (overBlack[i] as number) > 1e-4));
      const found = calibrate({ thicknessMm: mm, mlPerL, overBlack, overWhite, base: PLAIN });
      const again = meltOf(PLAIN, [{ ...found, mlPerL }]);
      for (const ground of [bands(() => 0), bands(() => 0.4), WHITE])
        for (const i of [0, 1, 2] as const)
          expect(layerOver(again, mm, ground)[i]).toBeCloseTo(layerOver(melt, mm, ground)[i], 5);
    }),
    { numRuns: 600 },
  );
});

test('what cannot be measured is told, and why', async () => {
  const good = { thicknessMm: 4, mlPerL: 4, overBlack: [0.1, 0.1, 0.1], overWhite: [0.4, 0.4, 0.4], base: PLAIN };
  expect(await codeOf('colour.calibrate', good)).toBe('no refusal');
  expect(await codeOf('colour.calibrate', { ...good, overBlack: [0.1, 0.4, 0.1] })).toBe('too-opaque overBlack');
  // Clear plastic seen as clearer than it is.
  const clear = { ...good, overBlack: [0, 0, 0], overWhite: [1, 0.999, 0.999] };
  expect(await codeOf('colour.calibrate', { ...clear, base: { k: [0.1, 0.1, 0.1], s: [0, 0, 0] } })).toBe(
    'base-mismatch base',
  );
  expect(await codeOf('colour.calibrate', { ...clear, base: { k: [0.004, 0.004, 0.004], s: [0, 0, 0] } })).toBe(
    'no refusal',
  );
  expect(await codeOf('colour.predict', { base: PLAIN, items: [], background: WHITE })).toMatch(/^invalid-input/);
  expect(await codeOf('colour.predict', { base: PLAIN, items: [], thicknessMm: 1, background: [1, 1, 1.2] })).toBe(
    'invalid-input background.2',
  );
});

test('the least dose that hides enough: nothing less does', () => {
  const own = fc.record({
    k: rgb(0.3),
    s: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0.01, max: 0.1, noNaN: true }))),
  });
  return fc.assert(
    fc.asyncProperty(own, part(10), fc.double({ min: 0.05, max: 0.9, noNaN: true }), async ({ k, s }, mm, wanted) => {
      const input = {
        base: PLAIN,
        items: [{ k, s, mlPerL: 1 }],
        itemIndex: 0,
        thicknessMm: mm + 0.5,
        opacityWanted: wanted,
      };
      const answer = await calculate('colour.dose', input).catch((error: Failure) => error);
      const at = async (dose: number) =>
        (
          (await calculate('colour.predict', {
            base: PLAIN,
            items: [{ k, s, mlPerL: dose }],
            thicknessMm: mm + 0.5,
            background: WHITE,
          })) as { opacity: number }
        ).opacity;
      if (answer instanceof Error) {
        for (const dose of [1, 10, 100, 1000]) expect(await at(dose)).toBeLessThan(wanted);
        return;
      }
      const { mlPerL } = answer as { mlPerL: number };
      expect(await at(mlPerL)).toBeGreaterThanOrEqual(wanted - 1e-9);
      for (const less of [0.25, 0.5, 0.9, 0.99])
        if (mlPerL > 1e-3) expect(await at(less * mlPerL)).toBeLessThan(wanted);
    }),
    { numRuns: 150 },
  );
});

/** Fifty melts of one to four of fourteen made-up colourants, by a seed. */
function cases() {
  const next = chanceOf(20261);
  const store = madeUpStore(next);
  const targets = Array.from({ length: 50 }, (_, i) => {
    const { batchMl, thicknessMm } = made(i);
    const melt = meltOf(PLAIN, someOf(store, 1 + (i % 4), batchMl, 40, next));
    return { batchMl, thicknessMm, target: layerOver(melt, thicknessMm, WHITE) };
  });
  return { store, targets };
}

describe('matching', () => {
  const { store, targets } = cases();
  const ask = (index: number, more: object = {}): Matched => {
    const { target, batchMl, thicknessMm } = targets[index] as (typeof targets)[number];
    const input = { target, batchMl, thicknessMm, background: WHITE, base: PLAIN, colourants: store, ...more };
    return match(check(matchSchema, input));
  };

  test.each([
    ['whole drops', true, 1],
    ['any dose', false, 0.5],
  ])('fifty melts of one to four colourants come back: %s', (_, wholeDrops, within) => {
    for (let i = 0; i < targets.length; i++) {
      const found = ask(i, { wholeDrops });
      expect(found.deltaE00, `target ${i}`).toBeLessThan(within);
      // What it says of the colour is what its own doses give, worked out anew.
      const { thicknessMm, target, batchMl } = targets[i] as (typeof targets)[number];
      const doses = found.items.map(({ id, mlPerL, drops }) => {
        const own = store.find((one) => one.id === id) as (typeof store)[number];
        expect(drops).toBeCloseTo((mlPerL * batchMl * own.dropsPerMl) / 1000, 6);
        if (wholeDrops) expect(Number.isInteger(drops)).toBe(true);
        return { k: own.k, s: own.s, mlPerL };
      });
      expect(doses.length).toBeLessThanOrEqual(4);
      const got = layerOver(meltOf(PLAIN, doses), thicknessMm, WHITE);
      for (const k of [0, 1, 2] as const) expect(got[k]).toBeCloseTo(found.linear[k], 9);
      const hex = (one: Rgb) => labOf(one);
      expect(
        Math.hypot(hex(got).l - hex(target).l, hex(got).a - hex(target).a, hex(got).b - hex(target).b),
      ).toBeLessThan(8);
    }
  });

  test('the same seed gives the same drops; time only cuts it off, and that is said', () => {
    expect(ask(7)).toEqual(ask(7));
    const { target, batchMl, thicknessMm } = targets[7] as (typeof targets)[number];
    const input = check(matchSchema, {
      target,
      batchMl,
      thicknessMm,
      background: WHITE,
      base: PLAIN,
      colourants: store,
    });
    let clock = 0;
    const late = match(input, () => (clock += 400));
    expect(late.cutOff).toBe(true);
    expect(late.evaluations).toBeLessThan(ask(7).evaluations);
    expect(ask(7).cutOff).toBe(false);
  });

  test('where nothing here gets near, it says what is missing', () => {
    const yellow = { id: 'yellow', k: [0.001, 0.01, 0.2] as Rgb, s: [0.01, 0.01, 0.005] as Rgb };
    const red = { id: 'red', k: [0.005, 0.1, 0.1] as Rgb, s: [0.01, 0.005, 0.005] as Rgb };
    const far = match(
      check(matchSchema, {
        target: '#2244aa',
        batchMl: 237,
        thicknessMm: 10,
        background: WHITE,
        base: PLAIN,
        colourants: [yellow, red],
      }),
    );
    expect(far.deltaE00).toBeGreaterThan(10);
    expect(far.lacking).toBe('blue');
    expect(moreOf(labOf(linearOf('#ffffff')), labOf(linearOf('#555555')))).toBe('light');
    expect(moreOf(labOf(linearOf('#2f9e44')), labOf(linearOf('#a83232')))).toBe('green');
  });
});

test('ΔE00 of two hexes is that of a published pair', () => {
  // Sharma, Wu & Dalal 2005, pair 1 has ΔE00 2.0425 in Lab; here the same colour is 0 apart and black from white 100.
  expect(deltaEOfHex('#123456', '#123456')).toBe(0);
  expect(deltaEOfHex('#000000', '#ffffff')).toBeCloseTo(100, 3);
});
