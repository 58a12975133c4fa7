import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Order, OrderLine, RackRow } from '../../../contract/orders.ts';
import { deltaEOfHex } from '../../../core/colour/lab.ts';
import type { LineNeed } from '../../../core/plan/need.ts';
import { share } from '../../../core/plan/season.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText } from '../../parts/dates.ts';
import { Refusal, TextField } from '../../parts/Fields.tsx';

/** Colours that are told of, nearest first. */
const MOST_NEAR = 3;

interface Change {
  lineId: string;
  perPack?: number;
  colourwayId?: string;
  why: string;
}

/** Too few good ones at the packing table: less to each, full bags only, another colour, or the rest later. */
export function ShortAtPacking({ order }: { order: Order }) {
  const rack = useQuery(queries.rack).data?.items ?? [];
  const took = useQuery(queries.customer(order.customerId)).data?.took ?? [];
  const change = useWrite<Order, Change>(({ lineId, ...body }) => ({
    path: `/orders/${order.id}/lines/${lineId}`,
    body,
  }));
  const open = order.state !== 'sent' && order.state !== 'cancelled';
  const short = order.lines.flatMap((line) => {
    const need = order.need.lines.find((row) => row.lineId === line.id);
    return need && need.short > 0 ? [{ line, need }] : [];
  });
  if (!open) return <Changes order={order} />;
  return (
    <>
      {short.length > 0 && (
        <section className="no-print flex flex-col gap-3" aria-label="Short at the packing table">
          <h2 className="text-2xl">Short at the packing table</h2>
          <ul className="ruled border-y border-[var(--rule)]">
            {short.map(({ line, need }) => (
              <ShortLine
                key={line.id}
                line={line}
                need={need}
                rack={rack}
                took={
                  new Set(took.filter(({ baitId }) => baitId === line.baitId).map(({ colourwayId }) => colourwayId))
                }
                busy={change.isPending}
                onChange={(body) => change.mutate({ lineId: line.id, ...body })}
              />
            ))}
          </ul>
          <Refusal error={change.error} />
        </section>
      )}
      <BackOrder order={order} />
      <Changes order={order} />
    </>
  );
}

interface ShortLineProps {
  line: OrderLine;
  need: LineNeed;
  rack: RackRow[];
  /** Colours of it that this customer took before. */
  took: Set<string>;
  busy: boolean;
  onChange(body: Omit<Change, 'lineId'>): void;
}

function ShortLine({ line, need, rack, took, busy, onChange }: ShortLineProps) {
  const bags = line.packs - line.packed;
  // What is cured, cures or is being poured for it: all that it will get without another cup.
  const good = need.fromReady + need.fromCuring + need.fromPour;
  const { each, eachLeft, fullBags, fullLeft } = share({ bags, perBag: line.perPack, good });
  const near = nearest(line, rack, need.short + good, took);
  return (
    <li className="py-3 flex flex-col gap-2">
      <p className="text-lg">
        <b>
          {line.baitName} {line.colourwayName}
        </b>
        : <b className="figure">{good}</b> for <b className="figure">{bags}</b> bags of{' '}
        <b className="figure">{line.perPack}</b>. <span className="heat font-bold">{need.short} short.</span>{' '}
        {fullBags + each === 0 && 'Not enough for one bag.'}
        {[
          ...(each > 0 ? [`${each} to each${eachLeft > 0 ? ` and ${eachLeft} left` : ''}`] : []),
          ...(fullBags > 0
            ? [`${fullBags} full ${fullBags === 1 ? 'bag' : 'bags'}${fullLeft > 0 ? ` and ${fullLeft} left` : ''}`]
            : []),
        ].join(', or ')}
        {fullBags + each > 0 && '.'}
      </p>
      <div className="flex gap-2 flex-wrap">
        {each > 0 && each < line.perPack && (
          <button
            type="button"
            className="btn btn-line"
            disabled={busy}
            onClick={() => onChange({ perPack: each, why: 'shared out' })}
          >
            {each} to each bag
          </button>
        )}
        {line.packed === 0 &&
          near.map(({ colourwayId, name, hex, free, off, before }) => (
            <button
              key={colourwayId}
              type="button"
              className="btn btn-ghost border border-[var(--edge)] font-normal"
              disabled={busy}
              onClick={() => onChange({ colourwayId, why: 'the nearest that is there' })}
            >
              <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: hex }} />
              <b>{name}</b> instead: {free} free, ΔE <span className="figure">{off.toFixed(1)}</span>
              {before && <span className="rest font-bold">, they took it before</span>}
            </button>
          ))}
        {line.packed === 0 && near.length === 0 && (
          <span className="soft self-center">No other colour of it lies there in such number.</span>
        )}
      </div>
    </li>
  );
}

