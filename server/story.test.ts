import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Bin } from '../contract/bins.ts';
import type { Page } from '../contract/fields.ts';
import type { Mold } from '../contract/molds.ts';
import type { Bag, Order, RackRow } from '../contract/orders.ts';
import type { Pour } from '../contract/pours.ts';
import type { Recipe } from '../contract/recipes.ts';
import type { Today } from '../contract/today.ts';
import type { Clock } from '../contract/workshop.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from './testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

test('an order knows what is short, and its cup is sized from the mold’s own rejects', async () => {
  const { body } = await workshop.get<Order>(`/orders/${stock.order.id}`);
  // 16 good of 4 a shot, rejects 1 in 20 until known: P(more than 4 bad of 20) = Π (20−i)/(39−i), i < 5 = 0.0269; of 16 none may be bad: no.
  expect(body.state).toBe('short');
  expect(body.need.cups[0]?.molds[0]).toMatchObject({ shots: 5, goodNeeded: 16, expectedGood: 19 });
  // (4·10 + 5)·1.06 = 47.7 mL a shot, 5 of them and 8 mL film.
  expect(body.need.cups[0]?.cookMl).toBeCloseTo(5 * 47.7 + 8, 6);
});

test('a pour keeps its revision and scaled amounts when the recipe changes after', async () => {
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 5 }],
  });
  // 246.5 mL of a recipe for 240: 24 drops become 24.65.
  expect(pour.plan.items[0]?.amount).toBeCloseTo(24.65, 6);
  const { name, hex } = stock.recipe;
  const items = [{ materialId: stock.colourant.id, amount: 40, unit: 'drop' }];
  const changed = await workshop.ask<Recipe>(
    'PUT',
    `/recipes/${stock.recipe.id}`,
    { name, hex, basisMl: 240, items, reason: 'deeper' },
    { version: 1 },
  );
  expect(changed.body.revision.number).toBe(2);
  const { body: again } = await workshop.get<Pour>(`/pours/${pour.id}`);
  expect(again.recipeRevision).toBe(1);
  expect(again.plan.items[0]?.drops).toBe(25);
  expect(again.recipeItems[0]?.amount).toBe(24);
});

test('every shot stays pinned to the doses and heats as they were', async () => {
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 3 }],
  });
  const dose = (amount: number) =>
    workshop.post<{ doses: { id: string }[] }>(`/ledgers/${pour.ledgerId}/doses`, {
      materialId: stock.colourant.id,
      amount,
      unit: 'drop',
    });
  const shot = () => workshop.post(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  await workshop.post(`/pours/${pour.id}/heats`, { kind: 'cook', c: 176 });
  await shot();
  const first = await dose(20);
  await shot();
  await workshop.post(`/pours/${pour.id}/heats`, { kind: 'reheat', c: 174 });
  await workshop.post('/undo', { rowId: first.body.doses[0]?.id });
  await dose(25);
  await shot();
  const { body } = await workshop.get<Pour>(`/pours/${pour.id}`);
  const inCup = body.shots.map((row) => ({
    doses: body.doses
      .filter((one) => one.seq <= (row.parts[0]?.doseSeq ?? -1))
      .map((one) => (one.reverses ? -one.amount : one.amount)),
    heats: body.heats.filter((one) => one.seq <= (row.parts[0]?.heatSeq ?? -1)).map((one) => one.c),
  }));
  expect(inCup).toEqual([
    { doses: [], heats: [176] },
    { doses: [20], heats: [176] },
    { doses: [20, -20, 25], heats: [176, 174] },
  ]);
});

test('closing a cup moves its baits to the rack and its grams to the remelt bin, once', async () => {
  const pour = await poured(workshop, stock, 5);
  const refused = await workshop.post(`/pours/${pour.id}/close`, { ...closing(19, 1), goodG: 900 });
  expect([refused.status, refused.body.error.code]).toEqual([400, 'mass-not-conserved']);
  const closed = await workshop.post<Pour>(`/pours/${pour.id}/close`, closing(19, 1));
  expect(closed.body.balance?.yieldFraction).toBeCloseTo((19 * 10.2) / (20 * 10.2 + 50), 9);
  expect(closed.body.balance?.unaccountedG).toBeCloseTo(4, 9);
  const again = await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
  expect([again.status, again.body.error.code]).toEqual([409, 'pour-closed']);
  const { body } = await workshop.get<Page<RackRow>>('/rack');
  const { body: bins } = await workshop.get<Page<Bin>>('/bins');
  expect(body.items.map(({ baits, promised, cured }) => ({ baits, promised, cured }))).toEqual([
    { baits: 19, promised: 16, cured: false },
  ]);
  expect(bins.items[0]?.grams).toBeCloseTo(50.2, 6);
  // The lot gave what was cooked.
  expect(closed.body.lots).toMatchObject([{ materialName: 'Soft 22', lotCode: 'A1', grams: expect.closeTo(254, 6) }]);
});

