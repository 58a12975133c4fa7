import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { ColourLook } from '../../contract/looks.ts';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Ledger, Recipe } from '../../contract/recipes.ts';
import { layerOver, meltOf, type Optics, type Rgb } from '../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { type Stocked, stocked, TestWorkshop, twoShots } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
const BLUE: Optics = { k: [0.08, 0.03, 0.01], s: [0.004, 0.006, 0.011] };
/** Plain plastic with so much of the blue, as it looks 4 mm thick over white. */
const looks = (mlPerL: number, times = 1): Rgb =>
  layerOver(meltOf(PLAIN_PLASTIC, [{ k: BLUE.k.map((k) => k * times) as Rgb, s: BLUE.s, mlPerL }]), 4, [1, 1, 1]);
const measured = () => {
  const step = meltOf(PLAIN_PLASTIC, [{ ...BLUE, mlPerL: 5 }]);
  return workshop.post(`/materials/${stock.colourant.id}/steps`, {
    how: 'typed',
    thicknessMm: 2,
    mlPerL: 5,
    overBlack: layerOver(step, 2, [0, 0, 0]),
    overWhite: layerOver(step, 2, [1, 1, 1]),
  });
};
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
  await measured();
  workshop.waits(1);
});
afterEach(() => workshop.close());

const look = (ledgerId: string, seen: Rgb, more: object = {}) =>
  workshop.post<Page<ColourLook>>(`/ledgers/${ledgerId}/looks`, { how: 'typed', thicknessMm: 4, seen, ...more });
const blue = async () => (await workshop.get<Material>(`/materials/${stock.colourant.id}`)).body.learnt;
/** 20 drops of 20 a mL into 250 mL are 4 mL in a litre. */
async function dosed(): Promise<Ledger> {
  const ledger = await workshop.made<Ledger>('/ledgers', { title: 'blue', batchMl: 250 });
  return workshop.made<Ledger>(`/ledgers/${ledger.id}/doses`, {
    materialId: stock.colourant.id,
    amount: 20,
    unit: 'drop',
  });
}

test('a look is held against what was foreseen of the cup as it was, and teaches every recipe of the colour', async () => {
  const ledger = await dosed();
  const { body } = await look(ledger.id, looks(4, 1.5));
  for (const band of [0, 1, 2] as const) expect(body.items[0]?.foreseen[band]).toBeCloseTo(looks(4)[band], 9);
  expect(body.items[0]).toMatchObject({ doseSeq: ledger.doses[0]?.seq, thicknessMm: 4 });
  expect(body.items[0]?.deltaE00).toBeGreaterThan(3);
  const learnt = await blue();
  expect(learnt?.looks).toBe(1);
  expect(learnt?.factor[0]).toBeGreaterThan(1.2);
  expect(learnt?.factor[0]).toBeLessThan(1.5);
  const recipe = (await workshop.get<Recipe>(`/recipes/${stock.recipe.id}`)).body;
  expect(recipe.revision.items[0]?.learnt?.factor).toEqual(learnt?.factor);
  // What is measured is not changed by it, and a second look is held against the same.
  const again = await look(ledger.id, looks(4, 1.5));
  expect(again.body.items[0]?.foreseen).toEqual(body.items[0]?.foreseen);
  expect((await blue())?.factor[0]).toBeGreaterThan(learnt?.factor[0] ?? 9);
});

test('a look that was a mistake teaches nothing once it is taken back; one from before a step was measured neither', async () => {
  const ledger = await dosed();
  const { body } = await look(ledger.id, looks(4, 2));
  expect((await workshop.post('/undo', { rowId: body.items[0]?.id })).status).toBe(201);
  expect(await blue()).toBeNull();
  expect((await workshop.get<Page<ColourLook>>(`/ledgers/${ledger.id}/looks`)).body.items).toEqual([]);
  await look(ledger.id, looks(4, 2));
  expect(await blue()).not.toBeNull();
  workshop.waits(1);
  await measured();
  expect(await blue()).toBeNull();
});

test('a tap that is sent twice is one look; a closed cup’s puck can still be looked at, each with the remelt it was cooked of', async () => {
  const ledger = await dosed();
  const id = '018f0000-0000-7000-8000-000000000001';
  await look(ledger.id, looks(4), { id });
  expect((await look(ledger.id, looks(4), { id })).status).toBe(409);

  // A dark remelt is half of the cup: nothing is dosed, and it is foreseen as dark as it is.
  const bin = await workshop.made<{ id: string }>('/bins', { name: 'Darks', hex: '#222222' });
  await workshop.made(`/bins/${bin.id}/moves`, {
    kind: 'given',
    grams: 500,
    heats: 1,
    saltG: 0,
    note: '',
    looked: true,
  });
  const scrap = meltOf(PLAIN_PLASTIC, [{ ...BLUE, mlPerL: 8 }]);
  await workshop.made(`/bins/${bin.id}/pucks`, {
    massG: 20.4,
    inWaterG: 0.4,
    colour: { thicknessMm: 2, overBlack: layerOver(scrap, 2, [0, 0, 0]), overWhite: layerOver(scrap, 2, [1, 1, 1]) },
  });
  const pour: Pour = await twoShots(workshop, stock, {
    blend: [
      { materialId: stock.plastisol.id, share: 0.5 },
      { binId: bin.id, share: 0.5 },
    ],
  });
  const { body } = await look(pour.ledgerId, looks(4));
  for (const band of [0, 1, 2] as const) expect(body.items[0]?.foreseen[band]).toBeCloseTo(looks(4)[band], 6);
});

test.each([
  [{ seen: [0.1, 0.2, 1.2] }, 'seen.2'],
  [{ thicknessMm: 0 }, 'thicknessMm'],
])('a look that cannot be one is refused: %o', async (more, path) => {
  const ledger = await dosed();
  const before = workshop.rows();
  const { status, body } = await look(ledger.id, looks(4), more);
  expect([status, body.error.path, workshop.rows() - before]).toEqual([400, path, 0]);
});
