import jstat from 'jstat';
import * as v from 'valibot';
import { whole } from '../bounds.ts';

const bait = v.pipe(
  v.strictObject({
    /** Fish it took until it tore, was lost, or the day ended. */
    fish: whole(0, 1e5),
    /** Torn ends the count. */
    torn: v.optional(v.boolean(), false),
    /** Lost cuts the count short: it might have held on. */
    lost: v.optional(v.boolean(), false),
  }),
  v.check((row) => row.torn !== row.lost, 'say torn or lost, one of the two'),
);
const baits = v.pipe(v.array(bait), v.minLength(1), v.maxLength(1000, 'too-large'));

export const survivalSchema = v.strictObject({ a: baits, b: baits });

type Bait = v.InferOutput<typeof bait>;

/** Share of baits that still hold after each number of fish. Source: Kaplan & Meier 1958. */
function curve(rows: Bait[]) {
  const steps = [...new Set(rows.filter((row) => row.torn).map((row) => row.fish))].sort((a, b) => a - b);
  let hold = 1;
  return steps.map((fish) => {
    const atRisk = rows.filter((row) => row.fish >= fish).length;
    const torn = rows.filter((row) => row.fish === fish && row.torn).length;
    hold *= 1 - torn / atRisk;
    return { fish, hold, atRisk, torn };
  });
}

const medianOf = (steps: ReturnType<typeof curve>) => steps.find((step) => step.hold <= 0.5)?.fish ?? null;

/** Ways to call baits the first's that are still counted out one by one. */
const MOST_WAYS = 200_000;
/** Sums of a hundred shares agree to this. */
const SAME = 1e-9;

/** n over k, or more than the most where it is beyond counting. */
function ways(n: number, k: number): number {
  let found = 1;
  for (let i = 1; i <= Math.min(k, n - k) && found <= MOST_WAYS; i++) found = (found * (n - i + 1)) / i;
  return found;
}

/**
 * What each bait adds to U where it is called one of the first: its own tear less the tears expected of it, at each count
 * at which some tore. U of any first group is the sum over its baits.
 */
function scores(both: Bait[]): number[] {
  const counts = [...new Set(both.filter((row) => row.torn).map((row) => row.fish))];
  const rate = counts.map((fish) => {
    const atRisk = both.filter((row) => row.fish >= fish).length;
    return { fish, torn: both.filter((row) => row.torn && row.fish === fish).length / atRisk };
  });
  return both.map(
    (row) => (row.torn ? 1 : 0) - rate.reduce((sum, one) => sum + (row.fish >= one.fish ? one.torn : 0), 0),
  );
}

/** Share of all choices of `size` scores whose sum is as far from nothing as `observed`, or further. */
function shareAsFar(all: number[], size: number, observed: number): number {
  let [far, total] = [0, 0];
  const choose = (from: number, left: number, sum: number): void => {
    if (left === 0) {
      total++;
      if (Math.abs(sum) >= observed - SAME) far++;
      return;
    }
    for (let i = from; i <= all.length - left; i++) choose(i + 1, left - 1, sum + (all[i] as number));
  };
  choose(0, size, 0);
  return far / total;
}

/** The log-rank's variance of U. Source: Mantel 1966, hypergeometric at each count at which some tore. */
function logRankVariance(a: Bait[], both: Bait[]): number {
  let variance = 0;
  for (const fish of new Set(both.filter((row) => row.torn).map((row) => row.fish))) {
    const risk = (rows: Bait[]) => rows.filter((row) => row.fish >= fish).length;
    const [n, nA, d] = [risk(both), risk(a), both.filter((row) => row.torn && row.fish === fish).length];
    if (n > 1) variance += (d * (nA / n) * (1 - nA / n) * (n - d)) / (n - 1);
  }
  return variance;
}

/**
 * How many fish two variants last; lost baits, and those still whole, are counted as cut short and not as torn.
 * @returns both curves, the number of fish that half survive (null: not yet known), p and its method: `exact` over all
 *   ways to part the baits where these are few enough, else `asymptotic`.
 * Source: Kaplan & Meier 1958; permutation test of the log-rank's U (Peto & Peto 1972); its χ² with one degree of
 *   freedom, Mantel 1966.
 */
export function survival({ a, b }: v.InferOutput<typeof survivalSchema>) {
  const both = [...a, ...b];
  const each = scores(both);
  const excess = each.slice(0, a.length).reduce((sum, one) => sum + one, 0);
  const method = ways(both.length, a.length) <= MOST_WAYS ? ('exact' as const) : ('asymptotic' as const);
  const variance = logRankVariance(a, both);
  const beyond = variance > 0 ? 1 - jstat.chisquare.cdf(excess ** 2 / variance, 1) : 1;
  const p = method === 'exact' ? shareAsFar(each, a.length, Math.abs(excess)) : beyond;
  const [curveA, curveB] = [curve(a), curve(b)];
  const longer = excess < 0 ? 'The first' : 'The second';
  const odds = Math.max(1, Math.round(p * 100));
  const sentence =
    p < 0.05
      ? `${longer} lasts longer; luck alone would do this about ${odds} in 100.`
      : `${a.length} against ${b.length} baits show no difference yet; luck alone would do as much about ${odds} in 100.`;
  return {
    a: { curve: curveA, halfAtFish: medianOf(curveA) },
    b: { curve: curveB, halfAtFish: medianOf(curveB) },
    p,
    method,
    sentence,
  };
}
