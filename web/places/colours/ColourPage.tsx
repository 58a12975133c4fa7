import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Recipe } from '../../../contract/recipes.ts';
import { ingredientsOf } from '../../../core/colour/ingredients.ts';
import { stirOf } from '../../../core/colour/stir.ts';
import { SHOWS_MM } from '../../../core/heat/settle.ts';
import { scaleLines } from '../../../core/plastisol/recipe.ts';
import { ML_PER_CUP } from '../../../core/units/convert.ts';
import { cupsText, durationText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { Caution } from '../../parts/Caution.tsx';
import { ComplaintsAbout } from '../../parts/Complaints.tsx';
import { dateText } from '../../parts/dates.ts';
import { QuantityField } from '../../parts/Fields.tsx';
import { InThisOrder } from '../../parts/InThisOrder.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { NewestPhoto, Photos } from '../../parts/Photos.tsx';
import { PutAway } from '../../parts/PutAway.tsx';
import { Daylight } from '../../parts/plastic/Daylight.tsx';
import { Guesses, InABait } from '../../parts/plastic/Foreseen.tsx';
import { meltOfItems } from '../../parts/plastic/melts.ts';
import { Wedge } from '../../parts/plastic/Wedge.tsx';
import { ScaledRow } from '../../parts/ScaledRecipe.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { DoseToBait } from './DoseToBait.tsx';
import { LayeredPage } from './LayeredPage.tsx';
import { Marks, WhereUsed } from './Marks.tsx';
import { NearlyTheSame, Revisions } from './Revisions.tsx';
import { WithRemelt } from './WithRemelt.tsx';

const QUICK: [string, number][] = [
  ['½ cup', ML_PER_CUP / 2],
  ['1 cup', ML_PER_CUP],
  ['1½', ML_PER_CUP * 1.5],
  ['2 cups', ML_PER_CUP * 2],
  ['4 cups', ML_PER_CUP * 4],
];

export function ColourPage() {
  const { id = '' } = useParams();
  const { data: colour, error } = useQuery(queries.colourway(id));
  const { data: recipe } = useQuery({ ...queries.recipe(id), enabled: colour?.recipeId === id });
  if (isGone(error, colour)) return <Missing error={error} back="All colours" backTo="/colours" />;
  if (colour && colour.recipeId === null) return <LayeredPage colour={colour} />;
  if (!recipe) return <Waiting />;
  return <Card key={recipe.id} recipe={recipe} />;
}

function Card({ recipe }: { recipe: Recipe }) {
  const { text, measures } = useTaste();
  const [batchMl, setBatch] = useState<number | null>(recipe.revision.basisMl);
  const { items, basisMl } = recipe.revision;
  const rows = scaleLines(items, basisMl, batchMl ?? basisMl, measures);
  const stir = useMemo(() => stirOf(ingredientsOf(items, basisMl, measures)), [items, basisMl, measures]);
  const melt = useMemo(() => meltOfItems(items, basisMl, measures), [items, basisMl, measures]);
  return (
    <Page
      title={
        <span>
          {recipe.name} <span className="figure text-xl soft">v{recipe.revision.number}</span>
        </span>
      }
      tab={recipe.name}
      under={`Written for ${text(basisMl, 'volume')} of plastisol (${cupsText(basisMl)}). v${recipe.revision.number}: “${recipe.revision.reason}”.`}
      actions={
        <>
          <button type="button" className="btn btn-line" onClick={() => window.print()}>
            Print the card
          </button>
          <Link to={`/colours/${recipe.id}/edit`} className="btn btn-line">
            Change it
          </Link>
          <Link to={`/pours/new?colour=${recipe.id}`} className="btn btn-primary">
            Pour it
          </Link>
        </>
      }
    >
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] gap-12 print:grid-cols-1">
        <section>
          <div className="flex flex-wrap gap-6 items-end">
            <div className="flex-1 min-w-72">
              <InABait melt={melt} name={recipe.name} />
            </div>
            <NewestPhoto aboutType="recipe" aboutId={recipe.id} says="its puck" />
          </div>
          <div className="flex items-end gap-x-4 flex-wrap mb-4 mt-4">
            <QuantityField
              label="For a batch of"
              dimension="volume"
              value={batchMl}
              onChange={setBatch}
              className="w-48"
            />
            <div className="flex gap-1.5 pb-5 flex-wrap no-print">
              {QUICK.map(([label, ml]) => (
                <button
                  key={label}
                  type="button"
                  className={`btn btn-sm ${batchMl === ml ? 'btn-primary' : 'btn-line border'}`}
                  onClick={() => setBatch(ml)}
                >
                  {label}
                </button>
              ))}
            </div>
            <span className="figure text-xl pb-5">{batchMl && cupsText(batchMl)}</span>
          </div>
          <ul className="ruled border-y border-[var(--rule)]">
            {items.map((item, index) => {
              const scale = rows[index];
              return scale ? <ScaledRow key={item.id} item={item} scale={scale} large /> : null;
            })}
          </ul>
          <p className="label-small mt-3">
            Drops are whole, spoons to 1/64 tsp; the error of rounding stands beside each. Above 10 % it says to weigh.
            Grams are what repeats.
          </p>
          <UsedUp recipe={recipe} />
          <NearlyTheSame recipe={recipe} />
          {stir && (
            <p className="mt-3">
              Stir just before you draw, at least every <b className="figure">{durationText(stir.everyS)}</b>: by then{' '}
              {stir.name} has sunk {text(SHOWS_MM, 'length')} in a hot cup <span className="default-mark">default</span>
            </p>
          )}
          <div className="mt-4">
            <InThisOrder items={items} />
          </div>
          <section className="mt-6 flex flex-col gap-2">
            <h2>Thin to thick</h2>
            <Wedge melt={melt} />
            <Guesses melt={melt} />
          </section>
          <div className="mt-6 no-print">
            <Daylight melt={melt} name={recipe.name} />
          </div>
          <div className="no-print">
            <DoseToBait recipe={recipe} />
            <WithRemelt recipe={recipe} />
          </div>
          <div className="mt-5 max-w-2xl">
            <Caution
              about={
                items.some((item) => item.materialKind === 'powder' || item.materialKind === 'salt')
                  ? ['hot', 'powder']
                  : ['hot']
              }
            />
          </div>
        </section>
        <About recipe={recipe} />
      </div>
      <PutAway kind="recipes" row={recipe} />
      <ComplaintsAbout of="colourwayId" id={recipe.id} />
    </Page>
  );
}

