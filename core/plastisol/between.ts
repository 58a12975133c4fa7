/** A figure with what it lies between in 95 of 100. */
export interface Between {
  value: number;
  low: number;
  high: number;
}

/** 95 in 100 of a normal scatter lie within so many standard deviations. */
export const Z95 = 1.96;

/** Within bounds: nothing is below nothing, no share is more than all. */
export function between(value: number, sd: number, most = Number.POSITIVE_INFINITY): Between {
  const within = (one: number) => Math.min(most, Math.max(0, one));
  return { value: within(value), low: within(value - Z95 * sd), high: within(value + Z95 * sd) };
}

/** Errors carried on one by one come a little short where what they go through bends: so much wider. */
const BENT = 1.15;

/** What several small errors come to together: each carried on alone, their squares added. */
export const spread = (value: number, moved: number[]): Between =>
  between(value, BENT * Math.sqrt(moved.reduce((sum, one) => sum + (one - value) ** 2, 0)));
