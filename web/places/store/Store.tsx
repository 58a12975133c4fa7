import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { isAdditive } from '../../../contract/blend.ts';
import { inUse } from '../../../contract/fields.ts';
import {
  lotBody,
  lotMoveBody,
  lotPatch,
  MATERIAL_KINDS,
  type Material,
  type MaterialKind,
  materialBody,
  materialPatch,
} from '../../../contract/materials.ts';
import { UNDO } from '../../../contract/undo.ts';
import { CUTS, type Cut } from '../../../core/colour/flakes.ts';
import { usual } from '../../../core/defaults.ts';
import { dropOf, lotsInUse } from '../../../core/plastisol/lots.ts';
import { gramsPerMl, isLiquid } from '../../../core/plastisol/weigh.ts';
import { isCounted, piecesText } from '../../../core/units/counted.ts';

import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { NewRubber } from '../../parts/NewRubber.tsx';
import { Page, Waiting } from '../../parts/Page.tsx';
import { Away, PutAway, ThrowOut } from '../../parts/PutAway.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { type Taste, useTaste } from '../../parts/taste.tsx';

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

/** What is left of a material: a mass, or pieces of what is counted. */
const held = (kind: MaterialKind, amount: number, text: Taste['text']) =>
  isCounted(kind) ? piecesText(amount) : text(amount, 'mass');

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

function Details({ material, onGone }: { material: Material; onGone(): void }) {
  const { text, money } = useTaste();
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
          <LotRow key={lot.id} lot={lot} material={material} />
        ))}
      </ul>
      {['colourant', 'powder'].includes(material.kind) && <Measured material={material} />}
      <NewLot key={`${material.id} lot`} material={material} />
      <Facts key={material.id} material={material} />
      <PutAway kind="materials" row={material}>
        <ThrowOut kind="materials" id={material.id} onGone={onGone} />
      </PutAway>
    </aside>
  );
}

/** Whether its colour was measured; until it was, its look stands in for it. */
function Measured({ material }: { material: Material }) {
  const { text } = useTaste();
  const { step } = material;
  const back = useWrite<Material>(() => ({ path: UNDO, body: { rowId: step?.id } }));
  return (
    <div>
      {step ? (
        <p>
          Measured {dateText(step.at)} {step.how === 'photo' ? 'off a picture' : 'by colours typed in'}: a step of{' '}
          {text(step.thicknessMm, 'length')}, {step.mlPerL.toFixed(2)} mL in a litre.{' '}
          <button type="button" className="link" disabled={back.isPending} onClick={() => back.mutate()}>
            Take that back
          </button>
        </p>
      ) : (
        <p className="soft">
          Its colour was never measured: its look stands in <span className="default-mark">default</span>
        </p>
      )}
      <Link to={`/store/${material.id}/measure`} className="btn btn-sm btn-line mt-2">
        {step ? 'Measure it again' : 'Measure its colour'}
      </Link>
      <Refusal error={back.error} />
    </div>
  );
}

/** What a bottle's drop is taken for as long as nobody weighed it. */
function dropHint(material: Material, workshop: { dropsPerMl: number }): string {
  const { perMl, byDefault } = dropOf(null, material.dropsPerMl, workshop.dropsPerMl);
  return `weigh twenty; empty: ${perMl}${byDefault ? ', a default' : ''}`;
}

function NewLot({ material }: { material: Material }) {
  const { workshop } = useTaste();
  const [begun] = useState({ code: '', grams: null, bottleStrength: 1, dropsPerMl: null });
  const sheet = useSheet({ schema: lotBody, keep: `material/${material.id}/lot`, seen: begun });
  const add = useWrite<Material>(
    () => ({ path: `/materials/${material.id}/lots`, body: sheet.values }),
    () => {
      sheet.startAfresh();
      sheet.done();
    },
  );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="grid grid-cols-2 gap-2 items-start">
      <TextIn at="code" label="New lot" hint="its code" />
      <FigureIn at="grams" pieces={isCounted(material.kind)} />
      {material.kind === 'colourant' && <FigureIn at="bottleStrength" hint="2: half as many drops" />}
      {isLiquid(material.kind) && <FigureIn at="dropsPerMl" hint={dropHint(material, workshop)} />}
      <div className="col-span-2">
        <Send className="btn-sm">Add this lot</Send>
      </div>
    </Sheet>
  );
}

/** What settles in a cup: its size says how long a stir lasts, and a flake’s how it is seen. */
const isGrain = (kind: MaterialKind) => kind === 'flake' || kind === 'salt';
const CUT_TITLES: Record<Cut, string> = { hex: 'hexagons', square: 'squares', string: 'strings' };

