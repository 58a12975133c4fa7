import { type RefObject, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { OrderRow } from '../../../contract/orders.ts';
import type { Today } from '../../../contract/today.ts';
import { inGlasses } from '../../../core/plastisol/batch.ts';
import { cupsText } from '../../../core/units/show.ts';
import { dayText } from '../../parts/dates.ts';
import { Glass } from '../../parts/Glass.tsx';
import { range } from '../../parts/range.ts';
import { useTaste } from '../../parts/taste.tsx';
import { STATE_WORDS, stateColour } from '../orders/words.ts';

interface Ribbon {
  key: string;
  path: string;
  hex: string;
  dashed: boolean;
}

/** A smooth ribbon from the right edge of one thing to the left edge of another. */
function ribbon(from: DOMRect, to: DOMRect, origin: DOMRect): string {
  const [x1, y1] = [from.right - origin.left, from.top + from.height / 2 - origin.top];
  const [x2, y2] = [to.left - origin.left, to.top + to.height / 2 - origin.top];
  const bend = Math.max(24, (x2 - x1) / 2);
  return `M${x1} ${y1} C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`;
}

interface Tie {
  from: string;
  to: string;
  hex: string;
  dashed: boolean;
}

function tiesOf(today: Today, heaps: Heap[]): Tie[] {
  const ties: Tie[] = [];
  for (const cup of today.cups) {
    for (const mold of cup.molds) {
      ties.push({ from: `cup ${cup.recipeId}`, to: `mold ${cup.recipeId} ${mold.moldId}`, hex: cup.hex, dashed: true });
      ties.push({
        from: `mold ${cup.recipeId} ${mold.moldId}`,
        to: `expected ${cup.recipeId}`,
        hex: cup.hex,
        dashed: true,
      });
    }
    for (const orderId of cup.orderIds)
      ties.push({ from: `expected ${cup.recipeId}`, to: `order ${orderId}`, hex: cup.hex, dashed: true });
  }
  for (const heap of heaps) {
    for (const order of today.orders) {
      if (
        order.lines.some(
          (line) => line.recipeId === heap.recipeId && line.baitName === heap.baitName && line.packsLeft > 0,
        )
      ) {
        ties.push({ from: `heap ${heap.key}`, to: `order ${order.id}`, hex: heap.hex, dashed: false });
      }
    }
  }
  return ties;
}

interface Heap {
  key: string;
  recipeId: string;
  recipeName: string;
  baitName: string;
  hex: string;
  ready: number;
  curing: number;
}

/** The rack by colour and bait, the heaps that open orders want first; a quiet week or forty colours both fit. */
function heapsOf(today: Today): Heap[] {
  const heaps = new Map<string, Heap>();
  for (const row of today.rack) {
    const key = `${row.recipeId} ${row.baitName}`;
    const heap = heaps.get(key) ?? {
      key,
      ready: 0,
      curing: 0,
      recipeId: row.recipeId,
      recipeName: row.recipeName,
      baitName: row.baitName,
      hex: row.hex,
    };
    heap[row.cured ? 'ready' : 'curing'] += row.baits;
    heaps.set(key, heap);
  }
  const wanted = (heap: Heap) =>
    today.orders.some((order) =>
      order.lines.some(
        (line) => line.recipeId === heap.recipeId && line.baitName === heap.baitName && line.packsLeft > 0,
      ),
    );
  return [...heaps.values()].sort(
    (a, b) => Number(wanted(b)) - Number(wanted(a)) || b.ready + b.curing - a.ready - a.curing,
  );
}

/** What should still be in a cup, by the shots that are left to draw. */
const leftMl = ({ cookMl, shotsDone, shotsPlanned }: Today['openPours'][number]) =>
  cookMl * Math.max(0, 1 - shotsDone / Math.max(1, shotsPlanned));

const MOST = { cups: 4, heaps: 5, orders: 5 };
/** From here on the columns stand beside each other, and ties are drawn between them. */
const SIDE_BY_SIDE = '(min-width: 64rem)';

/** Ties join what stands in columns beside each other; where these stand under each other there is nothing to join. */
function Ties({ box, today }: { box: RefObject<HTMLDivElement | null>; today: Today }) {
  const [ribbons, setRibbons] = useState<Ribbon[]>([]);
  // After the first paint and once a frame: to measure is to lay the page out, and the sentence above must not wait for it.
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let frame = 0;
    const draw = () => {
      if (!window.matchMedia(SIDE_BY_SIDE).matches) return setRibbons((were) => (were.length > 0 ? [] : were));
      const origin = element.getBoundingClientRect();
      const rect = (id: string) => element.querySelector(`[data-tie="${CSS.escape(id)}"]`)?.getBoundingClientRect();
      setRibbons(
        tiesOf(today, heapsOf(today).slice(0, MOST.heaps)).flatMap((tie) => {
          const [from, to] = [rect(tie.from), rect(tie.to)];
          return from && to
            ? [{ key: `${tie.from} ${tie.to}`, path: ribbon(from, to, origin), hex: tie.hex, dashed: tie.dashed }]
            : [];
        }),
      );
    };
    const soon = () => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(draw);
    };
    const observer = new ResizeObserver(soon);
    observer.observe(element);
    // Its event, not its promise: to ask for that lays the page out at once.
    document.fonts.addEventListener('loadingdone', soon);
    return () => {
      observer.disconnect();
      document.fonts.removeEventListener('loadingdone', soon);
      cancelAnimationFrame(frame);
    };
  }, [box, today]);
  return (
    <svg className="absolute inset-0 w-full h-full pointer-events-none hidden lg:block" aria-hidden="true">
      {/* A pale edge under each, so that a dark colour is seen at night and a pale one by day. */}
      {ribbons.map(({ key, path, dashed }) => (
        <path
          key={key}
          d={path}
          fill="none"
          stroke="var(--edge)"
          strokeOpacity={dashed ? 0.55 : 0.35}
          strokeWidth={dashed ? 13 : 17}
          strokeDasharray={dashed ? '4 5' : undefined}
        />
      ))}
      {ribbons.map(({ key, path, hex, dashed }) => (
        <path
          key={key}
          d={path}
          fill="none"
          stroke={hex}
          strokeWidth={dashed ? 11 : 14}
          strokeOpacity={dashed ? 0.75 : 0.5}
          strokeDasharray={dashed ? '4 5' : undefined}
        />
      ))}
    </svg>
  );
}

