import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { MATERIAL_KINDS, type Material, type MaterialKind } from '../../../contract/materials.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { NumberField, QuantityField, Refusal, SelectField, TextField } from '../../parts/Fields.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { NewRubber } from '../molds/NewRubber.tsx';

const KIND_TITLES: Record<MaterialKind, string> = {
  plastisol: 'Plastisol',
  softener: 'Softener',
  hardener: 'Hardener',
  stabilizer: 'Heat stabilizer',
  colourant: 'Colourants',
  powder: 'Powders and pearls',
  flake: 'Flake',
  salt: 'Salt',
  silicone: 'Mold rubber',
  oil: 'Oil and scent',
  eyes: 'Eyes',
  bags: 'Bags',
};

/** Materials as tins on a shelf, each filled to what is left, with the mark at which it is reordered. */
export function Store() {
  const [search, setSearch] = useSearchParams();
  const { data } = useQuery(queries.materials);
  if (!data) return <Waiting />;
  const open = data.items.find((material) => material.id === search.get('material'));
  const adding = search.has('new');
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
          {MATERIAL_KINDS.filter((kind) => data.items.some((material) => material.kind === kind)).map((kind) => (
            <section key={kind}>
              <h2 className="mb-3">{KIND_TITLES[kind]}</h2>
              <ul className="flex flex-wrap gap-x-5 gap-y-4 border-b-4 border-[var(--rule)] pb-2">
                {data.items
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
        {open && <Details key={open.id} material={open} />}
      </div>
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
        {material.lots.length === 0 ? 'no lot yet' : text(material.levelG, 'mass')}
        {low && ' low'}
      </span>
    </button>
  );
}

function Details({ material }: { material: Material }) {
  const { text, money, minorPerUnit, workshop } = useTaste();
  const [code, setCode] = useState('');
  const [grams, setGrams] = useState<number | null>(null);
  const [strength, setStrength] = useState<number | null>(1);
  const [reorderG, setReorder] = useState(material.reorderG);
  const [price, setPrice] = useState(
    material.pricePerKgMinor === null ? null : material.pricePerKgMinor / minorPerUnit,
  );
  const [drops, setDrops] = useState(material.dropsPerMl);
  const [bulk, setBulk] = useState(material.bulkGPerMl);
  const addLot = useWrite<Material>(
    () => ({ path: `/materials/${material.id}/lots`, body: { code, grams, bottleStrength: strength ?? 1 } }),
    () => {
      setCode('');
      setGrams(null);
    },
  );
  const save = useWrite<Material>(() => ({
    path: `/materials/${material.id}`,
    method: 'PATCH',
    version: material.version,
    body: {
      reorderG,
      pricePerKgMinor: price === null ? null : Math.round(price * minorPerUnit),
      dropsPerMl: drops,
      bulkGPerMl: bulk,
    },
  }));
  return (
    <aside className="flex flex-col gap-4 sticky top-4 self-start">
      <h2 className="text-2xl">{material.name}</h2>
      <p className="soft">
        {KIND_TITLES[material.kind]}
        {material.hardness !== null && `, Shore ${material.hardnessScale} ${material.hardness}`}
        {material.mix &&
          `, ${material.mix.partA} to ${material.mix.partB} by ${material.mix.by}, pot life ${material.potLifeMin} min`}
        {material.pricePerKgMinor !== null && `, ${money(material.pricePerKgMinor)} a kilogram`}
        {material.limitC !== null && `, turns above ${text(material.limitC, 'temperature')}`}
      </p>
      <ul className="ruled">
        {material.lots.map((lot) => (
          <LotRow key={lot.id} lot={lot} />
        ))}
      </ul>
      <div className="grid grid-cols-[1fr_1fr_auto] gap-2 items-start">
        <TextField label="New lot" value={code} onChange={setCode} placeholder="its code" />
        <QuantityField label="Holds" dimension="mass" value={grams} onChange={setGrams} />
        <button
          type="button"
          className="btn btn-line mt-5"
          disabled={!code.trim() || !grams}
          onClick={() => addLot.mutate()}
        >
          Add
        </button>
        {material.kind === 'colourant' && (
          <NumberField
            label="Bottle strength"
            value={strength}
            onChange={setStrength}
            hint="2: half as many drops"
            isDefault={strength === 1}
          />
        )}
      </div>
      <Refusal error={addLot.error} />
      <div className="grid grid-cols-2 gap-3">
        <QuantityField label="Reorder at" dimension="mass" value={reorderG} onChange={setReorder} />
        <NumberField label={`${workshop.currency} a kilogram`} value={price} onChange={setPrice} />
        {material.kind === 'colourant' && (
          <NumberField
            label="Drops in a mL"
            value={drops}
            onChange={setDrops}
            hint={drops === null ? `${workshop.dropsPerMl} is used, a default` : 'this bottle’s own'}
          />
        )}
        {['flake', 'powder', 'salt'].includes(material.kind) && (
          <NumberField label="Bulk, g/mL" value={bulk} onChange={setBulk} hint="weigh a level spoon once" />
        )}
      </div>
      <Refusal error={save.error} />
      <button type="button" className="btn btn-sm btn-line self-start" onClick={() => save.mutate()}>
        Keep
      </button>
    </aside>
  );
}

function LotRow({ lot }: { lot: Material['lots'][number] }) {
  const { text } = useTaste();
  const [counting, setCounting] = useState(false);
  const [levelG, setLevel] = useState<number | null>(null);
  const count = useWrite(
    () => ({ path: `/lots/${lot.id}/moves`, body: { kind: 'counted', levelG } }),
    () => setCounting(false),
  );
  return (
    <li className="py-2 flex gap-3 items-center flex-wrap">
      <span className="figure">{lot.code}</span>
      <span className="flex-1 soft text-sm">
        since {dateText(lot.createdAt)}
        {lot.bottleStrength !== 1 && `, strength ${lot.bottleStrength}`}
      </span>
      <b className="figure">{text(lot.levelG, 'mass')}</b>
      <button type="button" className="link text-sm" onClick={() => setCounting(!counting)}>
        count it
      </button>
      {counting && (
        <span className="flex gap-2 items-start w-full">
          <QuantityField label="It holds, weighed" dimension="mass" value={levelG} onChange={setLevel} />
          <button type="button" className="btn btn-line mt-5" disabled={levelG === null} onClick={() => count.mutate()}>
            Keep
          </button>
        </span>
      )}
      <Refusal error={count.error} />
    </li>
  );
}

function NewMaterial({ onDone }: { onDone(id: string): void }) {
  const [kind, setKind] = useState<MaterialKind>('plastisol');
  const [name, setName] = useState('');
  const [hex, setHex] = useState('');
  const [hardness, setHardness] = useState<number | null>(null);
  const [limitC, setLimit] = useState<number | null>(null);
  const [code, setCode] = useState('');
  const [grams, setGrams] = useState<number | null>(null);
  const coloured = ['colourant', 'powder', 'flake'].includes(kind);
  const add = useWrite<Material>(
    () => ({
      path: '/materials',
      body: {
        name,
        kind,
        ...(coloured && hex ? { hex } : {}),
        ...(kind === 'plastisol' && hardness !== null ? { hardnessScale: '00', hardness } : {}),
        ...(kind === 'flake' && limitC !== null ? { limitC } : {}),
        ...(grams ? { lot: { code: code || 'first lot', grams } } : {}),
      },
    }),
    (material) => onDone(material.id),
  );
  return (
    <section className="sheet p-5 flex flex-col gap-4">
      <SelectField
        label="Kind"
        value={kind}
        options={MATERIAL_KINDS.map((value) => ({ value, label: KIND_TITLES[value] }))}
        onChange={setKind}
        className="w-64"
      />
      {kind === 'silicone' ? (
        <NewRubber onDone={onDone} />
      ) : (
        <form
          className="flex gap-4 items-start flex-wrap"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) add.mutate();
          }}
        >
          <TextField label="Name" value={name} onChange={setName} className="w-64" autoFocus />
          {coloured && <TextField label="Colour" type="color" value={hex || '#888888'} onChange={setHex} />}
          {kind === 'plastisol' && (
            <NumberField label="Hardness, Shore 00" value={hardness} onChange={setHardness} className="w-36" />
          )}
          {kind === 'flake' && (
            <QuantityField
              label="Turns above"
              dimension="temperature"
              value={limitC}
              onChange={setLimit}
              className="w-32"
              hint="empty: no limit"
            />
          )}
          <TextField label="Lot" value={code} onChange={setCode} className="w-32" />
          <QuantityField label="Holds" dimension="mass" value={grams} onChange={setGrams} className="w-32" />
          <button type="submit" className="btn btn-primary mt-5" disabled={!name.trim() || add.isPending}>
            Keep it
          </button>
          <Refusal error={add.error} />
        </form>
      )}
    </section>
  );
}
