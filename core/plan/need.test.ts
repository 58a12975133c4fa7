import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cupTotals } from '../plastisol/cup.ts';
import { tonight } from './evening.ts';
import { cupsFor, shareOut } from './need.ts';

describe('sharing out the rack', () => {
  const line = (lineId: string, baits: number, inPour = 0) => ({
    lineId,
    baitId: 'b',
    colourwayId: 'r',
    baits,
    inPour,
  });
  test('earliest first: ready, then curing, then an open pour, then short', () => {
    const needs = shareOut(
      [line('1', 10), line('2', 10, 4)],
      [{ baitId: 'b', colourwayId: 'r', ready: 12, curing: 3 }],
    );
    expect(needs.map(({ fromReady, fromCuring, fromPour, short }) => [fromReady, fromCuring, fromPour, short])).toEqual(
      [
        [10, 0, 0, 0],
        [2, 3, 4, 1],
      ],
    );
  });
  test('no bait is promised twice, none is forgotten', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(40), { minLength: 1 }), fc.nat(60), fc.nat(60), (wanted, ready, curing) => {
        const needs = shareOut(
          wanted.map((baits, i) => line(String(i), baits)),
          [{ baitId: 'b', colourwayId: 'r', ready, curing }],
        );
        const sum = (of: 'fromReady' | 'fromCuring' | 'short') => needs.reduce((total, need) => total + need[of], 0);
        const all = wanted.reduce((a, b) => a + b, 0);
        expect(sum('fromReady')).toBe(Math.min(ready, all));
        expect(sum('fromCuring')).toBe(Math.min(curing, all - Math.min(ready, all)));
        expect(sum('short')).toBe(Math.max(0, all - ready - curing));
      }),
    );
  });
});

test('cups: one a colour, the mold with most cavities, and what no mold makes is said', () => {
  const need = (lineId: string, baitId: string, colourwayId: string, short: number) => ({
    lineId,
    baitId,
    colourwayId,
    baits: short,
    fromReady: 0,
    fromCuring: 0,
    fromPour: 0,
    short,
  });
  const mold = (id: string, baitId: string, cavities: number) => ({
    id,
    baitId,
    cavities,
    cavityMl: 10,
    sprueMl: 5,
    runnerMl: 0,
    injectorMl: null,
    made: 0,
    rejected: 0,
  });
  const cups = cupsFor(
    [need('1', 'a', 'red', 16), need('2', 'a', 'red', 4), need('3', 'z', 'red', 2), need('4', 'a', 'blue', 0)],
    [mold('small', 'a', 2), mold('big', 'a', 4)],
  );
  expect(cups).toHaveLength(1);
  // 20 good of 4 a shot: 6 shots, since of 5 not one may be bad.
  expect(cups[0]).toMatchObject({
    colourwayId: 'red',
    molds: [{ moldId: 'big', shots: 6, goodNeeded: 20 }],
    orderLines: [
      { orderLineId: '1', baits: 16 },
      { orderLineId: '2', baits: 4 },
    ],
    withoutMold: [{ baitId: 'z', baits: 2 }],
  });
  expect(cups[0]?.cookMl).toBeCloseTo(6 * 47.7 + 8, 9);
});

test('an evening takes the earliest orders as long as three colours do', () => {
  const order = (id: string, dueOn: string, ...colourwayIds: string[]) => ({ id, dueOn, colourwayIds });
  expect(
    tonight([order('late', '2026-05-09', 'e'), order('b', '2026-05-02', 'a', 'c'), order('a', '2026-05-01', 'a', 'b')]),
  ).toEqual({ orderIds: ['a', 'b'], colourwayIds: ['a', 'b', 'c'] });
  expect(tonight([order('a', '2026-05-01', 'a', 'b', 'c', 'd')]).colourwayIds).toHaveLength(4);
});

test('a cup at any moment holds what was dosed and not taken back by then', () => {
  const dose = (seq: number, materialId: string, amount: number, reverses: string | null = null) => ({
    seq,
    id: `d${seq}`,
    materialId,
    amount,
    unit: 'drop',
    reverses,
  });
  const rows = [dose(1, 'blue', 20), dose(2, 'black', 1), dose(3, 'black', 1, 'd2'), dose(4, 'blue', 5)];
  const at = (seq?: number) => cupTotals(rows, seq).map(({ materialId, amount }) => `${materialId} ${amount}`);
  expect([at(0), at(2), at(3), at()]).toEqual([[], ['blue 20', 'black 1'], ['blue 20'], ['blue 25']]);
});
