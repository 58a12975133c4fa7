import type { Fill } from '../heat/window.ts';
import type { Vec3 } from '../shape/mesh.ts';

/** Which way up a mold stands while it is filled. */
export const STANDS = {
  'back-up': 'flat, the back up',
  'belly-up': 'flat, the belly up',
  'nose-up': 'on end, the nose up',
  'tail-up': 'on end, the tail up',
} as const;
export type Stand = keyof typeof STANDS;
export const STAND_IDS = Object.keys(STANDS) as [Stand, ...Stand[]];

/** Up, in the axes of a bait: nose to tail, right, back up. */
export const UP: Record<Stand, Vec3> = {
  'back-up': [0, 0, 1],
  'belly-up': [0, 0, -1],
  'nose-up': [-1, 0, 0],
  'tail-up': [1, 0, 0],
};

/**
 * How a mold stands unless its maker says otherwise; null: a dipped one is not filled.
 * Source: workshop practice: an open mold lies level, its open face is the back; a closed one stands on end, tail below.
 */
export const usualStand = (fill: Fill): Stand | null =>
  fill === 'dip' ? null : fill === 'open-pour' ? 'back-up' : 'nose-up';
