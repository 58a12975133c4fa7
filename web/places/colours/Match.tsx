import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { meltOfIngredients, opticsOf } from '../../../core/colour/foresee.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { hexOf, layerOver, type Rgb } from '../../../core/colour/light.ts';
import type { MatchInput } from '../../../core/colour/match.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { usual } from '../../../core/defaults.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { cupsText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { Field, QuantityField, SelectField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { lineOf, meltOfItems } from '../../parts/plastic/melts.ts';
import { TapPhoto } from '../../parts/plastic/TapPhoto.tsx';
import { type Taste, useTaste } from '../../parts/taste.tsx';
import type { Bottle } from './matched.ts';
import { Nearest } from './Nearest.tsx';
import { NearestInTheBook } from './NearestInTheBook.tsx';
import { useMatch } from './useMatch.ts';

const WHITE: Rgb = [1, 1, 1];
const SEED = 1;

/** Liquid colours that a bottle is here of, as they are or as they are taken for. */
function inStore(materials: Material[], withoutId: string | null, taste: Taste): Bottle[] {
  return inUse(materials).flatMap((material) => {
    const optics = opticsOf({ ...material, optics: material.step?.optics ?? null });
    const isHere = material.lots.length === 0 || material.levelG > 0;
    if (material.kind !== 'colourant' || !optics || !isHere || material.id === withoutId) return [];
    const { dropsPerMl, bottleStrength } = lineOf(material, { amount: 1, unit: 'drop' }, taste.workshop.dropsPerMl);
    // A bottle of double strength takes half the drops: its drop is worth two.
    return [{ material, optics, bottleStrength, dropsPerMl: (dropsPerMl as number) / bottleStrength }];
  });
}

export function Match() {
  const [search] = useSearchParams();
  const materials = useQuery(queries.materials);
  const recipes = useQuery(queries.recipes);
  if (!materials.data || !recipes.data) return <Waiting />;
  const like = recipes.data.items.find((one) => one.id === search.get('like')) ?? null;
  return (
    <Matching
      key={search.toString()}
      materials={materials.data.items}
      recipes={inUse(recipes.data.items)}
      like={like}
      withoutId={search.get('without')}
    />
  );
}

interface Props {
  materials: Material[];
  recipes: RecipeRow[];
  /** A recipe that is to look the same without something that is out. */
  like: RecipeRow | null;
  withoutId: string | null;
}

function Matching({ materials, recipes, like, withoutId }: Props) {
  const taste = useTaste();
  const { text, measures } = taste;
  const [hex, setHex] = useState('#2f7d5c');
  const [thicknessMm, setThickness] = useState<number | null>(usual('matchedAtMm'));
  const [batchMl, setBatch] = useState<number | null>(like?.revision.basisMl ?? ML_PER_CUP);
  const out = materials.find((one) => one.id === withoutId);
  const here = useMemo(() => inStore(materials, withoutId, taste), [materials, withoutId, taste]);
  /** What stays in the cup as it is, and how the recipe looks as it was. */
  const kept = useMemo(() => {
    if (!like || thicknessMm === null) return null;
    const { items, basisMl } = like.revision;
    const whole = meltOfItems(items, basisMl, measures).optics;
    const rest = items.filter((item) => item.materialId !== withoutId);
    const stays = meltOfIngredients(ingredientsOf(rest, basisMl, measures)).optics;
    return { stays, target: layerOver(whole, thicknessMm, WHITE) };
  }, [like, withoutId, thicknessMm, measures]);
  const wish = useMemo<MatchInput | null>(() => {
    if (here.length === 0 || thicknessMm === null || batchMl === null) return null;
    return {
      target: kept ? kept.target : hex,
      thicknessMm,
      background: WHITE,
      base: kept?.stays ?? PLAIN_PLASTIC,
      fixed: [],
      colourants: here.map(({ material, optics, dropsPerMl }) => ({
        id: material.id,
        ...optics,
        dropsPerMl,
        maxMlPerL: usual('colourMostMlPerL'),
      })),
      batchMl,
      wholeDrops: true,
      maxColourants: kept ? 3 : 4,
      timeLimitMs: 1000,
      seed: SEED,
    };
  }, [here, kept, hex, thicknessMm, batchMl]);
  const { found, problem } = useMatch(wish);
  const wanted = kept ? hexOf(kept.target) : hex;
  return (
    <Page
      title={out && like ? `Without ${out.name}` : 'Match a colour'}
      tab="Match"
      under={
        like
          ? `What keeps ${like.name} looking as it does, out of what is in store; all else of it stays as it is.`
          : 'Which drops of what is in store come nearest to a colour, and how far off that is.'
      }
    >
      <div className="flex flex-wrap gap-4 items-end">
        {!like && (
          <Field label="Wanted" className="w-24 pb-5">
            {(ids) => (
              <input
                {...ids}
                type="color"
                value={hex}
                onChange={(event) => setHex(event.target.value)}
                className="w-24 h-12 cursor-pointer"
              />
            )}
          </Field>
        )}
        {!like && (
          <SelectField<string>
            label="or as it looks in"
            value=""
            options={[
              { value: '', label: 'a recipe …' },
              ...recipes.map((one) => ({ value: one.hex, label: one.name })),
            ]}
            onChange={(next) => next && setHex(next)}
            className="w-52"
          />
        )}
        <QuantityField
          label="At a thickness of"
          dimension="length"
          value={thicknessMm}
          onChange={setThickness}
          className="w-40"
        />
        {!like && (
          <QuantityField
            label="For a batch of"
            dimension="volume"
            value={batchMl}
            onChange={setBatch}
            className="w-40"
          />
        )}
        <p className="pb-6 figure">{batchMl !== null && cupsText(batchMl)}</p>
      </div>
      {!like && <TapPhoto places={['the colour that is wanted']} onRead={([read]) => read && setHex(read)} />}
      {here.length === 0 && (
        <p className="text-lg soft">No liquid colour with a look is in store: add one there first.</p>
      )}
      {problem && <p className="warn font-bold">{taste.say(problem)}</p>}
      {wish && !found && !problem && <p className="soft">Looking through {here.length} bottles …</p>}
      {found && wish && (
        <Nearest
          found={found}
          wish={wish}
          wanted={wanted}
          here={here}
          {...(like ? { replacing: { recipe: like, withoutId, name: out?.name ?? 'it' } } : {})}
          thickText={text(wish.thicknessMm, 'length')}
        />
      )}
      {thicknessMm !== null && (
        <NearestInTheBook recipes={recipes.filter((one) => one !== like)} wanted={wanted} thicknessMm={thicknessMm} />
      )}
    </Page>
  );
}
