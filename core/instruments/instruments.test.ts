import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { figureOf, readLine } from './lines.ts';
import { cupTrueC, noise, shown } from './standIn.ts';
import { trustOf } from './trust.ts';
import { type MayGoIn, type Step, seenIn, tooLight, Witness } from './witness.ts';

describe('a line of an instrument', () => {
  test.each([
    ['{"kind":"thermometer","c":171.4}', 171.4],
    ['{"kind":"scale","g":-0.2,"stable":false}', -0.2],
    ['{"kind":"scale","g":612.4,"at":"2026-03-02T19:00:00.000Z"}', 612.4],
    ['{"kind":"oven","on":true,"level":0.7}', 0.7],
    ['{"kind":"oven","on":true}', 1],
    ['{"kind":"oven","on":false,"level":0.7}', 0],
  ])('%s', (text, figure) => expect(figureOf(readLine(text))).toBe(figure));

  test.each([
    ['171.4 C', 'malformed-json'],
    ['', 'malformed-json'],
    ['{"kind":"thermometer"}', 'invalid-input'],
    ['{"kind":"thermometer","c":"171"}', 'invalid-input'],
    ['{"kind":"thermometer","c":171,"more":1}', 'invalid-input'],
    ['{"kind":"barometer","c":171}', 'invalid-input'],
    ['{"kind":"oven","on":true,"level":1.2}', 'invalid-input'],
  ])('%s is refused', (text, code) => {
    try {
      readLine(text);
      expect.unreachable();
    } catch (error) {
      expect((error as Failure).code).toBe(code);
    }
  });
});

describe('whether a figure can be believed', () => {
  const each = (values: number[]) => values.map((value, i) => ({ ms: i * 1000, value }));
  const calm = [170.2, 170.1, 170.3, 169.9, 170.0];
  test.each([
    ['nothing was heard', [], 0, 'silent'],
    ['it speaks', calm, 4000, 'fine'],
    ['ten seconds of silence are none yet', calm, 14_000, 'fine'],
    ['more are', calm, 14_001, 'silent'],
    ['a jump that no cup makes', [...calm, 371], 5000, 'wild'],
    ['forty degrees at once are the most', [...calm, 210.1], 5000, 'fine'],
    ['and no more', [...calm, 210.2], 5000, 'wild'],
    ['far out from the first', [-60], 0, 'wild'],
    ['twelve times the very same', Array<number>(12).fill(168.4), 11_000, 'stuck'],
    ['eleven times', Array<number>(11).fill(168.4), 10_000, 'fine'],
    ['the same again after another', [...Array<number>(11).fill(168.4), 168.5, 168.4], 12_000, 'fine'],
  ] as const)('%s', (_, values, nowMs, trust) => expect(trustOf('thermometer', each([...values]), nowMs)).toBe(trust));
  test('heard seldom, a cup may have been in the oven meanwhile', () => {
    const seldom = [40, 41, 40, 41].map((value, i) => ({ ms: i * 60_000, value }));
    expect(trustOf('thermometer', [...seldom, { ms: 240_000, value: 170 }], 240_000)).toBe('fine');
  });
  test('a scale may stand still, and step; out of its range it is wild', () => {
    expect(trustOf('scale', each(Array<number>(40).fill(612.4)), 39_000)).toBe('fine');
    expect(trustOf('scale', each([612.4, 570.1]), 1000)).toBe('fine');
    expect(trustOf('scale', each([612.4, -9387]), 1000)).toBe('wild');
  });
});

const steps = (values: number[]): Step[] => {
  const witness = new Witness();
  return values.flatMap((value, i) => witness.take({ ms: i * 1000, value }) ?? []);
};
const rest = (g: number, n = 4) => Array<number>(n).fill(g);

