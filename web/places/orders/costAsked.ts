import type * as v from 'valibot';
import type { CostWish } from '../../../contract/costs.ts';
import type { Material } from '../../../contract/materials.ts';
import type { Hands } from '../../../contract/pours.ts';
import type { RecipeItem } from '../../../contract/recipes.ts';
import { usual } from '../../../core/defaults.ts';
import type { baitCostSchema } from '../../../core/plan/cost.ts';
import { handsS } from '../../../core/plan/hours.ts';
import { scaleLines } from '../../../core/plastisol/recipe.ts';
import type { Measure } from '../../../core/units/convert.ts';

export interface CostOf {
  mold: { cavities: number; cavityMl: number; made: number; rejected: number };
  perPack: number;
  /** What of a bait each melt is, and its recipe. */
  melts: { share: number; items: RecipeItem[]; basisMl: number }[];
  plastic: Pick<Material, 'id' | 'name' | 'densityGPerMl' | 'pricePerKgMinor'>;
  materials: Material[];
  bag: Material | undefined;
  /** What goes with each bag, pieces or grams. */
  beside: { materialId: string; amount: number }[];
  hands: Hands | undefined;
  /** To pack a bag, s. */
  packS: number;
  wish: CostWish;
  measures: Measure[];
}

export interface CostAsked {
  input: v.InferInput<typeof baitCostSchema>;
  /** What is in it and has no price yet. */
  unpriced: string[];
}

/** A pack's cost as the calculator is asked for it: what is in a bait by its recipe, hands as they are learnt, rejects by the record. */
export function costAsked({
  mold,
  perPack,
  melts,
  plastic,
  materials,
  bag,
  beside,
  hands,
  packS,
  wish,
  measures,
}: CostOf): CostAsked {
  const unpriced: string[] = [];
  const priced = (name: string, price: number | null | undefined) => {
    if ((price ?? null) === null) unpriced.push(name);
    return price ?? 0;
  };
  const grams = new Map<string, number>();
  const add = (id: string, more: number) => grams.set(id, (grams.get(id) ?? 0) + more);
  for (const { share, items, basisMl } of melts) {
    const ml = mold.cavityMl * share;
    add(plastic.id, ml * (plastic.densityGPerMl ?? usual('plastisolGPerMl')));
    if (items.length > 0) for (const item of scaleLines(items, basisMl, ml, measures)) add(item.id, item.g as number);
  }
  // What is counted is priced by the thousand, what is weighed by the kilogram: a piece and a gram alike.
  const piece = ({ id, name, pricePerKgMinor }: Material, amount: number) => ({
    id,
    count: 1,
    priceMinor: Math.round((priced(name, pricePerKgMinor) * amount) / 1000),
  });
  const nameOf = (id: string) => (id === plastic.id ? plastic : materials.find((one) => one.id === id));
  const rejectFraction = mold.made > 0 ? Math.min(0.95, mold.rejected / mold.made) : 0;
  const shotS = hands?.handsS ?? handsS(mold.cavities);
  return {
    input: {
      plastic: [...grams].map(([id, g]) => ({
        id,
        grams: g,
        pricePerKgMinor: priced(nameOf(id)?.name ?? id, nameOf(id)?.pricePerKgMinor),
      })),
      pieces: [
        ...(bag ? [piece(bag, 1)] : []),
        ...beside.flatMap(({ materialId, amount }) => {
          const one = materials.find(({ id }) => id === materialId);
          return one ? [piece(one, amount)] : [];
        }),
      ],
      minutes: (shotS / mold.cavities + packS / perPack) / 60,
      baits: perPack,
      wagePerHourMinor: wish.wagePerHourMinor,
      moldPriceMinor: wish.moldPriceMinor,
      moldShots: wish.moldShots,
      baitsPerShot: mold.cavities,
      rejectFraction,
      wasteFraction: wish.wasteFraction,
      marginFraction: wish.marginFraction,
    },
    unpriced,
  };
}
