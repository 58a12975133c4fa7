import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BlendWish } from '../../../contract/blend.ts';
import type { MoldRow } from '../../../contract/molds.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import type { Bait } from '../../../contract/workshop.ts';
import { tried } from '../../../core/failure.ts';
import { CUP_DEFAULTS, cupFor } from '../../../core/plan/cup.ts';
import { inGlasses } from '../../../core/plastisol/batch.ts';
import { cupsText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { Refusal, SelectField, Stepper } from '../../parts/Fields.tsx';
import { Glass } from '../../parts/Glass.tsx';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { Ready } from '../../parts/Ready.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useLayOut } from '../../parts/useLayOutPour.ts';
import { Why } from '../../parts/Why.tsx';
import { BlendOf } from './BlendOf.tsx';

function sized(molds: MoldRow[], shots: Record<string, number>) {
  const drawn = molds.flatMap((mold) => (shots[mold.id] ? [{ mold, shots: shots[mold.id] as number }] : []));
  return drawn.length === 0 ? undefined : tried(() => cupFor(drawn));
}

/** How hard a bait is to be, where that was written down. */
const wantedOf = (bait: Bait | undefined) =>
  bait?.wantedScale && bait.wantedHardness !== null ? { scale: bait.wantedScale, value: bait.wantedHardness } : null;

/** Shots of one or more molds from one cup; how much to cook follows at once. */
export function NewPour() {
  const [search] = useSearchParams();
  const taste = useTaste();
  const recipes = useQuery(queries.recipes).data?.items.filter(
    (row) => row.awayAt === null || row.id === search.get('recipe'),
  );
  const molds = useQuery(queries.molds).data?.items.filter((mold) => !mold.retiredAt);
  const baits = useQuery(queries.baits).data;
  const [recipeId, setRecipe] = useState(search.get('recipe') ?? '');
  const [shots, setShots] = useState<Record<string, number>>(() =>
    search.get('mold') ? { [search.get('mold') as string]: 4 } : {},
  );
  const recipe = recipes?.find((row) => row.id === recipeId) ?? recipes?.[0];
  const [blend, setBlend] = useState<BlendWish>();
  const layOut = useLayOut();
  if (!recipes || !molds) return <Waiting />;
  if (!recipe || molds.length === 0) {
    return (
      <Page title="Lay out a pour" tab="Lay out a pour">
        {recipe ? (
          <Empty
            say="A pour needs a mold."
            then="Plan one around a master, or add one you have."
            to="/molds/new"
            action="Add a mold"
          />
        ) : (
          <Empty
            say="A pour needs a colour."
            then="Write one recipe first."
            to="/colours/new"
            action="Write a recipe"
          />
        )}
      </Page>
    );
  }
  const cup = sized(molds, shots);
  const batch = cup?.value;
  const chosen = Object.entries(shots)
    .filter(([, n]) => n > 0)
    .map(([moldId, n]) => ({ moldId, shots: n }));
  // The first mold's bait says how hard, as it does where the cup is laid out.
  const first = molds.find((mold) => mold.id === chosen[0]?.moldId);
  const wanted = wantedOf(baits?.items.find((bait) => bait.id === first?.baitId));
  return (
    <Page title="Lay out a pour" tab="Lay out a pour" under="One cup, one or several molds.">
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_360px] gap-12">
        <ul className="grid grid-cols-1 md:grid-cols-2 gap-x-8 gap-y-6 content-start">
          {molds.map((mold) => (
            <li key={mold.id} className="flex gap-4 items-center">
              <MoldBlock mold={mold} widthPx={130} />
              <span>
                <Stepper
                  label={mold.name}
                  shown={`${shots[mold.id] ?? 0} shots`}
                  onStep={(by) => setShots({ ...shots, [mold.id]: Math.max(0, (shots[mold.id] ?? 0) + by) })}
                />
                <span className="text-sm">
                  <Ready readyAt={mold.readyAt} />
                </span>
              </span>
            </li>
          ))}
        </ul>
        <div className="flex flex-col gap-4">
          <div className="flex gap-4 items-center">
            <Puck hex={recipe.hex} sizePx={64} name={recipe.name} />
            <SelectField
              label="Colour"
              value={recipe.id}
              options={recipes.map((row) => ({ value: row.id, label: row.name }))}
              onChange={setRecipe}
              className="flex-1"
            />
          </div>
          {cup?.refused && <p className="heat font-bold">{taste.say(cup.refused)}</p>}
          {batch ? (
            <CupToCook batch={batch} recipe={recipe} molds={molds} />
          ) : (
            !cup?.refused && <p className="soft text-lg">Give a mold its shots.</p>
          )}
          {batch && (
            <BlendOf
              key={wanted && `${wanted.scale} ${wanted.value}`}
              blend={blend}
              cookG={batch.cookG}
              wanted={wanted}
              onChange={setBlend}
            />
          )}
          <Refusal error={layOut.error} />
          <button
            type="button"
            className="btn btn-primary btn-lg"
            disabled={!batch || layOut.isPending}
            onClick={() => layOut.mutate({ recipeId: recipe.id, molds: chosen, blend })}
          >
            Lay out this pour
          </button>
        </div>
      </div>
    </Page>
  );
}

interface CupProps {
  batch: ReturnType<typeof cupFor>;
  recipe: RecipeRow;
  molds: MoldRow[];
}

/** How much goes into the cup, in how many glasses, and why. */
function CupToCook({ batch, recipe, molds }: CupProps) {
  const { text, workshop } = useTaste();
  const { glasses, fill } = inGlasses(batch.cookMl, workshop.glassMl);
  return (
    <>
      <div className="flex gap-5">
        <Glass hex={recipe.hex} fill={fill} glasses={glasses} label={`${text(batch.cookMl, 'volume')} to cook`} />
        <p>
          <span className="big block">{text(batch.cookMl, 'volume')}</span>
          <span className="figure text-lg block">
            {cupsText(batch.cookMl)}, {text(batch.cookG, 'mass')}
          </span>
          <span className="block">
            for <b className="figure">{batch.baits}</b> baits;{' '}
            <b className="figure">{text(batch.returnMl, 'volume')}</b> comes back as sprue
          </span>
          <Why
            reason={{
              inputs: batch.molds.map((row): [string, string] => [
                molds.find((mold) => mold.id === row.id)?.name ?? '',
                `${text(row.shotMl, 'volume')} a shot${row.loads ? `, ${row.loads} loads` : ''}`,
              ]),
              formula: `Shots × (cavities + sprue + runner, with ${100 * CUP_DEFAULTS.feedFraction} % feed) + ${text(CUP_DEFAULTS.deadMl, 'volume')} left in the injector a load + ${text(CUP_DEFAULTS.cupFilmMl, 'volume')} film in the cup.`,
              grounds: ['Feed, dead volume and film are defaults; the balance of each cup shows what is really lost.'],
            }}
          />
        </p>
      </div>
      {glasses > 1 && (
        <p className="warn font-bold">
          More than one glass of {text(workshop.glassMl, 'volume')}: cook in {glasses}.
        </p>
      )}
    </>
  );
}
