/** A mold's shots so far, and whether it is worn out or still at work. */
export interface Lived {
  shots: number;
  retired: boolean;
}

/** Fewer worn-out molds than this tell nothing of how long they last: one that broke early would be the rule. */
export const ENOUGH_RETIRED = 5;

/**
 * Shots after which half of such molds are worn out, those still at work counted as cut short.
 * @returns null while fewer than half are known to have gone, or fewer than five; `from` says how many were retired.
 * Source: Kaplan & Meier 1958, the median of the product-limit curve.
 */
export function medianLife(lives: Lived[]): { shots: number | null; from: number } {
  const ends = [...new Set(lives.filter((one) => one.retired).map((one) => one.shots))].sort((a, b) => a - b);
  let holds = 1;
  let median: number | null = null;
  for (const shots of ends) {
    const atRisk = lives.filter((one) => one.shots >= shots).length;
    holds *= 1 - lives.filter((one) => one.retired && one.shots === shots).length / atRisk;
    if (median === null && holds <= 0.5 + 1e-12) median = shots;
  }
  const from = lives.filter((one) => one.retired).length;
  return { shots: from < ENOUGH_RETIRED ? null : median, from };
}
