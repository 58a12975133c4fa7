import { usual } from '../defaults.ts';
import { middleTowards } from '../median.ts';
import type { Reason } from '../yield/grades.ts';
import type { Waits } from './waits.ts';

/** What a bait shows that was taken out while it was still soft. Source: workshop practice. */
export const OPENED_SOFT: Reason[] = ['bent', 'tear'];
/** A shot came out soft when so many of the baits that were looked at show it. */
export const SOFT_SHARE = 0.25;

/** One shot, from its last layer until somebody looked at it. */
export interface Opened {
  waitedS: number;
  /** What was worked out for it, before anything was learnt, s. */
  workedS: number;
  soft: boolean;
}

export interface LearntWait {
  /** Of what is worked out; 1: nothing is known better. */
  factor: number;
  /** Openings that say so. */
  openings: number;
}

/** Later than this share of what was worked out, a good bait tells nothing: hands were elsewhere. */
const IN_TIME = 1.1;
/** Sooner than this share nobody opened a mold: the shot and the look were written down afterwards. */
const AFTERWARDS = 0.3;
/** A soft bait that waited longer than this was spoilt by something else. */
const NOT_THE_WAIT = 1.5;

/**
 * How long a mold of this workshop really waits, as a share of what its heat or its kind says: a good bait needed no more
 * than it had, a soft one `softNeedsMore` times what it had. The middle one, drawn to 1 where few speak.
 * @returns a factor of 0.5 to 2 and how many openings it stands on.
 * Source: median, weighted with the worked-out wait as three openings.
 */
export function learntWait(opened: Opened[]): LearntWait {
  const needed = opened.flatMap(({ waitedS, workedS, soft }) => {
    const share = waitedS / workedS;
    if (share < AFTERWARDS) return [];
    if (soft) return share <= NOT_THE_WAIT ? [share * usual('softNeedsMore')] : [];
    return share <= IN_TIME ? [share] : [];
  });
  const factor = middleTowards(needed, 1);
  return { factor: Math.min(2, Math.max(0.5, factor)), openings: needed.length };
}

/** The waits of a mold as its openings taught; never under the shortest. */
export function waitsLearnt(waits: Waits, { factor, openings }: LearntWait): Waits {
  if (openings === 0) return waits;
  const waitS = waits.waitS.map((seconds) =>
    Math.max(Math.min(seconds, usual('leastWaitS')), Math.round(seconds * factor)),
  );
  return { ...waits, waitS, learnt: { factor, openings } };
}

/** A shot's wait before anything was learnt, s. */
export const beforeLearning = ({ waitS, learnt }: Waits, nth: number): number =>
  (waitS[Math.min(nth, waitS.length - 1)] as number) / (learnt?.factor ?? 1);
