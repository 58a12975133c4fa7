import { describe, expect, test } from 'vitest';
import type { Today } from '../../../contract/today.ts';
import { heapsOf } from './heaps.ts';
import { tiesOf } from './Ties.tsx';

const row = (colourwayId: string, baitName: string, baits: number, cured: boolean) =>
  ({
    colourwayId,
    colourwayName: colourwayId,
    hex: `#${colourwayId}`,
    baitName,
    baits,
    cured,
  }) as Today['rack'][number];
const line = (colourwayId: string, baitName: string, packsLeft: number) => ({ colourwayId, baitName, packsLeft });
const order = (id: string, ...lines: ReturnType<typeof line>[]) =>
  ({ id, lines }) as unknown as Today['orders'][number];
const cup = (colourwayId: string, molds: string[], orderIds: string[]) =>
  ({
    colourwayId,
    hex: `#${colourwayId}`,
    molds: molds.map((moldId) => ({ moldId })),
    orderIds,
  }) as Today['cups'][number];
const today = (part: Partial<Today>) => ({ rack: [], orders: [], cups: [], ...part }) as unknown as Today;

describe('the rack in heaps', () => {
  test('one heap a colour and bait, cured and curing apart', () => {
    const rack = [row('a', 'Sandlance', 10, true), row('a', 'Sandlance', 4, false), row('a', 'Gannet', 3, true)];
    expect(heapsOf(today({ rack }))).toMatchObject([
      { colourwayId: 'a', baitName: 'Sandlance', ready: 10, curing: 4 },
      { colourwayId: 'a', baitName: 'Gannet', ready: 3, curing: 0 },
    ]);
  });

  test('what an open order still wants comes first, then the larger heap', () => {
    const rack = [row('a', 'x', 90, true), row('b', 'x', 5, true), row('c', 'x', 8, false), row('d', 'x', 40, true)];
    const orders = [order('o', line('b', 'x', 1), line('c', 'x', 2), line('d', 'x', 0), line('a', 'other bait', 3))];
    expect(heapsOf(today({ rack, orders })).map((heap) => heap.colourwayId)).toEqual(['c', 'b', 'a', 'd']);
  });
});

describe('what is tied to what', () => {
  const tied = (part: Partial<Today>) => {
    const now = today(part);
    return tiesOf(now, heapsOf(now)).map(({ from, to, dashed }) => `${from} ${dashed ? '··' : '––'} ${to}`);
  };

  test('a cup to its molds, they to what is expected, that to its orders: all of it still to come', () => {
    expect(tied({ cups: [cup('a', ['m1', 'm2'], ['o1'])] })).toEqual([
      'cup a ·· mold a m1',
      'mold a m1 ·· expected a',
      'cup a ·· mold a m2',
      'mold a m2 ·· expected a',
      'expected a ·· order o1',
    ]);
  });

  test('a heap to each order that wants of it; not where all is packed, nor of another bait', () => {
    const rack = [row('a', 'Sandlance', 9, true)];
    const orders = [
      order('wants', line('a', 'Sandlance', 1)),
      order('packed', line('a', 'Sandlance', 0)),
      order('other', line('a', 'Gannet', 4), line('b', 'Sandlance', 4)),
    ];
    expect(tied({ rack, orders })).toEqual(['heap a Sandlance –– order wants']);
  });
});
