import { useState } from 'react';
import { Link } from 'react-router';
import { isAdditive } from '../../../contract/blend.ts';
import {
  lotBody,
  lotMoveBody,
  lotPatch,
  type Material,
  type MaterialKind,
  materialPatch,
} from '../../../contract/materials.ts';
import { UNDO } from '../../../contract/undo.ts';
import { CUTS, type Cut } from '../../../core/colour/flakes.ts';
import { usual } from '../../../core/defaults.ts';
import { dropOf, lotsInUse } from '../../../core/plastisol/lots.ts';
import { gramsPerMl, isLiquid } from '../../../core/plastisol/weigh.ts';
import { isCounted } from '../../../core/units/counted.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { PutAway, ThrowOut } from '../../parts/PutAway.tsx';
import { ChoiceIn, FigureIn, TextIn } from '../../parts/sheet/In.tsx';
import { Send, Sheet } from '../../parts/sheet/Sheet.tsx';
import { useSheet } from '../../parts/sheet/useSheet.ts';
import { useTaste } from '../../parts/taste.tsx';
import { held, KIND_TITLES } from './kinds.ts';

/** One tin: what it holds, its lots, how its colour was measured, and what is told of it. */
export function Details({ material, onGone }: { material: Material; onGone(): void }) {
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

/** What is counted is bought by the thousand. */
const priceLabel = (kind: Material['kind']) => (isCounted(kind) ? { label: 'A thousand cost' } : {});

function NewLot({ material }: { material: Material }) {
  const { workshop } = useTaste();
  const [begun] = useState({ code: '', grams: null, bottleStrength: 1, dropsPerMl: null, pricePerKgMinor: null });
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
      <FigureIn at="pricePerKgMinor" {...priceLabel(material.kind)} hint="empty: as before" />
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
  const {
    name,
    reorderG,
    leadDays,
    pricePerKgMinor,
    dropsPerMl,
    bulkGPerMl,
    densityGPerMl,
    pointsPerPercent,
    sizeMm,
    cut,
    limitC,
    turnsHex,
  } = material;
  const additive = isAdditive(material.kind);
  const sheet = useSheet({
    schema: materialPatch,
    keep: `material/${material.id}`,
    seen: {
      name,
      reorderG,
      leadDays,
      pricePerKgMinor,
      dropsPerMl,
      bulkGPerMl,
      densityGPerMl,
      ...(isGrain(material.kind) ? { sizeMm } : {}),
      ...(material.kind === 'flake' ? { cut: cut ?? 'hex', limitC, turnsHex } : {}),
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
      <FigureIn at="leadDays" hint={`empty: ${usual('leadDays')}, a default`} />
      <FigureIn at="pricePerKgMinor" {...priceLabel(material.kind)} />
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
        <>
          <FigureIn at="limitC" hint="empty: no limit" />
          <TextIn at="turnsHex" type="color" />
        </>
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
