import { Failure } from '../failure.ts';
import { type PlanInput, plan } from './silicone.ts';

/** A master that waits for a mold, as its box needs it. */
export interface WaitingMaster {
  id: string;
  volumeMl: number;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/**
 * Which single masters a leftover of mixed rubber would still make an open-face block of, the largest first.
 * @param like the plan that the rubber was mixed for: its walls, cover and mixing ratio are used again.
 * @param leftMl mixed rubber that is left, mL.
 * @returns ids with the rubber that each needs, mL, without waste: the cup's walls are wet already.
 */
export function leftoverFills(
  like: PlanInput,
  leftMl: number,
  waiting: WaitingMaster[],
): { id: string; needMl: number }[] {
  const fits: { id: string; needMl: number }[] = [];
  for (const { id, ...master } of waiting) {
    try {
      const { box: _, ...rest } = like;
      const { pours } = plan({ ...rest, pour: 'open-face', masters: [{ ...master, count: 1 }], wasteFraction: 0 });
      const needMl = pours[0]?.netMl ?? Number.POSITIVE_INFINITY;
      if (needMl <= leftMl) fits.push({ id, needMl });
    } catch (error) {
      if (!(error instanceof Failure)) throw error;
    }
  }
  return fits.sort((a, b) => b.needMl - a.needMl);
}
