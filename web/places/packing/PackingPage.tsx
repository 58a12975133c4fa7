import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { Order, OrderLine } from '../../../contract/orders.ts';
import type { Packing } from '../../../contract/packing.ts';
import { usual } from '../../../core/defaults.ts';
import { setOf } from '../../../core/plan/sets.ts';
import { isCounted } from '../../../core/units/counted.ts';
import { queries } from '../../api/queries.ts';
import { useWrite } from '../../api/write.ts';
import { Refusal } from '../../parts/Fields.tsx';
import { Graduated } from '../../parts/Graduated.tsx';
import { Guarded } from '../../parts/Guarded.tsx';
import { isGone, Missing, Page, Waiting } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { PackedWith } from './PackedWith.tsx';
import { Papers } from './Papers.tsx';
import { Hands, ScaleCount } from './ScaleCount.tsx';
import { useScale } from './useScale.ts';

const left = ({ packs, packed }: OrderLine) => Math.max(0, packs - packed);

/** One bag after another: what goes in, whether that is all of it, and on to the next. */
export function PackingPage() {
  const { id = '' } = useParams();
  const { data: order, error } = useQuery(queries.order(id));
  const { data: packing } = useQuery(queries.packing(id));
  const [chosen, choose] = useState<string | null>(null);
  if (isGone(error, order)) return <Missing error={error} back="All orders" backTo="/orders" />;
  if (!order || !packing) return <Waiting />;
  const canBePacked = (line: OrderLine) =>
    left(line) > 0 && (packing.lines.find(({ lineId }) => lineId === line.id)?.from.length ?? 0) > 0;
  const open = order.lines.filter((line) => left(line) > 0);
  // A set is packed at its first line.
  const first = (one: OrderLine) => setOf(order.lines, one)[0]?.id === one.id;
  const line =
    open.filter(first).find((one) => one.id === chosen) ?? open.filter(first).find(canBePacked) ?? open.find(first);
  return (
    <Page
      title={`Packing for ${order.customer}`}
      tab={`Packing ${order.code}`}
      under={
        <Link to={`/orders/${order.id}`} className="link figure">
          {order.code}
        </Link>
      }
    >
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_360px] gap-x-10 gap-y-6 items-start">
        {line && !order.sentAt && !order.cancelledAt ? (
          <OneBag key={line.id} order={order} line={line} packing={packing} />
        ) : (
          <p className="text-3xl font-bold rest">
            {order.sentAt ? 'It is sent.' : order.cancelledAt ? 'It is cancelled.' : 'All of it is packed.'}
          </p>
        )}
        <div className="flex flex-col gap-6">
          <section aria-label="Lines of the order">
            <ul className="ruled border-y border-[var(--rule)]">
              {order.lines.filter(first).map((one) => (
                <li key={one.id}>
                  <button
                    type="button"
                    className="w-full text-left py-2 px-2 bench-target flex gap-3 items-center row-hover"
                    aria-pressed={one.id === line?.id}
                    style={one.id === line?.id ? { background: 'var(--sheet)' } : undefined}
                    onClick={() => choose(one.id)}
                  >
                    <span
                      className="w-8 h-8 rounded-full border-2 border-[var(--ink)] shrink-0"
                      style={{ background: one.hex }}
                    />
                    <span className="flex-1 min-w-0">
                      <b className="block leading-tight">{one.setName ?? one.baitName}</b>
                      <span className="soft">
                        {setOf(order.lines, one)
                          .map(({ colourwayName }) => colourwayName)
                          .join(', ')}
                      </span>
                    </span>
                    <span className="w-28">
                      <Graduated
                        value={one.packed}
                        most={one.packs}
                        label={`${one.packed} of ${one.packs} packed`}
                        widthPx={108}
                      />
                      <span className="figure text-sm">
                        {one.packed} of {one.packs}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
          <PackedWith packing={packing} />
          <Papers order={order} />
        </div>
      </div>
    </Page>
  );
}

interface Packed {
  lineId: string;
  bags: 1;
  grams?: number;
  instrumentId?: string;
}

/** The bag that is filled now. */
function OneBag({ order, line, packing }: { order: Order; line: OrderLine; packing: Packing }) {
  const { text } = useTaste();
  const mine = packing.lines.find(({ lineId }) => lineId === line.id);
  const scale = useScale(order.id, line.perPack, mine?.mass ?? null);
  const [last, setLast] = useState<string | null>(null);
  const pack = useWrite<Order, Packed>(
    (body) => ({ path: `/orders/${order.id}/pack`, body }),
    ({ bags }) => {
      const code = bags.filter(({ lineId, unpacked }) => lineId === line.id && !unpacked).at(-1)?.code ?? null;
      setLast(code);
      scale.packed();
    },
  );
  const set = setOf(order.lines, line);
  const from = mine?.from ?? [];
  const nth = line.packed + 1;
  const fine = scale.said === null || scale.said.verdict === 'right' || scale.said.verdict === 'unsure';
  const weighed =
    scale.said && fine && scale.one && scale.grams !== null ? { grams: scale.grams, instrumentId: scale.one.id } : {};
  return (
    <section aria-label="This bag" className="flex flex-col gap-5">
      <div className="flex gap-5 items-center">
        <span
          className="w-20 h-20 rounded-full border-[3px] border-[var(--ink)] shrink-0"
          style={{ background: line.hex }}
        />
        <div className="min-w-0">
          <p className="bench-text soft">
            Bag <span className="figure">{nth}</span> of <span className="figure">{line.packs}</span>
          </p>
          {set.length > 1 && <p className="text-2xl font-bold">{line.setName}</p>}
          {set.map((one) => (
            <div key={one.id}>
              <h2 className={`${set.length > 1 ? 'text-2xl sm:text-3xl' : 'text-4xl sm:text-5xl'} leading-none`}>
                <span className="figure">{one.perPack}</span> × {one.baitName}
              </h2>
              <p className={set.length > 1 ? 'text-xl' : 'text-2xl'}>{one.colourwayName}</p>
            </div>
          ))}
        </div>
      </div>
      {from.length > 0 ? (
        <p className="bench-text">
          out of{' '}
          {from.map(({ pourCode, baits }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a set may take twice out of one cup
            <span key={`${pourCode} ${i}`}>
              {i > 0 && ' and '}
              <b className="figure">{pourCode}</b>
              {from.length > 1 && `, ${baits} of it`}
            </span>
          ))}
          , the oldest first
        </p>
      ) : (
        <p className="bench-text heat font-bold">
          {set.length > 1 ? 'Not all of it is cured.' : `Fewer than ${line.perPack} are cured.`}{' '}
          <Link to={`/orders/${order.id}`} className="link">
            Share out, or send part
          </Link>
        </p>
      )}
      {packing.with.length > 0 && (
        <p className="bench-text -mt-3">
          with{' '}
          {packing.with
            .map(({ name, amount, kind }) => `${isCounted(kind) ? amount : text(amount, 'mass')} ${name}`)
            .join(', ')}
        </p>
      )}
      <div className="flex gap-x-6 gap-y-4 items-start flex-wrap">
        {set.length === 1 && <ScaleCount scale={scale} line={line} mass={mine?.mass ?? null} />}
        <div className="flex flex-col gap-2 items-start">
          <Guarded
            means={`pack ${line.id} ${line.packed} ${fine} ${scale.full}`}
            className={`btn ${fine ? 'btn-primary' : 'btn-line'} min-h-24 h-auto text-3xl px-10`}
            onAct={() => {
              if (from.length > 0 && !scale.full && !pack.isPending)
                pack.mutate({ lineId: line.id, bags: 1, ...weighed });
            }}
          >
            {scale.full ? 'Take the bag off' : fine ? 'Packed' : 'Pack it all the same'}
          </Guarded>
          {last && (
            <Link to={`/bags/${last}`} className="link bench-text figure">
              {last}
            </Link>
          )}
        </div>
      </div>
      <Hands scale={scale} mass={mine?.mass ?? null} />
      <Refusal error={pack.error} />
      <p className="soft">
        A bag takes <span className="figure">{Math.round(packing.time.packS)}</span> s here
        {packing.time.of > 0 ? (
          `, by the last ${packing.time.of}`
        ) : (
          <>
            {' '}
            <span className="default-mark">{packing.time.packS === usual('packS') ? 'default' : 'as set'}</span>
          </>
        )}
        .
      </p>
    </section>
  );
}
