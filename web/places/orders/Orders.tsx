import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { OrderRow } from '../../../contract/orders.ts';
import { isLate } from '../../../core/plan/evening.ts';
import { queries } from '../../api/queries.ts';
import { dayText, todayIso } from '../../parts/dates.ts';
import { handOver } from '../../parts/files.ts';
import { Graduated } from '../../parts/Graduated.tsx';
import { Empty, More, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { STATE_WORDS, stateColour } from '../../parts/words/order.ts';

export function Orders() {
  const { data } = useQuery(queries.openOrders);
  const sent = useInfiniteQuery(queries.goneOrders);
  if (!data || !sent.data) return <Waiting />;
  const open = data.items;
  const gone = sent.data.pages.flatMap((page) => page.items);
  const take = (
    <Link to="/orders/new" className="btn btn-primary btn-lg">
      Take an order
    </Link>
  );
  if (open.length + gone.length === 0) {
    return (
      <Page title="Orders" tab="Orders" actions={take}>
        <Beside />
        <Empty
          say="No order yet."
          then="Take one: packs of a bait in a colour, and a due day. It says at once what is short and what to pour."
          to="/orders/new"
          action="Take the first order"
        />
      </Page>
    );
  }
  return (
    <Page
      title="Orders"
      tab="Orders"
      actions={take}
      under="Earliest due first. The rack is shared out in this order; no bait is promised twice."
    >
      <Beside />
      {open.length === 0 && <p className="text-lg">All orders are sent.</p>}
      <ul className="ruled border-y border-[var(--rule)]">
        {open.map((order) => (
          <OrderLineRow key={order.id} order={order} />
        ))}
      </ul>
      {gone.length > 0 && (
        <section>
          <h2 className="mb-2">Sent</h2>
          <ul className="ruled">
            {gone.map((order) => (
              <li key={order.id}>
                <Link
                  to={`/orders/${order.id}`}
                  className="grid grid-cols-[44px_1fr_auto] sm:grid-cols-[70px_1fr_1fr_120px] gap-4 py-1.5 row-hover"
                >
                  <span className="figure">{order.code}</span>
                  <span>{order.customer}</span>
                  <span className="soft">{order.lines.reduce((sum, line) => sum + line.packs, 0)} packs</span>
                  <span className="soft text-right">{order.sentAt ? dayText(order.sentAt) : 'cancelled'}</span>
                </Link>
              </li>
            ))}
          </ul>
          <More list={sent}>Older orders</More>
        </section>
      )}
    </Page>
  );
}

const BESIDE = [
  ['/orders/plan', 'The evenings ahead'],
  ['/orders/season', 'For the season'],
  ['/customers', 'Customers'],
  ['/orders/cost', 'What it costs'],
  ['/orders/money', 'What it earns'],
  ['/orders/import', 'Out of a table'],
] as const;

/** What goes with the orders: when, for whom, at what cost. */
function Beside() {
  return (
    <nav aria-label="With the orders" className="flex flex-wrap gap-x-1 gap-y-1 -mt-2 no-print">
      {BESIDE.map(([to, name]) => (
        <Link key={to} to={to} className="btn btn-ghost border border-[var(--rule)]">
          {name}
        </Link>
      ))}
      <AsTable />
    </nav>
  );
}

/** All orders as a file that a spreadsheet reads. */
function AsTable() {
  const { minorPerUnit } = useTaste();
  const client = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const hand = async () => {
    const [{ ordersCsv }, all] = await Promise.all([import('./orderFile.ts'), client.fetchQuery(queries.allOrders)]);
    handOver(await ordersCsv(all.items, minorPerUnit), 'text/csv', 'orders.csv');
  };
  return (
    <>
      <button
        type="button"
        className="btn btn-ghost border border-[var(--rule)]"
        onClick={() => {
          setProblem(null);
          hand().catch((error: Error) => setProblem(error.message));
        }}
      >
        As a table
      </button>
      {problem && <span className="heat font-bold self-center">{problem}</span>}
    </>
  );
}

function OrderLineRow({ order }: { order: OrderRow }) {
  const packs = order.lines.reduce((sum, line) => sum + line.packs, 0);
  const packed = order.lines.reduce((sum, line) => sum + line.packed, 0);
  return (
    <li>
      <Link
        to={`/orders/${order.id}`}
        className="grid grid-cols-1 sm:grid-cols-2 xl:grid-cols-[110px_minmax(180px,1fr)_minmax(260px,1.4fr)_190px_170px] gap-x-5 gap-y-2 py-4 items-center row-hover"
      >
        <span>
          <span className="block font-bold text-lg leading-tight">
            {dayText(order.dueOn)}
            {isLate(order.dueOn, todayIso()) && <span className="heat"> late</span>}
          </span>
          <span className="figure soft text-sm">{order.code}</span>
        </span>
        <span className="text-lg font-bold">{order.customer}</span>
        <span className="flex flex-wrap gap-x-4 gap-y-1">
          {order.lines.map((line) => (
            <span key={line.id} className="flex items-center gap-1.5 text-sm">
              <span className="w-3.5 h-3.5 rounded-full border border-[var(--ink)]" style={{ background: line.hex }} />
              <b className="figure">{line.packs}</b> {line.baitName} {line.colourwayName}
            </span>
          ))}
        </span>
        <span>
          <Graduated value={packed} most={packs} label={`${packed} of ${packs} packs packed`} />
          <span className="label-small figure block">
            {packed} of {packs} packed
          </span>
        </span>
        <span className="xl:text-right font-bold text-lg" style={{ color: stateColour(order.state) }}>
          {order.state === 'short' ? `short ${order.shortBaits}` : STATE_WORDS[order.state]}
        </span>
      </Link>
    </li>
  );
}
