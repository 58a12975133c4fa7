import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { check } from '../validate.ts';
import { dipPlan, dipSchema } from './dip.ts';
import { dipFit, dipFitSchema } from './dipFit.ts';
import { type Insert, insertSize, insertsOf, meanInserts } from './inserts.ts';
import { medianLife } from './life.ts';
import { weighed, weighedSchema } from './weighed.ts';

const weigh = (readings: object[], more: object = {}) =>
  weighed(check(weighedSchema, { cavities: 4, estimate: { cavityMl: 10, channelsMl: 5 }, readings, ...more }));

describe('weighings against the estimate', () => {
  test('baits and shots: the channels are what is left, by hand', () => {
    // 8 baits 97.92 g and 4 baits 50.184 g: 148.104 g ÷ 1.02 ÷ 12 = 12.1 mL. A shot 55.08 g ÷ 1.02 = 54 mL, less 48.4.
    const found = weigh([
      { of: 'bait', count: 8, grams: 97.92 },
      { of: 'bait', count: 4, grams: 50.184 },
      { of: 'shot', count: 1, grams: 55.08 },
    ]);
    expect(found.cavityMl).toBeCloseTo(12.1, 9);
    expect(found.channelsMl).toBeCloseTo(5.6, 9);
    expect(found).toMatchObject({
      cavityFrom: 12,
      channelsFrom: 1,
      problem: null,
      toEstimate: expect.closeTo(1.21, 9),
    });
    // 12.0 and 12.3 mL a bait: their standard deviation 0.2121 over the mean of 12.15.
    expect(found.spread).toBeCloseTo(0.212132 / 12.15, 5);
  });

  test('shots alone stretch both parts of the estimate alike', () => {
    const found = weigh([{ of: 'shot', count: 2, grams: 2 * 1.02 * 54 }]);
    expect([found.cavityMl, found.channelsMl]).toEqual([expect.closeTo(12, 9), expect.closeTo(6, 9)]);
  });

  test('a sprue alone leaves the cavities as estimated; with shots it gives them', () => {
    expect(weigh([{ of: 'sprue', count: 3, grams: 3 * 6 * 1.02 }])).toMatchObject({ cavityMl: 10, cavityFrom: 0 });
    const both = weigh([
      { of: 'sprue', count: 1, grams: 6.12 },
      { of: 'shot', count: 1, grams: 1.02 * 50 },
    ]);
    expect(both.cavityMl).toBeCloseTo(11, 9);
  });

  test('what is set into a bait is no plastic', () => {
    // 11.34 g of lead takes 1 mL of the cavity's 10; the bait of 20.52 g has 9.18 g, 9 mL, of plastic.
    expect(weigh([{ of: 'sprue', count: 1, grams: 5.1 }], { insertG: 11.34, insertMl: 1 }).cavityMl).toBeCloseTo(9, 9);
    expect(weigh([{ of: 'bait', count: 1, grams: 20.52 }], { insertG: 11.34, insertMl: 1 }).toEstimate).toBeCloseTo(
      1,
      9,
    );
  });

  test.each([
    [
      'a shot lighter than its baits',
      [
        { of: 'bait', count: 1, grams: 12 },
        { of: 'shot', count: 1, grams: 30 },
      ],
      /more than the whole shot/,
    ],
    ['a bait lighter than its insert', [{ of: 'bait', count: 1, grams: 3 }], /less than what is set into it/],
  ])('%s: told, and the estimate stands', (_what, readings, words) => {
    const found = weigh(readings, { insertG: 3 });
    expect(found.problem).toMatch(words);
    expect(found).toMatchObject({ cavityMl: 10, channelsMl: 5, cavityFrom: 0 });
  });

  test('whatever a mold holds comes back from its own weights', () => {
    const ml = fc.double({ min: 0.5, max: 80, noNaN: true });
    fc.assert(
      fc.property(
        ml,
        ml,
        fc.integer({ min: 1, max: 12 }),
        fc.double({ min: 0.9, max: 1.4, noNaN: true }),
        (cavityMl, channelsMl, cavities, densityGPerMl) => {
          const found = weigh(
            [
              { of: 'bait', count: 7, grams: 7 * cavityMl * densityGPerMl, densityGPerMl },
              { of: 'shot', count: 3, grams: 3 * (cavities * cavityMl + channelsMl) * densityGPerMl, densityGPerMl },
            ],
            { cavities },
          );
          expect(found.cavityMl).toBeCloseTo(cavityMl, 6);
          expect(found.channelsMl).toBeCloseTo(channelsMl, 6);
        },
      ),
    );
  });
});

