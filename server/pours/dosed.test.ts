import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Mold } from '../../contract/molds.ts';
import type { Order } from '../../contract/orders.ts';
import type { Pour, PourRow } from '../../contract/pours.ts';
import type { Ledger, Recipe } from '../../contract/recipes.ts';
import { openingSchema, opensAfter } from '../../core/process/opening.ts';
import { check } from '../../core/validate.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const material = async (name: string, kind: string) =>
  (await workshop.post<Material>('/materials', { name, kind, lot: { code: 'L1', grams: 50 } })).body;
const level = async (id: string) => (await workshop.get<Material>(`/materials/${id}`)).body.levelG;

/** A cup of 170 mL or so with four spoons of salt and one of flake, drawn twice, every bait good. */
async function salted() {
  const [salt, flake] = [await material('Fine salt', 'salt'), await material('Silver flake', 'flake')];
  const { body: recipe } = await workshop.post<Recipe>('/recipes', {
    name: 'Ebb Glass',
    hex: '#cccccc',
    basisMl: 240,
    items: [
      { materialId: salt.id, amount: 4, unit: 'tsp' },
      { materialId: flake.id, amount: 1, unit: 'tsp' },
    ],
  });
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 2 }],
  });
  const dose = (materialId: string, amount: number) =>
    workshop.post(`/ledgers/${pour.ledgerId}/doses`, { materialId, amount, unit: 'tsp' });
  await dose(salt.id, 3);
  await dose(flake.id, 1);
  for (const _ of [1, 2]) {
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
    await workshop.post(`/pours/${pour.id}/shots/${body.shots.at(-1)?.id}/marks`, { marks });
  }
  return { pour, salt, flake };
}

test('a salted cup: what was dosed lies on the scale with the plastisol, and leaves its lots', async () => {
  const { pour, salt, flake } = await salted();
  const { body } = await workshop.get<Pour>(`/pours/${pour.id}`);
  // 3 tsp of salt at 1.2 g/mL and one of flake at 0.5: nobody has weighed a spoon of either here.
  const [saltG, flakeG] = [3 * 4.92892159375 * 1.2, 4.92892159375 * 0.5];
  expect(body.dosed.g).toBeCloseTo(saltG + flakeG, 6);
  expect(body.dosed.byDefault).toEqual(['Fine salt', 'Silver flake']);
  const before = await level(stock.plastisol.id);
  const cookedG = Math.round(body.plan.cookG + body.dosed.g);
  const closed = await workshop.post<Pour>(`/pours/${pour.id}/close`, {
    cookedG,
    goodG: 100,
    rejectG: 0,
    returnedG: cookedG - 100,
  });
  expect(closed.status).toBe(201);
  expect(before - (await level(stock.plastisol.id))).toBeCloseTo(cookedG - saltG - flakeG, 6);
  expect(await level(salt.id)).toBeCloseTo(50 - saltG, 6);
  expect(await level(flake.id)).toBeCloseTo(50 - flakeG, 6);
});

test('a dose leaves the bottle that was in use when it was given, whichever is in use when the cup is weighed', async () => {
  const at = `/materials/${stock.colourant.id}`;
  const fine = { code: 'B2', grams: 100, dropsPerMl: 40 };
  const { lots, version } = (await workshop.post<Material>(`${at}/lots`, fine)).body;
  const use = (code: string, seen: number) =>
    workshop.ask('PATCH', at, { lotId: lots.find((lot) => lot.code === code)?.id }, { version: seen });
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 1 }],
  });
  const drops = (amount: number) =>
    workshop.post(`/ledgers/${pour.ledgerId}/doses`, { materialId: stock.colourant.id, amount, unit: 'drop' });
  await drops(10);
  const asked = async () =>
    (await workshop.get<Pour>(`/pours/${pour.id}`)).body.plan.items.map((item) => [item.drops, item.lotCode]);
  const { plan } = pour;
  // 55.7 mL of a recipe of 24 drops in 240: 5.57 drops of 20 a mL, 11.14 of 40.
  expect(plan.items.map((item) => [item.drops, item.lotCode])).toEqual([[6, 'B1']]);
  await use('B2', version);
  expect(await asked()).toEqual([[11, 'B2']]);
  await drops(10);
  await use('B1', version + 1);
  const { body: drawn } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
  await workshop.post(`/pours/${pour.id}/shots/${drawn.shots[0]?.id}/marks`, { marks });
  await workshop.post(`/pours/${pour.id}/close`, { cookedG: 60, goodG: 40, rejectG: 0, returnedG: 15 });
  // Weighed and closed, it stands as it was laid out.
  await use('B2', version + 2);
  expect(await asked()).toEqual([[6, 'B1']]);
  // 10 of 20 a mL are half a mL of each g/mL 1; 10 of 40 a mL a quarter.
  const after = (await workshop.get<Material>(at)).body.lots;
  expect(Object.fromEntries(after.map((lot) => [lot.code, lot.levelG]))).toEqual({
    B1: expect.closeTo(99.5, 9),
    B2: expect.closeTo(99.75, 9),
  });
});

