import type { Fill, MoldKind } from '../../../core/heat/window.ts';
import type { useTaste } from '../../parts/taste.tsx';

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

/** Two places after the point where tenths would say nothing: walls of dips, spark gaps. An inch keeps its own way. */
export const hundredths = (mm: number, { taste }: Pick<ReturnType<typeof useTaste>, 'taste'>) =>
  taste.system === 'us' ? `${(mm / 25.4).toFixed(4)} in` : `${mm.toFixed(2)} mm`;
