import type { Fill, MoldKind } from '../../../core/heat/window.ts';
import type { MoldWay } from '../../../core/shape/suits.ts';
import type { useTaste } from '../taste.tsx';

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

/** A surface, in squares of the maker's length. */
export function areaText(mm2: number, { taste }: Pick<ReturnType<typeof useTaste>, 'taste'>): string {
  if (taste.system === 'us') return `${(mm2 / 25.4 ** 2).toFixed(2)} in²`;
  return mm2 < 1000 ? `${mm2.toFixed(0)} mm²` : `${(mm2 / 100).toFixed(1)} cm²`;
}

/** Two places after the point where tenths would say nothing: walls of dips, spark gaps. An inch keeps its own way. */
export const hundredths = (mm: number, { taste }: Pick<ReturnType<typeof useTaste>, 'taste'>) =>
  taste.system === 'us' ? `${(mm / 25.4).toFixed(4)} in` : `${mm.toFixed(2)} mm`;
