import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Order, OrderRow } from '../../contract/orders.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const order = async (id = stock.order.id) => (await workshop.get<Order>(`/orders/${id}`)).body;
const patch = async (body: object, version?: number) =>
  workshop.ask<Order>('PATCH', `/orders/${stock.order.id}`, body, { version: version ?? (await order()).version });

describe('what was agreed of an order is changed later', () => {
  test('its day, notes and the price of a line', async () => {
    const id = stock.order.lines[0]?.id;
    const { body } = await patch({ dueOn: '2026-05-02', notes: 'by hand', lines: [{ id, priceMinor: 590 }] });
    expect([body.dueOn, body.notes, body.lines[0]?.priceMinor]).toEqual(['2026-05-02', 'by hand', 590]);
    const none = await patch({ lines: [{ id, priceMinor: null }] });
    expect([none.body.lines[0]?.priceMinor, none.body.dueOn]).toEqual([null, '2026-05-02']);
  });

  test.each([
    ['a line of another order', [{ id: '01a217a4-fdac-76c5-8de1-fc914937aa14', priceMinor: 1 }], 'lines.0.id'],
    ['less than nothing', [{ id: '01a217a4-fdac-76c5-8de1-fc914937aa14', priceMinor: -1 }], 'lines.0.priceMinor'],
  ])('%s is refused, and the day stays as it was', async (_, lines, path) => {
    const refused = await patch({ dueOn: '2026-05-02', lines });
    expect([refused.status, refused.body.error.path]).toEqual([400, path]);
    expect((await order()).dueOn).toBe(stock.order.dueOn);
  });

  test('a screen that saw an older version changes nothing, and is shown the row as it is', async () => {
    await patch({ notes: 'first' });
    const late = await patch({ notes: 'second' }, stock.order.version);
    expect([late.status, late.body.error.current?.notes]).toEqual([409, 'first']);
  });

  test('a line without a price takes the bait’s own, and one that was said keeps it', async () => {
    const { baitId } = stock.master;
    const [bait] = (await workshop.get<{ items: { id: string; version: number }[] }>('/baits')).body.items;
    await workshop.ask('PATCH', `/baits/${baitId}`, { priceMinor: 720 }, { version: bait?.version ?? 0 });
    const line = { baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 8 };
    const taken = await workshop.post<Order>('/orders', {
      customerId: stock.order.customerId,
      dueOn: '2026-04-01',
      lines: [line, { ...line, priceMinor: 500 }, { ...line, priceMinor: 0 }],
    });
    expect(taken.body.lines.map((one) => one.priceMinor)).toEqual([720, 500, 0]);
  });
});

describe('the state of an order follows its baits', () => {
  const state = async () => {
    const { state: said, shortBaits } = await order();
    return [said, shortBaits];
  };

  test('short, in a pour, curing, good, ready, sent', async () => {
    // Two packs of eight.
    expect(await state()).toEqual(['short', 16]);
    const lineId = stock.order.lines[0]?.id;
    const pour = await poured(workshop, stock, 5);
    expect(await state()).toEqual(['short', 16]);
    // Five shots of four and one of them bad: nineteen good.
    await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
    expect(await state()).toEqual(['curing', 0]);
    workshop.waits(24.5);
    expect(await state()).toEqual(['good', 0]);
    await workshop.post(`/orders/${stock.order.id}/pack`, { lineId, bags: 2 });
    expect(await state()).toEqual(['ready', 0]);
    await patch({ sent: true });
    expect(await state()).toEqual(['sent', 0]);
  });

  test('a cup that is laid out for it counts, as far as it was meant for it', async () => {
    const line = stock.order.lines[0]?.id;
    await workshop.post('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 4 }],
      orderLines: [{ orderLineId: line, baits: 15 }],
    });
    expect(await state()).toEqual(['short', 1]);
  });

  test('one bait short is short', async () => {
    const pour = await poured(workshop, stock, 4);
    await workshop.post(`/pours/${pour.id}/close`, closing(15, 1));
    expect(await state()).toEqual(['short', 1]);
    const listed = (await workshop.get<{ items: OrderRow[] }>('/orders')).body.items[0];
    expect([listed?.state, listed?.shortBaits]).toEqual(['short', 1]);
  });
});
