import { expect, test } from 'vitest';
import { deltaE, labOf } from '../colour/lab.ts';
import { bands, hexOf, layerOver, linearOf, meltOf, type Optics, type Rgb } from '../colour/light.ts';
import { PLAIN_PLASTIC } from '../colour/nominal.ts';
import { type Bottle, chanceOf, madeUpStore } from '../colour/testing.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { know, knowSchema } from './know.ts';

const ask = (input: Record<string, unknown>) => know(check(knowSchema, input));
const refusal = (input: Record<string, unknown>) => {
  try {
    ask(input);
    return null;
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return [error.code, error.path];
  }
};

test('a puck of 1.10 g/mL is 13.8 % salt by hand', () => {
  // 1/1.02 − 1/1.10 = 0.0713012; 1/1.02 − 1/2.165 = 0.5184981.
  const found = ask({ massG: 11, volumeMl: 10 });
  expect(found.densityGPerMl.value).toBeCloseTo(1.1, 12);
  expect(found.salt.value).toBeCloseTo(0.137515, 5);
  // Hung in water it weighs 1 g: the same 10 mL, told far more closely.
  const hung = ask({ massG: 11, inWaterG: 1 });
  expect(hung.salt.value).toBeCloseTo(found.salt.value, 12);
  expect(hung.salt.high - hung.salt.low).toBeLessThan(found.salt.high - found.salt.low);
  // In sea water it floats higher: the same reading is a denser puck.
  expect(ask({ massG: 11, inWaterG: 0.75, waterDensityGPerMl: 1.025 }).salt.value).toBeCloseTo(0.137515, 5);
});

test('by hand: hung in water it is told to ±0.0108 g/mL, and its salt to ±3.04 %, most of it what plastisols differ by', () => {
  // ∂ρ by both weighings are 0.01 and 0.11 at 10 mL of lift: 0.05 g each are 0.0055227 g/mL.
  const { densityGPerMl, salt } = ask({ massG: 11, inWaterG: 1 });
  expect(densityGPerMl.low).toBeCloseTo(1.1 - 0.010825, 5);
  expect(densityGPerMl.high).toBeCloseTo(1.1 + 0.010825, 5);
  // 0.0088027 by the density, 0.0127913 by the plastisol’s 0.008 g/mL.
  expect([salt.low, salt.high]).toEqual([expect.closeTo(0.10708, 4), expect.closeTo(0.16795, 4)]);
  // In sea water of 1.025 the same puck: 0.0073171 and 0.1073171 of 0.05 g.
  const sea = ask({ massG: 11, inWaterG: 0.75, waterDensityGPerMl: 1.025 }).densityGPerMl;
  expect(sea.high - sea.value).toBeCloseTo(1.96 * 0.0053783, 5);
  // By the risen water: 0.05 of 11 g and 0.3 of 10 mL.
  const risen = ask({ massG: 11, volumeMl: 10 }).densityGPerMl;
  expect(risen.high - risen.value).toBeCloseTo(1.96 * 1.1 * Math.hypot(0.05 / 11, 0.03), 6);
});

test('by hand: much flake and a few bubbles count as half of the most, and widen it by where they may lie', () => {
  const { salt } = ask({ massG: 11, inWaterG: 1, flake: 'much', bubbles: 'few' });
  // (1/1.02 + 0.025·(1/1.38 − 1/1.02) − 0.99/1.1) / (1/1.02 − 1/2.165).
  expect(salt.value).toBeCloseTo(0.142707, 4);
  const sd = Math.hypot(
    (0.99 / 1.21 / 0.518498) * 0.0055227,
    ((1 - 0.142707 - 0.025) / 1.0404 / 0.518498) * 0.008,
    (0.255754 / 0.518498) * (0.05 / Math.sqrt(12)),
    (1 / 1.1 / 0.518498) * (0.02 / Math.sqrt(12)),
  );
  expect(salt.high - salt.value).toBeCloseTo(1.96 * sd, 4);
});

test('three readings by hand: 49.7, give or take 2.62; never beyond the scale', () => {
  const pressed = (readings: number[]) => ask({ massG: 11, inWaterG: 1, hardness: { scale: 'A', readings } }).hardness;
  // (4·2² + 4.667)/6 points² over 3 readings, t(6) 2.4469.
  expect(pressed([48, 51, 50])).toMatchObject({
    scale: 'A',
    value: expect.closeTo(49.6667, 3),
    low: expect.closeTo(47.0447, 3),
    high: expect.closeTo(52.2885, 3),
  });
  expect(pressed([1])?.low).toBe(0);
  expect(pressed([99, 100])?.high).toBe(100);
});

