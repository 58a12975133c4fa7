import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Bag, Order, RackRow, Recall, StockMove } from '../../contract/orders.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

interface Rack {
  items: RackRow[];
  moves: StockMove[];
}
const rack = async () => (await workshop.get<Rack>('/rack')).body;
const baits = async () => (await rack()).items.map((row) => [row.pourCode, row.baits]);
const what = () => ({ baitId: stock.master.baitId, colourwayId: stock.recipe.id });
const out = (count: number, more: object = {}) =>
  workshop.post<Rack>('/rack/out', { kind: 'given', ...what(), baits: count, ...more });

/** A cup of so many shots of four, the first bait of it bad, weighed. */
async function cup(shots: number): Promise<string> {
  const pour = await poured(workshop, stock, shots);
  await workshop.post(`/pours/${pour.id}/close`, closing(4 * shots - 1, 1));
  return pour.code;
}

describe('what leaves without an order', () => {
  test('is taken from the oldest cup first, and on into the next', async () => {
    const old = await cup(1);
    workshop.waits(1);
    const young = await cup(2);
    expect(await baits()).toEqual([
      [old, 3],
      [young, 7],
    ]);
    await out(2);
    expect(await baits()).toEqual([
      [old, 1],
      [young, 7],
    ]);
    // One cup has enough: it is not scraped together from two.
    await out(6);
    expect(await baits()).toEqual([
      [old, 1],
      [young, 1],
    ]);
    const { body } = await out(2, { kind: 'scrapped', note: 'dented' });
    expect([body.items, body.moves.slice(0, 2).map((move) => [move.kind, move.baits, move.note])]).toEqual([
      [],
      [
        ['scrapped', -1, 'dented'],
        ['scrapped', -1, 'dented'],
      ],
    ]);
  });

  test('may still cure, may be of one cup that was named, and never more than lies there', async () => {
    const old = await cup(1);
    workshop.waits(1);
    const young = await cup(1);
    const named = (await rack()).items.find((row) => row.pourCode === young)?.pourId;
    await out(3, { pourId: named });
    expect(await baits()).toEqual([[old, 3]]);
    const refused = await out(4);
    expect([refused.status, refused.body.error.code, refused.body.error.message]).toEqual([
      409,
      'not-enough-stock',
      'Short by 1: the rack has 3, of which 0 are cured.',
    ]);
    expect(await baits()).toEqual([[old, 3]]);
  });

  test('a row is taken back once, and only what left this way', async () => {
    const code = await cup(1);
    const { body } = await out(2, { kind: 'fished' });
    const rowId = body.moves[0]?.id;
    await workshop.post('/undo', { rowId });
    expect((await workshop.get<Rack>('/rack')).body.moves[0]?.reversed).toBe(true);
    expect(await baits()).toEqual([[code, 3]]);
    expect((await workshop.post('/undo', { rowId })).status).toBe(409);
    const packed = workshop.data.db.prepare("SELECT id FROM stock_move WHERE kind = 'poured'").get() as { id: string };
    expect((await workshop.post('/undo', { rowId: packed.id })).status).toBe(404);
    expect(await baits()).toEqual([[code, 3]]);
  });
});

