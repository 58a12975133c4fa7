import { usual } from '../defaults.ts';

/** A mold's part of the work: its shots, and how long each waits until it is opened. */
export interface Worked {
  shots: number;
  cavities: number;
  waitS: number;
}

/** Seconds to fill a mold that stands empty. */
export const fillingS = (cavities: number) => usual('fillS') + cavities * usual('fillSPerCavity');

/** Hands-on seconds of one shot: opened, looked at, closed, filled. */
export const handsS = (cavities: number) => usual('openBetweenS') + fillingS(cavities);

/**
 * Minutes at the bench for these shots, cooking and clearing up left out: one person's hands are at one mold at a time, and
 * no mold gives its next shot before it is opened. What takes longer decides; a second mold shortens waits, not hands.
 */
export function benchMin(molds: Worked[]): number {
  const hands = molds.reduce((sum, { shots, cavities }) => sum + shots * handsS(cavities), 0);
  const slowest = Math.max(0, ...molds.map(({ shots, cavities, waitS }) => shots * (handsS(cavities) + waitS)));
  return Math.max(hands, slowest) / 60;
}

/** Minutes of an evening that are left for shots. @param eveningH hours that are given. */
export const shotsMin = (eveningH: number) => Math.max(1, eveningH * 60 - usual('setUpMin'));

/** How many evenings that is, and how long all of them are with cooking and clearing up, h. */
export function eveningsFor(minutes: number, eveningH: number): { evenings: number; hours: number } {
  const evenings = Math.max(1, Math.ceil(minutes / shotsMin(eveningH) - 1e-9));
  return { evenings, hours: (minutes + evenings * usual('setUpMin')) / 60 };
}
