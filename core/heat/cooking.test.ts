import fc from 'fast-check';
import { expect, test } from 'vitest';
import { chanceOf } from '../colour/testing.ts';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';
import { cooling, coolingAt, coolingSchema } from './cooling.ts';
import { efficiencySchema, hold, holdSchema, microwave, microwaveSchema, ovenEfficiency } from './microwave.ts';

const code = (run: () => unknown) => {
  try {
    run();
    return null;
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return [error.code, error.path];
  }
};
const cook = (input: Record<string, unknown>) => microwave(check(microwaveSchema, input));

test('by hand: 200 g from 25 to 175 °C in 800 W are 135 s at half of it', () => {
  // 200 · 1.8 · 150 = 54 000 J; 400 W reach the cup. Half is 67.5 s: 70. The rest, 26 000 J, is over 60 s: one of 60; 2000 J are left.
  const { energyJ, totalS, bursts } = cook({ massG: 200, fromC: 25, watts: 800, school: 'full-power' });
  expect(energyJ).toBeCloseTo(54000, 9);
  expect(bursts.map(({ seconds, level }) => [seconds, level])).toEqual([
    [70, 1],
    [60, 1],
    [10, 0.7],
  ]);
  expect(bursts[0]?.afterC).toBeCloseTo(25 + 28000 / 360, 9);
  expect(totalS).toBe(140);
});

test('next to nothing is one step of the clock, however little it is', () => {
  for (const massG of [1e-9, 1e-300, 5e-324])
    for (const school of ['full-power', 'gentle'] as const)
      expect(cook({ massG, fromC: 25, watts: 800, school }).totalS).toBe(5);
  expect(cook({ massG: 200, fromC: 174.999999999, watts: 800, school: 'gentle' }).totalS).toBe(5);
});

test('property: every school ends at or over what was wanted, by less than one more step of its last power, and never in one go', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 50, max: 2000, noNaN: true }),
      fc.double({ min: 5, max: 120, noNaN: true }),
      fc.double({ min: 500, max: 1500, noNaN: true }),
      fc.constantFrom('full-power' as const, 'gentle' as const),
      (massG, fromC, watts, school) => {
        const { bursts, totalS, energyJ } = cook({ massG, fromC, watts, school });
        const last = bursts.at(-1);
        const step = (5 * watts * 0.5 * (last?.level ?? 1)) / (massG * 1.8);
        expect(last?.afterC).toBeGreaterThanOrEqual(175 - 1e-6);
        // The first burst may be a step more than half, which is all of it for a thimble.
        if (bursts.length > 1) expect(last?.afterC).toBeLessThan(175 + step + 1e-6);
        expect(bursts[0]?.seconds).toBeLessThanOrEqual(120);
        expect(bursts.every(({ seconds }) => seconds % 5 === 0 && seconds > 0)).toBe(true);
        expect(totalS).toBe(bursts.reduce((sum, { seconds }) => sum + seconds, 0));
        const put = bursts.reduce((sum, { seconds, level }) => sum + seconds * level * watts * 0.5, 0);
        expect(put).toBeGreaterThanOrEqual(energyJ - 1e-6);
      },
    ),
    { numRuns: 200 },
  );
});

test.each([
  [{ massG: 200, fromC: 175, watts: 800, school: 'gentle' }, ['invalid-input', 'toC']],
  [{ massG: 1e6, fromC: 20, watts: 100, school: 'gentle' }, ['too-large', 'massG']],
  [{ massG: 200, fromC: 20, watts: 800, school: 'fast' }, ['invalid-input', 'school']],
  [{ massG: 200, fromC: 20, watts: 800, efficiency: 1.2, school: 'gentle' }, ['too-large', 'efficiency']],
])('what cannot be cooked: %o', (input, expected) => {
  expect(code(() => cook(input))).toEqual(expected);
});

test('an oven is learnt back from bursts that it warmed so, whatever the cups', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 0.9, noNaN: true }),
      fc.array(
        fc.record({
          massG: fc.double({ min: 100, max: 900, noNaN: true }),
          seconds: fc.double({ min: 20, max: 120, noNaN: true }),
          level: fc.constantFrom(0.3, 0.7, 1),
        }),
        { minLength: 1, maxLength: 8 },
      ),
      (efficiency, cups) => {
        const log = cups.map(({ massG, seconds, level }) => ({
          massG,
          seconds,
          level,
          watts: 900,
          beforeC: 20,
          afterC: 20 + (900 * level * seconds * efficiency) / (massG * 1.8),
        }));
        const found = ovenEfficiency(check(efficiencySchema, { log }));
        expect(found.efficiency).toBeCloseTo(efficiency, 9);
        expect(found.n).toBe(cups.length);
      },
    ),
  );
  const cold = { watts: 900, level: 1, seconds: 30, massG: 200, beforeC: 60, afterC: 60 };
  expect(code(() => check(efficiencySchema, { log: [cold] }))).toEqual(['invalid-input', 'log.0.afterC']);
});

