import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Layer } from '../../../contract/colourways.ts';
import type { Melt } from '../../../core/colour/foresee.ts';
import { GROUNDS, type GroundId, lightOver } from '../../../core/colour/grounds.ts';
import { filledMl, isInSkin, type Part, seamsOf, shareUnder } from '../../../core/colour/layered.ts';
import { tried } from '../../../core/failure.ts';
import { layerShares, levelsIn, PLACES } from '../../../core/plan/layers.ts';
import type { Chords } from '../../../core/shape/chords.ts';
import { queries } from '../../api/queries.ts';
import { useTaste } from '../taste.tsx';
import { meltOfItems } from './melts.ts';
import { Painted } from './Painted.tsx';
import { paintLayered } from './paint.ts';

/** The melts of some layers, as far as they can be foreseen; undefined until all their recipes are here. */
export function useMelts(layers: Layer[]): Melt[] | undefined {
  const { measures } = useTaste();
  const recipes = useQuery(queries.recipes).data?.items;
  return useMemo(() => {
    const melts = layers.map(({ recipeId }) => {
      const recipe = recipes?.find((one) => one.id === recipeId);
      return recipe && meltOfItems(recipe.revision.items, recipe.revision.basisMl, measures);
    });
    return melts.every((melt) => melt !== undefined) ? melts : undefined;
  }, [layers, recipes, measures]);
}

/** How much of this very bait each layer is: its own shape says what lies under a level of it. */
export function partsOf(layers: Layer[], melts: Melt[], side: Chords): Part[] {
  const levels = Object.fromEntries(levelsIn(layers).map((to) => [to, shareUnder(side, to)]));
  const shares = tried(() => layerShares(layers, { cavityMl: filledMl(side), levels })).value;
  return layers.map(({ place }, i) => ({
    place,
    share: shares?.[i] ?? 1 / layers.length,
    optics: (melts[i] as Melt).optics,
  }));
}

interface Props {
  layers: Layer[];
  melts: Melt[];
  side: Chords;
  above?: Chords | undefined;
  ground: GroundId;
  name: string;
}

/** A bait of layers from the side, and from above where the back lies over the belly. */
export function LayeredBait({ layers, melts, side, above, ground, name }: Props) {
  const painted = useMemo(() => {
    const parts = partsOf(layers, melts, side);
    const model = { parts, melts, seams: seamsOf(parts, side) };
    const over = { linear: [...GROUNDS[ground].linear] as [number, number, number], light: lightOver(ground) };
    return {
      side: () => paintLayered(side, 'side', model, over),
      above: above && (() => paintLayered(above, 'above', model, over)),
    };
  }, [layers, melts, side, above, ground]);
  const skin = layers.filter(({ place }) => isInSkin(place)).map(({ place }) => PLACES[place]);
  return (
    <div className="flex flex-col gap-3">
      <Painted
        columns={side.columns}
        rows={side.rows}
        paint={painted.side}
        label={`${name} from the side, over ${GROUNDS[ground].title}`}
      />
      {above && painted.above && (
        <Painted
          columns={above.columns}
          rows={above.rows}
          paint={painted.above}
          label={`${name} from above, over ${GROUNDS[ground].title}`}
        />
      )}
      {skin.length > 0 && (
        <p className="label-small">
          Drawn where they usually sit, all alike: {skin.join(', ')} <span className="default-mark">default</span> Seen
          from the side only.
        </p>
      )}
    </div>
  );
}