test('packing waits for the cure, takes the oldest baits, and never packs more than there is or was ordered', async () => {
  const line = stock.order.lines[0]?.id as string;
  const pack = (bags: number) => workshop.post<Order>(`/orders/${stock.order.id}/pack`, { lineId: line, bags });
  expect((await pack(1)).body.error.code).toBe('not-enough-stock');
  const pour = await poured(workshop, stock, 3);
  await workshop.post(`/pours/${pour.id}/close`, closing(11, 1));
  expect((await pack(1)).body.error.code).toBe('not-cured');
  workshop.waits(24.1);
  expect((await pack(2)).body.error.code).toBe('not-enough-stock');
  const before = workshop.rows();
  expect((await pack(3)).body.error).toMatchObject({ code: 'more-than-ordered', path: 'bags' });
  expect(workshop.rows()).toBe(before);
  const packed = await pack(1);
  expect(packed.body.lines[0]?.packed).toBe(1);
  const bag = await workshop.get<Bag>(`/bags/${packed.body.bags[0]?.code.toLowerCase()}`);
  expect(bag.body.pours).toEqual([{ id: pour.id, code: 'P1', baits: 8 }]);
  await workshop.post(`/bags/${bag.body.code}/unpack`, {});
  const { body } = await workshop.get<Page<RackRow>>('/rack');
  expect(body.items[0]?.baits).toBe(11);
  expect((await workshop.post(`/bags/${bag.body.code}/unpack`, {})).body.error.code).toBe('already-reversed');
});

test('totals add up: the rack is what was poured less what was packed and what left', async () => {
  for (let n = 0; n < 2; n++) {
    const pour = await poured(workshop, stock, 4);
    await workshop.post(`/pours/${pour.id}/close`, closing(15, 1));
    workshop.waits(30);
  }
  await workshop.post(`/orders/${stock.order.id}/pack`, { lineId: stock.order.lines[0]?.id, bags: 2 });
  const out = { baitId: stock.master.baitId, colourwayId: stock.recipe.id, baits: 5 };
  const fished = await workshop.post<{ moves: { id: string }[] }>('/rack/out', {
    ...out,
    kind: 'fished',
    note: 'north slip',
  });
  await workshop.post('/rack/out', { ...out, baits: 2, kind: 'scrapped' });
  await workshop.post('/undo', { rowId: fished.body.moves[0]?.id });
  const { body } = await workshop.get<Page<RackRow>>('/rack');
  expect(body.items.reduce((sum, row) => sum + row.baits, 0)).toBe(30 - 16 - 2);
  const sent = await workshop.ask<Order>('PATCH', `/orders/${stock.order.id}`, { sent: true }, { version: 1 });
  expect(sent.body.state).toBe('sent');
  const { body: learnt } = await workshop.get<Mold>(`/molds/${stock.mold.id}`);
  expect([learnt.made, learnt.rejected, learnt.health[0]?.rejected]).toEqual([32, 2, 2]);
});

test('a bait is promised to the order due first, and only once', async () => {
  const pour = await poured(workshop, stock, 5);
  await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
  workshop.waits(25);
  const line = { baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 1, perPack: 8 };
  const sooner = await workshop.post<Order>('/orders', {
    newCustomer: { name: 'Tideline' },
    dueOn: '2026-03-05',
    lines: [line],
  });
  expect(sooner.body.state).toBe('good');
  const later = await workshop.get<Order>(`/orders/${stock.order.id}`);
  expect(later.body.need.lines[0]).toMatchObject({ fromReady: 11, short: 5 });
});

test('clocks live on the server: rubber from the moment it is mixed, cure from the last shot', async () => {
  const rubber = await workshop.post<{ id: string }>('/materials', {
    name: 'Loft Soft',
    kind: 'silicone',
    mix: { by: 'mass', partA: 10, partB: 1 },
    potLifeMin: 20,
    demoldMin: 240,
    ratedC: 23,
    lot: { code: 'K1', grams: 1000 },
  });
  const { lengthMm, widthMm, heightMm, id } = stock.master.latest;
  const planInput = {
    pour: 'open-face',
    masters: [{ volumeMl: 10, lengthMm, widthMm, heightMm, count: 2 }],
    mix: { by: 'mass', partA: 10, partB: 1 },
    potLifeMin: 20,
    demoldMin: 240,
    roomC: 13,
  };
  const mold = await workshop.post<Mold>('/molds', {
    name: 'Block',
    kind: 'silicone-open',
    fill: 'open-pour',
    baitId: stock.master.baitId,
    revisionId: id,
    cavities: 2,
    cavityMl: 10,
    rubberId: rubber.body.id,
    planInput,
  });
  await workshop.post(`/molds/${mold.body.id}/events`, { kind: 'mixed' });
  // 13 °C against 23: everything takes twice as long.
  const { body } = await workshop.get<Page<Clock>>('/clocks');
  const minutes = body.items.map((clock) => (Date.parse(clock.dueAt) - workshop.now.getTime()) / 60000);
  expect(minutes).toEqual([40, 480]);
  // The store gave both parts: 130 · 60 · 27 / 1000 − 20 = 190.6 mL, × 1.07 × 1.1 g/mL.
  const { body: left } = await workshop.get<{ levelG: number }>(`/materials/${rubber.body.id}`);
  expect(left.levelG).toBeCloseTo(1000 - 190.6 * 1.07 * 1.1, 6);
});

