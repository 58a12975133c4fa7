import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Mold } from '../../contract/molds.ts';
import type { Bag, Complaint, Order, Origin } from '../../contract/orders.ts';
import type { Pour, PourRow } from '../../contract/pours.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let pour: Pour;
let bag: Bag;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  const open = await poured(workshop, stock, 5);
  pour = (await workshop.post<Pour>(`/pours/${open.id}/close`, closing(19, 1))).body;
  workshop.waits(25);
  const lineId = stock.order.lines[0]?.id;
  const { body } = await workshop.post<Order>(`/orders/${stock.order.id}/pack`, { lineId, bags: 2 });
  bag = body.bags[0] as Bag;
});
afterEach(() => workshop.close());

const list = async (path: string) => (await workshop.get<{ items: Complaint[] }>(path)).body.items;
const complain = (more: object = {}) =>
  workshop.post<{ items: Complaint[] }>(`/bags/${bag.code}/complaints`, {
    pourId: pour.id,
    moldId: stock.mold.id,
    baits: 3,
    reason: 'bent',
    note: 'tails to one side',
    ...more,
  });
const mold = async () => {
  const { made, rejected, health } = (await workshop.get<Mold>(`/molds/${stock.mold.id}`)).body;
  return [made, rejected, health.map((cavity) => cavity.rejected)];
};
const faults = async () =>
  (await workshop.get<{ faults: { reason: string; count: number }[] }>('/insight')).body.faults.map(
    ({ reason, count }) => [reason, count],
  );

describe('a complaint', () => {
  test('counts against the cup and the mold from then on, and is told on both and on the colour', async () => {
    expect(await mold()).toEqual([20, 1, [1, 0, 0, 0]]);
    const { body } = await complain();
    expect(
      body.items.map(({ bagCode, pourCode, baits, reason, customer }) => [bagCode, pourCode, baits, reason, customer]),
    ).toEqual([[bag.code, 'P1', 3, 'bent', 'Quayside Chandlery']]);
    // Twenty looked at, one bad before; which cavity the three came from nobody knows.
    expect(await mold()).toEqual([20, 4, [1, 0, 0, 0]]);
    expect(await faults()).toEqual([
      ['bent', 3],
      ['bubble', 1],
    ]);
    const { items } = (await workshop.get<{ items: PourRow[] }>('/pours')).body;
    expect([items[0]?.sell, items[0]?.remelt]).toEqual([16, 4]);
    for (const of of [`moldId=${stock.mold.id}`, `colourwayId=${stock.recipe.id}`])
      expect((await list(`/complaints?${of}`)).map(({ note }) => note)).toEqual(['tails to one side']);
  });

  test('taken back it counts no more, once', async () => {
    const [told] = (await complain()).body.items;
    await workshop.post('/undo', { rowId: told?.id });
    expect([await mold(), await list(`/bags/${bag.code}/complaints`)]).toEqual([[20, 1, [1, 0, 0, 0]], []]);
    const again = await workshop.post('/undo', { rowId: told?.id });
    expect(again.body.error.code).toBe('already-reversed');
    expect(await mold()).toEqual([20, 1, [1, 0, 0, 0]]);
  });

  test.each([
    ['more than are in the bag', { baits: 9 }, 'more-than-there', 'baits'],
    ['none', { baits: 0 }, 'invalid-input', 'baits'],
    ['a fault that nobody has a word for', { reason: 'haunted' }, 'invalid-input', 'reason'],
    [
      'a cup that nothing of it came from',
      { pourId: '018f0000-0000-7000-8000-000000000001' },
      'no-such-record',
      'pourId',
    ],
    ['a mold that made none of it', { moldId: '018f0000-0000-7000-8000-000000000001' }, 'no-such-record', 'moldId'],
  ])('of %s is refused, and nothing counts', async (_, more, code, path) => {
    const { body } = await complain(more);
    expect((body as unknown as { error: object }).error).toMatchObject({ code, path });
    expect(await mold()).toEqual([20, 1, [1, 0, 0, 0]]);
  });

  test('of eight in a bag no more than eight are found wrong, however often it is said', async () => {
    await complain({ baits: 6 });
    expect((await complain()).body).toMatchObject({ error: { code: 'more-than-there' } });
    expect((await complain({ baits: 2 })).status).toBe(201);
    expect(await mold()).toEqual([20, 9, [1, 0, 0, 0]]);
  });

  test('tells where its baits can have come from: shots, cavities, hardness, lots, how they lay', async () => {
    const [origin] = (await workshop.get<{ items: Origin[] }>(`/bags/${bag.code}/origin`)).body.items;
    expect(origin).toMatchObject({ pourCode: 'P1', baits: 8, hardness: null });
    expect(origin?.molds).toEqual([
      {
        moldId: stock.mold.id,
        moldName: 'Sandlance × 4',
        shots: 5,
        cavities: [1, 2, 3, 4],
        lay: [],
        rejects: [{ reason: 'bubble', count: 1 }],
      },
    ]);
    await workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value: 33 });
    await workshop.post(`/pours/${pour.id}/hardness`, { scale: '00', value: 35 });
    const [read] = (await workshop.get<{ items: Origin[] }>(`/bags/${bag.code}/origin`)).body.items;
    expect(read?.hardness).toEqual({ scale: '00', mean: 34, readings: 2 });
  });

  test('is made good: so many baits more for the same customer, without a price, and it says in place of which bag', async () => {
    const { body, status } = await workshop.post<Order>(`/bags/${bag.code}/remake`, { dueOn: '2026-03-20', baits: 3 });
    expect([status, body.customer, body.dueOn, body.notes]).toEqual([
      201,
      'Quayside Chandlery',
      '2026-03-20',
      `In place of 3 from ${bag.code}.`,
    ]);
    expect(
      body.lines.map(({ baitId, colourwayId, packs, perPack, priceMinor }) => [
        baitId,
        colourwayId,
        packs,
        perPack,
        priceMinor,
      ]),
    ).toEqual([[stock.master.baitId, stock.recipe.id, 1, 3, 0]]);
  });
});
