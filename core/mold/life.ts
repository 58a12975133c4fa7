/** A mold's shots so far, and whether it is worn out or still at work. */
export interface Lived {
  shots: number;
  retired: boolean;
}

/**
 * Shots after which half of such molds are worn out, those still at work counted as cut short.
 * @returns null while fewer than half are known to have gone; `from` says how many were retired.
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
  return { shots: median, from: lives.filter((one) => one.retired).length };
}
