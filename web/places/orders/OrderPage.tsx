import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Order, OrderLine } from '../../../contract/orders.ts';
import { isLate } from '../../../core/plan/evening.ts';
import type { LineNeed } from '../../../core/plan/need.ts';
import { setOf } from '../../../core/plan/sets.ts';
import { piecesText } from '../../../core/units/counted.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { dateText, dayText, todayIso } from '../../parts/dates.ts';
import { Refusal, SelectField } from '../../parts/Fields.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { STATE_WORDS, stateColour } from '../../parts/words/order.ts';
import { ByTaste } from './ByTaste.tsx';
import { ChangeOfMind } from './ChangeOfMind.tsx';
import { ShortAtPacking } from './ShortAtPacking.tsx';
import { ShortOf } from './ShortOf.tsx';
import { Terms } from './Terms.tsx';

export function OrderPage() {
  const { id = '' } = useParams();
  const { data: order, error } = useQuery(queries.order(id));
  const molds = useQuery(queries.molds);
  const colours = useQuery(queries.colourways);
  if (isGone(error, order)) return <Missing error={error} back="All orders" backTo="/orders" />;
  if (!order || !molds.data || !colours.data) return <Waiting />;
  const late = !order.sentAt && !order.cancelledAt && isLate(order.dueOn, todayIso());
  return (
    <Page
      title={order.customer}
      tab={`${order.code} ${order.customer}`}
      under={
        <>
          <span className="figure">{order.code}</span> of{' '}
          <Link to={`/customers/${order.customerId}`} className="link">
            {order.customer}
          </Link>
          , due <b className="text-[var(--ink)]">{dayText(order.dueOn)}</b>
          {late && <b className="heat">, which is past</b>}.{' '}
          <b style={{ color: stateColour(order.state) }}>
            {order.state === 'short' ? `Short by ${order.shortBaits} baits` : STATE_WORDS[order.state]}
          </b>
          {order.notes && <span>. {order.notes}</span>}
        </>
      }
      actions={<Sending order={order} />}
    >
      <Lines order={order} />
      <ShortAtPacking order={order} />
      <ChangeOfMind order={order} />
      <Terms order={order} />
      <ByTaste order={order} />
      {order.need.cups.length > 0 && (
        <section className="no-print">
          <h2 className="text-2xl mb-4">What makes it good</h2>
          <div className="grid grid-cols-[repeat(auto-fit,minmax(min(100%,430px),1fr))] gap-8">
            {order.need.cups.map((cup) => (
              <ShortOf
                key={cup.colourwayId}
                cup={cup}
                molds={molds.data.items}
                colour={colours.data.items.find((row) => row.id === cup.colourwayId)}
                order={order}
              />
            ))}
          </div>
        </section>
      )}
      <div className="grid grid-cols-1 md:grid-cols-2 gap-12">
        <section className="no-print">
          <h2 className="mb-2">Pours for it</h2>
          {order.pours.length === 0 && <p className="soft">None; all from the rack, or not poured yet.</p>}
          {order.pours.map((pour) => (
            <Link key={pour.id} to={`/pours/${pour.id}`} className="flex gap-3 py-1.5 row-hover items-center">
              <span className="w-4 h-4 rounded-full border border-[var(--ink)]" style={{ background: pour.hex }} />
              <span className="figure">{pour.code}</span>
              <span className="flex-1">
                {pour.colourwayName}
                {pour.unknown.length > 0 && (
                  <b className="warn block text-sm">remelt in it: {pour.unknown.join(' and ')} not known</b>
                )}
              </span>
              <span className="soft">{pour.closedAt ? dateText(pour.closedAt) : 'open'}</span>
            </Link>
          ))}
        </section>
        <section>
          <h2 className="mb-2">Bags</h2>
          {order.bags.filter((bag) => !bag.unpacked).length === 0 && <p className="soft">Nothing packed yet.</p>}
          <ul className="flex flex-wrap gap-2">
            {order.bags
              .filter((bag) => !bag.unpacked)
              .map((bag) => (
                <li key={bag.id}>
                  <Link
                    to={`/bags/${bag.code}`}
                    className="block border-2 rounded px-2.5 py-1 figure text-sm"
                    style={{ borderColor: bag.contents[0]?.hex }}
                  >
                    {bag.code} · {bag.baits}
                  </Link>
                </li>
              ))}
          </ul>
        </section>
      </div>
    </Page>
  );
}

function Sending({ order }: { order: Order }) {
  const change = useWrite<Order, { sent: boolean } | { cancelled: boolean }>((body) => ({
    path: `/orders/${order.id}`,
    method: 'PATCH',
    version: order.version,
    body,
  }));
  const closed = order.state === 'sent' || order.state === 'cancelled';
  return (
    <>
      {!closed && order.lines.length > 0 && (
        <Link to={`/orders/${order.id}/packing`} className="btn btn-line">
          To the packing table
        </Link>
      )}
      <button type="button" className="btn btn-line" onClick={() => window.print()}>
        Print it
      </button>
      {!closed && (
        <button type="button" className="btn btn-line" onClick={() => change.mutate({ cancelled: true })}>
          Cancel it
        </button>
      )}
      {closed && (
        <button
          type="button"
          className="btn btn-line"
          onClick={() => change.mutate(order.sentAt ? { sent: false } : { cancelled: false })}
        >
          {order.sentAt ? 'Not sent after all' : 'Take it up again'}
        </button>
      )}
      {order.state === 'ready' && (
        <button type="button" className="btn btn-primary btn-lg" onClick={() => change.mutate({ sent: true })}>
          Sent
        </button>
      )}
      <Refusal error={change.error} />
    </>
  );
}