/** The run of the workshop, cups to orders: what lies there in its own colour, tonight's part still dashed. */
export function Stream({ today }: { today: Today }) {
  const { text, workshop } = useTaste();
  const box = useRef<HTMLDivElement>(null);
  const heaps = heapsOf(today);
  const cups = today.cups.slice(0, MOST.cups);
  const orders = today.orders.slice(0, MOST.orders);
  return (
    <div
      ref={box}
      className="relative grid grid-cols-1 sm:grid-cols-2 lg:grid-cols-[170px_216px_minmax(0,1fr)_230px] xl:grid-cols-[200px_270px_minmax(0,1fr)_290px] gap-x-8 lg:gap-x-12 xl:gap-x-16 gap-y-6 items-start"
    >
      <Ties box={box} today={today} />
      <Column
        title="Cups"
        under={today.cups.length > 0 ? 'to pour' : today.openPours.length > 0 ? 'under way' : 'none needed'}
      >
        {today.openPours.map((pour) => (
          <Link key={pour.id} to={`/pours/${pour.id}/bench`} className="flex gap-3 items-end mb-5 relative">
            <Glass
              hex={pour.hex}
              {...inGlasses(leftMl(pour), workshop.glassMl)}
              widthPx={72}
              label={`${pour.recipeName}, ${pour.shotsDone} of ${pour.shotsPlanned} shots drawn`}
            />
            <span>
              <b className="text-lg leading-tight block">{pour.recipeName}</b>
              <span className="figure text-sm heat">
                {pour.shotsDone} of {pour.shotsPlanned} shots
              </span>
            </span>
          </Link>
        ))}
        {cups.map((cup) => (
          <div key={cup.recipeId} className="flex gap-3 items-end mb-5 relative" data-tie={`cup ${cup.recipeId}`}>
            <Glass
              hex={cup.hex}
              {...inGlasses(cup.cookMl, workshop.glassMl)}
              widthPx={72}
              label={`${cup.recipeName}, ${text(cup.cookMl, 'volume')}`}
            />
            <span className="bg-[var(--paper)] rounded pr-1">
              <Link to={`/colours/${cup.recipeId}`} className="font-bold text-lg leading-tight block">
                {cup.recipeName}
              </Link>
              <span className="figure block">{cupsText(cup.cookMl)}</span>
              <span className="figure text-sm soft">{text(cup.cookMl, 'volume')}</span>
            </span>
          </div>
        ))}
        {today.laterCups > 0 && <p className="soft">and {today.laterCups} more colours another evening</p>}
      </Column>
      <Column title="Molds" under={cups.length > 0 ? 'shots' : 'at rest'}>
        {cups.flatMap((cup) =>
          cup.molds.map((mold) => (
            <Link
              key={`${cup.recipeId} ${mold.moldId}`}
              to={`/molds/${mold.moldId}`}
              data-tie={`mold ${cup.recipeId} ${mold.moldId}`}
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
      <Column title="Rack" under={heaps.length > 0 ? 'baits, cured and curing' : 'empty'}>
        {cups.map((cup) => {
          const [about, least] = [
            cup.molds.reduce((sum, mold) => sum + mold.expectedGood, 0),
            cup.molds.reduce((sum, mold) => sum + mold.goodNeeded, 0),
          ];
          return (
            <div
              key={cup.recipeId}
              data-tie={`expected ${cup.recipeId}`}
              className="relative w-fit max-w-full mb-3 px-2.5 py-1 border-2 border-dashed rounded bg-[var(--paper)]"
              style={{ borderColor: cup.hex }}
            >
              <span className="heat font-bold leading-tight block whitespace-nowrap">
                <span className="figure">{Math.round(about)}</span> expected
              </span>
              <span className="label-small block">
                at least {least} {cup.recipeName}
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
              {heap.baitName} <b>{heap.recipeName}</b>
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
                    key={`${line.recipeId} ${line.baitName} ${i}`}
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
    </div>
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
