import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Failure } from './failure.ts';
import { dipPlan } from './mold/dip.ts';
import { plan, planSchema, topUp } from './mold/silicone.ts';
import { CUP_DEFAULTS } from './plan/cup.ts';
import { batchFromCup, batchSize } from './plastisol/batch.ts';
import { blend } from './plastisol/hardness.ts';
import { scaleRecipe } from './plastisol/recipe.ts';
import { ceilNear, floorNear, roundHalfUp, roundMoney } from './rounding.ts';
import { convert } from './units/convert.ts';
import { check } from './validate.ts';
import { balance, chart, compare, shotsFor } from './yield/counts.ts';
import { betaBinomialAtMost, binomialLimits } from './yield/distributions.ts';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const whole = (min: number, max: number) => fc.integer({ min, max });
const refusal = (run: () => unknown): string | undefined => {
  try {
    run();
    return undefined;
  } catch (error) {
    if (error instanceof Failure) return error.code;
    throw error;
  }
};

describe('rounding', () => {
  test.each([
    ['a hair under a whole floors to it', floorNear(0.1 * 3 * 10 - 1e-12), 3],
    ['a hair over a whole ceils to it', ceilNear(3.0000000000001), 3],
    ['a true fraction is cut', floorNear(2.999), 2],
    ['halves go up', roundHalfUp(2.5), 3],
    ['1.005 · 100 / 2 is a half', roundHalfUp(0.5 - 1e-17), 1],
    ['money halves go away from zero', roundMoney(-2.5), -3],
    ['money halves go away from zero, upward too', roundMoney(2.5), 3],
  ])('%s', (_what, got, wanted) => expect(got).toBe(wanted));
});

describe('units.convert', () => {
  const groups = [
    ['mL', 'L', 'tsp', 'tbsp', 'floz', 'cup', 'qt', 'gal', 'cupMetric', 'drop', 'scoop'],
    ['g', 'kg', 'oz', 'lb'],
    ['mm', 'cm', 'in'],
    ['C', 'F', 'K'],
  ];
  const pair = fc
    .constantFrom(...groups)
    .chain((units) => fc.tuple(fc.constantFrom(...units), fc.constantFrom(...units)));
  const measures = [{ unit: 'scoop', ml: 0.68 }];
  test('there and back is identity', () => {
    fc.assert(
      fc.property(pair, real(0, 1e6), ([from, to], value) => {
        const there = convert({ value, from, to, dropsPerMl: 22, measures }).value;
        const back = convert({ value: there, from: to, to: from, dropsPerMl: 22, measures }).value;
        expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-9 * Math.max(1, value, 460));
      }),
    );
  });
  test('by a density, mass and volume come back too', () => {
    fc.assert(
      fc.property(real(0.001, 1e5), real(0.2, 3), (value, densityGPerMl) => {
        const context = { dropsPerMl: 20, measures: [], densityGPerMl };
        const ml = convert({ value, from: 'oz', to: 'tsp', ...context }).value;
        expect(convert({ value: ml, from: 'tsp', to: 'oz', ...context }).value).toBeCloseTo(value, 6);
      }),
    );
  });
  test.each([
    [{ value: -273.15, from: 'C', to: 'K' }, 0],
    [{ value: -459.67, from: 'F', to: 'C' }, -273.15],
    [{ value: 212, from: 'F', to: 'C' }, 100],
    [{ value: 1, from: 'gal', to: 'cup' }, 16],
  ])('%j', (input, wanted) => expect(convert({ ...input, dropsPerMl: 20, measures: [] }).value).toBeCloseTo(wanted, 9));
  test('what is wrong is said in order: the unit, then the kind, then the range', () => {
    const said = (value: number, from: string, to: string) =>
      refusal(() => convert({ value, from, to, dropsPerMl: 20, measures: [] }));
    expect([
      said(-1, 'hogshead', 'mm'),
      said(-1, 'mL', 'mm'),
      said(-1, 'mL', 'g'),
      said(-1, 'mL', 'L'),
      said(-274, 'C', 'F'),
    ]).toEqual(['unknown-unit', 'unit-mismatch', 'unit-mismatch', 'out-of-range', 'out-of-range']);
    expect(said(1, 'toString', 'mL')).toBe('unknown-unit');
  });
});

