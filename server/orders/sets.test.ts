import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Money } from '../../contract/money.ts';
import type { Order } from '../../contract/orders.ts';
import type { Packing } from '../../contract/packing.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let order: Order;
let pink: string;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  ({ id: pink } = await workshop.made<{ id: string }>('/recipes', {
    name: 'Sea Pink',
    hex: '#d98cab',
    basisMl: 240,
    items: [{ materialId: stock.colourant.id, amount: 3, unit: 'drop' }],
  }));
  const { baitId } = stock.master;
  order = await workshop.made<Order>('/orders', {
    customerId: stock.order.customerId,
    dueOn: '2026-03-20',
    lines: [
      { baitId, colourwayId: stock.recipe.id, packs: 2, perPack: 4, priceMinor: 400 },
      { baitId, colourwayId: pink, packs: 2, perPack: 3, priceMinor: 300 },
      { baitId, colourwayId: pink, packs: 5, perPack: 3 },
    ],
  });
});
afterEach(() => workshop.close());

const ids = () => order.lines.map(({ id }) => id);
const now = async () => (await workshop.get<Order>(`/orders/${order.id}`)).body;
const together = (name: string, ...which: number[]) =>
  workshop.post<Order>(`/orders/${order.id}/sets`, { name, lineIds: which.map((i) => ids()[i]) });
const pack = (which: number, bags = 1) =>
  workshop.post<Order>(`/orders/${order.id}/pack`, { lineId: ids()[which], bags });

/** Two shots of each colour: seven and seven good. */
async function good(): Promise<void> {
  for (const colourwayId of [stock.recipe.id, pink]) {
    const pour = await poured(workshop, { ...stock, recipe: { ...stock.recipe, id: colourwayId } }, 2);
    await workshop.post(`/pours/${pour.id}/close`, closing(7, 1));
  }
  workshop.waits(25);
}

test('a set is one bag of both lines: each is a pack fuller, and its code leads to both cups', async () => {
  await together('Beginners', 0, 1);
  await good();
  const { lines } = (await workshop.get<Packing>(`/orders/${order.id}/packing`)).body;
  expect(lines[0]?.from.map(({ baits }) => baits)).toEqual([4, 3]);
  expect(lines[0]?.mass).toBeNull();
  const { body } = await pack(1);
  expect(body.lines.map(({ packed, setName }) => [packed, setName])).toEqual([
    [1, 'Beginners'],
    [1, 'Beginners'],
    [0, null],
  ]);
  expect(
    body.bags.map(({ contents, baits }) => [contents.map((row) => [row.colourwayName, row.baits]), baits]),
  ).toEqual([
    [
      [
        ['Slack Tide', 4],
        ['Sea Pink', 3],
      ],
      7,
    ],
  ]);
  expect(body.bags[0]?.pours.map(({ code, baits }) => [code, baits])).toEqual([
    ['P1', 4],
    ['P2', 3],
  ]);
  // Opened again both are wanted again, and lie where they lay.
  await workshop.post(`/bags/${body.bags[0]?.code}/unpack`, {});
  expect((await now()).lines.map(({ packed }) => packed)).toEqual([0, 0, 0]);
});

test('where one colour is short no bag is filled, and nothing of the other leaves the rack', async () => {
  await together('Beginners', 0, 1);
  await good();
  await pack(0);
  const { status, body } = await pack(0);
  expect([status, body.error.code]).toEqual([409, 'not-enough-stock']);
  expect((await now()).lines.map(({ packed }) => packed)).toEqual([1, 1, 0]);
});

test.each([
  ['lines of unlike packs', [1, 2], 'invalid-input'],
  ['one line alone', [0], 'invalid-input'],
])('%s are no set', async (_, which, code) => {
  const { body } = await together('Beginners', ...which);
  expect(body.error.code).toBe(code);
  expect((await now()).lines.every(({ setName }) => setName === null)).toBe(true);
});

test('more packs of one line of a set are more of each; apart again each has its own bag', async () => {
  await together('Beginners', 0, 1);
  await workshop.post(`/orders/${order.id}/lines/${ids()[0]}`, { packs: 3, why: '' });
  expect((await now()).lines.map(({ packs }) => packs)).toEqual([3, 3, 5]);
  await together('', 0, 1);
  await good();
  const { body } = await pack(0);
  expect(body.lines.map(({ packed }) => packed)).toEqual([1, 0, 0]);
});

test('a set that was sent is paid what its lines cost together, shared out by its baits', async () => {
  await together('Beginners', 0, 1);
  await workshop.post(`/orders/${order.id}/lines/${ids()[2]}/take-out`, { why: '' });
  await workshop.post(`/orders/${order.id}/lines/${ids()[0]}`, { packs: 1, why: '' });
  await good();
  await pack(0);
  const { version } = await now();
  await workshop.ask('PATCH', `/orders/${order.id}`, { sent: true }, { version });
  const { rows } = (await workshop.get<Money>('/money')).body;
  expect(rows.map(({ colour, baits, revenueMinor }) => [colour, baits, revenueMinor])).toEqual([
    ['Slack Tide', 4, 400],
    ['Sea Pink', 3, 300],
  ]);
});
