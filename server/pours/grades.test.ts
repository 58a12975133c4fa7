import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Insight } from '../../contract/insight.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order, RackRow, StockMove } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

type Tap = { cavity: number; grade?: string; result?: string; reason?: string };
const SELL = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
interface Rack {
  items: RackRow[];
  moves: StockMove[];
}

/** A cup with a shot for each list of marks. */
async function drawn(...shots: Tap[][]) {
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: shots.length }],
  });
  for (const marks of shots) {
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const marked = await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
    expect(marked.status).toBe(201);
  }
  return pour;
}
const close = (pour: Pour, goodG: number, rejectG: number) =>
  workshop.post<Pour>(`/pours/${pour.id}/close`, { cookedG: 300, goodG, rejectG, returnedG: 40, residueG: 6 });
const rack = async () => (await workshop.get<Rack>('/rack')).body.items;
const out = (baits: number, grade?: string) =>
  workshop.post<Rack>('/rack/out', {
    kind: 'fished',
    baitId: stock.master.baitId,
    colourwayId: stock.recipe.id,
    baits,
    ...(grade ? { grade } : {}),
  });

/** Of eight: five to sell, one of them trimmed; two for own water; one melted again. */
const mixed = () =>
  drawn(
    [...SELL.slice(0, 3), { cavity: 4, grade: 'own', reason: 'bubble' }],
    [
      { cavity: 1, grade: 'sell', reason: 'flash' },
      { cavity: 2, grade: 'sell' },
      { cavity: 3, grade: 'own', reason: 'colour' },
      { cavity: 4, grade: 'remelt', reason: 'short' },
    ],
  );

describe('between good and bad lies own water', () => {
  test('it is kept and weighed with the good ones, lies on the rack apart, and no order is offered it', async () => {
    const pour = await mixed();
    const { body: closed } = await close(pour, 7 * 10.2, 10.2);
    expect(closed.balance?.yieldFraction).toBeCloseTo((7 * 10.2) / 300, 9);
    expect((await rack()).map(({ grade, baits, promised }) => [grade, baits, promised])).toEqual([
      ['own', 2, 0],
      ['sell', 5, 5],
    ]);
    workshop.waits(25);
    // Sixteen are ordered: five lie ready, and the two of own water make nothing of that.
    const { body: order } = await workshop.get<Order>(`/orders/${stock.order.id}`);
    expect(order.need.lines[0]).toMatchObject({ baits: 16, fromReady: 5, short: 11 });
    const line = stock.order.lines[0]?.id;
    const refused = await workshop.post(`/orders/${stock.order.id}/pack`, { lineId: line, bags: 1 });
    expect([refused.status, refused.body.error.code]).toEqual([409, 'not-enough-stock']);
  });

  test('it leaves by its own grade, and comes back to it', async () => {
    await close(await mixed(), 7 * 10.2, 10.2);
    expect((await out(3, 'own')).body.error.code).toBe('not-enough-stock');
    const { body: left } = await out(2, 'own');
    expect(left.items.map(({ grade, baits }) => [grade, baits])).toEqual([['sell', 5]]);
    expect(left.moves[0]).toMatchObject({ grade: 'own', kind: 'fished', baits: -2 });
    await workshop.post('/undo', { rowId: left.moves[0]?.id });
    expect((await rack()).map(({ grade, baits }) => [grade, baits])).toEqual([
      ['own', 2],
      ['sell', 5],
    ]);
    // Nothing said means what is to sell.
    await out(5);
    expect((await rack()).map(({ grade, baits }) => [grade, baits])).toEqual([['own', 2]]);
  });

  test('rates count what can be sold, reasons what cannot; trimmed flash is a note and still shows as flash', async () => {
    await close(await mixed(), 7 * 10.2, 10.2);
    const { body: mold } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
    expect([mold.made, mold.rejected]).toEqual([8, 3]);
    expect(mold.pours[0]).toMatchObject({ shots: 2, sell: 5, own: 2, remelt: 1 });
    expect(mold.health.map(({ rejected }) => rejected)).toEqual([0, 0, 1, 2]);
    expect(mold.health[3]?.reasons).toEqual(
      expect.arrayContaining([
        { reason: 'bubble', count: 1 },
        { reason: 'short', count: 1 },
      ]),
    );
    expect(mold.care.flash.at(-1)).toMatchObject({ made: 8, flash: 1 });
    const { body: insight } = await workshop.get<Insight>('/insight');
    expect(insight.pours[0]).toMatchObject({ made: 8, rejected: 3 });
    expect(insight.faults.map(({ reason }) => reason).sort()).toEqual(['bubble', 'colour', 'short']);
  });

  test('a cup of own water alone is kept, weighed, and cures', async () => {
    const pour = await drawn([1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'own', reason: 'colour' })));
    expect((await close(pour, 0, 0)).body.error).toMatchObject({ code: 'invalid-input', path: 'goodG' });
    expect((await close(pour, 40.8, 0)).body.curedAt).not.toBeNull();
    expect((await rack()).map(({ grade, baits }) => [grade, baits])).toEqual([['own', 4]]);
  });
});

describe('a mark', () => {
  test.each<[string, Tap, number]>([
    ['of an earlier page, good', { cavity: 1, result: 'good' }, 201],
    ['of an earlier page, bad with its reason', { cavity: 1, result: 'bad', reason: 'tear' }, 201],
    ['taken back by an earlier page', { cavity: 1, result: 'unmarked' }, 201],
    ['of both forms', { cavity: 1, result: 'good', grade: 'sell' }, 400],
    ['of neither', { cavity: 1 }, 400],
    ['own water without a reason', { cavity: 1, grade: 'own' }, 400],
    ['to remelt without one', { cavity: 1, grade: 'remelt' }, 400],
    ['to sell, trimmed', { cavity: 1, grade: 'sell', reason: 'flash' }, 201],
    ['to sell with another fault', { cavity: 1, grade: 'sell', reason: 'bubble' }, 400],
    ['not looked at, with a reason', { cavity: 1, grade: 'unmarked', reason: 'bubble' }, 400],
    ['for a reason nobody knows', { cavity: 1, grade: 'remelt', reason: 'cursed' }, 400],
  ])('%s', async (_what, mark, status) => {
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
    });
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const answer = await workshop.post<Pour>(`/pours/${pour.id}/shots/${body.shots[0]?.id}/marks`, { marks: [mark] });
    expect(answer.status).toBe(status);
    if (status === 201)
      expect(answer.body.shots[0]?.marks[0]).toMatchObject({ cavity: 1, reason: mark.reason ?? null });
  });

  test('of the earlier form counts as what it meant', async () => {
    const marks = [
      { cavity: 1, result: 'bad', reason: 'flash' },
      ...[2, 3, 4].map((cavity) => ({ cavity, result: 'good' })),
    ];
    const pour = await drawn(marks);
    const { body } = await close(pour, 30.6, 10.2);
    expect(body.shots[0]?.marks.map(({ grade }) => grade)).toEqual(['remelt', 'sell', 'sell', 'sell']);
    expect((await rack()).map(({ grade, baits }) => [grade, baits])).toEqual([['sell', 3]]);
  });
});
