import * as v from 'valibot';
import { list, nonNegative, openFraction, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { g, say } from '../units/say.ts';
import { betaBinomialAtMost, binomialLimits, fisherTwoSided } from './distributions.ts';

/** Rejects of a mold that nobody counted yet: about one in twenty. Source: workshop practice, as a Beta (1, 19) prior. */
export const REJECT_PRIOR = { alpha: 1, beta: 19 };

const notMore = <T extends { made: number; rejected: number }>() =>
  v.check<T, string>((row) => row.rejected <= row.made, 'more were rejected than made; check the two counts');

const counted = v.pipe(v.strictObject({ made: whole(1, 1e6), rejected: whole(0, 1e6) }), notMore());

export const shotsSchema = v.strictObject({
  goodNeeded: whole(0, 1e5),
  cavities: whole(1, 1e4),
  rejects: v.optional(
    v.pipe(
      v.strictObject({
        alpha: v.optional(positive(1e6), REJECT_PRIOR.alpha),
        beta: v.optional(positive(1e6), REJECT_PRIOR.beta),
        rejected: v.optional(whole(0, 1e9), 0),
        made: v.optional(whole(0, 1e9), 0),
      }),
      notMore(),
    ),
    {},
  ),
  confidence: v.optional(openFraction, usual('confidence')),
});

/** Most baits one plan may make: the sum over rejects would otherwise take too long. */
const BAIT_CAP = 2e5;

/**
 * The fewest shots that give at least `goodNeeded` good baits with the wanted confidence.
 * Rejects are beta-binomial: prior (alpha, beta), updated by this mold's own counts.
 * @throws Failure `invalid-input` (more rejected than made), `too-large`.
 * Source: conjugate beta prior of a binomial rate; 1 and 19 say "about one in twenty" until the log knows better.
 */
export function shotsFor(input: v.InferOutput<typeof shotsSchema>): { shots: number; expectedGood: number } {
  const { goodNeeded, cavities, rejects, confidence } = input;
  const alpha = rejects.alpha + rejects.rejected;
  const beta = rejects.beta + rejects.made - rejects.rejected;
  const enough = (shots: number) =>
    betaBinomialAtMost(shots * cavities - goodNeeded, shots * cavities, alpha, beta) >= confidence;
  let low = Math.ceil(goodNeeded / cavities);
  let step = 1;
  let high = low;
  while (!enough(high)) {
    low = high + 1;
    high += step;
    step *= 2;
    if (high * cavities > BAIT_CAP) {
      throw new Failure(
        'too-large',
        `More than ${BAIT_CAP} baits would be needed; the rejects are too many to plan on.`,
      );
    }
  }
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle + 1;
  }
  return { shots: high, expectedGood: high * cavities * (1 - alpha / (alpha + beta)) };
}

export const balanceSchema = v.strictObject({
  cookedG: positive(1e7),
  goodG: nonNegative(1e7),
  rejectG: nonNegative(1e7),
  returnedG: nonNegative(1e7),
  residueG: v.optional(nonNegative(1e7), 0),
});

/**
 * What became of a cup, in grams: the yield and what nobody can account for.
 * @throws Failure `mass-not-conserved` when more came out than went in.
 */
export function balance(input: v.InferOutput<typeof balanceSchema>) {
  const out = input.goodG + input.rejectG + input.returnedG + input.residueG;
  const rest = input.cookedG - out;
  const unaccountedG = Math.abs(rest) <= 1e-9 * input.cookedG ? 0 : rest;
  if (unaccountedG < 0) {
    throw new Failure(
      'mass-not-conserved',
      say`${g(-unaccountedG)} more came out than was cooked; weigh again, or correct what was cooked.`,
    );
  }
  return {
    yieldFraction: input.goodG / input.cookedG,
    unaccountedG,
    unaccountedFraction: unaccountedG / input.cookedG,
  };
}

