import { type ReactNode, useState } from 'react';
import { inUse } from '../../contract/fields.ts';
import type { Material, MaterialKind } from '../../contract/materials.ts';
import { DOSED, type Dose } from '../../contract/recipes.ts';
import { UNDO } from '../../contract/undo.ts';

import { cupTotals } from '../../core/plastisol/cup.ts';
import { dropOf, lotsInUse } from '../../core/plastisol/lots.ts';
import { isLiquid } from '../../core/plastisol/weigh.ts';
import { serverStamp } from '../api/now.ts';
import { type Tap, tapRow } from '../api/outbox.ts';
import { useWrite } from '../api/write.ts';
import { Refusal } from './Fields.tsx';
import { timeText } from './hours.ts';
import { useTaste } from './taste.tsx';

/** The doses with those still on their way, so that the total is right before the Wi-Fi is. */
export function withTaps(doses: Dose[], taps: Tap[], ledgerId: string, materials: Material[]): Dose[] {
  const known = new Set(doses.map((dose) => dose.id));
  const mine = new Set(doses.map((dose) => dose.id));
  const waiting = taps.filter(({ refused, path, body }) => {
    if (refused || known.has(String(body.id))) return false;
    if (path === UNDO) return mine.has(String(body.rowId));
    if (!path.startsWith(`/ledgers/${ledgerId}/`)) return false;
    mine.add(String(body.id));
    return true;
  });
  let seq = doses.at(-1)?.seq ?? 0;
  const more = waiting.map(({ body, path }): Dose => {
    const takes = path === UNDO ? String(body.rowId) : null;
    const undone = doses.find((dose) => dose.id === takes) ?? waiting.find((row) => row.body.id === takes)?.body;
    const materialId = String(body.materialId ?? undone?.materialId ?? '');
    seq += 1;
    return {
      seq,
      id: String(body.id),
      materialId,
      materialName: materials.find((material) => material.id === materialId)?.name ?? '',
      amount: Number(body.amount ?? undone?.amount ?? 0),
      unit: String(body.unit ?? undone?.unit ?? ''),
      reverses: takes,
      dropsPerMl: null,
      lotId: null,
      bottleStrength: null,
      at: String(body.tappedAt ?? serverStamp()),
    };
  });
  return [...doses, ...more];
}

const STEPS: Record<string, { unit: string; steps: [label: string, amount: number][] }> = {
  colourant: {
    unit: 'drop',
    steps: [
      ['+1', 1],
      ['+5', 5],
      ['+10', 10],
    ],
  },
  spoon: {
    unit: 'tsp',
    steps: [
      ['+1/16', 1 / 16],
      ['+1/8', 1 / 8],
      ['+1/4', 1 / 4],
      ['+1', 1],
    ],
  },
  grams: {
    unit: 'g',
    steps: [
      ['+0.1', 0.1],
      ['+1', 1],
      ['+5', 5],
    ],
  },
};

const stepsFor = (material: Material) =>
  material.kind === 'colourant'
    ? STEPS.colourant
    : ['flake', 'powder', 'salt'].includes(material.kind)
      ? STEPS.spoon
      : STEPS.grams;

/** Parts of a spoon as they are stamped on it. */
const STAMPED: Record<number, string> = { 0.0625: '1/16', 0.125: '1/8', 0.25: '1/4', 0.5: '1/2', 0.75: '3/4' };

function amountText(amount: number, unit: string): string {
  const figure = (unit === 'tsp' && STAMPED[amount]) || Number(amount.toFixed(amount < 0.1 ? 3 : 2));
  return `${figure} ${unit === 'drop' && amount !== 1 ? 'drops' : unit}`;
}

interface Props {
  ledgerId: string;
  doses: Dose[];
  materials: Material[];
  batchMl: number;
  /** The record whose screens hear of it. */
  about?: string;
  /** What the recipe calls for: shown first, the rest of the shelf behind one tap. */
  firstIds?: string[];
  /** How it looks so far, over the sums. */
  picture?: ReactNode;
}

/** Which bottle a dose comes out of, and how it drips; another that is open is one tap away. */
function FromLot({ material }: { material: Material }) {
  const { workshop } = useTaste();
  const use = useWrite<Material, string>((lotId) => ({
    path: `/materials/${material.id}`,
    method: 'PATCH',
    version: material.version,
    body: { lotId },
  }));
  const [opened, ...others] = lotsInUse(material.lots, material.lotId);
  if (!opened) return null;
  const drop = dropOf(opened.dropsPerMl, material.dropsPerMl, workshop.dropsPerMl);
  return (
    <p className="flex flex-wrap gap-x-4 gap-y-2 items-center">
      <span>
        From lot <b className="figure">{opened.code}</b>
        {isLiquid(material.kind) && `, ${drop.perMl} drops a mL`}
        {isLiquid(material.kind) && drop.byDefault && <span className="default-mark"> default</span>}
        {opened.bottleStrength !== 1 && `, ${opened.bottleStrength} × as strong`}
      </span>
      {others.slice(0, 3).map((lot) => (
        <button
          key={lot.id}
          type="button"
          className="btn btn-ghost border border-[var(--edge)] bench-target"
          disabled={use.isPending}
          onClick={() => use.mutate(lot.id)}
        >
          take {lot.code}
        </button>
      ))}
      <Refusal error={use.error} />
    </p>
  );
}