/** Colours of the same bait of which enough lie there and are promised to nobody: the nearest, and those they took before. */
function nearest(line: OrderLine, rack: RackRow[], wanted: number, took: Set<string>) {
  const free = new Map<string, { colourwayId: string; name: string; hex: string; free: number }>();
  for (const row of rack) {
    if (row.baitId !== line.baitId || row.colourwayId === line.colourwayId || row.grade !== 'sell') continue;
    const before = free.get(row.colourwayId);
    free.set(row.colourwayId, {
      colourwayId: row.colourwayId,
      name: row.colourwayName,
      hex: row.hex,
      free: (before?.free ?? 0) + row.baits - row.promised,
    });
  }
  return [...free.values()]
    .filter((row) => row.free >= wanted)
    .map((row) => ({ ...row, off: deltaEOfHex(line.hex, row.hex), before: took.has(row.colourwayId) }))
    .sort((a, b) => a.off - b.off)
    .filter(({ before }, at) => before || at < MOST_NEAR);
}

/** Sends what is packed; the rest is an order of its own, with a day of its own. */
function BackOrder({ order }: { order: Order }) {
  const navigate = useNavigate();
  const [dueOn, setDue] = useState(order.dueOn);
  const split = useWrite<Order>(
    () => ({ path: `/orders/${order.id}/back-order`, body: { dueOn } }),
    ({ id }) => navigate(`/orders/${id}`),
  );
  const packed = order.lines.reduce((sum, line) => sum + line.packed, 0);
  const left = order.lines.reduce((sum, line) => sum + line.packs - line.packed, 0);
  if (packed === 0 || left === 0) return null;
  return (
    <section className="no-print flex flex-col gap-2" aria-label="Ship part of it">
      <h2>Ship part of it</h2>
      <div className="flex gap-3 items-end flex-wrap">
        <TextField label="The rest is due" type="date" value={dueOn} onChange={setDue} />
        <button type="button" className="btn btn-line" disabled={split.isPending} onClick={() => split.mutate()}>
          {packed} {packed === 1 ? 'bag goes' : 'bags go'} now, {left} as an order of its own
        </button>
      </div>
      <Refusal error={split.error} />
    </section>
  );
}

const WHAT = {
  packs: 'packs',
  'per-pack': 'to a pack',
  colour: 'colour',
  'back-order': 'packs',
  added: 'added, packs',
  taken: 'taken out, packs',
};

/** What was changed since it was taken: nothing of it is forgotten. */
function Changes({ order }: { order: Order }) {
  if (order.changes.length === 0) return null;
  return (
    <section aria-label="Changed since it was taken">
      <h2 className="mb-2">Changed since it was taken</h2>
      <ul className="ruled">
        {order.changes.map(({ id, line, what, was, now, why, at }) => (
          <li key={id} className="py-1.5 flex flex-wrap gap-x-3">
            <span className="soft">{dateText(at)}</span>
            <b>{line}</b>
            <span>
              {what === 'colour' ? '' : `${WHAT[what]} `}
              {was} → <b>{now}</b>
            </span>
            {why && <span className="soft">{what === 'back-order' ? `with ${why}` : why}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}
