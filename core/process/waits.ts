import type { MoldKind } from '../heat/window.ts';

/**
 * Seconds from a shot until its mold is opened where the bait's thickness is not known: starting guesses by kind (small
 * baits one to three minutes in cold metal, about five in silicone, a big one 15 to 20).
 */
const BY_KIND_S: Record<MoldKind, number> = {
  'silicone-open': 300,
  'silicone-wrap': 600,
  'silicone-two-piece': 900,
  aluminium: 120,
  cast: 120,
  printed: 240,
  'dip-rods': 45,
};

export interface Waits {
  /** Of each shot in turn, s; later ones wait as long as the last. */
  waitS: number[];
  basis: 'heat' | 'kind';
  /** What openings here made of it: the waits are these times what was worked out. */
  learnt?: { factor: number; openings: number };
}

/** Where nothing more is known of a mold than its kind. */
export const waitsByKind = (kind: MoldKind): Waits => ({ waitS: [BY_KIND_S[kind]], basis: 'kind' });

/** The wait of one shot, s. @param nth 0 for the first. */
export const waitOf = ({ waitS }: Pick<Waits, 'waitS'>, nth: number) =>
  waitS[Math.min(nth, waitS.length - 1)] as number;
