/** The middle of some figures; of an even number, halfway between the two in the middle. */
export const median = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] as number) + upper) / 2;
};

/** A starting guess counts as so many values. */
const GUESS_COUNTS = 3;

/** The middle of what was seen, drawn to the guess where little was; the guess where nothing was. */
export const middleTowards = (seen: number[], guess: number): number =>
  seen.length === 0 ? guess : (seen.length * median(seen) + GUESS_COUNTS * guess) / (seen.length + GUESS_COUNTS);
