import fc from 'fast-check';
import jstat from 'jstat';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { cavities, cavitiesSchema } from '../plan/cavities.ts';
import { check } from '../validate.ts';
import { survival, survivalSchema } from '../yield/survival.ts';
import { fitKick, fitKickSchema } from './fitKick.ts';
import { hookFit, hookSchema } from './hook.ts';
import { beam, kick, kickSchema, onset } from './kick.ts';
import { type LadderWish, ladderSteps, stubSpec } from './ladder.ts';
import { salt, saltSchema, sink, sinkSchema } from './sink.ts';
import { trim, trimSchema } from './trim.ts';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const code = (run: () => unknown) => {
  try {
    run();
  } catch (error) {
    return (error as Failure).code;
  }
  return 'none';
};
const asked =
  <S extends v.GenericSchema, R>(schema: S, run: (input: v.InferOutput<S>) => R) =>
  (input: v.InferInput<S>): R =>
    run(check(schema, input));

const sinks = asked(sinkSchema, sink);
const salts = asked(saltSchema, salt);
const kicks = asked(kickSchema, kick);
const trims = asked(trimSchema, trim);
const hooks = asked(hookSchema, hookFit);
const fits = asked(fitKickSchema, fitKick);
const survives = asked(survivalSchema, survival);
const molds = asked(cavitiesSchema, cavities);

describe('sink and salt', () => {
  test('salt found for a rate gives that rate', () => {
    const target = real(20, 200);
    fc.assert(
      fc.property(target, real(2, 60), real(300, 6000), real(0, 6), (mmPerS, volumeMl, planAreaMm2, extraMassG) => {
        const extraVolumeMl = extraMassG / 7.85;
        const body = { volumeMl, planAreaMm2, extraMassG, extraVolumeMl };
        let found: ReturnType<typeof salt>;
        try {
          found = salts({ target: { mmPerS }, ...body });
        } catch (error) {
          expect((error as Failure).code).toBe('out-of-reach');
          return;
        }
        const w = found.saltMassFraction;
        expect(sinks({ ...body, massG: volumeMl / ((1 - w) / 1.02 + w / 2.165) }).mmPerS).toBeCloseTo(mmPerS, 4);
      }),
    );
  });

  test.each([
    ['fresh', 1, 'neutral'],
    ['the sea', 1.03, 'floats'],
  ] as const)('a bait of 1.0005 g/mL in %s', (_where, waterDensityGPerMl, wanted) => {
    expect(sinks({ volumeMl: 10, massG: 10.005, planAreaMm2: 1200, waterDensityGPerMl }).buoyancy).toBe(wanted);
  });

  test.each<[string, v.InferInput<typeof saltSchema>, RegExp]>([
    ['floating salt', { target: { densityGPerMl: 0.9 }, volumeMl: 10, planAreaMm2: 1000 }, /lighter/],
    ['stones', { target: { densityGPerMl: 1.6 }, volumeMl: 10, planAreaMm2: 1000 }, /tears/],
  ])('%s is out of reach', (_what, input, words) => {
    expect(code(() => salts(input))).toBe('out-of-reach');
    expect(() => salts(input)).toThrow(words);
  });
});