interface Weighed extends Omit<v.InferOutput<typeof balanceSchema>, 'residueG'> {
  residueG: number | null;
  degassedG: number | null;
}

/** Known losses of a cup, g: what stayed on glass and felt and what degassing took, as far as it was weighed. */
export const lostG = ({ residueG, degassedG }: Pick<Weighed, 'residueG' | 'degassedG'>) =>
  (residueG ?? 0) + (degassedG ?? 0);

/**
 * The balance of a cup, or of several whose baits were weighed once for all of them; what nobody weighed is in what nobody can
 * account for. @param cups what was weighed of each alone, g. @throws Failure `mass-not-conserved`.
 */
export function balanceOf(
  baits: Pick<Weighed, 'goodG' | 'rejectG'>,
  cups: Pick<Weighed, 'cookedG' | 'returnedG' | 'residueG' | 'degassedG'>[],
) {
  const sum = (of: (cup: (typeof cups)[number]) => number) => cups.reduce((total, cup) => total + of(cup), 0);
  return balance({
    goodG: baits.goodG,
    rejectG: baits.rejectG,
    cookedG: sum((cup) => cup.cookedG),
    returnedG: sum((cup) => cup.returnedG),
    residueG: sum(lostG),
  });
}

/** Most baits on one chart, all points together: the limits are summed term by term. */
const CHART_CAP = 1e7;

export const chartSchema = v.strictObject({ points: list(counted) });

/**
 * A p-chart of rejects with exact binomial limits, and runs of eight or more points on one side of the mean.
 * @throws Failure `too-large` beyond ten million baits.
 * Source: Shewhart's p-chart, its normal limits replaced by exact binomial ones at 0.00135 and 0.99865.
 */
export function chart({ points }: v.InferOutput<typeof chartSchema>) {
  const made = points.reduce((sum, point) => sum + point.made, 0);
  const rejected = points.reduce((sum, point) => sum + point.rejected, 0);
  if (made > CHART_CAP)
    throw new Failure('too-large', `One chart holds at most ${CHART_CAP} baits; take a shorter span.`);
  const pBar = rejected / made;
  const charted = points.map((point) => {
    const { lower, upper } = binomialLimits(point.made, pBar);
    return {
      p: point.rejected / point.made,
      ucl: upper / point.made,
      lcl: lower / point.made,
      out: point.rejected > upper || point.rejected < lower,
    };
  });
  // Compared as whole numbers, so that a point exactly on the mean is seen as equal.
  const sides = points.map((point) => Math.sign(point.rejected * made - rejected * point.made));
  const runs: { start: number; length: number }[] = [];
  for (let start = 0; start < sides.length; ) {
    let end = start + 1;
    while (end < sides.length && sides[end] === sides[start]) end++;
    if (sides[start] !== 0 && end - start >= 8) runs.push({ start, length: end - start });
    start = end;
  }
  return { pBar, points: charted, runs };
}

export const compareSchema = v.strictObject({ a: counted, b: counted });

const share = (row: { made: number; rejected: number }) => `${row.rejected} of ${row.made}`;

/**
 * Whether two counts of rejects differ by more than luck: Fisher's exact test, two-sided.
 * Source: Fisher (1922); tables no likelier than the observed one, with a slack of 1e-7.
 */
export function compare({ a, b }: v.InferOutput<typeof compareSchema>): { p: number; sentence: string } {
  const p = fisherTwoSided(a, b);
  const better = a.rejected / a.made < b.rejected / b.made ? 'the first' : 'the second';
  const odds = p < 0.001 ? 'less than 1 in 1000' : `about ${Math.max(1, Math.round(p * 100))} in 100`;
  const verdict =
    p < 0.05
      ? `${better} is better; luck alone would do this ${odds}`
      : `no difference is shown; luck alone would do as much ${odds}`;
  return { p, sentence: `${share(a)} against ${share(b)}: ${verdict}.` };
}
