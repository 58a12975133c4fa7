import type { Fill, MoldKind } from '../../../core/heat/window.ts';
import type { MoldWay } from '../../../core/shape/suits.ts';

export const MOLD_KIND_WORDS: Record<MoldKind, string> = {
  'silicone-open': 'silicone, open face',
  'silicone-wrap': 'silicone, wrap',
  'silicone-two-piece': 'silicone, two-piece',
  aluminium: 'machined aluminium',
  printed: 'printed',
  cast: 'cast',
  'dip-rods': 'dip rods',
};

export const FILL_WORDS: Record<Fill, string> = {
  'open-pour': 'open pour',
  injection: 'injected',
  gravity: 'gravity pour',
  dip: 'dipped',
};

/** Ways of making a mold, as a shape is judged for them. */
export const MOLD_WAY_WORDS: Record<MoldWay, string> = {
  'open-face': 'Silicone, open face',
  wrap: 'Silicone, wrap',
  'two-piece': 'Silicone, two-piece',
  printed: 'Printed halves',
  machined: 'Machined halves',
  dip: 'Dipped over a rod',
};
