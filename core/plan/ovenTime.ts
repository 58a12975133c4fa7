import { usual } from '../defaults.ts';
import { coolsToS } from '../heat/newton.ts';
import { type Bench, burstsOf } from './laidOut.ts';

export interface GlassAtOven {
  massG: number;
  /** Below this it is no longer drawn. */
  lowC: number;
  /** From its first shot to its last. */
  drawnForS: number;
  /** Cups that every shot is drawn from. */
  cups: number;
}

/**
 * How long one glass of an evening has the oven: it is cooked, and heated again each time it has cooled out of its window,
 * unless it stands on a hot plate or in the oven itself between shots.
 * @returns min; of several cups, the mean of those that are kept warm and those that are not.
 * Source: bursts by the energy a cup takes; Newton's cooling.
 */
export function ovenMinOf(
  { massG, lowC, drawnForS, cups }: GlassAtOven,
  bench: Pick<Bench, 'roomC' | 'watts' | 'efficiency' | 'school' | 'platePlaces' | 'keepWarm'>,
): number {
  const [cookC, loadS] = [usual('cookC'), usual('loadS')];
  const sum = (bursts: number[]) => bursts.reduce((all, s) => all + s, 0);
  const cookS = sum(burstsOf(massG, bench.roomC, cookC, bench));
  const reheatS = sum(burstsOf(massG, Math.min(lowC, cookC - 1), cookC, bench));
  const warmForS = coolsToS(cookC, Math.min(lowC, cookC - 1), bench.roomC, usual('cupTauS'));
  const reheats = Math.max(0, Math.ceil(drawnForS / warmForS - 1e-9) - 1);
  const kept = Math.min(cups, bench.platePlaces + (bench.keepWarm ? 1 : 0)) / cups;
  return (loadS + cookS + (1 - kept) * reheats * (loadS + reheatS)) / 60;
}