describe('steps of the scale', () => {
  test('from one rest to another, once, with the moment of the new rest', () =>
    expect(steps([...rest(600), 601, ...rest(604.2)])).toEqual([
      { ms: 5000, fromG: 600, toG: expect.closeTo(604.2, 9), deltaG: expect.closeTo(4.2, 9) },
    ]));
  test('the first rest is none', () => expect(steps(rest(600, 10))).toEqual([]));
  test('drift is none, however far it goes', () =>
    expect(steps(Array.from({ length: 200 }, (_, i) => 600 + i * 0.02))).toEqual([]));
  test('under three tenths of a gram is none', () => expect(steps([...rest(600), ...rest(600.29)])).toEqual([]));
  test('a hand on it that lets go is none', () =>
    expect(steps([...rest(600), 640, 655, 631, ...rest(600.1)])).toEqual([]));
  test('whatever is put in and taken out, with the noise of a scale, the steps are what was done', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.integer({ min: -60, max: 60 }).filter((g) => Math.abs(g) >= 1),
          { minLength: 1, maxLength: 6 },
        ),
        fc.integer({ min: 1, max: 1e6 }),
        (deltas, seed) => {
          let g = 600;
          const values = rest(g);
          for (const delta of deltas) {
            g += delta;
            values.push(...rest(g, 5));
          }
          const seen = steps(
            values.map((value, i) => value + 0.05 * Math.max(-2.4, Math.min(2.4, noise(seed, i * 1000)))),
          );
          expect(seen.map(({ deltaG }) => Math.round(deltaG))).toEqual(deltas);
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('what a step was', () => {
  const blue: MayGoIn = { materialId: 'b', name: 'Harbour Blue liquid', unit: 'drop', gEach: 0.05, left: 20 };
  const silver: MayGoIn = { materialId: 's', name: 'Silver flake', unit: 'tsp', gEach: 2.46, left: 0.5 };
  const out = [
    { moldId: 'm', name: 'Sandlance', grams: 48 },
    { moldId: 'w', name: 'Worm', grams: 20 },
  ];
  test.each([
    ['drops of what the recipe wants next', 0.42, [blue, silver], { what: 'dose', materialId: 'b', amount: 8 }],
    [
      'what is all in is not what comes next',
      1.2,
      [{ ...blue, left: 0 }, silver],
      { what: 'dose', materialId: 's', amount: 0.5 },
    ],
    [
      'what is left of two comes first, in its order',
      0.5,
      [
        { ...blue, left: 0 },
        { ...silver, gEach: 0.5 },
        { ...blue, materialId: 'z', left: 3 },
      ],
      { what: 'dose', materialId: 's' },
    ],
    [
      'and where it stands first already',
      0.5,
      [blue, { ...silver, left: 0 }],
      { what: 'dose', materialId: 'b', amount: 10 },
    ],
    ['what weighs nothing is not told', 0.5, [{ ...silver, gEach: 0 }, blue], { what: 'dose', materialId: 'b' }],
    ['never less than one drop', 0.31, [{ ...blue, gEach: 0.9 }], { what: 'dose', amount: 1 }],
    ['nothing is laid out: so many grams', 3, [], { what: 'in', grams: 3 }],
    ['a shot of the mold that it fits', -46, [], { what: 'shot', moldId: 'm' }],
    ['the nearer of two', -21, [], { what: 'shot', moldId: 'w' }],
    ['so much off it', -46, [], { what: 'shot', offG: -2 }],
    ['seven under is a shot yet', -40.9, [], { what: 'shot', moldId: 'm' }],
    ['eight under is none', -40.7, [], { what: 'out', grams: 40.7 }],
  ])('%s', (_, deltaG, goesIn, seen) => expect(seenIn({ deltaG }, goesIn as MayGoIn[], out)).toMatchObject(seen));
  test('of two molds that both fit, the nearer one, wherever it stands', () => {
    const both = [
      { moldId: 'far', name: 'Far', grams: 50 },
      { moldId: 'near', name: 'Near', grams: 46 },
    ];
    expect(seenIn({ deltaG: -45 }, [], both)).toMatchObject({ moldId: 'near' });
    expect(seenIn({ deltaG: -45 }, [], [...both].reverse())).toMatchObject({ moldId: 'near' });
  });
  test('how far off the count is, is said', () => {
    const seen = seenIn({ deltaG: 0.42 }, [blue], []);
    expect(seen.what === 'dose' && seen.offG).toBeCloseTo(0.02, 9);
  });
});

describe('a bait that is too light', () => {
  test.each([
    ['four parts of a hundred are none where its cavity is known', 10.56, 11, 5, null],
    ['five are', 10.45, 11, 5, 0.05],
    ['known from three weighings on', 10.45, 11, 3, 0.05],
    ['by its volume alone it takes more', 10.45, 11, 0, null],
    ['nine parts', 10.01, 11, 0, 0.09],
    ['heavier than usual is not light', 11.9, 11, 9, null],
    ['of a tiny bait the scale itself tells nothing', 0.9, 1, 9, null],
  ])('%s', (_, grams, usualG, of, missing) => {
    const found = tooLight(grams, usualG, of);
    if (missing === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(missing, 9);
  });
});

describe('a stand-in', () => {
  const world = { roomC: 20, tauS: 600, efficiency: 0.5 };
  const burst = { what: 'burst' as const, ms: 0, watts: 900, level: 1, seconds: 60, massG: 200 };
  test('a burst warms by its energy, and it cools by Newton after', () => {
    // 900 W × 0.5 × 60 s ÷ (200 g × 1.8 J/gK) = 75 K.
    expect(cupTrueC([burst], world, 60_000).c).toBeCloseTo(95, 9);
    expect(cupTrueC([burst], world, 30_000).c).toBeCloseTo(57.5, 9);
    expect(cupTrueC([burst], world, 660_000).c).toBeCloseTo(20 + 75 / Math.E, 6);
  });
  test('what was read by hand is the truth from then on', () =>
    expect(cupTrueC([burst, { what: 'read', ms: 60_000, c: 171 }], world, 60_000).c).toBeCloseTo(171, 9));
  test('the surface is colder than the cup until it is stirred', () => {
    const at = (events: Parameters<typeof cupTrueC>[0]) => cupTrueC(events, world, 120_000);
    const still = at([burst, { what: 'stir', ms: 0 }]);
    expect(still.c - still.surfaceC).toBeGreaterThan(4);
    const stirred = at([burst, { what: 'stir', ms: 119_000 }]);
    expect(stirred.c - stirred.surfaceC).toBeLessThan(0.2);
  });
  const say = (fault: 'none' | 'dropout' | 'stuck' | 'wild', ms = 6000) =>
    shown(170, { fault, last: 168.4, seed: 7, ms, sd: 0.5, digits: 1 });
  test('says what it should with its noise, or has its fault', () => {
    expect(Math.abs((say('none') as number) - 170)).toBeLessThan(2);
    expect(say('none')).toBe(say('none'));
    expect(say('dropout')).toBeUndefined();
    expect(say('stuck')).toBe(168.4);
    expect(say('wild', 6000)).toBe(370);
    expect(Math.abs((say('wild', 7000) as number) - 170)).toBeLessThan(2);
  });
  test('its noise is a normal one', () => {
    const values = Array.from({ length: 4000 }, (_, i) => noise(11, i * 1000));
    const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
    const sd = Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / values.length);
    expect(Math.abs(mean)).toBeLessThan(0.06);
    expect(Math.abs(sd - 1)).toBeLessThan(0.06);
  });
});
