import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Order } from '../../contract/orders.ts';
import type { Packing, PackWith } from '../../contract/packing.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let lineId: string;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  lineId = stock.order.lines[0]?.id as string;
});
afterEach(() => workshop.close());

const packing = async (id = stock.order.id) => (await workshop.get<Packing>(`/orders/${id}/packing`)).body;
const pack = (more: object = {}, of = { id: stock.order.id, lineId }) =>
  workshop.post<Order>(`/orders/${of.id}/pack`, { lineId: of.lineId, bags: 1, ...more });
const inStore = async (id: string) => (await workshop.get<{ levelG: number }>(`/materials/${id}`)).body.levelG;

async function good(shots = 5): Promise<void> {
  const pour = await poured(workshop, stock, shots);
  await workshop.post(`/pours/${pour.id}/close`, closing(4 * shots - 1, 1));
  workshop.waits(25);
}

describe('the packing table', () => {
  test('says out of which cups the next bag is filled, and what a bait weighs by its volume until one was weighed', async () => {
    expect((await packing()).lines).toEqual([
      { lineId, mass: expect.objectContaining({ eachG: expect.closeTo(10 * 1.03, 0), bags: 0 }), from: [] },
    ]);
    await good();
    expect((await packing()).lines[0]?.from).toEqual([{ pourCode: 'P1', baits: 8 }]);
  });

  test('a bag that is weighed as it is packed tells what a bait weighs', async () => {
    await good();
    expect((await pack({ grams: 82.4 })).status).toBe(201);
    expect((await packing()).lines[0]?.mass).toMatchObject({ eachG: 10.3, bags: 1 });
    await pack({ grams: 80.8 });
    // 163.2 g of sixteen.
    expect((await packing()).lines[0]?.mass).toMatchObject({ eachG: 10.2, bags: 2 });
  });

  test('one figure for two bags is refused, and neither is packed', async () => {
    await good();
    const { status, body } = await workshop.post<Order>(`/orders/${stock.order.id}/pack`, {
      lineId,
      bags: 2,
      grams: 160,
    });
    expect([status, body.error]).toMatchObject([400, { path: 'grams' }]);
    expect((await workshop.get<Order>(`/orders/${stock.order.id}`)).body.lines[0]?.packed).toBe(0);
  });

  test('what goes with a bag leaves the store by the piece and by the gram, with each', async () => {
    const [labels, oil] = await Promise.all(
      [
        { name: 'Round labels', kind: 'labels', lot: { code: 'L1', grams: 100 } },
        { name: 'Anise oil', kind: 'oil', lot: { code: 'O1', grams: 50 } },
      ].map((body) => workshop.made<{ id: string }>('/materials', body)),
    );
    for (const [one, amount] of [
      [labels, 1],
      [oil, 1.5],
    ] as const)
      await workshop.post('/pack-with', { materialId: one?.id, amount });
    const half = await workshop.post('/pack-with', { materialId: labels?.id, amount: 0.5 });
    expect([half.status, half.body.error.path]).toEqual([400, 'amount']);
    await good();
    await pack();
    await pack();
    expect([await inStore(labels?.id as string), await inStore(oil?.id as string)]).toEqual([98, 47]);
    const { body } = await workshop.post<{ items: PackWith[] }>('/pack-with', { materialId: oil?.id, amount: 0 });
    expect(body.items).toEqual([{ materialId: labels?.id, name: 'Round labels', kind: 'labels', amount: 1, left: 98 }]);
  });

  test('how long a bag takes is learnt from five that were packed one after another; a pause is no packing', async () => {
    const order = await workshop.made<Order>('/orders', {
      customerId: stock.order.customerId,
      dueOn: '2026-03-09',
      lines: [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 9, perPack: 2 }],
    });
    await good();
    const of = { id: order.id, lineId: order.lines[0]?.id as string };
    expect((await packing()).time).toEqual({ packS: 45, of: 0 });
    // 20, 22, 24, 26 s, half an hour, 28 s: five gaps that are packing.
    for (const seconds of [0, 20, 22, 24, 26, 1800, 28]) {
      workshop.waits(seconds / 3600);
      expect((await pack({}, of)).status).toBe(201);
    }
    const { packS, of: n } = (await packing()).time;
    expect([packS, n]).toEqual([expect.closeTo(24, 6), 5]);
  });
});