describe('a bag', () => {
  const packed = async (bags: number) => {
    const lineId = stock.order.lines[0]?.id;
    return (await workshop.post<Order>(`/orders/${stock.order.id}/pack`, { lineId, bags })).body;
  };

  test('holds one cup where one has enough, else the oldest first, and its code leads back to them', async () => {
    const codes = [await cup(2), await cup(2), await cup(3)];
    workshop.waits(25);
    // Seven, seven, eleven: the first bag of eight from the third, the second scraped from the others.
    const { bags } = await packed(2);
    expect(bags.map((bag) => bag.pours.map((pour) => [pour.code, pour.baits]))).toEqual([
      [[codes[2], 8]],
      [
        [codes[0], 7],
        [codes[1], 1],
      ],
    ]);
    const found = (await workshop.get<Bag>(`/bags/${bags[1]?.code.toLowerCase()}`)).body;
    expect([found.order?.code, found.baits, found.unpacked]).toEqual([stock.order.code, 8, false]);
  });

  test('leads to its sisters, who has them, and what still lies there: as the moves say, read backwards', async () => {
    const codes = [await cup(2), await cup(2), await cup(3)];
    workshop.waits(25);
    const { bags, version } = await packed(2);
    await workshop.ask('PATCH', `/orders/${stock.order.id}`, { sent: true }, { version });
    const recall = async (of: number) => (await workshop.get<Recall>(`/bags/${bags[of]?.code}/recall`)).body;
    // The first is all of the third cup, of which three lie there; the second of the other two, of which six do.
    expect(await recall(0)).toEqual({ bags: [], onRack: [{ pourCode: codes[2], baits: 3 }] });
    expect((await recall(1)).onRack).toEqual([{ pourCode: codes[1], baits: 6 }]);
    const { customerId } = stock.order;
    const lines = [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 6 }];
    const other = await workshop.made<Order>('/orders', { customerId, dueOn: '2026-03-20', lines });
    const next = await workshop.made<Order>(`/orders/${other.id}/pack`, { lineId: other.lines[0]?.id, bags: 1 });
    const sister = { code: bags[1]?.code, baits: 1, customer: 'Quayside Chandlery', pourCode: codes[1] };
    const { bags: found } = (await workshop.get<Recall>(`/bags/${next.bags[0]?.code}/recall`)).body;
    expect(found).toMatchObject([sister]);
    expect(found[0]?.sentAt).not.toBeNull();
    expect((await recall(1)).bags).toMatchObject([
      { code: next.bags[0]?.code, baits: 6, sentAt: null, pourCode: codes[1] },
    ]);
    // Each bait of each cup, by the moves alone: in a bag, or on the rack.
    const moves = workshop.data.db
      .prepare(
        'SELECT pour.code, sum(iif(k.bag_id IS NULL, k.baits, 0)) AS made, -sum(iif(k.bag_id IS NULL, 0, k.baits)) AS bagged FROM stock_move k JOIN pour ON pour.id = k.pour_id GROUP BY pour.id ORDER BY pour.code',
      )
      .all() as { code: string; made: number; bagged: number }[];
    const told = [...(await recall(0)).onRack, ...(await recall(1)).onRack];
    for (const { code, made, bagged } of moves)
      expect(told.find(({ pourCode }) => pourCode === code)?.baits ?? 0, code).toBe(made - bagged);
    // Opened again, it is nobody's sister.
    await workshop.post(`/bags/${next.bags[0]?.code}/unpack`, undefined);
    expect((await recall(1)).bags).toEqual([]);
    expect((await workshop.get('/bags/B99/recall')).status).toBe(404);
  });

  test('that is opened again puts its baits back where they came from, once', async () => {
    const codes = [await cup(2), await cup(2)];
    workshop.waits(25);
    const { bags } = await packed(1);
    await workshop.post(`/bags/${bags[0]?.code}/unpack`, undefined);
    expect(await baits()).toEqual([
      [codes[0], 7],
      [codes[1], 7],
    ]);
    expect((await workshop.post(`/bags/${bags[0]?.code}/unpack`, undefined)).status).toBe(409);
    expect((await workshop.get<Order>(`/orders/${stock.order.id}`)).body.lines[0]?.packed).toBe(0);
    expect((await workshop.get('/bags/B99')).status).toBe(404);
  });

  test('that went out with its order stays closed', async () => {
    await cup(5);
    workshop.waits(25);
    const { bags, version } = await packed(2);
    await workshop.ask('PATCH', `/orders/${stock.order.id}`, { sent: true }, { version });
    const refused = await workshop.post(`/bags/${bags[0]?.code}/unpack`, undefined);
    expect([refused.status, refused.body.error.code]).toEqual([409, 'already-closed']);
  });

  test('waits for the cure, and says when', async () => {
    await cup(3);
    workshop.waits(23.9);
    const lineId = stock.order.lines[0]?.id;
    const early = await workshop.post(`/orders/${stock.order.id}/pack`, { lineId, bags: 1 });
    expect([early.status, early.body.error.code]).toEqual([409, 'not-cured']);
    expect(early.body.error.message).toContain('0 of 8 are cured');
    workshop.waits(0.2);
    expect((await packed(1)).lines[0]?.packed).toBe(1);
  });
});
