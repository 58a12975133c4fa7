import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { inUse } from '../../../contract/fields.ts';
import { MATERIAL_KINDS, type Material } from '../../../contract/materials.ts';
import { queries } from '../../api/queries.ts';
import { Page, Waiting } from '../../parts/Page.tsx';
import { Away } from '../../parts/PutAway.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Details } from './Details.tsx';
import { held, KIND_TITLES } from './kinds.ts';
import { NewMaterial } from './NewMaterial.tsx';

/** Materials as tins on a shelf, each filled to what is left, with the mark at which it is reordered. */
export function Store() {
  const [search, setSearch] = useSearchParams();
  const { data } = useQuery(queries.materials);
  if (!data) return <Waiting />;
  const open = data.items.find((material) => material.id === search.get('material'));
  const adding = search.has('new');
  const [here, away] = [inUse(data.items), data.items.filter((material) => material.awayAt)];
  return (
    <Page
      title="Store"
      tab="Store"
      under="Lots in, grams out. Shake plastisol first: resin settles. Any water in it spits hot."
      actions={
        <button type="button" className="btn btn-primary" onClick={() => setSearch(adding ? {} : { new: '' })}>
          Add a material
        </button>
      }
    >
      {adding && <NewMaterial onDone={(id) => setSearch({ material: id })} />}
      {data.items.length === 0 && !adding && (
        <p className="text-lg soft">
          Nothing is here yet. Add plastisol first; what a recipe names is added as you write it.
        </p>
      )}
      <div className={open ? 'grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_380px] gap-12' : ''}>
        <div className="flex flex-wrap gap-x-8 gap-y-7 content-start">
          {MATERIAL_KINDS.filter((kind) => here.some((material) => material.kind === kind)).map((kind) => (
            <section key={kind}>
              <h2 className="mb-3">{KIND_TITLES[kind]}</h2>
              <ul className="flex flex-wrap gap-x-5 gap-y-4 border-b-4 border-[var(--rule)] pb-2">
                {here
                  .filter((material) => material.kind === kind)
                  .map((material) => (
                    <li key={material.id}>
                      <Tin
                        material={material}
                        chosen={material.id === open?.id}
                        onChoose={() => setSearch({ material: material.id })}
                      />
                    </li>
                  ))}
              </ul>
            </section>
          ))}
        </div>
        {open && <Details key={open.id} material={open} onGone={() => setSearch({})} />}
      </div>
      <Away count={away.length}>
        {away.map((material) => (
          <li key={material.id}>
            <button type="button" className="link" onClick={() => setSearch({ material: material.id })}>
              {material.name}
            </button>
          </li>
        ))}
      </Away>
    </Page>
  );
}

function Tin({ material, chosen, onChoose }: { material: Material; chosen: boolean; onChoose(): void }) {
  const { text } = useTaste();
  // Full is what its lots held when they came, so that a half-used drum stands half full.
  const came = material.lots.filter((lot) => lot.levelG > 0).reduce((sum, lot) => sum + lot.receivedG, 0);
  const most = Math.max(material.levelG, came, (material.reorderG ?? 0) * 1.25, 1);
  const [w, h] = [74, 84];
  const low = material.reorderG !== null && material.levelG < material.reorderG;
  const fill = Math.max(0, Math.min(1, material.levelG / most));
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className="w-32 text-left p-1.5 rounded cursor-pointer"
      style={{ outline: chosen ? '3px solid var(--rest)' : undefined }}
    >
      <svg width={w + 20} height={h + 6} aria-hidden="true">
        <rect x={4} y={3 + h * (1 - fill)} width={w - 4} height={h * fill} fill={material.hex ?? 'var(--liquid)'} />
        <rect x={2.5} y={2.5} width={w - 1} height={h + 1} rx={5} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
        {[1, 2, 3].map((mark) => (
          <line
            key={mark}
            x1={3}
            x2={mark === 2 ? 18 : 12}
            y1={3 + (h * mark) / 4}
            y2={3 + (h * mark) / 4}
            stroke="var(--ink)"
          />
        ))}
        {material.reorderG !== null && material.reorderG > 0 && (
          <line
            x1={0}
            x2={w + 12}
            y1={3 + h * (1 - material.reorderG / most)}
            y2={3 + h * (1 - material.reorderG / most)}
            stroke="var(--heat)"
            strokeWidth={2.5}
            strokeDasharray="4 3"
          />
        )}
      </svg>
      <span className="block font-bold leading-tight">{material.name}</span>
      <span className={`figure text-sm ${low ? 'heat' : ''}`}>
        {material.lots.length === 0 ? 'no lot yet' : held(material.kind, material.levelG, text)}
        {low && ' low'}
      </span>
    </button>
  );
}
