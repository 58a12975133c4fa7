import { type RefObject, useEffect, useState } from 'react';
import type { Today } from '../../../contract/today.ts';
import { type Heap, heapsOf, MOST } from './heaps.ts';

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

/** What is drawn from what to what; dashed where it is still to come. */
export function tiesOf(today: Today, heaps: Heap[]): Tie[] {
  const ties: Tie[] = [];
  for (const cup of today.cups) {
    for (const mold of cup.molds) {
      ties.push({
        from: `cup ${cup.colourwayId}`,
        to: `mold ${cup.colourwayId} ${mold.moldId}`,
        hex: cup.hex,
        dashed: true,
      });
      ties.push({
        from: `mold ${cup.colourwayId} ${mold.moldId}`,
        to: `expected ${cup.colourwayId}`,
        hex: cup.hex,
        dashed: true,
      });
    }
    for (const orderId of cup.orderIds)
      ties.push({ from: `expected ${cup.colourwayId}`, to: `order ${orderId}`, hex: cup.hex, dashed: true });
  }
  for (const heap of heaps) {
    for (const order of today.orders) {
      if (
        order.lines.some(
          (line) => line.colourwayId === heap.colourwayId && line.baitName === heap.baitName && line.packsLeft > 0,
        )
      ) {
        ties.push({ from: `heap ${heap.key}`, to: `order ${order.id}`, hex: heap.hex, dashed: false });
      }
    }
  }
  return ties;
}

/** From here on the columns stand beside each other, and ties are drawn between them. */
const SIDE_BY_SIDE = '(min-width: 64rem)';

/** Ties join what stands in columns beside each other; where these stand under each other there is nothing to join. */
export function Ties({ box, today }: { box: RefObject<HTMLDivElement | null>; today: Today }) {
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