test('the colour is the scrap’s own K and S; flake makes its look half as far again and more uncertain', () => {
  const scrap = meltOf(PLAIN_PLASTIC, [{ k: [0.05, 0.02, 0.01], s: [0.01, 0.01, 0.01], mlPerL: 3 }]);
  const read = (ground: number): Rgb => layerOver(scrap, 3, [ground, ground, ground]);
  const at = (flake: string) =>
    ask({ massG: 11, inWaterG: 1, flake, colour: { thicknessMm: 3, overBlack: read(0), overWhite: read(1) } }).colour;
  const found = at('none');
  for (const band of [0, 1, 2] as const) {
    expect(found?.k[band]).toBeCloseTo(scrap.k[band], 9);
    expect(found?.s[band]).toBeCloseTo(scrap.s[band], 9);
  }
  expect(found?.hex).toBe(hexOf(layerOver(scrap, 8, [1, 1, 1])));
  // 0.01 of the light, and 0.015 more with flake: two and a half times.
  expect((at('some')?.deltaE95 ?? 0) / (found?.deltaE95 ?? 1)).toBeGreaterThan(2);
  expect((at('some')?.deltaE95 ?? 9) / (found?.deltaE95 ?? 1)).toBeLessThan(3);
});

test('what is to be added, in whole drops of the one bottle of two that it needs', () => {
  const green: Optics = { k: [0.06, 0.01, 0.05], s: [0.004, 0.006, 0.004] };
  const red: Optics = { k: [0.01, 0.08, 0.06], s: [0.004, 0.004, 0.004] };
  const scrap = meltOf(PLAIN_PLASTIC, [{ ...red, mlPerL: 1 }]);
  // Half scrap, half fresh, and 12 drops of 20 a mL into 237 mL.
  const wanted = meltOf(PLAIN_PLASTIC, [
    { ...red, mlPerL: 0.5 },
    { ...green, mlPerL: (12 / 20 / 237) * 1000 },
  ]);
  const read = (ground: number): Rgb => layerOver(scrap, 3, [ground, ground, ground]);
  const { toAdd } = ask({
    massG: 11,
    inWaterG: 1,
    colour: { thicknessMm: 3, overBlack: read(0), overWhite: read(1) },
    wish: {
      target: { linear: layerOver(wanted, 8, [1, 1, 1]) },
      scrapShare: 0.5,
      colourants: [
        { id: 'red', ...red },
        { id: 'green', ...green },
      ],
      batchMl: 237,
    },
  });
  expect(toAdd?.items.map(({ id, drops }) => [id, drops])).toEqual([['green', 12]]);
  const [dose] = toAdd?.items ?? [];
  expect(dose?.mlPerL.value).toBeCloseTo(12 / 20 / 0.237, 1);
  expect(dose?.mlPerL.low).toBeLessThan(dose?.mlPerL.value ?? 0);
  expect(toAdd?.deltaE00.value).toBeLessThan(0.3);
  expect(toAdd?.deltaE00.high).toBeGreaterThan(1);
  expect(toAdd).not.toHaveProperty('saltGPer100G');
});

test('flake and air widen what is told, and say so', () => {
  const width = (more: object) => {
    const { salt, widenedBy } = ask({ massG: 22, inWaterG: 2, ...more });
    return { wide: salt.high - salt.low, widenedBy };
  };
  const plain = width({});
  expect(plain.widenedBy).toEqual([]);
  for (const [more, by] of [
    [{ flake: 'some' }, ['flake in it']],
    [{ flake: 'much', bubbles: 'few' }, ['much flake in it', 'bubbles in it']],
  ] as const) {
    const one = width(more);
    expect(one.wide).toBeGreaterThan(plain.wide * 1.01);
    expect(one.widenedBy).toEqual(by);
  }
});

test.each([
  [{ massG: 11, volumeMl: 10, bubbles: 'foamy' }, ['foamy-puck', 'bubbles']],
  [{ massG: 9, volumeMl: 10 }, ['out-of-range', 'volumeMl']],
  [{ massG: 18, inWaterG: 8 }, ['out-of-range', 'massG']],
  [{ massG: 10, inWaterG: 10 }, ['invalid-input', 'inWaterG']],
  [{ massG: 20, inWaterG: 0 }, ['out-of-range', 'inWaterG']],
  [
    {
      massG: 10,
      inWaterG: 1,
      wish: { target: { hex: '#336699' }, colourants: [{ id: 'a', k: [0, 0, 0], s: [0, 0, 0] }], batchMl: 10 },
    },
    ['invalid-input', undefined],
  ],
  [{ massG: 10 }, ['invalid-input', undefined]],
  [{ massG: 10, inWaterG: 1, volumeMl: 9 }, ['invalid-input', undefined]],
  [{ massG: 10, inWaterG: 1, hardness: { scale: 'A', readings: [] } }, ['invalid-input', 'hardness.readings']],
  [
    { massG: 11, inWaterG: 1, colour: { thicknessMm: 4, overBlack: [0.5, 0.5, 0.5], overWhite: [0.4, 0.6, 0.6] } },
    ['too-opaque', 'overBlack'],
  ],
])('what tells nothing is refused: %o', (input, expected) => {
  const found = refusal(input);
  expect(found?.[0]).toBe(expected[0]);
  if (expected[1]) expect(found?.[1]).toMatch(expected[1]);
});