describe('kick', () => {
  const tail = {
    scale: '00' as const,
    hardness: 34,
    wristThicknessMm: 4,
    wristHeightMm: 7,
    wristLengthMm: 10,
    paddleDiameterMm: 14,
    paddleThicknessMm: 4,
  };
  const at = (change: Partial<typeof tail>) => kicks({ ...tail, ...change }).onsetMPerS;

  test('the levers are what the model itself says, the most helpful first', () => {
    const { levers } = kicks(tail);
    const byName = Object.fromEntries(levers.map((lever) => [lever.change, lever.onsetMPerS]));
    expect(byName['wrist 10 % thinner']).toBeCloseTo(at({ wristThicknessMm: 3.6 }), 10);
    expect(byName['10 points softer']).toBeCloseTo(at({ hardness: 24 }), 10);
    expect(levers.map((lever) => lever.onsetMPerS)).toEqual([...levers.map((lever) => lever.onsetMPerS)].sort());
  });

  test('near the softest there is, softer is no lever', () => {
    expect(kicks({ ...tail, hardness: 8 }).levers.map((lever) => lever.change)).not.toContain('10 points softer');
  });

  test('thinner, longer and softer never kick later', () => {
    fc.assert(
      fc.property(
        real(1, 8),
        real(3, 30),
        real(15, 60),
        real(1.01, 2),
        (wristThicknessMm, wristLengthMm, hardness, by) => {
          const here = { wristThicknessMm, wristLengthMm, hardness };
          const base = at(here);
          expect(at({ ...here, wristThicknessMm: wristThicknessMm / by })).toBeLessThan(base);
          expect(at({ ...here, wristLengthMm: wristLengthMm * by })).toBeLessThan(base);
          expect(at({ ...here, hardness: hardness / by })).toBeLessThan(base);
        },
      ),
    );
  });

  test('a ribbon has no model', () => expect(code(() => kicks({ ...tail, tail: 'ribbon' }))).toBe('not-applicable'));
  test('a hardness beyond its scale is told at the field', () => {
    expect(() => kicks({ ...tail, hardness: 300 })).toThrow(expect.objectContaining({ path: 'hardness' }));
  });
});

describe('the tail ladder', () => {
  const wish: LadderWish = {
    scale: '00',
    hardness: 34,
    wristHeightMm: 7,
    wristLengthMm: 10,
    paddleDiameterMm: 14,
    paddleThicknessMm: 4,
    walkingMPerS: 0.8,
  };
  const steps = ladderSteps(wish);
  const tailOf = (step: (typeof steps)[number]) => ({ scale: '00' as const, hardness: 34, ...step });
  const rowOf = (step: (typeof steps)[number]) =>
    beam({ ...tailOf(step), tail: 'end-paddle', plastisolDensityGPerMl: 1.02, waterDensityGPerMl: 1 });

  test('its five wrists span the walking pace', () => {
    const speeds = steps.map((step) => kicks(tailOf(step)).onsetMPerS / 0.8);
    expect(speeds).toHaveLength(5);
    for (const [i, share] of [0.5, 0.75, 1, 1.35, 1.9].entries()) expect(speeds[i]).toBeCloseTo(share, 0);
    expect(speeds).toEqual([...speeds].sort((a, b) => a - b));
    expect(stubSpec(steps[0] as (typeof steps)[number]).wrist.thicknessMm).toBe(steps[0]?.wristThicknessMm);
  });

  test('one evening finds a workshop’s own constants again', () => {
    fc.assert(
      fc.property(real(0.35, 1.0), real(0.14, 0.3), (ca, st) => {
        const trials = steps.map((step) => {
          const truth = onset(rowOf(step), ca, st);
          // Counted kicks where it swims at walking pace; every tail says whether it does.
          return truth.onsetMPerS < 0.8
            ? { ...tailOf(step), hz: truth.naturalHz, kicksAtMPerS: 0.8 }
            : { ...tailOf(step), notAtMPerS: 0.8 };
        });
        const kicked = trials.filter((trial) => 'hz' in trial).length;
        const found = fits({ trials, walkingMPerS: 0.8 });
        const [low, high] = found.strouhalRange as [number, number];
        // With bounds on both sides the Strouhal number lies between them, give or take their scatter.
        if (kicked > 0 && kicked < 5) expect(found.strouhal / st).toBeGreaterThan(0.6);
        if (kicked > 0 && kicked < 5) expect(found.strouhal / st).toBeLessThan(1.6);
        if (kicked >= 2) expect(Math.abs(Math.log(found.addedMassCoefficient / ca))).toBeLessThan(0.45);
        expect(low).toBeLessThan(found.strouhal);
        expect(high).toBeGreaterThan(found.strouhal);
      }),
      { numRuns: 25 },
    );
  });

  test('more trials make it surer, and the step in doubt teaches most', () => {
    const candidates = steps.map(tailOf);
    const few = fits({ trials: [{ ...candidates[0], kicksAtMPerS: 0.8 } as never], candidates, walkingMPerS: 0.8 });
    const truth = steps.map((step) => onset(rowOf(step), 0.6, 0.2));
    const more = fits({
      trials: steps.map((step, i) => ({
        ...tailOf(step),
        hz: truth[i]?.naturalHz,
        ...(i < 2 ? { kicksAtMPerS: 0.8 } : { notAtMPerS: 0.75 }),
      })),
      candidates,
      walkingMPerS: 0.8,
    });
    expect(more.onsetUncertainty).toBeLessThan(few.onsetUncertainty);
    // The one just tried has the least left to say; the extremes say little either.
    expect([1, 2, 3]).toContain(few.teaches[0]?.index);
    expect(few.teaches.at(-1)?.bits).toBeLessThan((few.teaches[0]?.bits ?? 0) / 2);
  });

  test.each<[string, Record<string, unknown>]>([
    ['nothing seen', {}],
    ['kicks slower than where it does not', { kicksAtMPerS: 0.4, notAtMPerS: 0.6 }],
  ])('a trial with %s is refused', (_what, seen) => {
    const trial = { ...tailOf(steps[0] as (typeof steps)[number]), ...seen };
    expect(code(() => fits({ trials: [trial] }))).toBe('invalid-input');
  });
});

