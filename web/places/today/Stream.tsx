import { useRef } from 'react';
import { Link } from 'react-router';
import type { OrderRow } from '../../../contract/orders.ts';
import type { Today } from '../../../contract/today.ts';
import { inGlasses } from '../../../core/plastisol/batch.ts';
import { cupsText } from '../../../core/units/show.ts';
import { dayText } from '../../parts/dates.ts';
import { Glass } from '../../parts/Glass.tsx';
import { range } from '../../parts/range.ts';
import { useTaste } from '../../parts/taste.tsx';
import { STATE_WORDS, stateColour } from '../../parts/words/order.ts';
import { type Heap, heapsOf, MOST } from './heaps.ts';
import { Ties } from './Ties.tsx';

/** What should still be in a cup, by the shots that are left to draw. */
const leftMl = ({ cookMl, shotsDone, shotsPlanned }: Today['openPours'][number]) =>
  cookMl * Math.max(0, 1 - shotsDone / Math.max(1, shotsPlanned));

/** The run of the workshop, cups to orders: what lies there in its own colour, tonight's part still dashed. */
export function Stream({ today }: { today: Today }) {
  const box = useRef<HTMLDivElement>(null);
  const cups = today.cups.slice(0, MOST.cups);
  return (
    <div
      ref={box}
      className="relative grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-[170px_216px_minmax(0,1fr)_230px] xl:grid-cols-[200px_270px_minmax(0,1fr)_290px] gap-x-8 lg:gap-x-12 xl:gap-x-16 gap-y-6 items-start"
    >
      <Ties box={box} today={today} />
      <Cups today={today} cups={cups} />
      <Molds cups={cups} />
      <Heaps heaps={heapsOf(today)} cups={cups} />
      <Orders today={today} />
    </div>
  );
}

type Cups = Today['cups'];

function Cups({ today, cups }: { today: Today; cups: Cups }) {
  const { text, workshop } = useTaste();
  const under = today.cups.length > 0 ? 'to pour' : today.openPours.length > 0 ? 'under way' : 'none needed';
  return (
    <Column title="Cups" under={under}>
      {today.openPours.map((pour) => (
        <Link key={pour.id} to={`/pours/${pour.id}/bench`} className="flex gap-3 items-end mb-5 relative">
          <Glass
            hex={pour.hex}
            {...inGlasses(leftMl(pour), workshop.glassMl)}
            widthPx={72}
            label={`${pour.colourwayName}, ${pour.shotsDone} of ${pour.shotsPlanned} shots drawn`}
          />
          <span>
            <b className="text-lg leading-tight block">{pour.colourwayName}</b>
            <span className="figure text-sm heat">
              {pour.shotsDone} of {pour.shotsPlanned} shots
            </span>
          </span>
        </Link>
      ))}
      {cups.map((cup) => (
        <div key={cup.colourwayId} className="flex gap-3 items-end mb-5 relative" data-tie={`cup ${cup.colourwayId}`}>
          <Glass
            hex={cup.hex}
            glasses={cup.tonight.glasses}
            fill={Math.min(1, cup.cookMl / cup.evenings / cup.tonight.glasses / workshop.glassMl)}
            widthPx={72}
            label={`${cup.colourwayName}, ${text(cup.cookMl, 'volume')}`}
          />
          <span className="bg-[var(--paper)] rounded pr-1">
            <Link to={`/colours/${cup.colourwayId}`} className="font-bold text-lg leading-tight block">
              {cup.colourwayName}
            </Link>
            <span className="figure block">{cupsText(cup.cookMl)}</span>
            <span className="figure text-sm soft">
              {text(cup.cookMl, 'volume')}
              {cup.evenings > 1 && `, ${cup.evenings} evenings`}
            </span>
          </span>
        </div>
      ))}
      {today.laterCups > 0 && <p className="soft">and {today.laterCups} more colours another evening</p>}
    </Column>
  );
}

function Molds({ cups }: { cups: Cups }) {
  return (
    <Column title="Molds" under={cups.length > 0 ? 'shots' : 'at rest'}>
      {cups.flatMap((cup) =>
        cup.molds.map((mold) => (
          <Link
            key={`${cup.colourwayId} ${mold.moldId}`}
            to={`/molds/${mold.moldId}`}
            data-tie={`mold ${cup.colourwayId} ${mold.moldId}`}
            className="block border-[3px] border-[var(--ink)] rounded-md bg-[var(--sheet)] px-3 py-2 mb-4 relative"
          >
            <b className="leading-tight block">{mold.moldName}</b>
            <span className="flex items-center gap-1 xl:gap-1.5">
              {range(Math.min(6, mold.cavities)).map((i) => (
                <span
                  key={i}
                  className="w-3.5 h-3.5 xl:w-4 xl:h-4 rounded-full border border-[var(--edge)]"
                  style={{ background: cup.hex }}
                />
              ))}
              <span className="figure ml-auto whitespace-nowrap">{mold.shots} shots</span>
            </span>
            <span className="label-small">
              about {Math.round(mold.expectedGood)} good, at least {mold.goodNeeded}, 9 in 10
            </span>
          </Link>
        )),
      )}
    </Column>
  );
}

