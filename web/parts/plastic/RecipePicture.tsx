import { useMemo } from 'react';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { GROUNDS, lightOver } from '../../../core/colour/grounds.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { Puck } from '../Puck.tsx';
import { useTaste } from '../taste.tsx';
import { meltOfItems } from './melts.ts';
import { Painted } from './Painted.tsx';
import { paintBait } from './paint.ts';

/** A little towards the light, radians. */
const LEAN = 0.2;

/** A recipe as the bait that is poured of it, over white; as a disc of its look where no bait has a shape. */
export function RecipePicture({ recipe, chords }: { recipe: RecipeRow; chords: Chords | undefined }) {
  const { measures } = useTaste();
  const { items, basisMl } = recipe.revision;
  const melt = useMemo(() => meltOfItems(items, basisMl, measures), [items, basisMl, measures]);
  const paint = useMemo(
    () =>
      chords && (() => paintBait(chords, melt, { linear: [...GROUNDS.white.linear], light: lightOver('white') }, LEAN)),
    [chords, melt],
  );
  // What nobody knows the look of cannot be drawn.
  if (!chords || !paint || melt.unknown.length > 0) return <Puck hex={recipe.hex} sizePx={132} name={recipe.name} />;
  return (
    <span className="w-40 shrink-0 p-2 border border-[var(--edge)] bg-[#f4f3ef] self-start">
      <Painted columns={chords.columns} rows={chords.rows} paint={paint} label={`A bait of ${recipe.name}`} />
    </span>
  );
}