test('today says what to do, from orders, stock and cure', async () => {
  const lead = async () => (await workshop.get<Today>('/today')).body;
  expect(await lead()).toMatchObject({ step: 'pour', lead: 'One cup makes Quayside Chandlery’s order good.' });
  const pour = await poured(workshop, stock, 5);
  expect(await lead()).toMatchObject({ step: 'resume', act: '5 of 5 shots drawn.' });
  await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
  expect((await lead()).lead).toBe('Quayside Chandlery’s order is curing.');
  workshop.waits(25);
  const ready = await lead();
  expect(ready).toMatchObject({ step: 'pack', act: 'Pack two bags.' });
  expect(ready.needs[0]).toMatchObject({ kind: 'hardness', title: 'Hardness of Slack Tide, P1' });
});

test('an early hardness reading is kept but does not count, and can be taken back', async () => {
  const pour = await poured(workshop, stock, 1);
  await workshop.post(`/pours/${pour.id}/close`, closing(3, 1));
  const early = await workshop.post<Pour>(`/pours/${pour.id}/hardness`, { scale: '00', value: 31 });
  expect(early.body.hardness[0]?.early).toBe(true);
  workshop.waits(24.5);
  const read = await workshop.post<Pour>(`/pours/${pour.id}/hardness`, { scale: '00', value: 34.5 });
  expect(read.body.hardness.map((row) => row.early)).toEqual([true, false]);
  const undone = await workshop.post<Pour>('/undo', { rowId: early.body.hardness[0]?.id });
  expect(undone.body.hardness.map((row) => row.value)).toEqual([34.5]);
});

test('a slip of the scale is mended by weighing again: a row of its own, remelt and lots follow', async () => {
  const pour = await poured(workshop, stock, 5);
  await workshop.post(`/pours/${pour.id}/close`, closing(19, 1));
  const again = { ...closing(19, 1), cookedG: 250, returnedG: 36 };
  const { body } = await workshop.post<Pour>(`/pours/${pour.id}/weigh`, again);
  expect(body.balance).toMatchObject({ cookedG: 250, returnedG: 36, unaccountedG: expect.closeTo(4, 6) });
  const { body: bins } = await workshop.get<Page<Bin>>('/bins');
  expect(bins.items[0]?.grams).toBeCloseTo(46.2, 6);
  const { body: plastisol } = await workshop.get<{ levelG: number }>(`/materials/${stock.plastisol.id}`);
  expect(plastisol.levelG).toBeCloseTo(4750, 6);
  const rows = workshop.data.db.prepare('SELECT cooked_g FROM balance ORDER BY seq').all();
  expect(rows).toEqual([{ cooked_g: 254 }, { cooked_g: 250 }]);
  const open = await poured(workshop, stock, 1);
  expect((await workshop.post(`/pours/${open.id}/weigh`, again)).status).toBe(400);
});

test('a pour laid out by mistake is put away and taken up again; one that was drawn from is not', async () => {
  const orderLines = [{ orderLineId: stock.order.lines[0]?.id, baits: 16 }];
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 5 }],
    orderLines,
  });
  const state = async () => (await workshop.get<Order>(`/orders/${stock.order.id}`)).body.state;
  const put = (discarded: boolean, version: number) =>
    workshop.ask<Pour>('PATCH', `/pours/${pour.id}`, { discarded }, { version });
  expect(await state()).toBe('in-pour');
  const away = await put(true, 1);
  expect([away.body.discardedAt, await state()]).toEqual([workshop.now.toISOString(), 'short']);
  expect((await workshop.post(`/pours/${pour.id}/shots`, { moldId: stock.mold.id })).body.error.code).toBe(
    'pour-closed',
  );
  await put(false, 2);
  expect(await state()).toBe('in-pour');
  await workshop.post(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  const { body: drawn } = await workshop.get<Pour>(`/pours/${pour.id}`);
  expect((await put(true, drawn.version)).body.error.code).toBe('already-started');
});

test('an order that was sent or cancelled too soon is taken back', async () => {
  const change = (body: object, version: number) =>
    workshop.ask<Order>('PATCH', `/orders/${stock.order.id}`, body, { version });
  expect((await change({ sent: true }, 1)).body.error.code).toBe('not-packed');
  expect((await change({ cancelled: true }, 1)).body.state).toBe('cancelled');
  const line = { lineId: stock.order.lines[0]?.id, bags: 1 };
  expect((await workshop.post(`/orders/${stock.order.id}/pack`, line)).body.error.code).toBe('already-closed');
  expect((await change({ cancelled: false }, 2)).body.state).toBe('short');
});