/** Big buttons, a running total, undo: one tap a dose. */
export function DoseBoard({ ledgerId, doses, materials, batchMl, about = ledgerId, firstIds = [], picture }: Props) {
  const { text, measures } = useTaste();
  const [pickedId, setPicked] = useState<string>();
  const [all, setAll] = useState(firstIds.length === 0);
  const shelf = inUse(materials).filter((material) => (DOSED as readonly MaterialKind[]).includes(material.kind));
  const isUsed = (material: Material) =>
    firstIds.includes(material.id) || doses.some((dose) => dose.materialId === material.id);
  const dosable = all ? shelf : shelf.filter(isUsed);
  const picked =
    dosable.find((material) => material.id === pickedId) ??
    dosable.find((m) => m.id === doses.at(-1)?.materialId) ??
    dosable[0];
  const totals = cupTotals(doses);
  const reversed = new Set(doses.map((dose) => dose.reverses));
  const last = doses.findLast((dose) => dose.reverses === null && !reversed.has(dose.id));
  const nameOf = (materialId: string) => materials.find((material) => material.id === materialId)?.name ?? '';
  const dose = (material: Material, amount: number, unit: string) =>
    tapRow(
      `/ledgers/${ledgerId}/doses`,
      { materialId: material.id, amount, unit },
      `${amountText(amount, unit)} of ${material.name}`,
      about,
    );
  const undo = () =>
    last && tapRow(UNDO, { rowId: last.id }, `taking back ${amountText(last.amount, last.unit)}`, about);
  if (shelf.length === 0)
    return <p className="text-lg">Add a colourant, flake or salt to the store first, or write it into a recipe.</p>;
  const set = picked ? stepsFor(picked) : undefined;
  return (
    <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(260px,360px)] gap-8">
      <div className="flex flex-col gap-4">
        <fieldset className="flex flex-wrap gap-2" aria-label="What goes in">
          {dosable.map((material) => (
            <button
              key={material.id}
              type="button"
              aria-pressed={material.id === picked?.id}
              className={`btn bench-target justify-start ${material.id === picked?.id ? 'btn-primary' : 'btn-line border'}`}
              onClick={() => setPicked(material.id)}
            >
              <span
                className="w-5 h-5 rounded-full border border-current"
                style={{ background: material.hex ?? 'transparent' }}
              />
              {material.name}
            </button>
          ))}
          {!all && (
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)] bench-target"
              onClick={() => setAll(true)}
            >
              something else …
            </button>
          )}
        </fieldset>
        {picked && <FromLot material={picked} />}
        {picked && set && (
          <div className="flex flex-wrap gap-3">
            {set.steps.map(([label, amount]) => (
              <button
                key={label}
                type="button"
                className="btn btn-line figure h-24 w-28 text-3xl"
                aria-label={`${label.slice(1)} ${set.unit} of ${picked.name}`}
                onClick={() => dose(picked, amount, set.unit)}
              >
                {label}
              </button>
            ))}
            <span className="self-end text-xl font-bold">{set.unit === 'drop' ? 'drops' : set.unit}</span>
            {measures.map((measure) => (
              <button
                key={measure.unit}
                type="button"
                className="btn btn-line bench-target"
                onClick={() => dose(picked, 1, measure.unit)}
              >
                +1 {measure.unit}
              </button>
            ))}
          </div>
        )}
        <UndoDose last={last && `${amountText(last.amount, last.unit)} of ${nameOf(last.materialId)}`} onUndo={undo} />
      </div>
      <div>
        {picture && <div className="mb-3">{picture}</div>}
        <h2 className="mb-1">In the cup, {text(batchMl, 'volume')}</h2>
        {totals.length === 0 && <p className="soft">Nothing yet. Tap what falls in.</p>}
        <ul aria-live="polite">
          {totals.map((total) => (
            <li key={`${total.materialId} ${total.unit}`} className="py-1">
              <span className="big block">{amountText(total.amount, total.unit)}</span>
              <span className="font-bold">{nameOf(total.materialId)}</span>
            </li>
          ))}
        </ul>
        <ol className="mt-4 text-sm max-h-48 overflow-auto" reversed>
          {[...doses].reverse().map((row) => (
            <li key={row.id} className={reversed.has(row.id) || row.reverses ? 'soft line-through' : ''}>
              <span className="figure">{timeText(row.at)}</span> {row.reverses ? 'taken back: ' : '+'}
              {amountText(row.amount, row.unit)} {nameOf(row.materialId)}
            </li>
          ))}
        </ol>
      </div>
    </div>
  );
}

function UndoDose({ last, onUndo }: { last: string | undefined; onUndo(): void }) {
  return (
    <button
      type="button"
      className="btn bench-target btn-ghost border-2 border-[var(--edge)] self-start"
      disabled={!last}
      onClick={onUndo}
    >
      Undo {last}
    </button>
  );
}
