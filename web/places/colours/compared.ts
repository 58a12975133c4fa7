import type { RecipeItem, RecipeRevision, RecipeRow } from '../../../contract/recipes.ts';
import { deltaEOfHex } from '../../../core/colour/lab.ts';
import { hexOf, layerOver, type Rgb } from '../../../core/colour/light.ts';
import { usual } from '../../../core/defaults.ts';
import type { Measure } from '../../../core/units/convert.ts';
import { meltOfItems } from '../../parts/plastic/melts.ts';

const WHITE: Rgb = [1, 1, 1];
/** A thin place and a body: what looks the same at both looks the same. */
const THIN_MM = 2;

type Written = Pick<RecipeRevision, 'items' | 'basisMl'>;

/** How a recipe looks at the thickness that colours are matched at; null where nobody knows how something in it looks. */
export function lookOf({ items, basisMl }: Written, measures: Measure[], mm = usual('matchedAtMm')): string | null {
  const melt = meltOfItems(items, basisMl, measures);
  return melt.unknown.length > 0 ? null : hexOf(layerOver(melt.optics, mm, WHITE));
}

/** How far two recipes look apart, thin or thick, whichever is more; null where it is not known. */
export function apart(one: Written, other: Written, measures: Measure[]): number | null {
  const offs = [THIN_MM, usual('matchedAtMm')].map((mm) => {
    const [a, b] = [lookOf(one, measures, mm), lookOf(other, measures, mm)];
    return a && b ? deltaEOfHex(a, b) : null;
  });
  return offs.some((off) => off === null) ? null : Math.max(...(offs as number[]));
}

/** Below this two recipes are nearly the same. */
const SAME_DELTA_E = 2;

/** What seen in flake keeps apart: the same flakes by name. */
const flakesOf = ({ items }: Written) =>
  items
    .filter((item) => item.materialKind === 'flake')
    .map((item) => item.materialId)
    .sort()
    .join();

/** Recipes that come out nearly alike, the nearest first. */
export const likeIt = (
  recipe: RecipeRow,
  all: RecipeRow[],
  measures: Measure[],
): { recipe: RecipeRow; off: number }[] =>
  all
    .flatMap((other) => {
      if (other.id === recipe.id || flakesOf(other.revision) !== flakesOf(recipe.revision)) return [];
      const off = apart(recipe.revision, other.revision, measures);
      return off !== null && off < SAME_DELTA_E ? [{ recipe: other, off }] : [];
    })
    .sort((a, b) => a.off - b.off);

const figure = (value: number) => Number(value.toPrecision(3));

/** What was changed from one revision to the next, in a maker's words. */
export function changesOf(before: Written, after: Written): string[] {
  const perBasis = ({ basisMl }: Written, item: RecipeItem) => (item.amount * after.basisMl) / basisMl;
  const was = new Map(before.items.map((item) => [item.materialId, item]));
  const changes = after.items.flatMap((item) => {
    const old = was.get(item.materialId);
    was.delete(item.materialId);
    if (!old) return [`${figure(item.amount)} ${item.unit} ${item.materialName} came in`];
    const [from, to] = [perBasis(before, old), item.amount];
    return old.unit === item.unit && Math.abs(from - to) < 1e-3 * to
      ? []
      : [`${item.materialName} ${figure(from)} → ${figure(to)} ${item.unit}`];
  });
  return [...changes, ...[...was.values()].map((item) => `${item.materialName} left out`)];
}
