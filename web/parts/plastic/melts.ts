import type { Material } from '../../../contract/materials.ts';
import type { Dose, RecipeItem } from '../../../contract/recipes.ts';
import { type Melt, meltOfIngredients } from '../../../core/colour/foresee.ts';
import { type ColouredLine, ingredientsOf } from '../../../core/colour/ingredients.ts';
import type { Optics } from '../../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { tried } from '../../../core/failure.ts';
import { standingDoses } from '../../../core/plastisol/cup.ts';
import { lotsInUse } from '../../../core/plastisol/lots.ts';
import type { Measure } from '../../../core/units/convert.ts';

/** A kept recipe as it will look. */
export const meltOfItems = (items: RecipeItem[], basisMl: number, measures: Measure[]): Melt =>
  meltOfIngredients(ingredientsOf(items, basisMl, measures));

interface Amount {
  amount: number;
  unit: string;
  dropsPerMl?: number | null;
  bottleStrength?: number | null;
  turned?: boolean;
}

/** An amount of something in the store, out of the bottle in use unless it says which. */
export function lineOf(
  material: Material,
  { amount, unit, dropsPerMl, bottleStrength, turned }: Amount,
  workshopsDrop: number,
): ColouredLine {
  const [bottle] = lotsInUse(material.lots, material.lotId);
  return {
    materialId: material.id,
    materialName: material.name,
    materialKind: material.kind,
    amount,
    unit,
    dropsPerMl: dropsPerMl ?? bottle?.dropsPerMl ?? material.dropsPerMl ?? workshopsDrop,
    bulkGPerMl: material.bulkGPerMl,
    densityGPerMl: material.densityGPerMl,
    bottleStrength: bottleStrength ?? bottle?.bottleStrength ?? 1,
    hex: material.hex,
    optics: material.step?.optics ?? null,
    sizeMm: material.sizeMm,
    cut: material.cut,
    learnt: material.learnt,
    turnsHex: material.turnsHex,
    ...(turned === undefined ? {} : { turned }),
  };
}

/** Lines one by one, since one that is not to be understood yet must not hide the others. */
export function meltOfLines(lines: ColouredLine[], batchMl: number, measures: Measure[], plain = PLAIN_PLASTIC): Melt {
  return meltOfIngredients(
    lines.flatMap((line) => tried(() => ingredientsOf([line], batchMl, measures)).value ?? []),
    plain,
  );
}

/** What was dosed so far and not taken back. */
export function meltOfDoses(
  doses: Dose[],
  materials: Material[],
  batchMl: number,
  { measures, dropsPerMl, plain }: { measures: Measure[]; dropsPerMl: number; plain?: Optics },
): Melt {
  const lines = standingDoses(doses).flatMap((dose) => {
    const material = materials.find((one) => one.id === dose.materialId);
    return material ? [lineOf(material, dose, dropsPerMl)] : [];
  });
  return meltOfLines(lines, batchMl, measures, plain);
}
