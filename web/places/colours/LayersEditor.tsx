import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { amountOf, type Colourway, colourwayBody, FIGURE_OF, type Figures } from '../../../contract/colourways.ts';
import { inUse } from '../../../contract/fields.ts';
import type { RecipeRow } from '../../../contract/recipes.ts';
import { JOINS, type Join, type LayerMeasure, PLACES, type Place } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { DrawnFor, LayerSection } from '../../parts/LayerSection.tsx';
import { Empty, isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { ChoiceIn, choices, FigureIn, NoteIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';

interface Row extends Figures {
  place: Place;
  recipeId: string;
  measure: LayerMeasure;
  joins: Join;
}

interface Draft {
  name: string;
  hex: string;
  notes: string;
  reason: string;
  layers: Row[];
}

const WORDS: Record<LayerMeasure, string> = {
  share: 'a share',
  ml: 'so much',
  level: 'up to a level',
  rest: 'the rest',
};

/** The row's own figure, by its name. */
const figureOf = (row: Row) => {
  const figure = FIGURE_OF[row.measure];
  return figure ? { [figure]: row[figure] } : {};
};

const bodyOf = ({ layers, ...draft }: Draft) => ({
  ...draft,
  layers: layers.map((row, i) => ({
    place: row.place,
    recipeId: row.recipeId,
    measure: row.measure,
    ...figureOf(row),
    joins: i === 0 ? null : row.joins,
  })),
});

const NO_FIGURE: Figures = { shareFraction: null, eachMl: null, heightFraction: null };

const rowOf = (place: Place, recipeId: string, measure: LayerMeasure): Row => ({
  place,
  recipeId,
  measure,
  ...NO_FIGURE,
  joins: 'together',
});

const draftOf = ({ name, hex, notes, layers }: Colourway): Draft => ({
  name,
  hex,
  notes,
  reason: '',
  layers: layers.map(({ place, recipeId, measure, amount, joins }) => ({
    place,
    recipeId,
    measure,
    ...NO_FIGURE,
    ...(FIGURE_OF[measure] === null ? {} : { [FIGURE_OF[measure]]: amount }),
    joins: joins ?? 'together',
  })),
});

export function NewLayers() {
  const recipes = useQuery(queries.recipes);
  if (!recipes.data) return <Waiting />;
  const melts = inUse(recipes.data.items);
  const [first, second] = melts;
  if (!first || !second)
    return (
      <Page title="A colour in layers" tab="Layers">
        <Empty
          say="Layers are of two melts at least."
          then="Write the recipe of each; then put them on each other here."
          to="/colours/new"
          action="Write a recipe"
        />
      </Page>
    );
  return (
    <Editor
      melts={melts}
      start={{
        name: '',
        hex: second.hex,
        notes: '',
        reason: 'first layers',
        layers: [rowOf('belly', first.id, 'share'), rowOf('back', second.id, 'rest')],
      }}
    />
  );
}

export function EditLayers() {
  const { id = '' } = useParams();
  const recipes = useQuery(queries.recipes);
  // The version that was opened stays the one that is saved against, whatever comes in meanwhile.
  const colour = useQuery({
    ...queries.colourway(id),
    queryKey: ['editing', id],
    staleTime: Number.POSITIVE_INFINITY,
    refetchOnWindowFocus: false,
  });
  if (isGone(colour.error, colour.data)) return <Missing error={colour.error} back="All colours" backTo="/colours" />;
  if (!recipes.data || !colour.data) return <Waiting />;
  const used = new Set(colour.data.layers.map((layer) => layer.recipeId));
  const melts = recipes.data.items.filter((row) => row.awayAt === null || used.has(row.id));
  return <Editor melts={melts} start={draftOf(colour.data)} colour={colour.data} />;
}

function Editor({ melts, start, colour }: { melts: RecipeRow[]; start: Draft; colour?: Colourway }) {
  const navigate = useNavigate();
  const sheet = useSheet<Draft>({
    schema: colourwayBody,
    keep: colour ? `layers/${colour.id}` : 'layers',
    seen: start,
    body: bodyOf,
  });
  const { name, layers } = sheet.values;
  const keep = useWrite<Colourway>(
    () => ({
      ...(colour
        ? { path: `/colourways/${colour.id}`, method: 'PUT' as const, version: colour.version }
        : { path: '/colourways' }),
      body: bodyOf(sheet.values),
    }),
    (kept) => {
      sheet.done();
      navigate(`/colours/${kept.id}`);
    },
  );
  const hexOf = (recipeId: string) => melts.find((row) => row.id === recipeId)?.hex ?? '#888888';
  return (
    <Page
      title={colour ? `Change ${colour.name}` : 'A colour in layers'}
      tab="Layers"
      under="Melts in the order they go in. Each is cooked in a cup of its own; what is ordered, racked and bagged is the whole."
    >
      <Sheet
        of={sheet}
        by={keep}
        onSend={() => keep.mutate()}
        className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] gap-12"
      >
        <div className="flex flex-col gap-4">
          <TextIn at="name" autoFocus={!colour} className="max-w-md" />
          <ol className="flex flex-col gap-3">
            {layers.map((layer, i) => (
              <LayerFields
                // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
                key={i}
                nth={i}
                layer={layer}
                melts={melts}
                onOut={layers.length > 2 ? () => sheet.takeOut('layers', i) : undefined}
              />
            ))}
          </ol>
          <button
            type="button"
            className="btn btn-sm btn-line self-start"
            onClick={() => sheet.set('layers', [...layers, rowOf('side', melts[0]?.id ?? '', 'ml')])}
          >
            One more layer
          </button>
          {colour && <TextIn at="reason" className="max-w-md" />}
          <NoteIn at="notes" rows={2} />
          <Send>{colour ? `Keep as v${colour.revision.number + 1}` : 'Keep this colour'}</Send>
        </div>
        <div className="flex flex-col gap-4 items-start">
          <LayerSection
            layers={layers.map((layer) => ({
              ...layer,
              amount: amountOf(layer),
              hex: hexOf(layer.recipeId),
            }))}
            sizePx={240}
            name={name || 'the colour'}
          />
          <DrawnFor layers={layers.map((row) => ({ measure: row.measure, amount: amountOf(row) }))} />
          <TextIn at="hex" type="color" />
        </div>
      </Sheet>
    </Page>
  );
}

interface LayerProps {
  nth: number;
  layer: Row;
  melts: RecipeRow[];
  onOut: (() => void) | undefined;
}

function LayerFields({ nth, layer, melts, onOut }: LayerProps) {
  const at = `layers.${nth}`;
  return (
    <li
      className="border-l-8 pl-4 py-2 grid grid-cols-2 md:grid-cols-[130px_1fr_130px_120px_auto] gap-3 items-start"
      style={{ borderLeftColor: melts.find((row) => row.id === layer.recipeId)?.hex }}
    >
      <ChoiceIn at={`${at}.place`} options={choices(Object.keys(PLACES) as Place[], PLACES)} />
      <ChoiceIn at={`${at}.recipeId`} options={melts.map((row) => ({ value: row.id, label: row.name }))} />
      <ChoiceIn at={`${at}.measure`} label="How much" options={choices(Object.keys(WORDS) as LayerMeasure[], WORDS)} />
      {FIGURE_OF[layer.measure] ? <FigureIn at={`${at}.${FIGURE_OF[layer.measure]}`} /> : <span />}
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-7"
        aria-label={`Take layer ${nth + 1} out`}
        disabled={!onOut}
        onClick={onOut}
      >
        ✕
      </button>
      {nth > 0 && (
        <ChoiceIn
          at={`${at}.joins`}
          className="col-span-2 md:col-span-5 md:max-w-lg"
          options={choices(Object.keys(JOINS) as Join[], JOINS)}
        />
      )}
    </li>
  );
}