/** What of it is gone from the store, and the way to what replaces it. */
function UsedUp({ recipe }: { recipe: Recipe }) {
  const materials = useQuery(queries.materials).data?.items ?? [];
  const gone = recipe.revision.items.filter(({ materialId, materialKind }) => {
    const material = materials.find((one) => one.id === materialId);
    return (
      material && ['colourant', 'powder'].includes(materialKind) && material.lots.length > 0 && material.levelG <= 0
    );
  });
  return gone.map(({ materialId, materialName }) => (
    <p key={materialId} className="warn font-bold mt-3">
      {materialName} is used up.{' '}
      <Link to={`/colours/match?like=${recipe.id}&without=${materialId}`} className="link">
        What replaces it
      </Link>
    </p>
  ));
}

/** Notes, what of it is here, its pours, revisions and photos. */
function About({ recipe }: { recipe: Recipe }) {
  const { text } = useTaste();
  return (
    <div className="flex flex-col gap-7 no-print">
      <Marks id={recipe.id} />
      {recipe.notes && <p className="whitespace-pre-wrap">{recipe.notes}</p>}
      <section>
        <h2>Here now</h2>
        <p>
          <Link to="/rack" className="link">
            <b className="figure text-xl">{recipe.baits}</b> baits on the rack
          </Link>
        </p>
        <p>
          <b className="figure text-xl">{text(recipe.remeltG, 'mass')}</b> in its remelt bin
        </p>
      </section>
      <WhereUsed id={recipe.id} />
      <section>
        <h2 className="mb-1">Pours</h2>
        {recipe.pourList.length === 0 && <p className="soft">Not poured yet.</p>}
        <ul className="ruled">
          {recipe.pourList.map((pour) => (
            <li key={pour.id}>
              <Link to={`/pours/${pour.id}`} className="flex gap-3 py-1.5 row-hover items-baseline">
                <span className="figure">{pour.code}</span>
                <span className="flex-1 text-sm">
                  v{pour.revisionNumber}, {pour.sell} to sell
                </span>
                <span className="figure text-sm rest">{pour.hardness}</span>
                <span className="soft text-xs">{dateText(pour.at)}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <Revisions recipe={recipe} />
      <Photos aboutType="recipe" aboutId={recipe.id} />
    </div>
  );
}