/** What of each line is packed, ready, curing and short, as one marked scale of packs. */
function Lines({ order }: { order: Order }) {
  const { money } = useTaste();
  const [bagsId, setBagsId] = useState('');
  const pack = useWrite<Order, { lineId: string; bags: number }>((body) => ({
    path: `/orders/${order.id}/pack`,
    body: bagsId ? { ...body, bagsId } : body,
  }));
  const open = order.state !== 'sent' && order.state !== 'cancelled';
  const unpriced = order.lines.filter((line) => line.priceMinor === null);
  const total = order.lines.reduce((sum, line) => sum + line.packs * (line.priceMinor ?? 0), 0);
  return (
    <section>
      <ul className="ruled border-y border-[var(--rule)]">
        {order.lines.map((line) => (
          <LineRow
            key={line.id}
            line={line}
            need={order.need.lines.find((row) => row.lineId === line.id)}
            bags={bagsReady(order, line)}
            open={open}
            busy={pack.isPending}
            onPack={(bags) => pack.mutate({ lineId: line.id, bags })}
          />
        ))}
      </ul>
      {open && order.bagKinds.length > 1 && (
        <SelectField
          label="Packed into"
          className="w-64 pt-3 no-print"
          value={bagsId}
          options={[
            { value: '', label: 'not said: none leaves the store' },
            ...order.bagKinds.map((row) => ({ value: row.id, label: `${row.name}, ${piecesText(row.left)} left` })),
          ]}
          onChange={setBagsId}
        />
      )}
      {order.gift && <p className="text-right pt-2 font-bold">A gift: nobody pays, it stands at its cost.</p>}
      {total > 0 && !order.gift && (
        <p className="text-right pt-2">
          <span className="figure">{money(total)}</span>
          {unpriced.length > 0 && (
            <b className="warn block text-sm">
              without {unpriced.map((line) => `${line.baitName} ${line.colourwayName}`).join(', ')}: no price yet
            </b>
          )}
        </p>
      )}
      <Refusal error={pack.error} />
    </section>
  );
}

interface LineRowProps {
  line: OrderLine;
  need: LineNeed | undefined;
  /** Bags of it that can be filled now. */
  bags: number;
  open: boolean;
  busy: boolean;
  onPack(bags: number): void;
}

/** Bags that can be filled now; a set's are asked for at its first line. */
function bagsReady({ lines, need }: Order, line: OrderLine): number {
  const set = setOf(lines, line);
  if (set[0]?.id !== line.id) return 0;
  return Math.min(
    ...set.map(({ id, packs, packed, perPack }) => {
      const there = need.lines.find((row) => row.lineId === id)?.fromReady ?? 0;
      return Math.min(packs - packed, Math.floor(there / perPack));
    }),
  );
}

function LineRow({ line, need, bags: ready, open, busy, onPack }: LineRowProps) {
  const { money } = useTaste();
  return (
    <li className="grid grid-cols-1 sm:grid-cols-2 xl:grid-cols-[minmax(240px,1.2fr)_180px_minmax(220px,1fr)_auto] gap-6 py-4 items-center">
      <span className="flex gap-3 items-center">
        <span className="w-9 h-9 rounded-full border-2 border-[var(--ink)] shrink-0" style={{ background: line.hex }} />
        <span>
          <span className="block text-lg font-bold leading-tight">
            {line.packs} × {line.baitName}
          </span>
          <Link to={`/colours/${line.colourwayId}`} className="link text-sm">
            {line.colourwayName}
          </Link>
          <span className="label-small">
            , {line.perPack} to a pack{line.priceMinor !== null && `, ${money(line.priceMinor)}`}
          </span>
          {line.setName !== null && <b className="block text-sm">in the set “{line.setName}”</b>}
        </span>
      </span>
      <span>
        <Graduated value={line.packed} most={line.packs} label={`${line.packed} of ${line.packs} packs packed`} />
        <span className="figure text-sm block">
          {line.packed} of {line.packs} packed
        </span>
      </span>
      <span className="text-[0.9375rem]">
        {need && need.baits > 0 && (
          <>
            <b className="figure rest">{need.fromReady}</b> in stock
            {need.fromCuring > 0 && (
              <>
                , <b className="figure warn">{need.fromCuring}</b> curing
              </>
            )}
            {need.fromPour > 0 && (
              <>
                , <b className="figure warn">{need.fromPour}</b> in a pour
              </>
            )}
            {need.short > 0 && (
              <b className="heat block">
                short {need.short} of {need.baits} baits
              </b>
            )}
          </>
        )}
        {line.packed >= line.packs && <b className="rest">packed</b>}
      </span>
      <span className="flex gap-2 no-print">
        {open && ready > 0 && (
          <>
            <button type="button" className="btn btn-line bench-target" disabled={busy} onClick={() => onPack(1)}>
              Pack 1
            </button>
            {ready > 1 && (
              <button
                type="button"
                className="btn btn-primary bench-target"
                disabled={busy}
                onClick={() => onPack(ready)}
              >
                Pack {ready}
              </button>
            )}
          </>
        )}
      </span>
    </li>
  );
}
