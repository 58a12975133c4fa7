import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Order } from '../../contract/orders.ts';
import { poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let order: Order;
let lineId: string;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  order = stock.order;
  lineId = order.lines[0]?.id as string;
});
afterEach(() => workshop.close());

const now = async (id = order.id) => (await workshop.get<Order>(`/orders/${id}`)).body;
const change = (body: object, line = lineId) => workshop.post<Order>(`/orders/${order.id}/lines/${line}`, body);
const pack = (bags = 1) => workshop.post<Order>(`/orders/${order.id}/pack`, { lineId, bags });
const told = ({ changes }: Order) => changes.map(({ what, was, now: is, why }) => [what, was, is, why]);

/** Fifteen good ones of the two packs of eight that are wanted: the first cavity of the first shot is none. */
async function fifteen(): Promise<void> {
  const pour = await poured(workshop, stock, 4);
  await workshop.post(`/pours/${pour.id}/close`, { cookedG: 250, goodG: 150, rejectG: 10, returnedG: 70 });
  workshop.waits(25);
}

describe('short at the packing table', () => {
  test('seven to each bag: fourteen of fifteen go, and the two bags are whole', async () => {
    await fifteen();
    expect((await now()).need.lines[0]).toMatchObject({ baits: 16, fromReady: 15, short: 1 });
    const { body } = await change({ perPack: 7, why: 'shared out' });
    expect(body.need.lines[0]).toMatchObject({ baits: 14, fromReady: 14, short: 0 });
    expect(told(body)).toEqual([['per-pack', '8', '7', 'shared out']]);
    const packed = (await pack(2)).body;
    expect([packed.state, packed.bags.map(({ baits }) => baits)]).toEqual(['ready', [7, 7]]);
  });

  test('what was packed before stays full; only what is left is shared out', async () => {
    await fifteen();
    await pack(1);
    const { body } = await change({ perPack: 7, why: '' });
    // Eight are in a bag, seven wait for the other one.
    expect(body.need.lines[0]).toMatchObject({ baits: 7, fromReady: 7, short: 0 });
    expect((await pack(1)).body.bags.map(({ baits }) => baits).sort()).toEqual([7, 8]);
  });

  test('part goes now; the rest is an order of its own, with its day, and nothing is renumbered', async () => {
    await fifteen();
    await pack(1);
    const { body: rest, status } = await workshop.post<Order>(`/orders/${order.id}/back-order`, {
      dueOn: '2026-03-20',
    });
    expect([status, rest.dueOn, rest.customer, rest.notes]).toEqual([
      201,
      '2026-03-20',
      'Quayside Chandlery',
      `The rest of ${order.code}.`,
    ]);
    expect(rest.lines.map(({ packs, perPack, packed }) => [packs, perPack, packed])).toEqual([[1, 8, 0]]);
    expect(told(rest)).toEqual([['back-order', '0', '1', order.code]]);
    const first = await now();
    expect([first.code, first.state, first.lines[0]?.packs]).toEqual([order.code, 'ready', 1]);
    expect(told(first)).toEqual([['back-order', '2', '1', rest.code]]);
    const sent = await workshop.ask('PATCH', `/orders/${order.id}`, { sent: true }, { version: first.version });
    expect(sent.status).toBe(200);
    expect((await workshop.post(`/orders/${rest.id}/back-order`, { dueOn: '2026-03-21' })).body).toMatchObject({
      error: { code: 'not-packed' },
    });
  });

  test('a line of which nothing is packed moves as it is, with its cups', async () => {
    const { master, recipe, mold } = stock;
    const both = await workshop.made<Order>('/orders', {
      customerId: order.customerId,
      dueOn: '2026-03-09',
      lines: [1, 3].map((packs) => ({ baitId: master.baitId, colourwayId: recipe.id, packs, perPack: 4 })),
    });
    const [one, other] = both.lines.map(({ id }) => id);
    await workshop.made('/pours', {
      colourwayId: recipe.id,
      molds: [{ moldId: mold.id, shots: 3 }],
      orderLines: [{ orderLineId: other, baits: 12 }],
    });
    await fifteen();
    await workshop.post(`/orders/${both.id}/pack`, { lineId: one, bags: 1 });
    const { body: rest } = await workshop.post<Order>(`/orders/${both.id}/back-order`, { dueOn: '2026-03-20' });
    expect(rest.lines.map(({ id, packs }) => [id, packs])).toEqual([[other, 3]]);
    expect(rest.need.lines[0]?.fromPour).toBeGreaterThan(0);
    expect((await now(both.id)).lines.map(({ id }) => id)).toEqual([one]);
  });
});