function Heaps({ heaps, cups }: { heaps: Heap[]; cups: Cups }) {
  return (
    <Column title="Rack" under={heaps.length > 0 ? 'baits, cured and curing' : 'empty'}>
      {cups.map((cup) => {
        const [about, least] = [
          cup.molds.reduce((sum, mold) => sum + mold.expectedGood, 0),
          cup.molds.reduce((sum, mold) => sum + mold.goodNeeded, 0),
        ];
        return (
          <div
            key={cup.colourwayId}
            data-tie={`expected ${cup.colourwayId}`}
            className="relative w-fit max-w-full mb-3 px-2.5 py-1 border-2 border-dashed rounded bg-[var(--paper)]"
            style={{ borderColor: cup.hex }}
          >
            <span className="heat font-bold leading-tight block whitespace-nowrap">
              <span className="figure">{Math.round(about)}</span> expected
            </span>
            <span className="label-small block">
              at least {least} {cup.colourwayName}
            </span>
          </div>
        );
      })}
      {heaps.slice(0, MOST.heaps).map((heap) => (
        <Link
          key={heap.key}
          to="/rack"
          data-tie={`heap ${heap.key}`}
          className="block mb-3 relative w-fit max-w-full bg-[var(--paper)] rounded pr-2"
        >
          <span className="flex items-end gap-2">
            <Dots n={heap.ready + heap.curing} curing={heap.curing} hex={heap.hex} />
            <b className="figure text-lg leading-none">{heap.ready + heap.curing}</b>
          </span>
          <span className="label-small">
            {heap.baitName} <b>{heap.colourwayName}</b>
            {heap.curing > 0 && <span className="warn whitespace-nowrap"> {heap.curing} curing</span>}
          </span>
        </Link>
      ))}
      {heaps.length > MOST.heaps && (
        <Link to="/rack" className="link soft text-sm">
          and {heaps.length - MOST.heaps} more heaps
        </Link>
      )}
    </Column>
  );
}

function Orders({ today }: { today: Today }) {
  const orders = today.orders.slice(0, MOST.orders);
  return (
    <Column title="Orders" under={orders.length > 0 ? 'earliest due first' : 'none open'}>
      {orders.map((order) => (
        <Link
          key={order.id}
          to={`/orders/${order.id}`}
          data-tie={`order ${order.id}`}
          className="block border-t-[3px] border-[var(--ink)] bg-[var(--paper)] pt-1.5 pb-3 pl-3 relative"
        >
          <b className="text-lg leading-tight block">{order.customer}</b>
          <span className="flex justify-between">
            <span className="figure text-sm soft">{dayText(order.dueOn)}</span>
            <b style={{ color: stateColour(order.state as OrderRow['state']) }}>
              {order.shortBaits > 0 ? `short ${order.shortBaits}` : STATE_WORDS[order.state as OrderRow['state']]}
            </b>
          </span>
          <span className="flex gap-[3px] mt-1 flex-wrap">
            {order.lines.flatMap((line) =>
              range(Math.min(14, line.packsLeft)).map((i) => (
                <span
                  key={`${line.colourwayId} ${line.baitName} ${i}`}
                  className="w-2.5 h-4 border border-[var(--ink)]"
                  style={{ background: i < line.packsReady ? line.hex : 'transparent' }}
                />
              )),
            )}
          </span>
        </Link>
      ))}
      {today.orders.length > MOST.orders && (
        <Link to="/orders" className="link soft text-sm">
          and {today.orders.length - MOST.orders} more
        </Link>
      )}
    </Column>
  );
}

function Column({ title, under, children }: { title: string; under: string; children: React.ReactNode }) {
  return (
    <section className="min-w-0">
      <h2 className="relative">{title}</h2>
      <p className="figure text-sm soft mb-3 relative">{under}</p>
      {children}
    </section>
  );
}

/** Baits as dots that can be counted, ten to a row; many are drawn by the ten. */
function Dots({ n, curing, hex }: { n: number; curing: number; hex: string }) {
  const per = n > 60 ? 10 : 1;
  const dots = Math.ceil(n / per);
  const open = Math.round(curing / per);
  const r = per === 10 ? 6 : 4.6;
  const step = r * 2 + 2;
  const rowsOf = per === 10 ? 12 : 15;
  return (
    <svg width={Math.min(dots, rowsOf) * step} height={Math.ceil(dots / rowsOf) * step} aria-hidden="true">
      {range(dots).map((i) => (
        <circle
          key={i}
          cx={(i % rowsOf) * step + r}
          cy={Math.floor(i / rowsOf) * step + r}
          r={r - 0.8}
          fill={i >= dots - open ? 'transparent' : hex}
          stroke={i >= dots - open ? hex : 'var(--edge)'}
          strokeWidth={i >= dots - open ? 1.8 : 0.8}
        />
      ))}
    </svg>
  );
}
