import { usual } from '../defaults.ts';
import { cooledC, coolsToS } from '../heat/newton.ts';
import { floorNear } from '../rounding.ts';
import { type Bench, burstsOf } from './laidOut.ts';

export interface GlassAtOven {
  massG: number;
  /** Below this it is no longer drawn. */
  lowC: number;
  /** Drawn from it, one in so many seconds. */
  shots: number;
  shotS: number;
  /** Cups that every shot is drawn from. */
  cups: number;
}

/**
 * How long one glass of an evening has the oven: it is cooked, and heated again before each shot that it would be too cold
 * for, unless it stands on a hot plate or in the oven itself between shots.
 * @returns min; of several cups, the mean of those that are kept warm and those that are not.
 * Source: bursts by the energy a cup takes; Newton's cooling.
 */
export function ovenMinOf(
  { massG, lowC, shots, shotS, cups }: GlassAtOven,
  bench: Pick<Bench, 'roomC' | 'watts' | 'efficiency' | 'school' | 'platePlaces' | 'keepWarm'>,
): number {
  const [cookC, loadS] = [usual('cookC'), usual('loadS')];
  const sum = (bursts: number[]) => bursts.reduce((all, s) => all + s, 0);
  const cookS = sum(burstsOf(massG, bench.roomC, cookC, bench));
  const warmForS = coolsToS(cookC, Math.min(lowC, cookC - 1), bench.roomC, usual('cupTauS'));
  const ofOneHeat = 1 + floorNear(warmForS / shotS);
  const coldC = cooledC(cookC, bench.roomC, usual('cupTauS'), ofOneHeat * shotS);
  const reheatS = sum(burstsOf(massG, coldC, cookC, bench));
  const reheats = Math.max(0, Math.ceil(shots / ofOneHeat) - 1);
  const kept = Math.min(cups, bench.platePlaces + (bench.keepWarm ? 1 : 0)) / cups;
  return (loadS + cookS + (1 - kept) * reheats * (loadS + reheatS)) / 60;
}