describe('silicone.plan', () => {
  const input = fc.record({
    pour: fc.constantFrom('open-face', 'wrap', 'two-piece'),
    lengthMm: real(20, 200),
    widthMm: real(5, 60),
    heightMm: real(5, 60),
    filled: real(0.1, 0.8),
    count: whole(1, 12),
    partA: real(1, 100),
    partB: real(1, 100),
    by: fc.constantFrom('mass', 'volume'),
    wasteFraction: real(0, 0.5),
    roomC: real(0, 40),
  });
  const planOf = (row: typeof input extends fc.Arbitrary<infer T> ? T : never) =>
    plan(
      check(planSchema, {
        pour: row.pour,
        masters: [
          {
            volumeMl: (row.lengthMm * row.widthMm * row.heightMm * row.filled) / 1000,
            lengthMm: row.lengthMm,
            widthMm: row.widthMm,
            heightMm: row.heightMm,
            count: row.count,
          },
        ],
        mix: { by: row.by, partA: row.partA, partB: row.partB, densityAGPerMl: 1.2, densityBGPerMl: 1.0 },
        potLifeMin: 20,
        demoldMin: 240,
        roomC: row.roomC,
        wasteFraction: row.wasteFraction,
      }),
    );
  test('A to B is always the ratio, by mass or by volume', () => {
    fc.assert(
      fc.property(input, (row) => {
        const pour = planOf(row).pours[0];
        const ratio =
          row.by === 'mass' ? (pour?.gramsA ?? 0) / (pour?.gramsB ?? 1) : (pour?.mlA ?? 0) / (pour?.mlB ?? 1);
        expect(ratio).toBeCloseTo(row.partA / row.partB, 9);
        expect((pour?.mlA ?? 0) + (pour?.mlB ?? 0)).toBeCloseTo(pour?.mixMl ?? 0, 6);
      }),
    );
  });
  test('more waste is more mix, and a warmer room is less time', () => {
    fc.assert(
      fc.property(input, (row) => {
        const base = planOf(row);
        expect(planOf({ ...row, wasteFraction: row.wasteFraction + 0.1 }).totalMixMl).toBeGreaterThan(base.totalMixMl);
        expect(planOf({ ...row, roomC: row.roomC + 10 }).potLifeMin).toBeCloseTo(base.potLifeMin / 2, 9);
      }),
    );
  });
  test('block, rubber and masters add up, and the masters fit the grid', () => {
    fc.assert(
      fc.property(input, (row) => {
        const made = planOf(row);
        const net = made.pours.reduce((sum, pour) => sum + pour.netMl, 0);
        const masters = (row.lengthMm * row.widthMm * row.heightMm * row.filled * row.count) / 1000;
        expect(net + masters).toBeCloseTo((made.boxLengthMm * made.boxWidthMm * made.boxHeightMm) / 1000, 6);
        expect(made.columns * made.rows).toBeGreaterThanOrEqual(row.count);
        expect(made.rows * row.lengthMm + (made.rows - 1) * 8 + 20).toBeCloseTo(made.boxLengthMm, 9);
      }),
    );
  });
  test('the box the plan chose is accepted when it is given', () => {
    fc.assert(
      fc.property(input, (row) => {
        const made = planOf(row);
        const box = { lengthMm: made.boxLengthMm, widthMm: made.boxWidthMm, heightMm: made.boxHeightMm };
        const masters = [
          { volumeMl: 0.001, lengthMm: row.lengthMm, widthMm: row.widthMm, heightMm: row.heightMm, count: row.count },
        ];
        const given = check(planSchema, {
          pour: row.pour,
          masters,
          box,
          mix: { by: 'mass', partA: 1, partB: 1 },
          potLifeMin: 1,
          demoldMin: 1,
        });
        expect(plan(given).boxLengthMm).toBe(made.boxLengthMm);
      }),
    );
  });
  test('a top-up of the whole depth is a layer as deep', () => {
    const mix = { by: 'mass', partA: 10, partB: 1, densityAGPerMl: 1.1, densityBGPerMl: 1.1 } as const;
    const top = topUp({
      mix,
      boxLengthMm: 100,
      boxWidthMm: 50,
      missingDepthMm: 10,
      wasteFraction: 0,
      minutesSinceMixed: 60,
      potLifeMin: 20,
    });
    expect(top).toMatchObject({ mixMl: 50, minutesLeft: -40, bondsToFirst: false });
  });
});

