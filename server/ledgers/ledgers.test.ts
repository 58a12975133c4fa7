import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Ledger, Recipe } from '../../contract/recipes.ts';
import { closing, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
let ledger: Ledger;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  ledger = (await workshop.post<Ledger>('/ledgers', { title: 'greener', batchMl: 120 })).body;
});
afterEach(() => workshop.close());

const dose = (amount: number, unit = 'drop', materialId = stock.colourant.id) =>
  workshop.post<Ledger>(`/ledgers/${ledger.id}/doses`, { materialId, amount, unit });
const undo = (rowId: string | undefined) => workshop.post<Ledger>('/undo', { rowId });
const keep = (name: string) => workshop.post<Recipe>(`/ledgers/${ledger.id}/keep`, { name, hex: '#3f7d86' });

test('doses add up to the recipe that is kept, for the plastisol that was in the cup', async () => {
  const salt = (await workshop.post<{ id: string }>('/materials', { name: 'Fine salt', kind: 'salt' })).body;
  for (const amount of [20, 10, 1]) await dose(amount);
  await dose(2, 'g', salt.id);
  const { body: recipe } = await keep('Sea Pink');
  expect([recipe.revision.basisMl, recipe.revision.items.map((item) => [item.amount, item.unit])]).toEqual([
    120,
    [
      [31, 'drop'],
      [2, 'g'],
    ],
  ]);
  expect((await workshop.get<Ledger>(`/ledgers/${ledger.id}`)).body.recipeId).toBe(recipe.id);
});

test('what was dosed from another bottle is kept at the house strength, in drops of the one in use', async () => {
  const at = `/materials/${stock.colourant.id}`;
  const strong = { code: 'B2', grams: 50, bottleStrength: 2, dropsPerMl: 30 };
  const { lots, version } = (await workshop.post<Material>(`${at}/lots`, strong)).body;
  const use = (code: string, seen: number) =>
    workshop.ask('PATCH', at, { lotId: lots.find((lot) => lot.code === code)?.id }, { version: seen });
  await use('B2', version);
  // 15 drops of 30 a mL are half a mL; twice as strong, a mL of the house strength.
  await dose(15);
  // Whichever bottle is in use when it is kept.
  await use('B1', version + 1);
  const { body: early } = await keep('Sea Glass');
  expect(early.revision.items).toMatchObject([{ amount: 20, unit: 'drop', ml: 1 }]);
  await use('B2', version + 2);
  const { body: kept } = await keep('Sea Pink');
  expect(kept.revision.items).toMatchObject([{ amount: 30, unit: 'drop', ml: 1 }]);
  // Half a mL of the strong one is what gave the look, and is what it takes again.
  const scaled = await workshop.get<{ items: { drops: number }[] }>(`/recipes/${kept.id}/scaled?batchMl=120`);
  expect(scaled.body.items).toMatchObject([{ drops: 15 }]);
  await use('B1', version + 3);
  expect((await workshop.get<Recipe>(`/recipes/${kept.id}`)).body.revision.items).toMatchObject([
    { amount: 20, ml: 1 },
  ]);
  const { doses } = (await workshop.get<Ledger>(`/ledgers/${ledger.id}`)).body;
  expect(doses).toMatchObject([{ amount: 15, dropsPerMl: 30, lotId: lots.find((lot) => lot.code === 'B2')?.id }]);
});

describe('a mis-tap', () => {
  test('is taken back by a row of its own, once, and is in no recipe', async () => {
    await dose(20);
    const wrong = (await dose(100)).body.doses.at(-1);
    const { body } = await undo(wrong?.id);
    expect(body.doses.map((row) => [row.amount, row.reverses])).toEqual([
      [20, null],
      [100, null],
      [100, wrong?.id],
    ]);
    const twice = await undo(wrong?.id);
    expect([twice.status, twice.body.error.code]).toEqual([409, 'already-reversed']);
    const back = await undo(body.doses.at(-1)?.id);
    expect([back.status, back.body.error.path]).toEqual([400, 'rowId']);
    expect((await keep('Sea Pink')).body.revision.items.map((item) => item.amount)).toEqual([20]);
  });
});

test('its working name can change, by whoever saw it as it is', async () => {
  const rename = (title: string, version: number) =>
    workshop.ask<Ledger>('PATCH', `/ledgers/${ledger.id}`, { title }, { version });
  expect((await rename('less green', ledger.version)).body.title).toBe('less green');
  expect((await rename('too late', ledger.version)).status).toBe(409);
  expect((await rename(' ', ledger.version + 1)).body.error.path).toBe('title');
});

test('nothing dosed is no recipe', async () => {
  const refused = await keep('Nothing');
  expect(refused.status).toBe(400);
  const taken = (await dose(5)).body.doses[0]?.id;
  await undo(taken);
  expect((await keep('Nothing still')).status).toBe(400);
});

test('a cup’s own ledger is not listed beside those of somebody looking for a colour, and closes with the cup', async () => {
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: stock.recipe.id,
    molds: [{ moldId: stock.mold.id, shots: 1 }],
  });
  const listed = (await workshop.get<Page<Ledger>>('/ledgers')).body.items.map((row) => row.id);
  expect(listed).toEqual([ledger.id]);
  const { body: shot } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
  const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
  await workshop.post(`/pours/${pour.id}/shots/${shot.shots[0]?.id}/marks`, { marks });
  await workshop.post(`/pours/${pour.id}/close`, closing(4, 0));
  const late = await workshop.post(`/ledgers/${pour.ledgerId}/doses`, {
    materialId: stock.colourant.id,
    amount: 1,
    unit: 'drop',
  });
  expect([late.status, late.body.error.code]).toEqual([409, 'pour-closed']);
});