describe('a change of mind', () => {
  test('more packs, another colour: each is told with what it was', async () => {
    const other = await workshop.made<{ id: string }>('/recipes', {
      name: 'Sea Pink',
      hex: '#d98cab',
      basisMl: 240,
      items: [{ materialId: stock.colourant.id, amount: 3, unit: 'drop' }],
    });
    await change({ packs: 5, why: 'they want more' });
    const { body } = await change({ colourwayId: other.id, why: '' });
    expect(body.lines[0]).toMatchObject({ packs: 5, colourwayName: 'Sea Pink' });
    expect(told(body)).toEqual([
      ['packs', '2', '5', 'they want more'],
      ['colour', 'Slack Tide', 'Sea Pink', ''],
    ]);
    // The same again is no change.
    expect(told((await change({ packs: 5, why: '' })).body)).toHaveLength(2);
  });
  test('a line more, a line less: the one is told with its price list, the other stays with what it was and wants nothing', async () => {
    const sea = await workshop.made<{ id: string }>('/recipes', {
      name: 'Sea Pink',
      hex: '#d98cab',
      basisMl: 240,
      items: [{ materialId: stock.colourant.id, amount: 3, unit: 'drop' }],
    });
    const more = { baitId: stock.master.baitId, colourwayId: sea.id, packs: 3, perPack: 8, why: 'for the window' };
    const { body, status } = await workshop.post<Order>(`/orders/${order.id}/lines`, more);
    expect([status, body.lines.map(({ colourwayName, packs }) => [colourwayName, packs])]).toEqual([
      201,
      [
        ['Slack Tide', 2],
        ['Sea Pink', 3],
      ],
    ]);
    const out = await workshop.post<Order>(`/orders/${order.id}/lines/${lineId}/take-out`, { why: '' });
    expect(out.body.lines.map(({ colourwayName }) => colourwayName)).toEqual(['Sea Pink']);
    expect(out.body.changes.map(({ line, what, was, now: is }) => [line, what, was, is])).toEqual([
      ['Sandlance 110 Sea Pink', 'added', '0', '3'],
      ['Sandlance 110 Slack Tide', 'taken', '2', '0'],
    ]);
    // Nobody wants it any more: not the plan, not Today.
    expect(out.body.need.lines.map(({ colourwayId, short }) => [colourwayId, short])).toEqual([[sea.id, 24]]);
    const last = await workshop.post(`/orders/${order.id}/lines/${out.body.lines[0]?.id}/take-out`, { why: '' });
    expect(last.body.error.code).toBe('nothing-left');
    expect((await workshop.post(`/orders/${order.id}/lines/${lineId}/take-out`, { why: '' })).body.error.code).toBe(
      'not-found',
    );
  });
  test('a line of which some is packed is not taken out', async () => {
    await workshop.post(`/orders/${order.id}/lines`, {
      baitId: stock.master.baitId,
      colourwayId: stock.recipe.id,
      packs: 1,
      perPack: 4,
      why: '',
    });
    await fifteen();
    await pack(1);
    const { body } = await workshop.post(`/orders/${order.id}/lines/${lineId}/take-out`, { why: '' });
    expect(body.error.code).toBe('already-started');
  });
  test('what is packed is not taken back by it', async () => {
    await fifteen();
    await pack(1);
    await change({ packs: 1, why: '' });
    expect((await now()).state).toBe('ready');
    const other = await workshop.made<{ id: string }>('/recipes', {
      name: 'Sea Pink',
      hex: '#d98cab',
      basisMl: 240,
      items: [{ materialId: stock.colourant.id, amount: 3, unit: 'drop' }],
    });
    expect((await change({ colourwayId: other.id, why: '' })).body).toMatchObject({
      error: { code: 'already-started' },
    });
  });
  test.each([
    ['a line of no such order', {}, '018f0000-0000-7000-8000-000000000001', 404, 'not-found'],
    ['no baits to a pack', { perPack: 0 }, undefined, 400, 'invalid-input'],
    [
      'a colour that is not here',
      { colourwayId: '018f0000-0000-7000-8000-000000000001' },
      undefined,
      400,
      'no-such-record',
    ],
  ])('%s is refused', async (_, body, line, status, code) => {
    const answer = await change({ why: '', ...body }, line ?? lineId);
    expect([answer.status, answer.body]).toMatchObject([status, { error: { code } }]);
    expect((await now()).changes).toEqual([]);
  });
  test('an order that is sent or cancelled is changed no more', async () => {
    await workshop.ask('PATCH', `/orders/${order.id}`, { cancelled: true }, { version: order.version });
    expect((await change({ packs: 3, why: '' })).body).toMatchObject({ error: { code: 'already-closed' } });
  });
});