/** Scatter about nothing, standard deviation 1. */
const normal = (next: () => number) => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());

test('made-up mixes of plastisol, salt, flake and air come back inside what is told, in 95 of 100', () => {
  const next = chanceOf(7);
  let [salt, hardness, colour, dose, doses] = [0, 0, 0, 0, 0];
  const mixes = 300;
  for (let i = 0; i < mixes; i++) {
    const flake = (['none', 'some', 'much'] as const)[i % 3] as 'none' | 'some' | 'much';
    const bubbles = i % 2 === 0 ? 'none' : 'few';
    const f = { none: 0, some: usual('someFlakeMost'), much: usual('muchFlakeMost') }[flake] * next();
    const air = bubbles === 'few' ? usual('fewBubblesMost') * next() : 0;
    const w = 0.3 * next();
    const plastic = 1.02 + usual('plastisolSdGPerMl') * normal(next);
    const massG = 15 + 20 * next();
    const volume = (massG * ((1 - w - f) / plastic + w / 2.165 + f / usual('flakeGPerMl'))) / (1 - air);
    const scatter = usual('scaleSdG');
    const hard = 20 + 60 * next();
    // One bottle in plain plastic, and how its puck reads.
    const [bottle] = madeUpStore(next) as [Bottle, ...Bottle[]];
    const scrap = meltOf(PLAIN_PLASTIC, [{ ...bottle, mlPerL: 1 + 3 * next() }]);
    const sd = usual('readingSdOfOne');
    const read = (ground: number): Rgb =>
      bands((b) =>
        Math.min(0.999, Math.max(0.001, layerOver(scrap, 2, [ground, ground, ground])[b] + sd * normal(next))),
      );
    const wanted = meltOf(scrap, [{ ...bottle, mlPerL: 2 }]);
    const input = {
      massG: massG + scatter * normal(next),
      inWaterG: Math.max(0, massG - volume + scatter * normal(next)),
      flake,
      bubbles,
      hardness: { scale: '00', readings: [0, 1, 2].map(() => Math.min(100, hard + 2 * normal(next))) },
      colour: { thicknessMm: 2, overBlack: read(0), overWhite: read(1) },
      wish: {
        target: { hex: hexOf(layerOver(wanted, 8, [1, 1, 1])) },
        colourants: [{ id: 'one', k: bottle.k, s: bottle.s, maxMlPerL: 100 }],
        batchMl: 1e5,
      },
    };
    const found = ask(input);
    if (found.salt.low <= w && w <= found.salt.high) salt++;
    if (found.hardness && found.hardness.low <= hard && hard <= found.hardness.high) hardness++;
    const look = layerOver(scrap, usual('matchedAtMm'), [1, 1, 1]);
    if (found.colour && deltaE(labOf(look), labOf(linearOf(found.colour.hex))) <= found.colour.deltaE95 + 0.5) colour++;
    // Where so little light is left that more changes nothing, nothing is asked of the dose.
    const [added] = found.toAdd?.items ?? [];
    if (added) {
      doses++;
      if (added.mlPerL.low <= 2 && 2 <= added.mlPerL.high) dose++;
    }
  }
  expect(salt / mixes).toBeGreaterThanOrEqual(0.95);
  expect(hardness / mixes).toBeGreaterThanOrEqual(0.95);
  expect(colour / mixes).toBeGreaterThanOrEqual(0.95);
  expect(doses).toBeGreaterThan(mixes / 2);
  expect(dose / doses).toBeGreaterThanOrEqual(0.95);
});

test('salt that is wished for, into half of it: 10 % of a cup by hand', () => {
  const { toAdd } = ask({
    massG: 11,
    volumeMl: 10,
    colour: { thicknessMm: 3, overBlack: [0.05, 0.1, 0.05], overWhite: [0.4, 0.5, 0.4] },
    wish: {
      target: { linear: [0.2, 0.3, 0.2] },
      scrapShare: 0.5,
      saltFraction: 0.1,
      colourants: [{ id: 'green', k: [0.1, 0.02, 0.1], s: [0.01, 0.02, 0.01] }],
      batchMl: 237,
    },
  });
  // 6.8758 g of salt are in 100 g already; (10 − 6.8758) / 0.9.
  expect(toAdd?.saltGPer100G?.value).toBeCloseTo(3.4714, 3);
  expect(toAdd?.saltGPer100G?.low).toBeLessThan(3.4714);
});