describe('trim', () => {
  const body = { volumeMl: 10, massG: 10.2, centroidMm: [40, 0, 0] as [number, number, number] };

  test.each<[string, [number, number, number], number, number]>([
    ['a weight under the middle keeps it on its keel', [40, 0, -5], 0, 0],
    ['over the middle turns it belly up', [40, 0, 5], 0, 180],
    ['to the right it rolls a quarter', [40, 5, 0], 0, 90],
    ['ahead and level it stands on its nose', [0, 0, 0], -90, 0],
  ])('%s', (_what, atMm, nose, roll) => {
    const found = trims({ ...body, extras: [{ massG: 3, volumeMl: 0.3, atMm }] });
    expect(found.noseUpDeg).toBeCloseTo(nose, 6);
    expect(Math.abs(found.rollDeg)).toBeCloseTo(roll, 6);
    expect(found.totalMassG).toBeCloseTo(10.2 + 3 - 0.3 * 1.02, 9);
  });

  test('ahead and below: the angle of the line between the centres, by hand', () => {
    // 3 g at 20 mm ahead, 5 below, beside the body and without room of its own: mass moves by 3/13.2 of that.
    const found = trims({ ...body, extras: [{ massG: 3, volumeMl: 0, atMm: [20, 0, -5], inside: false }] });
    expect(found.massCentreMm[0]).toBeCloseTo(40 - (20 * 3) / 13.2, 9);
    expect(found.buoyancyCentreMm).toEqual([40, 0, 0]);
    expect(found.noseUpDeg).toBeCloseTo(-(Math.atan2(20, 5) * 180) / Math.PI, 6);
  });

  test('nothing in it: it has no say', () => {
    expect(trims({ ...body, extras: [] })).toMatchObject({ noseUpDeg: 0, rollDeg: 0, apartMm: 0 });
  });
});

describe('hook', () => {
  const outline = [
    { xMm: 0, topMm: 6, bottomMm: -6 },
    { xMm: 80, topMm: 6, bottomMm: -6 },
  ];
  const hook = { outline, shankMm: 40, gapMm: 12, eyeMm: 3, wireMm: 1, eyeXMm: 4, pointShare: 0.4 };

  test('laid to scale', () => {
    const fit = hooks({ ...hook, boreMm: 2.5, slotMm: 30 });
    expect(fit).toMatchObject({ bendXMm: 44, pointXMm: 28, pointZMm: 12, pointOverBackMm: 6, bendInside: true });
    expect(fit.slotNeededMm).toBeCloseTo(6 + 16 + 1, 9);
    expect(fit.slotSpareMm).toBeCloseTo(7, 9);
    expect(fit.boreSpareMm).toBeCloseTo(-0.5, 9);
  });

  test('longer than the bait: the bend is outside, and nothing is said of a back that is not there', () => {
    expect(hooks({ ...hook, shankMm: 100, pointShare: 0.1 })).toMatchObject({
      bendInside: false,
      pointOverBackMm: null,
    });
  });
});

