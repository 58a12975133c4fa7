import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { BlendWish } from '../../../contract/blend.ts';
import type { ColourwayRow, MoldLevels } from '../../../contract/colourways.ts';
import type { MoldRow } from '../../../contract/molds.ts';
import type { Bait } from '../../../contract/workshop.ts';
import { tried } from '../../../core/failure.ts';
import { CUP_DEFAULTS } from '../../../core/plan/cup.ts';
import { cupsIn, intoGlasses, usableMl } from '../../../core/plan/glasses.ts';
import { levelsIn } from '../../../core/plan/layers.ts';
import { cupsText } from '../../../core/units/show.ts';
import { queries } from '../../api/queries.ts';
import { Refusal, SelectField, Stepper } from '../../parts/Fields.tsx';
import { Glass } from '../../parts/Glass.tsx';
import { LayerSection } from '../../parts/LayerSection.tsx';
import { MoldBlock } from '../../parts/MoldBlock.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { Ready } from '../../parts/Ready.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { useLayOut } from '../../parts/useLayOutPour.ts';
import { Why } from '../../parts/Why.tsx';
import { BlendOf } from './BlendOf.tsx';

/** The cups that these shots take, each within its glass, and all of them together. */
function sized(
  molds: MoldRow[],
  shots: Record<string, number>,
  colour: ColourwayRow,
  { levels, glassMl }: { levels: MoldLevels[]; glassMl: number },
) {
  const drawn = molds.flatMap((mold) => {
    const { levels: under } = levels.find((one) => one.moldId === mold.id) ?? {};
    return shots[mold.id] ? [{ mold: { ...mold, levels: under }, shots: shots[mold.id] as number }] : [];
  });
  if (drawn.length === 0) return undefined;
  return tried(() => {
    const cups = cupsIn(intoGlasses(drawn, colour.layers, glassMl), colour.layers).map((cup) => {
      const layer = colour.layers.find((one) => one.recipeId === cup.recipeId);
      return { ...cup, name: layer?.recipeName ?? '', hex: layer?.hex ?? colour.hex };
    });
    const baits = drawn.reduce((sum, { mold, shots: n }) => sum + mold.cavities * n, 0);
    return { cups, baits, cookMl: cups.reduce((sum, cup) => sum + cup.cookMl, 0) };
  });
}
type Sized = NonNullable<NonNullable<ReturnType<typeof sized>>['value']>;

/** How hard a bait is to be, where that was written down. */
const wantedOf = (bait: Bait | undefined) =>
  bait?.wantedScale && bait.wantedHardness !== null ? { scale: bait.wantedScale, value: bait.wantedHardness } : null;

