import { type RecipeLine, scaleLines } from '../plastisol/recipe.ts';
import type { Measure } from '../units/convert.ts';
import type { Cut } from './flakes.ts';
import type { Ingredient } from './foresee.ts';
import type { Learnt } from './learnt.ts';
import type { Optics } from './light.ts';

export interface ColouredLine extends RecipeLine {
  materialName: string;
  hex: string | null;
  optics: Optics | null;
  sizeMm: number | null;
  cut: Cut | null;
  learnt?: Pick<Learnt, 'factor' | 'looks'> | null | undefined;
  turned?: boolean | undefined;
  turnsHex?: string | null | undefined;
}

/**
 * A written recipe as what is seen of it: millilitres of the house strength and grams in a litre of plastisol.
 * @throws Failure `unknown-unit`, `unit-mismatch` for an amount that is none.
 */
export function ingredientsOf(lines: ColouredLine[], basisMl: number, measures: Measure[]): Ingredient[] {
  const scaled = scaleLines(lines, basisMl, basisMl, measures);
  return lines.map((line, i) => ({
    id: line.materialId,
    name: line.materialName,
    kind: line.materialKind,
    hex: line.hex,
    optics: line.optics,
    // What a stronger bottle gives less of is the same colour.
    mlPerL: ((scaled[i]?.ml ?? 0) * line.bottleStrength * 1000) / basisMl,
    gPerL: ((scaled[i]?.g ?? 0) * 1000) / basisMl,
    sizeMm: line.sizeMm,
    cut: line.cut,
    learnt: line.learnt,
    turned: line.turned,
    turnsHex: line.turnsHex,
  }));
}
