import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Bin } from '../../../contract/bins.ts';
import { inUse } from '../../../contract/fields.ts';
import type { Recipe } from '../../../contract/recipes.ts';
import { meltOfIngredients } from '../../../core/colour/foresee.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { deltaE, labOf, moreOf } from '../../../core/colour/lab.ts';
import { mixedOptics } from '../../../core/colour/light.ts';
import { lookHex, lookOf } from '../../../core/colour/look.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { usual } from '../../../core/defaults.ts';
import { queries } from '../../api/queries.ts';
import { SelectField } from '../../parts/Fields.tsx';
import { BaitInPlastic } from '../../parts/plastic/BaitInPlastic.tsx';
import { useShapes } from '../../parts/plastic/Foreseen.tsx';
import { useChords } from '../../parts/plastic/useChords.ts';
import { ShareSlider } from '../../parts/ShareSlider.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { LACKING, seenAs, unknownText } from '../../parts/words/colour.ts';

/** What a share of a remelt bin in the cup does to a recipe that is dosed as it is written. */
export function WithRemelt({ recipe }: { recipe: Recipe }) {
  const bins = inUse(useQuery(queries.bins).data?.items ?? []).filter((bin) => bin.colour !== null && bin.grams > 0);
  const [binId, setBin] = useState<string | null>(null);
  const [share, setShare] = useState(20);
  const bin = bins.find((one) => one.id === binId) ?? bins[0];
  if (!bin?.colour) return null;
  return (
    <section className="mt-6 flex flex-col gap-2">
      <h2>With remelt in the cup</h2>
      <div className="flex flex-wrap gap-4 items-end">
        <SelectField
          label="Out of the bin"
          value={bin.id}
          options={bins.map((one) => ({ value: one.id, label: one.name }))}
          onChange={setBin}
          className="w-52"
        />
        <ShareSlider value={share} min={5} onChange={setShare} says="of the plastic" />
      </div>
      <Changed recipe={recipe} bin={bin} colour={bin.colour} share={share / 100} />
    </section>
  );
}

function Changed({
  recipe,
  bin,
  colour,
  share,
}: {
  recipe: Recipe;
  bin: Bin;
  colour: NonNullable<Bin['colour']>;
  share: number;
}) {
  const { measures, text } = useTaste();
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const { melt, plain, off, more } = useMemo(() => {
    const items = ingredientsOf(recipe.revision.items, recipe.revision.basisMl, measures);
    const pure = meltOfIngredients(items);
    const mixed = meltOfIngredients(items, mixedOptics(colour.optics, PLAIN_PLASTIC, share));
    const at = (of: typeof pure) => labOf(lookOf(of.optics));
    return { plain: pure, melt: mixed, off: deltaE(at(mixed), at(pure)), more: moreOf(at(mixed), at(pure)) };
  }, [recipe, colour, share, measures]);
  return (
    <>
      {chords && (
        <div className="grid grid-cols-1 sm:grid-cols-2 gap-3 max-w-3xl">
          <BaitInPlastic chords={chords} melt={plain} ground="white" label={`${recipe.name} of fresh plastic`} />
          <BaitInPlastic chords={chords} melt={melt} ground="white" label={`${recipe.name} with ${bin.name}`} />
        </div>
      )}
      <p>
        ΔE <b className="figure text-2xl">{off.toFixed(1)}</b>{' '}
        {off < 1 ? 'not told apart from fresh plastic' : `${LACKING[more]}; ${seenAs(off)}`},{' '}
        {text(usual('matchedAtMm'), 'length')} over white.{' '}
        <Link
          to={`/colours/match?bin=${bin.id}&share=${share}&hex=${encodeURIComponent(lookHex(plain.optics))}`}
          className="link"
        >
          Which drops set it right
        </Link>
      </p>
      {unknownText(colour) && (
        <p className="warn">
          {bin.name}: {unknownText(colour)}.{' '}
          <Link to={`/rack/bins/${bin.id}`} className="link">
            A puck tells
          </Link>
        </p>
      )}
    </>
  );
}
