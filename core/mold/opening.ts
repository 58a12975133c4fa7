/** Kinds of molds as they are poured. */
export type MoldKind =
  | 'silicone-open'
  | 'silicone-wrap'
  | 'silicone-two-piece'
  | 'aluminium'
  | 'cast'
  | 'printed'
  | 'dip-rods';

/**
 * Seconds from a shot until its mold is opened: starting guesses by kind from common practice (small baits one to three
 * minutes in cold aluminium, about five in silicone), shown as defaults wherever they are used.
 */
export const OPENS_AFTER_S: Record<MoldKind, number> = {
  'silicone-open': 300,
  'silicone-wrap': 600,
  'silicone-two-piece': 900,
  aluminium: 120,
  cast: 120,
  printed: 240,
  'dip-rods': 45,
};