describe('batch', () => {
  const mold = fc.record({
    cavities: whole(1, 12),
    cavityMl: real(0.5, 30),
    sprueMl: real(0, 10),
    runnerMl: real(0, 10),
    share: real(0.1, 1),
  });
  test('the shots that a cup fills are the most: one more would not fit', () => {
    fc.assert(
      fc.property(
        mold,
        real(30, 3000),
        fc.option(real(60, 400), { nil: undefined }),
        (row, availableMl, injectorMl) => {
          const cup = { ...CUP_DEFAULTS, injectorMl };
          let found: ReturnType<typeof batchFromCup>;
          try {
            found = batchFromCup({ availableMl, mold: row, ...cup });
          } catch (error) {
            expect(['cup-too-small', 'shot-exceeds-injector']).toContain((error as Failure).code);
            return;
          }
          const cook = (shots: number) => batchSize({ molds: [{ id: 'm', shots, ...row }], ...cup }).cookMl;
          expect(cook(found.shots)).toBeLessThanOrEqual(availableMl * (1 + 2e-9));
          expect(cook(found.shots + 1)).toBeGreaterThan(availableMl * (1 - 2e-9));
          expect(found.leftoverMl).toBeCloseTo(availableMl - cook(found.shots), 6);
        },
      ),
    );
  });
  test('what is cooked is what becomes baits, what comes back, the feed and the film', () => {
    const one = batchSize({
      molds: [{ id: 'm', shots: 6, cavities: 4, cavityMl: 10, sprueMl: 5, runnerMl: 0, share: 1 }],
      ...CUP_DEFAULTS,
      injectorMl: 150,
    });
    // A shot 47.7 mL, three to a load of 147 mL: 2 loads.
    expect(one).toMatchObject({ cookMl: 6 * 47.7 + 2 * 3 + 8, baits: 24, returnMl: 6 * 5 + 6, molds: [{ loads: 2 }] });
  });
});

test('recipe.scale: scaling twice is scaling once, and the practical measure is the nearest', () => {
  const item = fc.record({ amount: real(0.01, 200), unit: fc.constantFrom('drop', 'tsp', 'tbsp', 'g', 'mL') });
  fc.assert(
    fc.property(item, real(50, 1000), real(50, 1000), ({ amount, unit }, basisMl, batchMl) => {
      const scale = (from: number, to: number, value: number) =>
        scaleRecipe({
          basisMl: from,
          batchMl: to,
          measures: [],
          items: [{ id: 'a', amount: value, unit, dropsPerMl: 20, strength: 1, bottleStrength: 1 }],
        }).items[0];
      const once = scale(basisMl, batchMl, amount);
      const twice = scale(100, batchMl, scale(basisMl, 100, amount)?.amount ?? 0);
      expect(twice?.amount).toBeCloseTo(once?.amount ?? 0, 6);
      if (once?.drops !== undefined) expect(Math.abs(once.drops - once.amount)).toBeLessThanOrEqual(0.5 + 1e-9);
      if (once?.spoons) {
        const spooned = once.spoons.reduce((sum, { tsp, count }) => sum + count / Number(tsp.split('/')[1] ?? 1), 0);
        const exact = unit === 'tbsp' ? once.amount * 3 : once.amount;
        expect(Math.abs(spooned - exact)).toBeLessThanOrEqual(1 / 128 + 1e-9);
        expect(once.roundingFraction).toBeCloseTo((spooned - exact) / exact, 9);
      }
      expect(once?.tooCoarse).toBe(Math.abs(once?.roundingFraction ?? 0) > 0.1);
    }),
  );
});

describe('hardness.blend', () => {
  const parts = [
    { id: 'soft', hardness: 20, minFraction: 0, maxFraction: 1, pricePerKgMinor: 1000 },
    { id: 'firm', hardness: 60, minFraction: 0, maxFraction: 1, pricePerKgMinor: 2000 },
  ];
  test.each([
    // Within ±2 of 40 the cheap soft one goes as far as 38: w = (60 − 38)/40 = 0.55.
    ['the cheapest within the tolerance', { target: 40, tolerance: 2 }, 0.55, 38],
    ['exactly the target where no slack is given', { target: 40, tolerance: 0 }, 0.5, 40],
    ['one part alone at its own end', { target: 20, tolerance: 0 }, 1, 20],
  ])('%s', async (_what, wish, soft, hardness) => {
    const made = await blend({ scale: '00', batchG: 1000, parts, additives: [], ...wish });
    expect(made.fractions.soft).toBeCloseTo(soft, 5);
    expect(made.hardness).toBeCloseTo(hardness, 4);
    expect(made.costMinor).toBe(Math.round(soft * 1000 + (1 - soft) * 2000));
  });
  test('out of reach it says what can be reached', async () => {
    await expect(
      blend({ scale: '00', target: 70, tolerance: 1, batchG: 1, parts, additives: [] }),
    ).rejects.toMatchObject({ code: 'hardness-out-of-reach', message: expect.stringContaining('20.0 to 60.0') });
  });
});

