import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import { PLACES } from '../../../core/plan/layers.ts';
import { queries } from '../../api/queries.ts';
import { LayerSection } from '../../parts/LayerSection.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Puck } from '../../parts/Puck.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { useTaste } from '../../parts/taste.tsx';

/** Every colour as a poured puck: the colours are the most vivid thing on the screen. */
export function Colours() {
  const { data } = useQuery(queries.recipes);
  const layered = useQuery(queries.colourways).data?.items.filter((colour) => colour.recipeId === null) ?? [];
  const { text } = useTaste();
  const actions = (
    <>
      <Link to="/colours/dosing" className="btn btn-line">
        Dose by eye
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
          <li key={colour.id}>
            <Link to={`/colours/${colour.id}`} className="flex gap-4 items-start row-hover rounded p-2 -m-2">
              <LayerSection layers={colour.layers} sizePx={132} name={colour.name} />
              <span className="min-w-0">
                <span className="block text-lg font-bold leading-tight">
                  {colour.name} <span className="figure text-xs soft">v{colour.revision.number}</span>
                </span>
                {colour.layers.map((layer, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a layer is its place in the list
                  <span key={i} className="label-small block truncate">
                    {PLACES[layer.place]} <b>{layer.recipeName}</b>
                  </span>
                ))}
                {colour.baits > 0 && (
                  <span className="label-small block mt-1.5 rest">
                    <b className="figure text-base">{colour.baits}</b> on the rack
                  </span>
                )}
              </span>
            </Link>
          </li>
        ))}
        {inUse(data.items).map((recipe) => (
          <li key={recipe.id}>
            <Link to={`/colours/${recipe.id}`} className="flex gap-4 items-start row-hover rounded p-2 -m-2">
              <Puck hex={recipe.hex} sizePx={132} name={recipe.name} />
              <span className="min-w-0">
                <span className="block text-lg font-bold leading-tight">
                  {recipe.name} <span className="figure text-xs soft">v{recipe.revision.number}</span>
                </span>
                {recipe.revision.items.slice(0, 4).map((item) => (
                  <span key={item.id} className="label-small block truncate">
                    <b className="figure">{Number(item.amount.toPrecision(3))}</b>{' '}
                    {item.unit === 'drop' && item.amount !== 1 ? 'drops' : item.unit} {item.materialName}
                  </span>
                ))}
                <span className="label-small block mt-1.5">
                  {recipe.baits > 0 && (
                    <span className="rest">
                      <b className="figure text-base">{recipe.baits}</b> on the rack
                    </span>
                  )}
                  {recipe.baits > 0 && recipe.remeltG > 0 && ', '}
                  {recipe.remeltG > 0 && (
                    <span>
                      <b className="figure">{text(recipe.remeltG, 'mass')}</b> to remelt
                    </span>
                  )}
                </span>
              </span>
            </Link>
          </li>
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