describe('survival', () => {
  const torn = (fish: number) => ({ fish, torn: true });
  const lost = (fish: number) => ({ fish, lost: true });

  test('Kaplan–Meier by hand, a lost bait leaves the count without tearing', () => {
    const found = survives({ a: [torn(1), lost(2), torn(3), torn(3)], b: [torn(5)] });
    expect(found.a.curve.map((step) => [step.fish, step.atRisk, step.hold])).toEqual([
      [1, 4, 0.75],
      [3, 2, 0],
    ]);
    expect(found.a.halfAtFish).toBe(3);
  });

  test('two against two, torn apart in time: of six ways to part them two are as far apart', () => {
    expect(survives({ a: [torn(1), torn(2)], b: [torn(3), torn(4)] })).toMatchObject({ p: 1 / 3, method: 'exact' });
  });

  test('the log-rank where the ways are too many: twelve against twelve, by its own sums', () => {
    const [a, b] = [1, 10].map((from) => Array.from({ length: 12 }, (_, i) => torn(from + i)));
    const found = survives({ a: a as ReturnType<typeof torn>[], b: b as ReturnType<typeof torn>[] });
    expect(found.method).toBe('asymptotic');
    // At each count: observed less expected, and the hypergeometric's variance, with at most one tear a side.
    let [u, variance] = [0, 0];
    for (let fish = 1; fish <= 21; fish++) {
      const [riskA, riskB] = [Math.max(0, 13 - fish), Math.min(12, 22 - fish)];
      const [tornA, tornB] = [fish <= 12 ? 1 : 0, fish >= 10 ? 1 : 0];
      const [n, d] = [riskA + riskB, tornA + tornB];
      u += tornA - (d * riskA) / n;
      if (n > 1) variance += (d * riskA * riskB * (n - d)) / (n * n * (n - 1));
    }
    expect(found.p).toBeCloseTo(1 - jstat.chisquare.cdf((u * u) / variance, 1), 9);
    expect(found.sentence).toMatch(/^The second lasts longer/);
  });

  test('exact and asymptotic tell of the same, and either way round', () => {
    const a = [torn(2), torn(3), lost(3), torn(5), torn(6), lost(7), torn(8)];
    const b = [torn(4), torn(7), torn(9), lost(9), torn(11), torn(12), lost(15)];
    const [one, other] = [survives({ a, b }), survives({ a: b, b: a })];
    expect([one.method, one.p]).toEqual(['exact', expect.closeTo(other.p, 12)]);
    expect(one.p).toBeGreaterThan(0.01);
    expect(one.p).toBeLessThan(0.15);
  });

  test('the same baits twice prove nothing; no tears, no p', () => {
    expect(survives({ a: [torn(2), torn(4)], b: [torn(2), torn(4)] }).p).toBeCloseTo(1, 9);
    expect(survives({ a: [lost(9)], b: [lost(2)] })).toMatchObject({ p: 1, a: { halfAtFish: null } });
  });
});

test('one or n cavities: shots, minutes and plastisol by hand', () => {
  const { rows, enoughCavities } = molds({
    baitsWanted: 40,
    cavityMl: 10,
    sprueMl: 3,
    runnerMlPerCavity: 1,
    waitS: 300,
    moldPerCavityMinor: 2000,
    moldFixedMinor: 1000,
    plastisolPerKgMinor: 1000,
  });
  // 40 shots of 30 + 10 + 300 + 60 s, and 25 min to set up.
  expect(rows[0]).toMatchObject({ shots: 40, moldMinor: 3000 });
  expect(rows[0]?.minutes).toBeCloseTo(25 + (40 * 400) / 60, 9);
  expect(rows[0]?.cookedMl).toBeCloseTo(40 * 14, 9);
  // A fifth of the sprues is lost: 40 · 4 mL · 0.2 · 1.02 g at 1000 a kilogram.
  expect(rows[0]?.lostMinor).toBe(33);
  expect(rows[2]?.shots).toBe(14);
  expect(rows).toHaveLength(12);
  const saved = (rows[enoughCavities - 1]?.minutes ?? 0) - (rows[enoughCavities]?.minutes ?? 0);
  expect(saved).toBeLessThan(10);
});
