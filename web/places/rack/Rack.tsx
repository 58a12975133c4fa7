import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { RackGrade, RackRow, StockMove } from '../../../contract/orders.ts';
import { durationText } from '../../../core/units/show.ts';
import { useMinute } from '../../api/now.ts';
import { queries } from '../../api/queries.ts';
import { useUndo } from '../../api/undo.ts';
import { useWrite } from '../../api/write.ts';
import { BaitShape } from '../../parts/BaitShape.tsx';
import { dateText } from '../../parts/dates.ts';
import { NumberField, Refusal, TextField } from '../../parts/Fields.tsx';
import { Empty, Page, Waiting } from '../../parts/Page.tsx';
import { Bins } from './Bins.tsx';

interface Heap {
  baitId: string;
  baitName: string;
  shape: string;
  colourwayId: string;
  colourwayName: string;
  hex: string;
  grade: RackGrade;
  rows: RackRow[];
}

function heapsOf(rows: RackRow[]): Heap[] {
  const heaps = new Map<string, Heap>();
  for (const row of rows) {
    const key = `${row.baitId} ${row.colourwayId} ${row.grade}`;
    const heap = heaps.get(key) ?? { ...row, rows: [] };
    heap.rows.push(row);
    heaps.set(key, heap);
  }
  return [...heaps.values()].sort(
    (a, b) =>
      a.baitName.localeCompare(b.baitName) ||
      Number(a.grade === 'own') - Number(b.grade === 'own') ||
      sum(b.rows, (row) => row.baits) - sum(a.rows, (row) => row.baits),
  );
}

const sum = (rows: RackRow[], of: (row: RackRow) => number) => rows.reduce((total, row) => total + of(row), 0);

/** What lies there, bait by bait, each drawn; curing ones are outlined, promised ones are tied. */
export function RackPlace() {
  const { data } = useQuery(queries.rack);
  const bins = useQuery(queries.bins).data;
  if (!data || !bins) return <Waiting />;
  if (data.items.length === 0 && bins.items.length === 0) {
    return (
      <Page title="Rack" tab="Rack">
        <Empty
          say="The rack is empty."
          then="Baits come here when a cup is closed, cure for a day, and leave in bags or without an order."
          to="/pours"
          action="To the pours"
        />
      </Page>
    );
  }
  const heaps = heapsOf(data.items);
  const own = sum(data.items, (row) => (row.grade === 'own' ? row.baits : 0));
  return (
    <Page
      title="Rack"
      tab="Rack"
      under={
        <>
          <b className="figure text-[var(--ink)]">{sum(data.items, (row) => row.baits)}</b> baits,{' '}
          <b className="figure text-[var(--ink)]">{sum(data.items, (row) => row.promised)}</b> of them promised to
          orders
          {own > 0 && (
            <>
              , <b className="figure text-[var(--ink)]">{own}</b> for own water
            </>
          )}
          . Filled: cured. Outlined: curing. Underlined: promised.
        </>
      }
    >
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] gap-12">
        <div className="flex flex-col gap-7">
          {[...new Set(heaps.map((heap) => heap.baitName))].map((baitName) => {
            const mine = heaps.filter((heap) => heap.baitName === baitName);
            return (
              <section key={baitName}>
                <h2 className="border-b-4 border-[var(--ink)] pb-1 flex justify-between">
                  {baitName}{' '}
                  <span className="figure">
                    {mine.reduce((total, heap) => total + sum(heap.rows, (row) => row.baits), 0)}
                  </span>
                </h2>
                <ul className="grid grid-cols-1 md:grid-cols-2 gap-x-8">
                  {mine.map((heap) => (
                    <HeapRow key={`${heap.colourwayId} ${heap.grade}`} heap={heap} />
                  ))}
                </ul>
              </section>
            );
          })}
        </div>
        <div className="flex flex-col gap-8">
          <Bins />
          <section>
            <h2 className="mb-1">Left without an order</h2>
            {data.moves.length === 0 && <p className="soft">None yet.</p>}
            <ul className="ruled">
              {data.moves.map((move) => (
                <MoveRow key={move.id} move={move} />
              ))}
            </ul>
          </section>
        </div>
      </div>
    </Page>
  );
}

function MoveRow({ move }: { move: StockMove }) {
  const undo = useUndo();
  return (
    <li className={`py-1.5 text-sm ${move.reversed ? 'line-through soft' : ''}`}>
      <b className="figure">{-move.baits}</b> {move.baitName} {move.colourwayName}
      {move.grade === 'own' && ', own water'}, {move.kind}
      {move.note && `: ${move.note}`}{' '}
      <Link to={`/pours/${move.pourId}`} className="link figure">
        {move.pourCode}
      </Link>{' '}
      <span className="soft">{dateText(move.at)}</span>{' '}
      {!move.reversed && (
        <button type="button" className="link" onClick={() => undo.mutate(move.id)}>
          undo
        </button>
      )}
      <Refusal error={undo.error} />
    </li>
  );
}

