import type { Today } from '../../../contract/today.ts';

/** How many of each the stream shows. */
export const MOST = { cups: 4, heaps: 5, orders: 5 };

export interface Heap {
  key: string;
  colourwayId: string;
  colourwayName: string;
  baitName: string;
  hex: string;
  ready: number;
  curing: number;
}

/** The rack by colour and bait, the heaps that open orders want first; a quiet week or forty colours both fit. */
export function heapsOf(today: Today): Heap[] {
  const heaps = new Map<string, Heap>();
  for (const row of today.rack) {
    const key = `${row.colourwayId} ${row.baitName}`;
    const heap = heaps.get(key) ?? {
      key,
      ready: 0,
      curing: 0,
      colourwayId: row.colourwayId,
      colourwayName: row.colourwayName,
      baitName: row.baitName,
      hex: row.hex,
    };
    heap[row.cured ? 'ready' : 'curing'] += row.baits;
    heaps.set(key, heap);
  }
  const wanted = (heap: Heap) =>
    today.orders.some((order) =>
      order.lines.some(
        (line) => line.colourwayId === heap.colourwayId && line.baitName === heap.baitName && line.packsLeft > 0,
      ),
    );
  return [...heaps.values()].sort(
    (a, b) => Number(wanted(b)) - Number(wanted(a)) || b.ready + b.curing - a.ready - a.curing,
  );
}
