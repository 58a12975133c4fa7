import { usual } from '../defaults.ts';
import { median } from '../median.ts';

/** So many bags, and their own time is taken instead of what was set. */
const ENOUGH = 5;

/**
 * How long a bag takes to count, oil, scent and label, by when bags of one order were packed one after another. A gap
 * longer than a pause is no packing.
 * @param gapsS from each bag to the next, s. @param setS what is taken until five are known.
 * @returns s a bag, and how many say so; 0: it is what was set.
 * Source: median.
 */
export function learntPacking(gapsS: number[], setS: number): { packS: number; of: number } {
  const seen = gapsS.filter((gap) => gap > 0 && gap <= usual('pauseS'));
  return seen.length < ENOUGH ? { packS: setS, of: 0 } : { packS: median(seen), of: seen.length };
}
