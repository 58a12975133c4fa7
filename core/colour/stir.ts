import { usual } from '../defaults.ts';
import { tried } from '../failure.ts';
import { settle } from '../heat/settle.ts';
import type { Ingredient } from './foresee.ts';

export interface Stir {
  /** Whatever sinks first. */
  name: string;
  everyS: number;
  /** Nobody told its size. */
  sizeByDefault: boolean;
}

/** How long a stir lasts in this melt: what of its flake and salt sinks 10 mm first; null where nothing sinks. */
export function stirOf(items: Pick<Ingredient, 'name' | 'kind' | 'sizeMm' | 'gPerL'>[]): Stir | null {
  const sinking = items.flatMap(({ name, kind, sizeMm, gPerL }): Stir[] => {
    if ((kind !== 'flake' && kind !== 'salt') || !(gPerL > 0)) return [];
    const isFlake = kind === 'flake';
    const { value } = tried(() =>
      settle({
        particle: isFlake ? 'flake' : 'grain',
        sizeMm: sizeMm ?? usual(isFlake ? 'flakeSizeMm' : 'saltGrainMm'),
        ...(isFlake ? { thicknessMm: usual('flakeThickMm') } : {}),
        densityGPerMl: usual(isFlake ? 'flakeGPerMl' : 'saltGPerMl'),
        fluidDensityGPerMl: usual('hotMeltGPerMl'),
        viscosityPaS: usual('hotMeltPaS'),
        depthMm: usual('cupDeepMm'),
      }),
    );
    return value ? [{ name, everyS: value.stirEveryS, sizeByDefault: sizeMm === null }] : [];
  });
  return sinking.sort((a, b) => a.everyS - b.everyS)[0] ?? null;
}
