import jstat from 'jstat';

const lnGamma = (x: number): number => jstat.gammaln(x);
const lnBeta = (a: number, b: number) => lnGamma(a) + lnGamma(b) - lnGamma(a + b);
const lnChoose = (n: number, k: number) => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1);

/**
 * P(X ≤ most) for X beta-binomial(n, alpha, beta): rejects among n baits when the reject rate is itself uncertain.
 * Source: Pólya's urn; terms by their ratio, started at k = 0 in logs so that large n does not underflow early.
 */
export function betaBinomialAtMost(most: number, n: number, alpha: number, beta: number): number {
  if (most >= n) return 1;
  if (most < 0) return 0;
  let sum = 0;
  let lnTerm = lnBeta(alpha, n + beta) - lnBeta(alpha, beta);
  for (let k = 0; k <= most; k++) {
    sum += Math.exp(lnTerm);
    lnTerm += Math.log(((n - k) / (k + 1)) * ((k + alpha) / (n - k - 1 + beta)));
  }
  return Math.min(1, sum);
}

/** Probabilities of binomial(n, p) over the counts that matter (12 standard deviations around the mean). */
function binomialTerms(n: number, p: number): { first: number; terms: number[] } {
  const spread = 12 * Math.sqrt(n * p * (1 - p)) + 12;
  const first = Math.max(0, Math.floor(n * p - spread));
  const last = Math.min(n, Math.ceil(n * p + spread));
  const terms: number[] = [];
  let lnTerm = lnChoose(n, first) + first * Math.log(p) + (n - first) * Math.log1p(-p);
  for (let k = first; k <= last; k++) {
    terms.push(Math.exp(lnTerm));
    lnTerm += Math.log(((n - k) / (k + 1)) * (p / (1 - p)));
  }
  return { first, terms };
}

/**
 * Exact 3-sigma-equivalent binomial limits as counts: `upper` the least u with P(X ≤ u) ≥ 0.99865, `lower` the
 * greatest l with P(X ≤ l − 1) ≤ 0.00135.
 */
export function binomialLimits(n: number, p: number): { lower: number; upper: number } {
  if (p <= 0) return { lower: 0, upper: 0 };
  if (p >= 1) return { lower: n, upper: n };
  const { first, terms } = binomialTerms(n, p);
  let below = 0;
  let lower = first;
  let upper = first + terms.length - 1;
  for (let i = 0; i < terms.length; i++) {
    if (below <= 0.00135) lower = first + i;
    below += terms[i] as number;
    if (below >= 0.99865) {
      upper = first + i;
      break;
    }
  }
  return { lower, upper };
}

/**
 * Fisher's exact test, two-sided, for two groups of successes and totals: the sum of the probabilities of all tables
 * no likelier than the one observed (with a slack of 1e-7 for rounding).
 */
export function fisherTwoSided(a: { made: number; rejected: number }, b: { made: number; rejected: number }): number {
  const drawn = a.rejected + b.rejected;
  const total = a.made + b.made;
  // ln of C(a, k)·C(b, drawn − k)/C(total, drawn), its constant part once.
  const constant = lnGamma(a.made + 1) + lnGamma(b.made + 1) - lnChoose(total, drawn);
  const ln = (k: number) =>
    constant - lnGamma(k + 1) - lnGamma(a.made - k + 1) - lnGamma(drawn - k + 1) - lnGamma(b.made - drawn + k + 1);
  const observed = ln(a.rejected) + Math.log1p(1e-7);
  let p = 0;
  for (let k = Math.max(0, drawn - b.made); k <= Math.min(a.made, drawn); k++) {
    const term = ln(k);
    if (term <= observed) p += Math.exp(term);
  }
  return Math.min(1, p);
}