const cool = (input: Record<string, unknown>) => cooling(check(coolingSchema, input));
/** A cup that cools just so. */
const read = (tauS: number, times: number[], from = 178, room = 20) =>
  times.map((s) => ({ s, c: room + (from - room) * Math.exp(-s / tauS) }));

test('property: many readings of a cup give back how it cools, and when; in any order', () => {
  fc.assert(
    fc.property(fc.double({ min: 200, max: 2000, noNaN: true }), (tauS) => {
      const readings = read(tauS, [0, 60, 150, 300, 480, 700]);
      const found = cool({ readings, ambientC: 20, priorWeightS2: 0, targetsC: [150] });
      const atS = tauS * Math.log(158 / 130);
      expect(found.tauS / tauS).toBeCloseTo(1, 6);
      expect(found.targets[0]?.atS).toBeCloseTo(atS, 4);
      expect(found.targets[0]?.inS).toBeCloseTo(atS - 700, 4);
      const again = cool({ readings: [...readings].reverse(), ambientC: 20, priorWeightS2: 0, targetsC: [150] });
      expect(again.targets[0]?.inS).toBeCloseTo(found.targets[0]?.inS ?? 0, 6);
      expect(coolingAt({ readings, ambientC: 20, priorTauS: 600, priorWeightS2: 0 })(atS)).toBeCloseTo(150, 4);
    }),
  );
});

test('500 cups read three times a minute apart, each reading off by 1.5 °C: the end of the window within 15 % in 95 of 100', () => {
  const next = chanceOf(20260301);
  const off = () => 1.5 * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  let [near, covered] = [0, 0];
  for (let i = 0; i < 500; i++) {
    const tauS = 400 + 500 * next();
    const readings = read(tauS, [0, 60, 120]).map(({ s, c }) => ({ s, c: c + off() }));
    const { atS, sdS } = cool({ readings, ambientC: 20, targetsC: [158] }).targets[0] as { atS: number; sdS: number };
    const trueS = tauS * Math.log(158 / 138);
    if (Math.abs(atS - trueS) <= 0.15 * trueS) near += 1;
    if (Math.abs(atS - trueS) <= 2 * sdS) covered += 1;
  }
  console.info(`Of 500 cups ${near / 5} % within 15 %, ${covered / 5} % inside what was said of them.`);
  expect(near).toBeGreaterThanOrEqual(475);
  expect(covered).toBeGreaterThanOrEqual(470);
});

test('one reading goes by how cups usually cool; the more and the wider apart, the surer', () => {
  const sure = (times: number[], c = 90, tauS = 600) =>
    cool({ readings: read(tauS, times), ambientC: 20, targetsC: [c] });
  expect(sure([0]).tauS).toBeCloseTo(600, 6);
  expect(sure([0, 120, 240], 90, 420).tauS).toBeLessThan(500);
  const sd = [[0], [0, 60], [0, 60, 120], [0, 120, 240, 360]].map((times) => sure(times).targets[0]?.sdS ?? 0);
  expect(sd).toEqual([...sd].sort((a, b) => b - a));
  // 1.5 °C of 158 over the room at a fall of 158/600 a second: 5.7 s for the reading alone, where it was taken.
  expect(sure([0], 178).targets[0]?.sdS).toBeCloseTo((1.5 / 158) * 600, 6);
});

test.each([
  [{ readings: [{ s: 0, c: 20 }], ambientC: 20, targetsC: [] }, ['out-of-range', 'readings.0.c']],
  [{ readings: [{ s: 0, c: 170 }], ambientC: 20, targetsC: [160, 20] }, ['never', 'targetsC.1']],
  [
    {
      readings: [
        { s: 0, c: 150 },
        { s: 600, c: 175 },
      ],
      ambientC: 20,
      targetsC: [160],
    },
    ['never', 'readings'],
  ],
  [
    {
      readings: [
        { s: 5, c: 170 },
        { s: 5, c: 171 },
      ],
      ambientC: 20,
      priorWeightS2: 0,
      targetsC: [160],
    },
    ['never', 'readings'],
  ],
  [{ readings: [], ambientC: 20, targetsC: [160] }, ['invalid-input', 'readings']],
])('a cup that does not cool: %o', (input, expected) => {
  expect(code(() => cool(input))).toEqual(expected);
});

test('kept warm: what it loses by hand, and no oven gives more than it has', () => {
  const keep = (more: object = {}) =>
    hold(check(holdSchema, { massG: 300, c: 170, ambientC: 20, tauS: 600, watts: 900, ...more }));
  // 300 · 1.8 · 150 / 600 = 135 W of 450 W.
  expect(keep()).toEqual({ lossW: 135, level: 0.3, onS: 18 });
  expect(keep({ everyS: 20 }).onS).toBeCloseTo(6, 12);
  expect(code(() => keep({ watts: 200 }))).toEqual(['out-of-reach', 'watts']);
  expect(code(() => keep({ c: 20 }))).toEqual(['invalid-input', 'c']);
});
