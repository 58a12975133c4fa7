import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { LayerSection } from '../../parts/LayerSection.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { useShapes } from '../../parts/plastic/Foreseen.tsx';
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

function Card({ colour, picture, children }: { colour: Shown; picture: ReactNode; children: ReactNode }) {
  return (
    <li>
      <Link to={`/colours/${colour.id}`} className="flex gap-4 items-start row-hover rounded p-2 -m-2">
        {picture}
        <span className="min-w-0">
          <span className="block text-lg font-bold leading-tight">
            {colour.name} <span className="figure text-xs soft">v{colour.revision.number}</span>
          </span>
          {children}
        </span>
      </Link>
    </li>
  );
}

/** Every colour as a poured puck: the colours are the most vivid thing on the screen. */
export function Colours() {
  const { data } = useQuery(queries.recipes);
  const layered = useQuery(queries.colourways).data?.items.filter((colour) => colour.recipeId === null) ?? [];
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
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,340px),1fr))] gap-x-10 gap-y-10">
        {inUse(layered).map((colour) => (
          <Card
            key={colour.id}
            colour={colour}
            picture={<LayerSection layers={colour.layers} sizePx={132} name={colour.name} />}
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
        {inUse(data.items).map((recipe) => (
          <Card key={recipe.id} colour={recipe} picture={<RecipePicture recipe={recipe} chords={chords} />}>
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