describe('inserts', () => {
  const lead: Insert = {
    kind: 'weight',
    stuff: 'lead',
    massG: 11.34,
    cavity: null,
    stays: true,
    fromNoseMm: 30,
    upMm: -5,
  };
  const rod: Insert = {
    kind: 'rod',
    stuff: 'steel',
    diameterMm: 2,
    lengthMm: 100,
    cavity: 2,
    stays: false,
    fromNoseMm: 0,
    upMm: 0,
  };

  test('their mass and room', () => {
    expect(insertSize(lead)).toEqual({ massG: 11.34, volumeMl: expect.closeTo(1, 9) });
    // π/4 · 2² · 100 mm³ = 0.314159 mL of steel.
    expect(insertSize(rod)).toEqual({
      massG: expect.closeTo(0.314159 * 7.85, 4),
      volumeMl: expect.closeTo(0.314159, 5),
    });
    // A tube 4 over 3 mm, 50 long: room 0.628319 mL, brass π/4 · (16 − 9) · 50.
    expect(insertSize({ kind: 'tube', stuff: 'brass', diameterMm: 4, boreMm: 3, lengthMm: 50 })).toEqual({
      massG: expect.closeTo(0.274889 * 8.5, 4),
      volumeMl: expect.closeTo(0.628319, 5),
    });
  });

  test('one cavity or all of them; a rod that is drawn out takes room and stays in no bait', () => {
    expect(insertsOf([lead, rod], 1)).toEqual({
      staysG: 11.34,
      staysMl: expect.closeTo(1, 9),
      takenMl: expect.closeTo(1, 9),
    });
    expect(insertsOf([lead, rod], 2).takenMl).toBeCloseTo(1.314159, 5);
    expect(meanInserts([rod], 4)).toEqual({ staysG: 0, staysMl: 0, takenMl: expect.closeTo(0.0785398, 6) });
  });

  test.each([
    ['a weight without a mass', { kind: 'weight', stuff: 'tin' }],
    ['a wire without a length', { kind: 'wire', stuff: 'steel', diameterMm: 1 }],
    ['a bore as wide as its tube', { kind: 'tube', stuff: 'brass', diameterMm: 3, boreMm: 3, lengthMm: 10 }],
  ] as const)('%s is refused', (_what, size) => {
    expect(() => insertSize(size)).toThrow();
  });
});

describe('wall by dips', () => {
  const fitted = (log: object[], more: object = {}) => dipFit(check(dipFitSchema, { log, ...more }));

  test('a long log of its own replaces the starting values, which a single reading only moves', () => {
    const truth = (cupC: number, dips: number) => dips * 0.9 * (1 + 0.02 * (155 - cupC));
    const log = [150, 152, 155, 158, 160].flatMap((cupC) =>
      Array.from({ length: 20 }, () => ({ dips: 3, wallMm: truth(cupC, 3), cupC })),
    );
    const long = fitted(log);
    expect(long.wallPerDipMm).toBeCloseTo(0.9, 2);
    expect(long.perDegree).toBeCloseTo(0.02, 2);
    expect(long).toMatchObject({ readings: 100, dips: 300, missMm: expect.closeTo(0, 1) });
    // One reading of 3 dips as heavy as the prior's three: half way between 0.7 and 0.9.
    expect(fitted([{ dips: 3, wallMm: 2.7, cupC: 155 }]).wallPerDipMm).toBeCloseTo(0.8, 9);
  });

  test('what is fitted plans the dips: more wall a dip, fewer dips', () => {
    const plan = (wallPerDipMm: number) =>
      dipPlan(check(dipSchema, { rodMm: 6, lengthMm: 80, wallMm: 2.1, tubes: 10, wallPerDipMm })).dips;
    expect([plan(0.7), plan(fitted(Array(30).fill({ dips: 2, wallMm: 2.2, cupC: 155 })).wallPerDipMm)]).toEqual([3, 2]);
  });
});

const gone = (...shots: number[]) => shots.map((n) => ({ shots: n, retired: true }));
const atWork = (...shots: number[]) => shots.map((n) => ({ shots: n, retired: false }));

// By hand: 5/6, then 4/5 and 3/4 of what was left: half after the third.
test.each([
  ['five gone, one still at work', [...gone(100, 120, 150, 200, 210), ...atWork(180)], 150, 5],
  [
    'five gone, many at work beyond them',
    [...gone(100, 100, 100, 100, 100), ...atWork(...Array(20).fill(300))],
    null,
    5,
  ],
  [
    'those cut short before the first went do not count',
    [...gone(100, 120, 150, 200, 210), ...atWork(10, 20, 30)],
    150,
    5,
  ],
  ['four gone and none left: too few to tell', gone(7, 8, 9, 10), null, 4],
  ['one gone', gone(7), null, 1],
  ['none gone', atWork(400), null, 0],
] as const)('median life, %s', (_what, lives, shots, from) => {
  expect(medianLife([...lives])).toEqual({ shots, from });
});
