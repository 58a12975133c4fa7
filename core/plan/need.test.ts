import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { cupTotals } from '../plastisol/cup.ts';
import { type CupNeed, cupsFor, shareOut } from './need.ts';

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

const MEANS = {
  layersOf: (colourwayId: string) => [{ measure: 'share' as const, amount: 1, joins: null, recipeId: colourwayId }],
  glassMl: 473,
  eveningH: 3,
};

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
    waitS: 120,
  });
  const cups = cupsFor(
    [need('1', 'a', 'red', 16), need('2', 'a', 'red', 4), need('3', 'z', 'red', 2), need('4', 'a', 'blue', 0)],
    [mold('small', 'a', 2), mold('big', 'a', 4)],
    MEANS,
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

describe('twins, evenings and glasses', () => {
  const twin = (id: string, change: object = {}) => ({
    id,
    baitId: 'a',
    cavities: 4,
    cavityMl: 10,
    sprueMl: 5,
    runnerMl: 0,
    injectorMl: null,
    made: 4000,
    rejected: 0,
    waitS: 120,
    ...change,
  });
  const need = (short: number) => ({
    lineId: '1',
    baitId: 'a',
    colourwayId: 'red',
    baits: short,
    fromReady: 0,
    fromCuring: 0,
    fromPour: 0,
    short,
  });
  const of = (short: number, molds: ReturnType<typeof twin>[], means = MEANS) =>
    cupsFor([need(short)], molds, means)[0] as CupNeed;

  test('1,200 baits over two twin molds: half each, several evenings, each what its hours and glasses hold', () => {
    const cup = of(1200, [twin('left'), twin('right')]);
    const [left, right] = cup.molds.map((mold) => mold.shots) as [number, number];
    expect([Math.abs(left - right) <= 1, cup.molds.map((mold) => mold.goodNeeded)]).toEqual([true, [600, 600]]);
    // One pair of hands, 130 s a shot, is slower than either mold: 300 shots and a few are 11 h.
    expect(cup.minutes).toBeCloseTo(((left + right) * 130) / 60, 9);
    expect(cup.evenings).toBe(Math.ceil(cup.minutes / (3 * 60 - 25)));
    expect(cup.hours).toBeCloseTo((cup.minutes + 25 * cup.evenings) / 60, 9);
    const tonight = cup.tonight as NonNullable<CupNeed['tonight']>;
    const shots = tonight.molds.reduce((sum, mold) => sum + mold.shots, 0);
    expect(shots * 130).toBeLessThanOrEqual(155 * 60);
    expect(shots).toBeGreaterThanOrEqual(70);
    // A cup of 473 mL takes 8 shots of 47.7 mL within its 85 %.
    expect(tonight.glasses).toBe(Math.ceil(shots / 8));
    expect(tonight.orderLines).toEqual([{ orderLineId: '1', baits: shots * 4 }]);
  });

  test('a twin shortens the waits, not the hands', () => {
    const [one, two, three] = [1, 2, 3].map((n) =>
      of(
        400,
        ['x', 'y', 'z'].slice(0, n).map((id) => twin(id)),
      ),
    ) as [CupNeed, CupNeed, CupNeed];
    const shots = (cup: CupNeed) => cup.molds.reduce((sum, mold) => sum + mold.shots, 0);
    expect(one.minutes).toBeCloseTo((shots(one) * 250) / 60, 9);
    expect([two.minutes, three.minutes]).toEqual([(shots(two) * 130) / 60, (shots(three) * 130) / 60]);
  });

  test('a smaller mold is no twin, and one that sets is none yet', () => {
    const molds = [twin('big'), twin('small', { cavities: 2 }), twin('sets', { waits: true })];
    expect(of(40, molds).molds.map((mold) => mold.moldId)).toEqual(['big']);
    expect(of(40, [twin('sets', { waits: true })]).molds.map((mold) => mold.moldId)).toEqual(['sets']);
  });

  test('what fits is tonight, all of it; a single shot over its glasses is said', () => {
    const small = of(20, [twin('left')]);
    expect([small.evenings, small.tonight]).toMatchObject([
      1,
      { molds: [{ moldId: 'left', shots: small.molds[0]?.shots }], orderLines: [{ orderLineId: '1', baits: 20 }] },
    ]);
    expect(of(20, [twin('left', { cavityMl: 3000 })]).tonight).toBeNull();
  });

  test('hours that are given decide', () => {
    const evenings = [1, 3, 24].map((eveningH) => of(400, [twin('left')], { ...MEANS, eveningH }).evenings);
    const minutes = of(400, [twin('left')]).minutes;
    expect(evenings).toEqual([35, 155, 24 * 60 - 25].map((each) => Math.ceil(minutes / each)));
  });
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
