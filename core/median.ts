/** The middle of some figures; of an even number, halfway between the two in the middle. */
export const median = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] as number) + upper) / 2;
};
