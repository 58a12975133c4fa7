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

/**
 * How many fish two variants last, lost baits counted as cut short and not as torn.
 * @returns both curves, the number of fish that half survive (null: not yet known), and the log-rank p.
 * Source: Kaplan & Meier 1958; log-rank test, Mantel 1966, against χ² with one degree of freedom.
 */
export function survival({ a, b }: v.InferOutput<typeof survivalSchema>) {
  const both = [...a, ...b];
  const moments = [...new Set(both.filter((row) => row.torn).map((row) => row.fish))];
  let [excess, variance] = [0, 0];
  for (const fish of moments) {
    const risk = (rows: Bait[]) => rows.filter((row) => row.fish >= fish).length;
    const torn = (rows: Bait[]) => rows.filter((row) => row.fish === fish && row.torn).length;
    const [n, nA, d] = [risk(both), risk(a), torn(both)];
    excess += torn(a) - (d * nA) / n;
    if (n > 1) variance += (d * (nA / n) * (1 - nA / n) * (n - d)) / (n - 1);
  }
  const p = variance > 0 ? 1 - jstat.chisquare.cdf(excess ** 2 / variance, 1) : 1;
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
    sentence,
  };
}
