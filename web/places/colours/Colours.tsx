import { useQuery } from '@tanstack/react-query';
import { Star } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import type { ColourwayRow } from '../../../contract/colourways.ts';
import { inUse } from '../../../contract/fields.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { useShapes } from '../../parts/plastic/Foreseen.tsx';
import { LayeredPicture } from '../../parts/plastic/LayeredPicture.tsx';
import { RecipePicture } from '../../parts/plastic/RecipePicture.tsx';
import { useChords } from '../../parts/plastic/useChords.ts';
import { useTaste } from '../../parts/taste.tsx';

function OnRack({ baits }: { baits: number }) {
  return (
    <span className="rest">
      <b className="figure text-base">{baits}</b> on the rack
    </span>
  );
}

interface Shown {
  id: string;
  name: string;
  revision: { number: number };
}

/** The shelf of those that are always wanted, beside the families. */
const FAVOURITES = '';

/** Families that some colour belongs to, with how many. */
function familiesOf(rows: ColourwayRow[]): { name: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { family, favourite } of rows) {
    if (family !== '') counts.set(family, (counts.get(family) ?? 0) + 1);
    if (favourite) counts.set(FAVOURITES, (counts.get(FAVOURITES) ?? 0) + 1);
  }
  return [...counts].map(([name, count]) => ({ name, count })).sort((a, b) => a.name.localeCompare(b.name));
}

function Families({
  families,
  chosen,
  onChoose,
}: {
  families: { name: string; count: number }[];
  chosen: string | null;
  onChoose(name: string | null): void;
}) {
  if (families.length === 0) return null;
  return (
    <fieldset className="flex flex-wrap gap-1.5">
      <legend className="sr-only">Families</legend>
      {[{ name: null, count: 0 }, ...families].map(({ name, count }) => (
        <button
          key={name ?? 'all'}
          type="button"
          aria-pressed={chosen === name}
          className={`btn btn-sm ${chosen === name ? 'btn-primary' : 'btn-line border'}`}
          onClick={() => onChoose(name)}
        >
          {name === null ? 'all' : name === FAVOURITES ? 'favourites' : name}
          {count > 0 && <span className="figure">{count}</span>}
        </button>
      ))}
    </fieldset>
  );
}

interface CardProps {
  colour: Shown;
  marks: Pick<ColourwayRow, 'family' | 'favourite'> | undefined;
  picture: ReactNode;
  children: ReactNode;
}

function Card({ colour, marks, picture, children }: CardProps) {
  return (
    <li>
      <Link to={`/colours/${colour.id}`} className="flex gap-4 items-start row-hover rounded p-2 -m-2">
        {picture}
        <span className="min-w-0">
          <span className="block text-lg font-bold leading-tight">
            {colour.name} <span className="figure text-xs soft">v{colour.revision.number}</span>
            {marks?.favourite && (
              <Star size={15} className="inline ml-1.5 mb-0.5" fill="currentColor" aria-label="favourite" />
            )}
          </span>
          {marks?.family && <span className="label-small block">{marks.family}</span>}
          {children}
        </span>
      </Link>
    </li>
  );
}

/** Every colour as a poured puck: the colours are the most vivid thing on the screen. */
export function Colours() {
  const { data } = useQuery(queries.recipes);
  const colourways = useQuery(queries.colourways).data?.items ?? [];
  const layered = colourways.filter((colour) => colour.recipeId === null);
  const marks = new Map(colourways.map((colour) => [colour.id, colour]));
  const [family, setFamily] = useState<string | null>(null);
  const families = familiesOf(inUse(colourways));
  const isShown = ({ id }: { id: string }) =>
    family === null || (family === FAVOURITES ? marks.get(id)?.favourite === true : marks.get(id)?.family === family);
  const favouritesFirst = <T extends { id: string }>(rows: T[]) =>
    [...rows].sort((a, b) => Number(marks.get(b.id)?.favourite ?? false) - Number(marks.get(a.id)?.favourite ?? false));
  const { text } = useTaste();
  const { meshId } = useShapes();
  const { data: chords } = useChords(meshId, 'small');
  const actions = (
    <>
      <Link to="/colours/dosing" className="btn btn-line">
        Dose by eye
      </Link>
      <Link to="/colours/travel" className="btn btn-line">
        In and out
      </Link>
      <Link to="/colours/match" className="btn btn-line">
        Match a colour
      </Link>
      {data && data.items.length > 1 && (
        <Link to="/colours/layers" className="btn btn-line">
          Put melts in layers
        </Link>
      )}
      <Link to="/colours/new" className="btn btn-primary">
        Write a recipe
      </Link>
    </>
  );
  if (!data) return <Waiting />;
  if (data.items.length === 0) {
    return (
      <Page title="Colours" tab="Colours" actions={actions}>
        <Empty
          say="No colour is written down yet."
          then="Write a recipe for one cup, or open a dosing ledger and tap each drop as it falls: the total becomes the recipe."
          to="/colours/new"
          action="Write the first recipe"
        />
      </Page>
    );
  }
  const away = [...layered, ...data.items].filter((one) => one.awayAt);
  return (
    <Page title="Colours" tab="Colours" actions={actions} under="Per cup, in drops, spoons and grams.">
      <Families families={families} chosen={family} onChoose={setFamily} />
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,340px),1fr))] gap-x-10 gap-y-10">
        {inUse(layered)
          .filter(isShown)
          .map((colour) => (
            <Card
              key={colour.id}
              colour={colour}
              marks={marks.get(colour.id)}
              picture={<LayeredPicture layers={colour.layers} chords={chords} name={colour.name} />}
            >
              {colour.layers.map((layer, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
                <span key={i} className="label-small block truncate">
                  {PLACES[layer.place]} <b>{layer.recipeName}</b>
                </span>
              ))}
              {colour.baits > 0 && (
                <span className="label-small block mt-1.5">
                  <OnRack baits={colour.baits} />
                </span>
              )}
            </Card>
          ))}
        {favouritesFirst(inUse(data.items).filter(isShown)).map((recipe) => (
          <Card
            key={recipe.id}
            colour={recipe}
            marks={marks.get(recipe.id)}
            picture={<RecipePicture recipe={recipe} chords={chords} />}
          >
            {recipe.revision.items.slice(0, 4).map((item) => (
              <span key={item.id} className="label-small block truncate">
                <b className="figure">{Number(item.amount.toPrecision(3))}</b>{' '}
                {item.unit === 'drop' && item.amount !== 1 ? 'drops' : item.unit} {item.materialName}
              </span>
            ))}
            <span className="label-small block mt-1.5">
              {recipe.baits > 0 && <OnRack baits={recipe.baits} />}
              {recipe.baits > 0 && recipe.remeltG > 0 && ', '}
              {recipe.remeltG > 0 && (
                <span>
                  <b className="figure">{text(recipe.remeltG, 'mass')}</b> to remelt
                </span>
              )}
            </span>
          </Card>
        ))}
      </ul>
      <Away count={away.length}>
        {away.map((recipe) => (
          <li key={recipe.id}>
            <Link to={`/colours/${recipe.id}`} className="link">
              {recipe.name}
            </Link>
          </li>
        ))}
      </Away>
    </Page>
  );
}