/** What is told of a material, and may be told better. */
function Facts({ material }: { material: Material }) {
  const { workshop } = useTaste();
  const { name, reorderG, pricePerKgMinor, dropsPerMl, bulkGPerMl, densityGPerMl, pointsPerPercent, sizeMm, cut } =
    material;
  const additive = isAdditive(material.kind);
  const sheet = useSheet({
    schema: materialPatch,
    keep: `material/${material.id}`,
    seen: {
      name,
      reorderG,
      pricePerKgMinor,
      dropsPerMl,
      bulkGPerMl,
      densityGPerMl,
      ...(isGrain(material.kind) ? { sizeMm } : {}),
      ...(material.kind === 'flake' ? { cut: cut ?? 'hex' } : {}),
      ...(additive ? { pointsPerPercent, hardnessScale: material.hardnessScale ?? '00' } : {}),
    },
  });
  const save = useWrite<Material>(
    () => ({
      path: `/materials/${material.id}`,
      method: 'PATCH',
      version: material.version,
      body: sheet.values,
    }),
    sheet.done,
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="grid grid-cols-2 gap-3">
      <TextIn at="name" className="col-span-2" />
      <FigureIn at="reorderG" pieces={isCounted(material.kind)} />
      {!isCounted(material.kind) && <FigureIn at="pricePerKgMinor" />}
      {material.kind === 'colourant' && (
        <FigureIn
          at="dropsPerMl"
          hint={
            sheet.values.dropsPerMl === null
              ? `${workshop.dropsPerMl} is used, a default`
              : 'where a lot has none of its own'
          }
        />
      )}
      {(isLiquid(material.kind) || material.kind === 'plastisol') && (
        <FigureIn
          at="densityGPerMl"
          hint={
            sheet.values.densityGPerMl === null
              ? `${gramsPerMl(material).gPerMl} g/mL is used, a default`
              : 'weigh 100 mL'
          }
        />
      )}
      {additive && (
        <>
          <FigureIn at="pointsPerPercent" hint="each percent of it adds; −1.5 softens by that" />
          <ChoiceIn at="hardnessScale" options={['00', 'A'].map((one) => ({ value: one, label: `Shore ${one}` }))} />
        </>
      )}
      {['flake', 'powder', 'salt'].includes(material.kind) && (
        <FigureIn at="bulkGPerMl" hint="weigh a level spoon once" />
      )}
      {isGrain(material.kind) && (
        <FigureIn
          at="sizeMm"
          hint={
            sheet.values.sizeMm === null
              ? `${usual(material.kind === 'flake' ? 'flakeSizeMm' : 'saltGrainMm')} mm is used, a default`
              : 'as it is on the bag'
          }
        />
      )}
      {material.kind === 'flake' && (
        <ChoiceIn at="cut" options={CUTS.map((value) => ({ value, label: CUT_TITLES[value] }))} />
      )}
      <div className="col-span-2">
        <Send className="btn-sm" onlyChanged>
          Keep
        </Send>
      </div>
    </Sheet>
  );
}

const countedBody = lotMoveBody.options[2];

function LotRow({ lot, material }: { lot: Material['lots'][number]; material: Material }) {
  const { text } = useTaste();
  const [open, setOpen] = useState<'count' | 'drop'>();
  const { kind } = material;
  const use = useWrite<Material>(() => ({
    path: `/materials/${material.id}`,
    method: 'PATCH',
    version: material.version,
    body: { lotId: lot.id },
  }));
  const holding = lotsInUse(material.lots, material.lotId);
  return (
    <li className="py-2 flex gap-3 items-center flex-wrap">
      <span className="figure">{lot.code}</span>
      <span className="flex-1 min-w-40 soft text-sm">
        since {dateText(lot.createdAt)}
        {lot.bottleStrength !== 1 && `, strength ${lot.bottleStrength}`}
        {lot.dropsPerMl !== null && `, ${lot.dropsPerMl} drops a mL`}
        {holding.length > 1 && lot.id === holding[0]?.id && <b className="block">in use</b>}
      </span>
      <b className="figure">{held(kind, lot.levelG, text)}</b>
      {holding.length > 1 && lot.levelG > 0 && lot.id !== holding[0]?.id && (
        <button type="button" className="link text-sm" disabled={use.isPending} onClick={() => use.mutate()}>
          use this one
        </button>
      )}
      {isLiquid(kind) && (
        <button type="button" className="link text-sm" onClick={() => setOpen(open === 'drop' ? undefined : 'drop')}>
          its drop
        </button>
      )}
      <button type="button" className="link text-sm" onClick={() => setOpen(open === 'count' ? undefined : 'count')}>
        count it
      </button>
      <Refusal error={use.error} />
      {open === 'count' && <Counting lot={lot} pieces={isCounted(kind)} onDone={() => setOpen(undefined)} />}
      {open === 'drop' && <ItsDrop lot={lot} material={material} onDone={() => setOpen(undefined)} />}
    </li>
  );
}