/** Most baits drawn one by one; beyond that each stands for several. */
const DRAWN = 48;

function HeapRow({ heap }: { heap: Heap }) {
  const now = useMinute();
  const [out, setOut] = useState(false);
  const total = sum(heap.rows, (row) => row.baits);
  const promised = sum(heap.rows, (row) => row.promised);
  const curing = heap.rows.filter((row) => !row.cured);
  const per = Math.max(1, Math.ceil(total / DRAWN));
  const each = heap.rows.flatMap((row) =>
    Array.from({ length: Math.round(row.baits / per) }, (_, i) => ({
      cured: row.cured,
      promised: i < row.promised / per,
      key: `${row.pourId} ${i}`,
    })),
  );
  return (
    <li className="py-2 grid grid-cols-[64px_1fr_auto] gap-3 items-center border-b border-[var(--rule)]">
      <span className="big text-right">{total}</span>
      <span className="min-w-0">
        <Link to={`/colours/${heap.colourwayId}`} className="font-bold leading-tight block hover:underline">
          {heap.colourwayName}
        </Link>
        {heap.grade === 'own' && <b className="rest text-sm">own water, offered to no order</b>}
        <svg
          width="100%"
          height={Math.ceil(each.length / 12) * 15 + 4}
          viewBox={`0 0 276 ${Math.ceil(each.length / 12) * 15 + 4}`}
          preserveAspectRatio="xMinYMin meet"
          role="img"
          aria-label={`${total} baits, ${sum(curing, (row) => row.baits)} curing, ${promised} promised`}
        >
          {each.map((bait, i) => {
            const [x, y] = [(i % 12) * 23, Math.floor(i / 12) * 15];
            return (
              <g key={bait.key}>
                <BaitShape
                  shape={heap.shape}
                  bait={heap.baitId}
                  x={x + 1}
                  y={y + 1}
                  lengthPx={20}
                  widthPx={9}
                  fill={bait.cured ? heap.hex : 'transparent'}
                  eye={false}
                />
                {bait.promised && (
                  <line x1={x + 1} x2={x + 21} y1={y + 12.5} y2={y + 12.5} stroke="var(--ink)" strokeWidth={1.6} />
                )}
              </g>
            );
          })}
        </svg>
        <span className="label-small">
          {per > 1 && `each is ${per} · `}
          {promised > 0 && `${promised} promised · `}
          {curing[0] && (
            <b className="warn">
              {sum(curing, (row) => row.baits)} curing, {durationText((Date.parse(curing[0].curedAt) - now) / 1000)}{' '}
              more ·{' '}
            </b>
          )}
          {heap.rows.map((row, i) => (
            <span key={row.pourId}>
              {i > 0 && ', '}
              <Link to={`/pours/${row.pourId}`} className="link figure">
                {row.pourCode}
              </Link>
            </span>
          ))}
        </span>
      </span>
      <button type="button" className="link text-sm" aria-expanded={out} onClick={() => setOut(!out)}>
        Take out
      </button>
      {out && <TakeOut heap={heap} most={total} onDone={() => setOut(false)} />}
    </li>
  );
}

function TakeOut({ heap, most, onDone }: { heap: Heap; most: number; onDone(): void }) {
  const [baits, setBaits] = useState<number | null>(1);
  const [note, setNote] = useState('');
  const out = useWrite<unknown, 'fished' | 'given' | 'scrapped'>(
    (kind) => ({
      path: '/rack/out',
      body: { kind, baitId: heap.baitId, colourwayId: heap.colourwayId, grade: heap.grade, baits, note },
    }),
    onDone,
  );
  return (
    <div className="col-span-3 sheet p-3 flex gap-3 items-start flex-wrap">
      <NumberField label={`Baits, of ${most}`} value={baits} onChange={setBaits} min={1} className="w-28" />
      <TextField label="Note" value={note} onChange={setNote} className="w-56" />
      {(['fished', 'given', 'scrapped'] as const).map((kind) => (
        <button
          key={kind}
          type="button"
          className="btn btn-line mt-5"
          disabled={!baits || out.isPending}
          onClick={() => out.mutate(kind)}
        >
          {kind === 'fished' ? 'Fished' : kind === 'given' ? 'Given away' : 'Scrapped'}
        </button>
      ))}
      <Refusal error={out.error} />
    </div>
  );
}
