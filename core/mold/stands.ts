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

/** How a mold stands, and whether nobody said so. */
export interface Standing {
  way: Stand;
  byDefault: boolean;
}

/**
 * How a mold stands while it is filled, as its maker says, else as is usual; null: a dipped one is not filled.
 * Source: workshop practice: an open mold lies level, its open face is the back; a closed one stands on end, tail below.
 */
export function standing(fill: Fill, said: Stand | null): Standing | null {
  if (fill === 'dip') return null;
  return { way: said ?? (fill === 'open-pour' ? 'back-up' : 'nose-up'), byDefault: said === null };
}
