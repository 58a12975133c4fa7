import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Money } from '../../contract/money.ts';
import type { Order } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const money = async (from = '2026-01-01', to = '2026-12-31') =>
  (await workshop.get<Money>(`/money?from=${from}&to=${to}`)).body;

/** Four shots of four out of one lot, three baits bad; two bags of six sold for 6.50 each. */
async function sold(gift = false): Promise<void> {
  const { body: drum } = await workshop.post<{ id: string }>('/materials', {
    name: 'Firm 58',
    kind: 'plastisol',
    densityGPerMl: 1.02,
    pricePerKgMinor: 2000,
    // This one was dear.
    lot: { code: 'D1', grams: 9000, pricePerKgMinor: 3000 },
  });
  const { body: bags } = await workshop.post<{ id: string }>('/materials', {
    name: 'Laminated bags',
    kind: 'bags',
    pricePerKgMinor: 9000,
    lot: { code: 'B1', grams: 100 },
  });
  const order = await workshop.made<Order>('/orders', {
    customerId: stock.order.customerId,
    dueOn: '2026-03-20',
    gift,
    lines: [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 2, perPack: 6, priceMinor: 650 }],
  });
  const pour = await workshop.made<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 4 }],
    blend: [{ materialId: drum.id, share: 1 }],
  });
  for (let n = 0; n < 4; n++) {
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const marks = [1, 2, 3, 4].map((cavity) =>
      n < 3 && cavity === 1 ? { cavity, grade: 'remelt', reason: 'bubble' } : { cavity, grade: 'sell' },
    );
    await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
  }
  const closed = await workshop.post(`/pours/${pour.id}/close`, {
    cookedG: 260,
    goodG: 132,
    rejectG: 31,
    returnedG: 80,
  });
  expect(closed.status).toBe(201);
  workshop.waits(25);
  const lineId = order.lines[0]?.id;
  await workshop.post(`/orders/${order.id}/pack`, { lineId, bags: 2, bagsId: bags.id });
  const { version } = (await workshop.get<Order>(`/orders/${order.id}`)).body;
  const sent = await workshop.ask('PATCH', `/orders/${order.id}`, { sent: true }, { version });
  expect(sent.status).toBe(200);
}

test('what was sold is told with what its own lots cost, and the hands of the rejects too', async () => {
  await sold();
  const { rows, unpriced } = await money();
  expect(rows).toHaveLength(1);
  const [row] = rows;
  expect(row).toMatchObject({
    baits: 12,
    revenueMinor: 1300,
    gift: false,
    evening: '2026-03-02',
    customer: 'Quayside Chandlery',
  });
  // 12 × 10 mL × 1.03 g at 30.00 a kg (the colour's grams are not known to have cost anything), and two bags at 9 cents.
  const plastic = 12 * 10 * 1.03 * 3;
  expect(row?.materialMinor).toBeGreaterThan(0.9 * plastic + 18);
  expect(row?.materialMinor).toBeLessThan(1.02 * plastic + 18);
  // Four shots of 130 s for thirteen that were to sell, twelve of them here; two bags of 45 s.
  expect(row?.minutes).toBeCloseTo((12 * ((4 * 130) / 13) + 2 * 45) / 60, 6);
  expect(unpriced).toEqual([]);
});

test('a gift stands at its cost, and nobody paid for it', async () => {
  await sold(true);
  const { rows } = await money();
  expect(rows.map(({ gift, revenueMinor }) => [gift, revenueMinor])).toEqual([[true, 0]]);
});

test('what is outside of the days, not sent, or has no price is not told as money', async () => {
  await sold();
  expect((await money('2026-03-21', '2026-12-31')).rows).toEqual([]);
  expect((await money('2026-03-20', '2026-03-20')).rows).toHaveLength(1);
  const wrong = await workshop.get('/money?from=2026-13-01&to=2026-12-31');
  expect(wrong.status).toBe(400);
});

test('a bag that is filled out of two cups is packed once, its hands and its label shared by the baits', async () => {
  const { body: bags } = await workshop.post<{ id: string }>('/materials', {
    name: 'Laminated bags',
    kind: 'bags',
    pricePerKgMinor: 9000,
    lot: { code: 'B1', grams: 100 },
  });
  for (let n = 0; n < 2; n++) {
    const pour = await poured(workshop, stock, 1);
    await workshop.post(`/pours/${pour.id}/close`, closing(3, 1));
  }
  workshop.waits(25);
  const order = await workshop.made<Order>('/orders', {
    customerId: stock.order.customerId,
    dueOn: '2026-03-20',
    lines: [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 5, priceMinor: 501 }],
  });
  const lineId = order.lines[0]?.id;
  const { body } = await workshop.post<Order>(`/orders/${order.id}/pack`, { lineId, bags: 1, bagsId: bags.id });
  await workshop.ask('PATCH', `/orders/${order.id}`, { sent: true }, { version: body.version });
  const { rows } = await money();
  expect(rows.map(({ baits, revenueMinor }) => [baits, revenueMinor])).toEqual([
    [3, 301],
    [2, 200],
  ]);
  // One shot of 130 s for three that were to sell, each time; the bag's 45 s once; nine cents once.
  expect(rows.reduce((sum, { minutes }) => sum + minutes, 0)).toBeCloseTo((5 * (130 / 3) + 45) / 60, 6);
  expect(rows.reduce((sum, { materialMinor }) => sum + materialMinor, 0)).toBeCloseTo(9, 6);
});

test('a gift without a price is a gift, and no sale that lacks one', async () => {
  await sold(true);
  const [order] = (await workshop.get<{ items: Order[] }>('/orders?only=gone')).body.items;
  const line = order?.lines[0];
  await workshop.ask(
    'PATCH',
    `/orders/${order?.id}`,
    { lines: [{ id: line?.id, priceMinor: null }] },
    { version: order?.version ?? 0 },
  );
  expect((await money()).rows.map(({ gift, revenueMinor }) => [gift, revenueMinor])).toEqual([[true, 0]]);
});
