import type { Material } from '../../../contract/materials.ts';
import type { RecipeItem, RecipeRow } from '../../../contract/recipes.ts';
import type { Lacking } from '../../../core/colour/lab.ts';
import type { Optics } from '../../../core/colour/light.ts';
import type { Matched } from '../../../core/colour/match.ts';

/** A colour of which there is a bottle here. */
export interface Bottle {
  material: Material;
  optics: Optics;
  bottleStrength: number;
  /** Of the house strength: a drop of a double bottle is worth two. */
  dropsPerMl: number;
}

export interface Replacing {
  recipe: RecipeRow;
  withoutId: string | null;
  name: string;
}

/** How a difference is seen. Source: common reading of CIEDE2000. */
export const seenAs = (off: number): string =>
  off < 1
    ? 'not told apart'
    : off < 2
      ? 'just told apart side by side'
      : off < 5
        ? 'near, and told apart'
        : 'another colour';

export const LACKING: Record<Lacking, string> = {
  red: 'redder',
  pink: 'pinker',
  violet: 'more violet',
  blue: 'bluer',
  green: 'greener',
  yellow: 'yellower',
  orange: 'more orange',
  light: 'lighter',
  dark: 'darker',
};

type Line = Pick<RecipeItem, 'materialId' | 'amount' | 'unit'>;

/** What was found as a recipe is written: in the house strength, in drops of the bottle in use. */
export const linesOf = ({ items }: Matched, here: Bottle[]): Line[] =>
  items.map(({ id, drops }) => ({
    materialId: id,
    amount: drops * (here.find((one) => one.material.id === id)?.bottleStrength ?? 1),
    unit: 'drop',
  }));

/** A recipe without something, and with what replaces it: what is in it already gets more of it. */
export function replaced({ recipe, withoutId }: Replacing, found: Line[]): Line[] {
  const rest = recipe.revision.items.filter((item) => item.materialId !== withoutId);
  const more = new Map(found.map((line) => [line.materialId, line]));
  const kept = rest.map(({ materialId, amount, unit, ml, dropsPerMl }): Line => {
    const added = more.get(materialId);
    if (!added) return { materialId, amount, unit };
    more.delete(materialId);
    return unit === 'drop'
      ? { materialId, amount: amount + added.amount, unit }
      : { materialId, amount: (ml ?? 0) + added.amount / dropsPerMl, unit: 'mL' };
  });
  return [...kept, ...more.values()];
}
