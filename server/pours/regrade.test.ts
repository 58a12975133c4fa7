import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Bin } from '../../contract/bins.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order, RackRow } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const rack = async () =>
  (await workshop.get<{ items: RackRow[] }>('/rack')).body.items.map((row) => [row.grade, row.baits]);
const mold = async () => {
  const { body } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
  return [body.made, body.rejected, body.health.map((cavity) => cavity.rejected)];
};
const again = (pour: Pour, cavity: number, more: object) =>
  workshop.post<Pour>(`/pours/${pour.id}/regraded`, { shotId: pour.shots[1]?.id, cavity, ...more });

describe('a bait that is looked at again after its cup was closed', () => {
  let pour: Pour;
  beforeEach(async () => {
    const open = await poured(workshop, stock, 2);
    pour = (await workshop.post<Pour>(`/pours/${open.id}/close`, closing(7, 1))).body;
  });

  test('changes its grade, the mold’s figures and the rack in one stroke', async () => {
    expect([await rack(), await mold()]).toEqual([[['sell', 7]], [8, 1, [1, 0, 0, 0]]]);
    const { body } = await again(pour, 3, { grade: 'own', reason: 'colour' });
    expect(body.shots[1]?.marks[2]).toEqual({ cavity: 3, grade: 'own', reason: 'colour' });
    expect([(await rack()).sort(), await mold()]).toEqual([
      [
        ['own', 1],
        ['sell', 6],
      ],
      [8, 2, [1, 0, 1, 0]],
    ]);
    await again(pour, 3, { grade: 'remelt', reason: 'bent' });
    expect(await rack()).toEqual([['sell', 6]]);
    await again(pour, 3, { grade: 'sell' });
    expect([await rack(), await mold()]).toEqual([[['sell', 7]], [8, 1, [1, 0, 0, 0]]]);
  });

  test('come back from a customer it lies on no rack; on the rack it has to be', async () => {
    workshop.waits(25);
    await workshop.post('/rack/out', {
      kind: 'given',
      baitId: stock.master.baitId,
      colourwayId: stock.recipe.id,
      baits: 7,
    });
    const rows = workshop.rows();
    const gone = await again(pour, 2, { grade: 'remelt', reason: 'bent' });
    expect([gone.body.error.code, gone.body.error.path]).toEqual(['not-enough-stock', 'cameBack']);
    expect(workshop.rows()).toBe(rows);
    expect((await again(pour, 2, { grade: 'remelt', reason: 'bent', cameBack: true })).status).toBe(201);
    expect([await rack(), await mold()]).toEqual([[], [8, 2, [1, 1, 0, 0]]]);
  });

  test.each([
    ['without a reason', { grade: 'remelt' }],
    ['to sell for a reason', { grade: 'sell', reason: 'bent' }],
    ['of a cavity that is not there', { cavity: 9, grade: 'own', reason: 'bent' }],
  ])('%s is refused', async (_, more) => {
    const rows = workshop.rows();
    expect((await again(pour, 2, more)).status).toBe(400);
    expect(workshop.rows()).toBe(rows);
  });

  test('an open cup is graded at the bench', async () => {
    const { id } = await poured(workshop, stock, 2);
    const { body: open } = await workshop.get<Pour>(`/pours/${id}`);
    expect((await again(open, 2, { grade: 'own', reason: 'bent' })).body.error.code).toBe('not-applicable');
  });
});

describe('an evening', () => {
  const recipe = async (name: string, hex: string) =>
    (
      await workshop.post<Recipe>('/recipes', {
        name,
        hex,
        basisMl: 240,
        items: [{ materialId: stock.colourant.id, amount: 6, unit: 'drop' }],
      })
    ).body;
  const laidOut = async (colourwayId: string) =>
    (await workshop.post<Pour>('/pours', { colourwayId, molds: [{ moldId: stock.mold.id, shots: 1 }] })).body;
  const evening = async (pour: Pour) => (await workshop.get<Pour>(`/pours/${pour.id}`)).body.evening;

  test('goes from light to dark, what is begun first, until somebody says otherwise', async () => {
    const dark = await laidOut((await recipe('Night Ferry', '#101830')).id);
    const mid = await laidOut(stock.recipe.id);
    const light = await laidOut((await recipe('Ebb Glass', '#d8e8e0')).id);
    const names = async () => (await evening(dark)).cups.map((cup) => cup.recipeName);
    expect(await names()).toEqual(['Ebb Glass', 'Slack Tide', 'Night Ferry']);
    await workshop.post(`/pours/${dark.id}/heats`, { kind: 'cook', c: 170 });
    const white = await laidOut((await recipe('Limpet', '#ffffff')).id);
    expect(await names()).toEqual(['Night Ferry', 'Limpet', 'Ebb Glass', 'Slack Tide']);
    const { id, version } = await evening(dark);
    const order = [mid, dark, white, light].map((pour) => pour.id);
    const ask = (body: object, seen = version) => workshop.ask('PATCH', `/evenings/${id}`, body, { version: seen });
    expect((await ask({ order: order.slice(1) })).body.error.path).toBe('order');
    expect((await ask({ order, roomC: 9 })).status).toBe(200);
    expect((await ask({ order })).body.error.code).toBe('stale-version');
    expect([await names(), (await evening(mid)).roomC]).toEqual([
      ['Slack Tide', 'Night Ferry', 'Limpet', 'Ebb Glass'],
      9,
    ]);
    // What is laid out now comes last: the order is the maker's.
    await laidOut((await recipe('Chalk', '#fefefe')).id);
    expect((await names()).at(-1)).toBe('Chalk');
  });

  test('the next evening is another', async () => {
    const tonight = await laidOut(stock.recipe.id);
    workshop.waits(24);
    const later = await laidOut(stock.recipe.id);
    expect(later.evening.id).not.toBe(tonight.evening.id);
    expect(later.evening.cups).toHaveLength(1);
  });
});

test('an order says of its cups what remelt leaves unknown: hardness where one was wanted, and salt', async () => {
  const { body: bin } = await workshop.post<Bin>('/bins', { name: 'Used', hex: '#557755' });
  const given = { kind: 'given', grams: 500, heats: null, saltG: null, note: '', looked: true };
  await workshop.post(`/bins/${bin.id}/moves`, given);
  const blend = [
    { materialId: stock.plastisol.id, share: 0.5 },
    { binId: bin.id, share: 0.5 },
  ];
  const laidOut = (more: object) =>
    workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
      orderLines: [{ orderLineId: stock.order.lines[0]?.id, baits: 4 }],
      ...more,
    });
  await laidOut({});
  await laidOut({ blend });
  await laidOut({ blend, wanted: { scale: '00', value: 34 } });
  const { body } = await workshop.get<Order>(`/orders/${stock.order.id}`);
  expect(body.pours.map((pour) => [pour.code, pour.unknown]).sort()).toEqual([
    ['P1', []],
    ['P2', ['salt']],
    ['P3', ['hardness', 'salt']],
  ]);
});
