import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Material } from '../../contract/materials.ts';
import type { Recipe, RecipeRow } from '../../contract/recipes.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const NOWHERE = '01a217a4-fdac-76c5-8de1-fc914937aa14';
const recipe = async (id = stock.recipe.id) => (await workshop.get<Recipe>(`/recipes/${id}`)).body;
const item = (amount: number, unit: string, materialId = stock.colourant.id) => ({ materialId, amount, unit });
const write = (body: object) =>
  workshop.post<Recipe>('/recipes', {
    name: 'Ebb Glass',
    hex: '#9fcfb8',
    basisMl: 240,
    items: [item(12, 'drop')],
    ...body,
  });

describe('a recipe is refused whole where it could not be poured', () => {
  test.each([
    ['a unit nobody knows', () => ({ items: [item(2, 'glug')] }), 'unknown-unit', 'items.0.unit'],
    ['a unit that measures no amount', () => ({ items: [item(2, 'mm')] }), 'unit-mismatch', 'items.0.unit'],
    ['nothing of something', () => ({ items: [item(0, 'drop')] }), 'invalid-input', 'items.0.amount'],
    ['a material twice', () => ({ items: [item(1, 'g'), item(2, 'g')] }), 'invalid-input', 'items'],
    ['a material that is not here', () => ({ items: [item(1, 'g', NOWHERE)] }), 'invalid-input', 'items.0.materialId'],
    ['nothing in it', () => ({ items: [] }), 'invalid-input', 'items'],
    ['a name that is taken', () => ({ name: 'slack tide' }), 'already-exists', 'name'],
  ])('%s', async (_, body, code, path) => {
    const before = workshop.rows();
    const refused = await write(body());
    expect([refused.body.error.code, refused.body.error.path]).toEqual([code, path]);
    expect(workshop.rows()).toBe(before);
  });
});

test('a change is a revision of its own: the old one stays, and the page shows the newest first', async () => {
  const before = await recipe();
  const put = (reason: string, amount: number, version: number) =>
    workshop.ask<Recipe>(
      'PUT',
      `/recipes/${before.id}`,
      { name: before.name, hex: before.hex, notes: '', basisMl: 240, items: [item(amount, 'drop')], reason },
      { version },
    );
  const second = await put('darker', 30, before.version);
  await put('darker still', 36, second.body.version);
  const after = await recipe();
  expect(after.revisions.map((one) => [one.number, one.reason, one.items[0]?.amount])).toEqual([
    [3, 'darker still', 36],
    [2, 'darker', 30],
    [1, 'first recipe', 24],
  ]);
  expect(after.revision.number).toBe(3);
  const late = await put('too late', 99, before.version);
  expect([late.status, late.body.error.current?.id]).toEqual([409, before.id]);
  expect((await recipe()).revisions).toHaveLength(3);
});

describe('scaled to a cup', () => {
  const scaled = async (batchMl: number) =>
    (
      await workshop.get<{ items: { drops?: number; g: number | null }[] }>(
        `/recipes/${stock.recipe.id}/scaled?batchMl=${batchMl}`,
      )
    ).body.items;

  test.each([
    [240, 24],
    [120, 12],
    [500, 50],
    // 24 × 355 ÷ 240 = 35.5: whole drops.
    [355, 36],
  ])('%d mL takes %d drops', async (batchMl, drops) => {
    expect((await scaled(batchMl))[0]).toMatchObject({ drops });
  });

  test('a bottle twice as strong gives half the drops, from the lot that is opened now', async () => {
    const { lots } = (await workshop.get<Material>(`/materials/${stock.colourant.id}`)).body;
    await workshop.post(`/materials/${stock.colourant.id}/lots`, { code: 'B2', grams: 50, bottleStrength: 2 });
    expect((await scaled(240))[0]).toMatchObject({ drops: 24 });
    await workshop.post(`/lots/${lots[0]?.id}/moves`, { kind: 'counted', levelG: 0 });
    expect((await scaled(240))[0]).toMatchObject({ drops: 12 });
  });

  test('in the drops of the bottle that was chosen, of the same millilitres', async () => {
    const at = `/materials/${stock.colourant.id}`;
    // 24 drops were written where a mL has 20: 1.2 mL. This bottle drips 30 of them, and is twice as strong.
    const body = { code: 'B2', grams: 50, bottleStrength: 2, dropsPerMl: 30 };
    const more = (await workshop.post<Material>(`${at}/lots`, body)).body;
    const b2 = more.lots.find((lot) => lot.code === 'B2');
    const use = (lotId: string | null | undefined, version: number) =>
      workshop.ask<Material>('PATCH', at, { lotId }, { version });
    expect((await use(b2?.id, more.version)).body.lotId).toBe(b2?.id);
    expect((await recipe()).revision.items[0]).toMatchObject({ amount: 36, unit: 'drop', ml: 1.2, bottleStrength: 2 });
    expect((await scaled(240))[0]).toMatchObject({ drops: 18, ml: expect.closeTo(0.6, 9) });
    // A drop that was weighed anew is another number of drops, and the same recipe.
    const finer = { dropsPerMl: 40, bottleStrength: 2 };
    expect((await workshop.ask('PATCH', `/lots/${b2?.id}`, finer, { version: more.version })).status).toBe(409);
    await workshop.ask('PATCH', `/lots/${b2?.id}`, finer, { version: more.version + 1 });
    expect((await scaled(240))[0]).toMatchObject({ drops: 24, ml: expect.closeTo(0.6, 9) });
    // Empty, it is in use no more: the oldest that holds something is.
    await workshop.post(`/lots/${b2?.id}/moves`, { kind: 'counted', levelG: 0 });
    expect((await scaled(240))[0]).toMatchObject({ drops: 24, ml: expect.closeTo(1.2, 9) });
    const plastic = (await workshop.get<Material>(`/materials/${stock.plastisol.id}`)).body;
    const strange = await use(plastic.lots[0]?.id, more.version + 2);
    expect([strange.status, strange.body.error.path]).toEqual([400, 'lotId']);
  });

  test.each(['0', '-5', 'much', '99999'])('not to %s mL', async (batchMl) => {
    expect((await workshop.get(`/recipes/${stock.recipe.id}/scaled?batchMl=${batchMl}`)).status).toBe(400);
  });
});

test('what of a colour is here: baits on the rack, grams to remelt, and its pours with what came of them', async () => {
  const pour = await poured(workshop, stock, 3);
  await workshop.post(`/pours/${pour.id}/close`, closing(11, 1));
  const row = (await workshop.get<{ items: RecipeRow[] }>('/recipes')).body.items[0];
  // 40 g of sprues and one bad bait of 10.2 g.
  expect([row?.pours, row?.baits, row?.remeltG]).toEqual([1, 11, 50.2]);
  expect((await recipe()).pourList).toMatchObject([{ id: pour.id, revisionNumber: 1, sell: 11, hardness: null }]);
  await workshop.post('/rack/out', {
    kind: 'fished',
    baitId: stock.master.baitId,
    colourwayId: stock.recipe.id,
    baits: 4,
  });
  expect((await recipe()).baits).toBe(7);
});