/** What a drop of this bottle is, and how strong it is: recipes are in millilitres of the house strength. */
function ItsDrop({ lot, material, onDone }: { lot: Material['lots'][number]; material: Material; onDone(): void }) {
  const { workshop } = useTaste();
  const { dropsPerMl, bottleStrength } = lot;
  const sheet = useSheet({ schema: lotPatch, keep: `lot/${lot.id}/drop`, seen: { dropsPerMl, bottleStrength } });
  const save = useWrite<Material>(
    () => ({ path: `/lots/${lot.id}`, method: 'PATCH', version: material.version, body: sheet.values }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={save} onSend={() => save.mutate()} className="flex gap-2 items-start w-full">
      <FigureIn at="dropsPerMl" hint={dropHint(material, workshop)} autoFocus />
      <FigureIn at="bottleStrength" hint="2: half as many drops" />
      <div className="mt-5">
        <Send className="">Keep</Send>
      </div>
    </Sheet>
  );
}

function Counting({ lot, pieces, onDone }: { lot: Material['lots'][number]; pieces: boolean; onDone(): void }) {
  const [begun] = useState({ kind: 'counted', levelG: null });
  const sheet = useSheet({ schema: countedBody, keep: `lot/${lot.id}`, seen: begun });
  const count = useWrite(
    () => ({ path: `/lots/${lot.id}/moves`, body: sheet.values }),
    () => {
      sheet.done();
      onDone();
    },
  );
  return (
    <Sheet of={sheet} by={count} onSend={() => count.mutate()} className="flex gap-2 items-start w-full">
      <FigureIn at="levelG" {...(pieces ? { label: 'It holds, counted' } : {})} pieces={pieces} autoFocus />
      <div className="mt-5">
        <Send className="">Keep</Send>
      </div>
    </Sheet>
  );
}

interface Typed {
  kind: MaterialKind;
  name: string;
  hex: string;
  hardness: number | null;
  limitC: number | null;
  lot: { code: string; grams: number | null };
}

const BEGUN: Typed = {
  kind: 'plastisol',
  name: '',
  hex: '#888888',
  hardness: null,
  limitC: null,
  lot: { code: '', grams: null },
};

const isColoured = (kind: MaterialKind) => ['colourant', 'powder', 'flake'].includes(kind);

const bodyOf = ({ kind, name, hex, hardness, limitC, lot }: Typed) => ({
  name,
  kind,
  ...(isColoured(kind) ? { hex } : {}),
  ...(kind === 'plastisol' && hardness !== null ? { hardnessScale: '00', hardness } : {}),
  ...(kind === 'flake' && limitC !== null ? { limitC } : {}),
  // A code that was typed is not dropped: its amount is missing then.
  ...(lot.grams === null && lot.code === '' ? {} : { lot: { code: lot.code || 'first lot', grams: lot.grams } }),
});

function NewMaterial({ onDone }: { onDone(id: string): void }) {
  const [begun] = useState(BEGUN);
  const sheet = useSheet<Typed>({ schema: materialBody, keep: 'material', seen: begun, body: bodyOf });
  const { kind } = sheet.values;
  const add = useWrite<Material>(
    () => ({ path: '/materials', body: bodyOf(sheet.values) }),
    (material) => {
      sheet.done();
      onDone(material.id);
    },
  );
  const kinds = MATERIAL_KINDS.map((value) => ({ value, label: KIND_TITLES[value] }));
  if (kind === 'silicone')
    return (
      <section className="flex flex-col gap-4">
        <SelectField<MaterialKind>
          label="Kind"
          value={kind}
          options={kinds}
          onChange={(next) => sheet.set('kind', next)}
          className="w-64"
        />
        <NewRubber onDone={onDone} />
      </section>
    );
  return (
    <Sheet of={sheet} by={add} onSend={() => add.mutate()} className="sheet p-5 flex flex-col gap-4">
      <ChoiceIn at="kind" options={kinds} className="w-64" />
      <div className="flex gap-4 items-start flex-wrap">
        <TextIn at="name" className="w-64" autoFocus />
        {isColoured(kind) && <TextIn at="hex" type="color" />}
        {kind === 'plastisol' && <FigureIn at="hardness" label="Hardness, Shore 00" className="w-36" />}
        {kind === 'flake' && <FigureIn at="limitC" className="w-32" hint="empty: no limit" />}
        <TextIn at="lot.code" className="w-32" />
        <FigureIn at="lot.grams" className="w-32" pieces={isCounted(kind)} />
      </div>
      <Send className="">Keep it</Send>
    </Sheet>
  );
}
