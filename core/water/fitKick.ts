import jstat from 'jstat';
import * as v from 'valibot';
import { finite, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { atField } from '../failure.ts';
import { ADDED_MASS, beam, mustBePaddle, onset, STROUHAL, tailFields } from './kick.ts';

const tail = {
  ...tailFields,
  plastisolDensityGPerMl: v.optional(positive(25), usual('plastisolGPerMl')),
  waterDensityGPerMl: v.optional(positive(25), usual('waterGPerMl')),
} as const;
const speed = v.pipe(finite, v.gtValue(0), v.maxValue(20));

export const fitKickSchema = v.strictObject({
  trials: v.pipe(
    v.array(
      v.pipe(
        v.strictObject({
          ...tail,
          /** Kicks counted in a second. */
          hz: v.optional(v.pipe(finite, v.gtValue(0), v.maxValue(200))),
          kicksAtMPerS: v.optional(speed),
          notAtMPerS: v.optional(speed),
        }),
        v.check(
          (one) => one.hz !== undefined || one.kicksAtMPerS !== undefined || one.notAtMPerS !== undefined,
          'it says nothing: give kicks a second, or a speed at which it kicks or does not',
        ),
        v.check(
          (one) => one.kicksAtMPerS === undefined || one.notAtMPerS === undefined || one.kicksAtMPerS > one.notAtMPerS,
          'it cannot kick at a slower speed than the one at which it does not',
        ),
      ),
    ),
    v.minLength(1),
    v.maxLength(400, 'too-large'),
  ),
  /** Tails that could be tried next. */
  candidates: v.optional(v.pipe(v.array(v.strictObject(tail)), v.maxLength(40, 'too-large')), []),
  walkingMPerS: v.optional(speed, usual('walkingMPerS')),
});

/** Trials that a workshop needs before its own constants take the place of the usual ones. */
export const TRIALS_NEEDED = 3;

/** Before any trial: the starting values, and how far off they may well be (standard deviation of the logarithm). */
const PRIOR = { addedMass: 0.5, strouhal: 0.35 };
/** How far trials may scatter about the model, tried side by side: the readings themselves say which. */
const SCATTERS = [0.04, 0.08, 0.15, 0.3];
const GRID = 61;
const SPAN = 3;

const normalBelow = (x: number) => jstat.normal.cdf(x, 0, 1);

const TINY = 1e-9;
const entropyBits = (p: number) => (p < TINY || p > 1 - TINY ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));
const axis = (centre: number, sd: number) =>
  Array.from({ length: GRID }, (_, i) => centre * Math.exp(SPAN * sd * ((2 * i) / (GRID - 1) - 1)));

/**
 * Refits the two loose constants of the kick model to this workshop's own trials: a grid over both, weighed by how well
 * each explains the trials, starting from the usual values.
 * Frequencies tell the added mass, speeds the Strouhal number; a speed at which it kicks is a bound, not a measurement.
 * @returns both constants (geometric means) with the range that holds them four times in five, how the trials lie about
 * the model, and for each candidate how much a look at walking pace would teach, in bits.
 * @throws Failure `not-applicable` for other tails, `out-of-range` for a hardness.
 * Source: Bayes' rule on a grid; expected information gain of a yes-or-no trial (Lindley 1956).
 */
export function fitKick({ trials, candidates, walkingMPerS }: v.InferOutput<typeof fitKickSchema>) {
  for (const [i, one] of [...trials, ...candidates].entries())
    atField(i < trials.length ? `trials.${i}.tail` : 'candidates', () => mustBePaddle(one.tail));
  const rows = trials.map((trial) => ({ trial, row: beam(trial) }));
  const masses = axis(ADDED_MASS, PRIOR.addedMass);
  const numbers = axis(STROUHAL, PRIOR.strouhal);
  const logs = new Float64Array(SCATTERS.length * GRID * GRID);
  const each = (use: (ca: number, st: number, scatter: number, at: number) => void) => {
    for (const [s, scatter] of SCATTERS.entries())
      for (let i = 0; i < GRID; i++)
        for (let j = 0; j < GRID; j++)
          use(masses[i] as number, numbers[j] as number, scatter, (s * GRID + i) * GRID + j);
  };
  each((ca, st, scatter, at) => {
    let log =
      -((Math.log(ca / ADDED_MASS) / PRIOR.addedMass) ** 2) / 2 - (Math.log(st / STROUHAL) / PRIOR.strouhal) ** 2 / 2;
    for (const { trial, row } of rows) {
      const { naturalHz, onsetMPerS } = onset(row, ca, st);
      if (trial.hz !== undefined) log += -((Math.log(trial.hz / naturalHz) / scatter) ** 2) / 2 - Math.log(scatter);
      if (trial.kicksAtMPerS !== undefined)
        log += Math.log(Math.max(TINY, normalBelow(Math.log(trial.kicksAtMPerS / onsetMPerS) / scatter)));
      if (trial.notAtMPerS !== undefined)
        log += Math.log(Math.max(TINY, 1 - normalBelow(Math.log(trial.notAtMPerS / onsetMPerS) / scatter)));
    }
    logs[at] = log;
  });
  const top = logs.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  const weights = logs.map((log) => Math.exp(log - top));
  const total = weights.reduce((a, b) => a + b, 0);
  const mean = (value: (ca: number, st: number, scatter: number) => number) => {
    let sum = 0;
    each((ca, st, scatter, at) => {
      sum += value(ca, st, scatter) * (weights[at] as number);
    });
    return sum / total;
  };
  const fitted = (value: (ca: number, st: number) => number) => {
    const centre = mean((ca, st) => Math.log(value(ca, st)));
    const sd = Math.sqrt(mean((ca, st) => (Math.log(value(ca, st)) - centre) ** 2));
    return { value: Math.exp(centre), low: Math.exp(centre - 1.2816 * sd), high: Math.exp(centre + 1.2816 * sd), sd };
  };
  const mass = fitted((ca) => ca);
  const number = fitted((_, st) => st);
  const teaches = candidates.map((candidate, index) => {
    const row = beam(candidate);
    const kicks = (ca: number, st: number, scatter: number) =>
      normalBelow(Math.log(walkingMPerS / onset(row, ca, st).onsetMPerS) / scatter);
    const chance = mean(kicks);
    const bits = Math.max(0, entropyBits(chance) - mean((ca, st, scatter) => entropyBits(kicks(ca, st, scatter))));
    return { index, bits, chanceItKicks: chance, onsetMPerS: onset(row, mass.value, number.value).onsetMPerS };
  });
  const residuals = rows.map(({ trial, row }) => {
    const { naturalHz, onsetMPerS } = onset(row, mass.value, number.value);
    const agrees =
      (trial.hz === undefined || Math.abs(Math.log(trial.hz / naturalHz)) < 0.2) &&
      (trial.kicksAtMPerS === undefined || trial.kicksAtMPerS > onsetMPerS * 0.87) &&
      (trial.notAtMPerS === undefined || trial.notAtMPerS < onsetMPerS * 1.15);
    return { naturalHz, onsetMPerS, agrees };
  });
  return {
    strouhal: number.value,
    strouhalRange: [number.low, number.high],
    addedMassCoefficient: mass.value,
    addedMassRange: [mass.low, mass.high],
    /** How far an onset speed of a middling tail may be off, as a share. */
    onsetUncertainty: Math.exp(fitted((ca, st) => 1 / (st * Math.sqrt(usual('plastisolGPerMl') + ca))).sd) - 1,
    n: trials.length,
    residuals,
    teaches: teaches.sort((a, b) => b.bits - a.bits),
  };
}