describe('yield', () => {
  test('shots: the least that are sure enough, checked against the tail term by term', () => {
    fc.assert(
      fc.property(whole(1, 200), whole(1, 12), whole(0, 20), whole(0, 200), (goodNeeded, cavities, rejected, more) => {
        const rejects = { alpha: 1, beta: 19, rejected, made: rejected + more };
        const { shots } = shotsFor({ goodNeeded, cavities, rejects, confidence: 0.9 });
        const sure = (n: number) =>
          betaBinomialAtMost(n * cavities - goodNeeded, n * cavities, 1 + rejected, 19 + more);
        expect(sure(shots)).toBeGreaterThanOrEqual(0.9 - 1e-12);
        expect(shots === 0 ? 0 : sure(shots - 1)).toBeLessThan(0.9);
      }),
    );
  });
  test('the beta-binomial is a distribution, and a sharp prior makes it a binomial', () => {
    expect(betaBinomialAtMost(9, 10, 1, 19)).toBeCloseTo(
      1 - (10 / 29) * (9 / 28) * (8 / 27) * (7 / 26) * (6 / 25) * (5 / 24) * (4 / 23) * (3 / 22) * (2 / 21) * (1 / 20),
      12,
    );
    expect(betaBinomialAtMost(0, 3, 5e5, 5e5)).toBeCloseTo(1 / 8, 5);
  });
  test('balance: more out than in is refused, whatever the figures', () => {
    fc.assert(
      fc.property(real(1, 1000), real(0, 1000), real(0, 1000), (cookedG, goodG, returnedG) => {
        const run = () => balance({ cookedG, goodG, rejectG: 0, returnedG, residueG: 0 });
        if (goodG + returnedG > cookedG * (1 + 1e-8)) expect(refusal(run)).toBe('mass-not-conserved');
        else if (goodG + returnedG <= cookedG) expect(run().unaccountedG).toBeCloseTo(cookedG - goodG - returnedG, 6);
      }),
    );
  });
  test('limits: between nothing and all, around the mean; none and all rejected are their own limits', () => {
    fc.assert(
      fc.property(whole(1, 2000), real(0.001, 0.999), (n, p) => {
        const { lower, upper } = binomialLimits(n, p);
        expect(lower).toBeGreaterThanOrEqual(0);
        expect(upper).toBeLessThanOrEqual(n);
        expect(lower).toBeLessThanOrEqual(n * p + 1);
        expect(upper).toBeGreaterThanOrEqual(Math.floor(n * p));
      }),
    );
    expect(
      chart({
        points: [
          { made: 5, rejected: 0 },
          { made: 9, rejected: 0 },
        ],
      }).points.every((point) => !point.out && point.ucl === 0),
    ).toBe(true);
    expect(chart({ points: [{ made: 5, rejected: 5 }] })).toMatchObject({
      pBar: 1,
      points: [{ ucl: 1, lcl: 1, out: false }],
    });
  });
  test('a run breaks where a point is exactly on the mean', () => {
    const low = { made: 10, rejected: 0 };
    const points = [
      ...Array(7).fill(low),
      { made: 16, rejected: 7 },
      ...Array(8).fill(low),
      { made: 14, rejected: 14 },
      { made: 20, rejected: 2 },
    ];
    const made = chart({ points });
    expect(made.runs).toEqual([{ start: 8, length: 8 }]);
  });
  test('compare: the same counts differ by nothing; order does not matter', () => {
    expect(compare({ a: { made: 20, rejected: 3 }, b: { made: 20, rejected: 3 } }).p).toBeCloseTo(1, 9);
    fc.assert(
      fc.property(whole(1, 60), whole(1, 60), real(0, 1), real(0, 1), (n, m, x, y) => {
        const [a, b] = [
          { made: n, rejected: Math.floor(n * x) },
          { made: m, rejected: Math.floor(m * y) },
        ];
        expect(compare({ a, b }).p).toBeCloseTo(compare({ a: b, b: a }).p, 9);
      }),
    );
    // Tea tasted by a lady: 3 of 4 against 1 of 4 is 34/70.
    expect(compare({ a: { made: 4, rejected: 3 }, b: { made: 4, rejected: 1 } }).p).toBeCloseTo(34 / 70, 9);
  });
});

test('dip.plan: a thicker wall never takes fewer dips, a hotter cup never fewer either', () => {
  const base = {
    rodMm: 6,
    lengthMm: 60,
    wallPerDipMm: 0.7,
    perDegree: 0.03,
    noseMm: 2,
    dripFraction: 0.1,
    tubes: 4,
    cupDiameterMm: 75,
  };
  fc.assert(
    fc.property(real(0.5, 4), real(0, 2), real(140, 175), real(0, 5), (wallMm, more, cupC, hotter) => {
      const thin = dipPlan({ ...base, wallMm, cupC });
      expect(dipPlan({ ...base, wallMm: wallMm + more, cupC }).dips).toBeGreaterThanOrEqual(thin.dips);
      expect(dipPlan({ ...base, wallMm, cupC: cupC + hotter }).dips).toBeGreaterThanOrEqual(thin.dips);
    }),
  );
});
