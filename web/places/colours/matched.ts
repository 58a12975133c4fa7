import type { RecipeItem, RecipeRow } from '../../../contract/recipes.ts';
import type { Matched } from '../../../core/colour/match.ts';
import { type Bottle, writtenAs } from '../../parts/plastic/bottles.ts';

export interface Replacing {
  recipe: RecipeRow;
  withoutId: string | null;
  name: string;
}

type Line = Pick<RecipeItem, 'materialId' | 'amount' | 'unit'> & { turned?: boolean };

/** What was found as a recipe is written: in the house strength, in drops of the bottle in use; powders in spoons. */
export const linesOf = ({ items }: Matched, here: Bottle[]): Line[] =>
  items.flatMap(({ id, drops }) => {
    const bottle = here.find((one) => one.material.id === id);
    return bottle ? [{ materialId: id, ...writtenAs(bottle, drops) }] : [];
  });

/** A recipe without something, and with what replaces it: what is in it already gets more of it. */
export function replaced({ recipe, withoutId }: Replacing, found: Line[]): Line[] {
  const rest = recipe.revision.items.filter((item) => item.materialId !== withoutId);
  const more = new Map(found.map((line) => [line.materialId, line]));
  const kept = rest.map(({ materialId, amount, unit, ml, dropsPerMl, turned }): Line => {
    const added = more.get(materialId);
    if (!added) return { materialId, amount, unit, turned };
    more.delete(materialId);
    return unit === added.unit
      ? { materialId, amount: amount + added.amount, unit }
      : { materialId, amount: (ml ?? 0) + added.amount / dropsPerMl, unit: 'mL' };
  });
  return [...kept, ...more.values()];
}