/** Shots of one or more molds from one cup; how much to cook follows at once. */
export function NewPour() {
  const [search] = useSearchParams();
  const taste = useTaste();
  const colours = useQuery(queries.colourways).data?.items.filter(
    (row) => row.awayAt === null || row.id === search.get('colour'),
  );
  const molds = useQuery(queries.molds).data?.items.filter((mold) => !mold.retiredAt);
  const baits = useQuery(queries.baits).data;
  const [colourId, setColour] = useState(search.get('colour') ?? '');
  const [shots, setShots] = useState<Record<string, number>>(() =>
    search.get('mold') ? { [search.get('mold') as string]: 4 } : {},
  );
  const colour = colours?.find((row) => row.id === colourId) ?? colours?.[0];
  const asksLevel = colour !== undefined && levelsIn(colour.layers).length > 0;
  const stood = useQuery({ ...queries.levels(colour?.id ?? ''), enabled: asksLevel });
  const levels = asksLevel ? stood.data?.items : [];
  const [blend, setBlend] = useState<BlendWish>();
  const layOut = useLayOut();
  if (!colours || !molds || !levels) return <Waiting />;
  if (!colour || molds.length === 0) {
    return (
      <Page title="Lay out a pour" tab="Lay out a pour">
        {colour ? (
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
  const cup = sized(molds, shots, colour, { levels, glassMl: taste.workshop.glassMl });
  const batch = cup?.value;
  const chosen = Object.entries(shots)
    .filter(([, n]) => n > 0)
    .map(([moldId, n]) => ({ moldId, shots: n }));
  // The first mold's bait says how hard, as it does where the cup is laid out.
  const first = molds.find((mold) => mold.id === chosen[0]?.moldId);
  const wanted = wantedOf(baits?.items.find((bait) => bait.id === first?.baitId));
  return (
    <Page title="Lay out a pour" tab="Lay out a pour" under="One or several molds; as many cups as their glasses hold.">
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
            {colour.recipeId === null ? (
              <LayerSection layers={colour.layers} cavityMl={first?.cavityMl} sizePx={64} name={colour.name} />
            ) : (
              <Puck hex={colour.hex} sizePx={64} name={colour.name} />
            )}
            <SelectField
              label="Colour"
              value={colour.id}
              options={colours.map((row) => ({ value: row.id, label: row.name }))}
              onChange={setColour}
              className="flex-1"
            />
          </div>
          {cup?.refused && <p className="heat font-bold">{taste.say(cup.refused)}</p>}
          {batch ? (
            <CupsToCook batch={batch} molds={molds} />
          ) : (
            !cup?.refused && <p className="soft text-lg">Give a mold its shots.</p>
          )}
          {batch && (
            <BlendOf
              key={wanted && `${wanted.scale} ${wanted.value}`}
              blend={blend}
              cookMl={batch.cups[0]?.cookMl ?? 0}
              wanted={wanted}
              onChange={setBlend}
            />
          )}
          <Refusal error={layOut.error} />
          <button
            type="button"
            className="btn btn-primary btn-lg"
            disabled={!batch || layOut.isPending}
            onClick={() => layOut.mutate({ colourwayId: colour.id, molds: chosen, blend })}
          >
            Lay out this pour
          </button>
        </div>
      </div>
    </Page>
  );
}

/** What goes into each cup, and why; alike ones are drawn once. */
function CupsToCook({ batch, molds }: { batch: Sized; molds: MoldRow[] }) {
  const { text, workshop } = useTaste();
  const kinds = new Map<string, { cup: Sized['cups'][number]; count: number }>();
  for (const cup of batch.cups) {
    const key = `${cup.recipeId} ${cup.cookMl.toFixed(3)}`;
    kinds.set(key, { cup, count: (kinds.get(key)?.count ?? 0) + 1 });
  }
  const several = batch.cups.length > 1;
  return (
    <>
      {[...kinds.values()].map(({ cup, count }) => (
        <div key={`${cup.recipeId} ${cup.cookMl}`} className="flex gap-5">
          <Glass
            hex={cup.hex}
            fill={cup.cookMl / workshop.glassMl}
            glasses={count}
            label={`${count > 1 ? `${count} cups of ` : ''}${text(cup.cookMl, 'volume')} to cook`}
          />
          <p>
            {several && (
              <b className="block">
                {count > 1 && <span className="figure">{count} × </span>}
                {cup.name}
              </b>
            )}
            <span className="big block">{text(cup.cookMl, 'volume')}</span>
            <span className="figure text-lg block">
              {cupsText(cup.cookMl)}
              {count > 1 && ' each'}
            </span>
            <Why
              reason={{
                inputs: cup.molds.map((row): [string, string] => [
                  molds.find((mold) => mold.id === row.id)?.name ?? '',
                  `${text(row.shotMl, 'volume')} a shot${row.loads ? `, ${row.loads} loads` : ''}`,
                ]),
                formula: `Shots × (cavities + sprue + runner, with ${100 * CUP_DEFAULTS.feedFraction} % feed) + ${text(CUP_DEFAULTS.deadMl, 'volume')} left in the injector a load + ${text(CUP_DEFAULTS.cupFilmMl, 'volume')} film in the cup. A glass of ${text(workshop.glassMl, 'volume')} takes ${text(usableMl(workshop.glassMl), 'volume')}: the rest is for froth.`,
                grounds: [
                  'Feed, dead volume, film and room for froth are defaults; the balance of each cup shows what is really lost.',
                ],
              }}
            />
          </p>
        </div>
      ))}
      <p>
        for <b className="figure">{batch.baits}</b> baits;{' '}
        <b className="figure">
          {text(
            batch.cups.reduce((sum, cup) => sum + cup.returnMl, 0),
            'volume',
          )}
        </b>{' '}
        comes back as sprue
        {several && (
          <>
            ; <b className="figure">{text(batch.cookMl, 'volume')}</b> to cook in all
          </>
        )}
      </p>
    </>
  );
}
