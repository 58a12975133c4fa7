import { useMemo } from 'react';
import { Link } from 'react-router';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { deltaEOfHex } from '../../../core/colour/lab.ts';
import { hexOf, layerOver } from '../../../core/colour/light.ts';
import { meltOfItems } from '../../parts/plastic/melts.ts';
import { useTaste } from '../../parts/taste.tsx';
import { seenAs } from '../../parts/words/colour.ts';

const TOLD = 3;

/** The recipes that look most like a colour at the same thickness over white: one may do as it is. */
export function NearestInTheBook({
  recipes,
  wanted,
  thicknessMm,
}: {
  recipes: RecipeRow[];
  wanted: string;
  thicknessMm: number;
}) {
  const { measures } = useTaste();
  const nearest = useMemo(
    () =>
      recipes
        .map((recipe) => {
          const { optics, unknown } = meltOfItems(recipe.revision.items, recipe.revision.basisMl, measures);
          const hex = hexOf(layerOver(optics, thicknessMm, [1, 1, 1]));
          return { recipe, hex, off: deltaEOfHex(hex, wanted), unknown };
        })
        .filter((row) => row.unknown.length === 0)
        .sort((a, b) => a.off - b.off)
        .slice(0, TOLD),
    [recipes, wanted, thicknessMm, measures],
  );
  if (nearest.length === 0) return null;
  return (
    <section className="max-w-3xl">
      <h2 className="mb-1">Nearest in the recipe book</h2>
      <ul className="ruled">
        {nearest.map(({ recipe, hex, off }) => (
          <li key={recipe.id}>
            <Link to={`/colours/${recipe.id}`} className="flex gap-4 py-2 items-center row-hover">
              <span className="w-16 h-8 border border-[var(--edge)] shrink-0" style={{ background: hex }} />
              <b className="flex-1">{recipe.name}</b>
              <span>
                ΔE <b className="figure text-xl">{off.toFixed(1)}</b>
              </span>
              <span className="soft w-56 max-sm:hidden">{seenAs(off)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