test('what one glass does not hold is two cups, each with whole drops and half of what is wanted', async () => {
  // Two shots of (4 × 10 + 5) × 1.06 = 47.7 mL and 8 mL of film: 103.4 in one, 55.7 in each of two.
  await workshop.ask('PATCH', '/workshop', { glassMl: 70 }, { version: 1 });
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 2 }],
    orderLines: [{ orderLineId: stock.order.lines[0]?.id, baits: 8 }],
  });
  const cups = await Promise.all(
    pour.evening.cups.map(async ({ id }) => (await workshop.get<Pour>(`/pours/${id}`)).body),
  );
  expect(cups.map((cup) => [cup.molds.map((mold) => mold.shots), cup.orders.map((order) => order.baits)])).toEqual([
    [[1], [4]],
    [[1], [4]],
  ]);
  for (const cup of cups) {
    expect(cup.cookMl).toBeCloseTo(55.7, 9);
    expect(cup.plan.items.map((item) => item.drops)).toEqual([6]);
  }
  const one = await workshop.ask('PATCH', '/workshop', { glassMl: 60 }, { version: 2 });
  expect(one.status).toBe(200);
  // 60 mL less 15 % are 51: not even one shot. Two cups share each.
  const { body: shared } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 1 }],
  });
  expect(shared.cups.map((cup) => cup.recipeName)).toEqual(['Slack Tide', 'Slack Tide']);
  expect(shared.cookMl).toBeCloseTo(47.7 / 2 + 8, 9);
});

test('a pour that was put away is no longer told of at its order', async () => {
  const order = async () => (await workshop.get<Order>(`/orders/${stock.order.id}`)).body;
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 2 }],
    orderLines: [{ orderLineId: stock.order.lines[0]?.id, baits: 8 }],
  });
  expect((await order()).pours.map((row) => row.code)).toEqual([pour.code]);
  const put = (discarded: boolean, version: number) =>
    workshop.ask<Pour>('PATCH', `/pours/${pour.id}`, { discarded }, { version });
  await put(true, pour.version);
  expect((await order()).pours).toEqual([]);
  await put(false, pour.version + 1);
  expect((await order()).pours).toHaveLength(1);
});

test('what bears heat badly in a cup is known of its recipe and of what was dosed by eye, until that is taken back', async () => {
  const flake = async (name: string, limitC: number) =>
    (await workshop.post<Material>('/materials', { name, kind: 'flake', limitC })).body.id;
  const [written, byEye] = [await flake('Silver flake', 168), await flake('Gold flake', 162)];
  const { body: recipe } = await workshop.post<Recipe>('/recipes', {
    name: 'Lantern',
    hex: '#dd8822',
    basisMl: 240,
    items: [{ materialId: written, amount: 1, unit: 'tsp' }],
  });
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 1 }],
  });
  const limits = async () => (await workshop.get<Pour>(`/pours/${pour.id}`)).body.limits;
  expect(pour.limits).toEqual([{ name: 'Silver flake', c: 168 }]);
  const dose = { materialId: byEye, amount: 1, unit: 'tsp' };
  const { body: ledger } = await workshop.post<Ledger>(`/ledgers/${pour.ledgerId}/doses`, dose);
  expect(await limits()).toEqual([
    { name: 'Gold flake', c: 162 },
    { name: 'Silver flake', c: 168 },
  ]);
  await workshop.post('/undo', { rowId: ledger.doses[0]?.id });
  expect(await limits()).toEqual([{ name: 'Silver flake', c: 168 }]);
});

test('a mold opens at the bench after what its own page tells, of the revision it was made from', async () => {
  const { master, mold, recipe } = stock;
  // A newer, thicker shape is no business of a mold that is there.
  const { lengthMm, widthMm, heightMm } = master.latest;
  await workshop.post(`/masters/${master.id}/revisions`, {
    reason: 'fatter',
    parentId: master.latest.id,
    lengthMm,
    widthMm: widthMm + 8,
    heightMm: heightMm + 8,
    thickestMm: 23,
  });
  const { facts } = (await workshop.get<Mold>(`/molds/${mold.id}`)).body;
  expect(facts).toEqual({ thicknessMm: 15, wallMm: null });
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: mold.id, shots: 2 }],
  });
  const told = check(openingSchema, { kind: 'aluminium', fill: 'injection', thicknessMm: 15, roomC: 20, shots: 8 });
  expect(pour.molds[0]?.opens).toEqual(opensAfter(told));
  // A bought mold, of whose bait nothing was measured: the usual time of its kind, on both.
  const bought = await workshop.post<Mold>('/molds', {
    name: 'Bought',
    kind: 'silicone-open',
    fill: 'open-pour',
    baitId: mold.baitId,
    cavities: 2,
    cavityMl: 9,
  });
  expect(bought.body.facts).toEqual({ thicknessMm: null, wallMm: null });
  const other = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: bought.body.id, shots: 1 }],
  });
  expect(other.body.molds[0]?.opens).toEqual({ waitS: [300], basis: 'kind' });
});

test('an open cup is told of however many came after it', async () => {
  const { recipe, mold } = stock;
  const layOut = async () =>
    (await workshop.post<Pour>('/pours', { colourwayId: recipe.id, molds: [{ moldId: mold.id, shots: 1 }] })).body;
  const open = await layOut();
  for (let n = 0; n < 3; n++) {
    const { id, version } = await layOut();
    await workshop.ask('PATCH', `/pours/${id}`, { discarded: true }, { version });
  }
  const codes = async (query: string) =>
    (await workshop.get<Page<PourRow>>(`/pours?${query}`)).body.items.map((row) => row.code);
  expect(await codes('limit=2')).not.toContain(open.code);
  expect(await codes('only=open&limit=2')).toEqual([open.code]);
});
