import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Order } from '../../contract/orders.ts';
import type { PlanAsked } from '../../contract/plan.ts';
import type { Season } from '../../contract/season.ts';
import type { Today } from '../../contract/today.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
// It is Monday, 2 March 2026.
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const season = async (weeks = 12) => (await workshop.get<Season>(`/season?weeks=${weeks}`)).body;
const order = (dueOn: string, packs: number, more: object = {}) =>
  workshop.made<Order>('/orders', {
    customerId: stock.order.customerId,
    dueOn,
    ...more,
    lines: [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs, perPack: 8 }],
  });
const close = async ({ id }: { id: string }, what: 'sent' | 'cancelled') => {
  const { body } = await workshop.get<Order>(`/orders/${id}`);
  await workshop.ask('PATCH', `/orders/${id}`, { [what]: true }, { version: body.version });
};
const cancel = (one: { id: string }) => close(one, 'cancelled');
const wish = (more: object = {}) =>
  workshop.post<Season>('/season/wishes', {
    baitId: stock.master.baitId,
    colourwayId: stock.recipe.id,
    baits: 24,
    dueOn: '2026-04-01',
    ...more,
  });

test('the weeks ahead are told by the same weeks of each earlier year on record; a cancelled order and a gift are no sale', async () => {
  await order('2025-03-10', 5);
  await order('2025-05-20', 3);
  await order('2025-06-20', 9);
  await order('2024-03-02', 4);
  await order('2024-04-02', 7, { gift: true });
  await cancel(await order('2025-04-01', 50));
  const { rows, from, to } = await season();
  // Twelve weeks from 2 March are until 25 May; the record begins with 2 March 2024.
  expect([from, to]).toEqual(['2026-03-02', '2026-05-25']);
  expect(rows).toMatchObject([{ baitName: 'Sandlance 110', sold: [64, 32], ordered: 16, wished: 0 }]);
  expect((await season(2)).rows[0]?.sold).toEqual([40, 32]);
});

test('what lies there beyond all that is ordered is free, and what nobody ordered for a year is named', async () => {
  await cancel(stock.order);
  const old = await order('2024-12-01', 1);
  await cancel(old);
  const pour = await poured(workshop, stock, 5);
  await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
  expect((await season()).dead).toMatchObject([{ baitName: 'Sandlance 110', baits: 19, lastOn: null }]);
  // Somebody wants eight of them, and did so last spring.
  await order('2026-03-20', 1);
  const before = await order('2025-03-20', 2);
  await cancel(before);
  await order('2025-03-21', 2);
  await close(await order('2025-03-22', 1), 'cancelled');
  const { dead, rows } = await season();
  expect(dead).toEqual([]);
  // Nineteen less the eight, and less the sixteen that were due last spring and are still open: none is free.
  expect(rows[0]).toMatchObject({ sold: [16], ordered: 8, free: 0 });
});

test('a wish is poured on a free evening: in the plan, after what is ordered, and on Today once no order is short', async () => {
  await wish();
  const { asked, lines } = (await workshop.get<PlanAsked>('/plan')).body;
  expect(lines.map(({ code, dueOn, baits }) => [code, dueOn, baits])).toEqual([
    ['N1', '2026-03-09', 16],
    ['stock', '2026-04-01', 24],
  ]);
  // Bags are packed with the order that takes them: 45 s to eight baits, whatever is wished for.
  expect(asked.baits).toEqual([{ id: stock.master.baitId, packS: 45 / 8, finishS: 0, dryH: 0 }]);
  expect((await workshop.get<Today>('/today')).body.lead).toBe(
    'Two cups make Quayside Chandlery’s order good, and some for the rack.',
  );
  await cancel(stock.order);
  const { lead, act, cups, step } = (await workshop.get<Today>('/today')).body;
  expect([lead, act, step]).toEqual(['No order is short, and tonight is free.', 'One cup for the season.', 'pour']);
  expect(cups[0]?.tonight.orderLines).toEqual([]);
  // Laid out it is not planned once more; closed it lies there, and the wish is kept.
  const pour = await poured(workshop, stock, 7);
  expect((await workshop.get<PlanAsked>('/plan')).body.lines).toEqual([]);
  expect((await workshop.get<Today>('/today')).body.cups).toEqual([]);
  await workshop.post(`/pours/${pour.id}/close`, closing(27, 1));
  expect((await workshop.get<Today>('/today')).body.lead).toBe('Nothing is short.');
});

test('a wish is let go; one of yesterday, of nothing or of no bait is refused', async () => {
  const { body } = await wish();
  const [one] = body.wishes;
  await workshop.post(`/season/wishes/${one?.id}/end`, {});
  expect((await season()).wishes).toEqual([]);
  for (const more of [{ dueOn: '2026-03-01' }, { baits: 0 }, { baitId: '018f0000-0000-7000-8000-000000000001' }])
    expect((await wish(more)).status).toBeGreaterThanOrEqual(400);
  expect((await season()).wishes).toEqual([]);
});
