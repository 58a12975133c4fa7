import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Order, OrderRow } from '../../contract/orders.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

test('orders still to be sent are a list of their own: the oldest is not behind newer ones that are gone', async () => {
  const stock = await stocked(workshop);
  const { baitId } = stock.master;
  const order = async (dueOn: string) =>
    (
      await workshop.post<Order>('/orders', {
        customerId: stock.order.customerId,
        dueOn,
        lines: [{ baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 8 }],
      })
    ).body;
  const overdue = await order('2026-01-05');
  const gone: string[] = [];
  for (const day of ['2026-04-01', '2026-04-02', '2026-04-03']) {
    const { id, version, code } = await order(day);
    await workshop.ask('PATCH', `/orders/${id}`, { cancelled: true }, { version });
    gone.push(code);
  }
  const codes = async (query: string) =>
    (await workshop.get<Page<OrderRow>>(`/orders?${query}`)).body.items.map((row) => row.code);
  expect(await codes('only=open&sort=due&limit=2')).toEqual([overdue.code, stock.order.code]);
  expect(await codes('only=gone&sort=-due')).toEqual(gone.reverse());
  expect(await codes('sort=due')).toHaveLength(5);
  expect((await workshop.get('/orders?only=late')).status).toBe(400);
});
