import type { Said } from '../failure.ts';
import { ml, mm, say } from '../units/say.ts';

export interface Sizes {
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  thickestMm: number;
}

export interface Contradiction {
  path: 'thickestMm' | 'volume';
  said: Said;
}

/** What a ruler and a scale may be off by. */
const SLACK = 1.05;
/** A bait with ribbons, legs and claws still fills this share of the box around it. */
const LEAST_SHARE = 0.05;

/**
 * Two figures of a bait that cannot both be right, named; null where none contradict.
 * @param volumeMl null: not measured yet.
 * Source: a section is no thicker than the bait is wide or high; a body fits into the box of its own sizes.
 */
export function contradiction(
  { lengthMm, widthMm, heightMm, thickestMm }: Sizes,
  volumeMl: number | null,
): Contradiction | null {
  if (thickestMm > SLACK * Math.max(widthMm, heightMm))
    return {
      path: 'thickestMm',
      said: say`Its thickest section of ${mm(thickestMm)} is more than its width of ${mm(widthMm)} and its height of ${mm(heightMm)}. Measure again, or keep it all the same.`,
    };
  if (volumeMl === null) return null;
  const boxMl = (lengthMm * widthMm * heightMm) / 1000;
  const box = say`${mm(lengthMm)} × ${mm(widthMm)} × ${mm(heightMm)}`;
  if (volumeMl > SLACK * boxMl)
    return {
      path: 'volume',
      said: say`${ml(volumeMl)} do not fit into a bait of ${box}: a box of that size holds ${ml(boxMl)}. Weigh or measure again, or keep it all the same.`,
    };
  if (volumeMl < LEAST_SHARE * boxMl)
    return {
      path: 'volume',
      said: say`${ml(volumeMl)} are very little for a bait of ${box}: a box of that size holds ${ml(boxMl)}. Weigh or measure again, or keep it all the same.`,
    };
  return null;
}
