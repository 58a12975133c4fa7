import type { Remote } from 'comlink';
import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import type { Proposal } from '../../../contract/tastes.ts';
import { hexOf, type Rgb } from '../../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { proposalsFor, tasteOf, traitsOf } from '../../../core/colour/taste.ts';
import { usual } from '../../../core/defaults.ts';
import { Failure } from '../../../core/failure.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { asColourant, bottlesHere, writtenAs } from '../../parts/plastic/bottles.ts';
import { meltOfItems } from '../../parts/plastic/melts.ts';
import type { Taste } from '../../parts/taste.tsx';
import { askOnce } from '../../workers/askOnce.ts';
import type { Matcher } from '../../workers/matcher.ts';

const matcher = () => new Worker(new URL('../../workers/matcher.ts', import.meta.url), { type: 'module' });

/**
 * Three answers to a theme, worked out beside the page: of the book, and matched to what is in store.
 * @throws Failure `nothing-left` where there is neither.
 */
export async function threeFor(
  theme: string,
  materials: Material[],
  recipes: RecipeRow[],
  taste: Taste,
): Promise<Proposal[]> {
  const here = bottlesHere(materials, taste);
  const made = async (api: Remote<Matcher>, target: Rgb): Promise<Proposal[]> => {
    if (here.length === 0) return [];
    const found = await api.match({
      target,
      thicknessMm: usual('matchedAtMm'),
      background: [1, 1, 1],
      base: PLAIN_PLASTIC,
      fixed: [],
      colourants: here.map(asColourant),
      batchMl: ML_PER_CUP,
      wholeDrops: true,
      maxColourants: 4,
      timeLimitMs: 1000,
      seed: 1,
    });
    const items = found.items.flatMap(({ id, drops }) => {
      const bottle = here.find(({ material }) => material.id === id);
      return bottle && drops > 0 ? [{ materialId: id, ...writtenAs(bottle, drops) }] : [];
    });
    return items.length > 0 ? [{ from: 'store', hex: hexOf(found.linear), basisMl: ML_PER_CUP, items }] : [];
  };
  const book = inUse(recipes).flatMap((recipe) => {
    const melt = meltOfItems(recipe.revision.items, recipe.revision.basisMl, taste.measures);
    // What nobody knows the look of cannot be proposed.
    return melt.unknown.length > 0 ? [] : [{ id: recipe.id, ...traitsOf(melt) }];
  });
  const { book: ids, wanted } = proposalsFor(tasteOf(theme), book);
  const matched = await askOnce<Matcher, Proposal[][]>(matcher, (api) =>
    Promise.all(wanted.map((target) => made(api, target))),
  );
  const proposals: Proposal[] = [...ids.map((recipeId) => ({ from: 'book' as const, recipeId })), ...matched.flat()];
  if (proposals.length > 0) return proposals;
  throw new Failure(
    'nothing-left',
    'No colour is written down and no bottle is in store: write a recipe, or add a colour to the store.',
  );
}
