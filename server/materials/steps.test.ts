import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Material } from '../../contract/materials.ts';
import type { Recipe } from '../../contract/recipes.ts';
import { layerOver, meltOf, type Optics } from '../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../core/colour/nominal.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const BLUE: Optics = { k: [0.08, 0.03, 0.01], s: [0.004, 0.006, 0.011] };
/** How a step of it looks: thick, dosed. */
const seen = (thicknessMm: number, mlPerL: number, of = BLUE) => {
  const melt = meltOf(PLAIN_PLASTIC, [{ ...of, mlPerL }]);
  return {
    how: 'typed',
    thicknessMm,
    mlPerL,
    overBlack: layerOver(melt, thicknessMm, [0, 0, 0]),
    overWhite: layerOver(melt, thicknessMm, [1, 1, 1]),
  };
};
const steps = (id: string, body: object) => workshop.post<Material>(`/materials/${id}/steps`, body);
const material = async (id: string) => (await workshop.get<Material>(`/materials/${id}`)).body;

test('a step gives back what the colourant is made of, and every recipe of it knows; the newest counts, and can be taken back', async () => {
  const { id } = stock.colourant;
  expect((await material(id)).step).toBeNull();
  const { body } = await steps(id, seen(2, 5));
  for (const part of ['k', 's'] as const)
    for (const i of [0, 1, 2] as const) expect(body.step?.optics[part][i]).toBeCloseTo(BLUE[part][i], 9);
  const recipe = async () => (await workshop.get<Recipe>(`/recipes/${stock.recipe.id}`)).body.revision.items[0];
  expect((await recipe())?.optics?.k[0]).toBeCloseTo(0.08, 9);

  const stronger = { k: BLUE.k.map((k) => 2 * k), s: BLUE.s } as Optics;
  const again = await steps(id, { ...seen(2, 5, stronger), note: 'the new bottle' });
  expect(again.body.step?.optics.k[0]).toBeCloseTo(0.16, 9);
  expect((await workshop.post('/undo', { rowId: again.body.step?.id })).status).toBe(201);
  expect((await material(id)).step?.optics.k[0]).toBeCloseTo(0.08, 9);
  expect((await workshop.post('/undo', { rowId: again.body.step?.id })).status).toBe(409);
  // Nothing that was written is gone.
  expect(workshop.data.db.prepare('SELECT count(*) AS n FROM colour_step').get()).toEqual({ n: 3 });
});

test('of a bottle of double strength a millilitre is two of the house’s', async () => {
  const { id, lots } = stock.colourant;
  const { version } = await material(id);
  await workshop.ask('PATCH', `/lots/${lots[0]?.id}`, { bottleStrength: 2 }, { version });
  // Five millilitres of the double bottle look as ten of the house's.
  const { body } = await steps(id, { ...seen(1, 10), mlPerL: 5 });
  expect(body.step?.mlPerL).toBe(10);
  expect(body.step?.optics.k[0]).toBeCloseTo(0.08, 9);
});

test.each([
  ['nothing shows through it', () => ({ ...seen(2, 5), overWhite: [0, 0, 0] }), 400, 'too-opaque'],
  [
    'as clear as can be counts as plain plastic',
    () => ({ ...seen(10, 5), overBlack: [0, 0, 0], overWhite: [1, 1, 1] }),
    201,
    undefined,
  ],
  ['a reflectance over 1', () => ({ ...seen(2, 5), overWhite: [1.2, 1, 1] }), 400, 'invalid-input'],
  ['no thickness', () => ({ ...seen(2, 5), thicknessMm: 0 }), 400, 'invalid-input'],
])('%s', async (_what, body, status, code) => {
  const answer = await steps(stock.colourant.id, body());
  expect([answer.status, (answer.body as unknown as { error?: { code: string } }).error?.code]).toEqual([status, code]);
  const { n } = workshop.data.db.prepare('SELECT count(*) AS n FROM colour_step').get() as { n: number };
  expect(n).toBe(status === 201 ? 1 : 0);
});

test('plastisol and flake are not measured by a step; a repeated tap keeps one', async () => {
  expect((await steps(stock.plastisol.id, seen(2, 5))).status).toBe(400);
  const id = '01a22868-0000-7000-8000-000000000001';
  await steps(stock.colourant.id, { ...seen(2, 5), id });
  await steps(stock.colourant.id, { ...seen(2, 5), id });
  expect(workshop.data.db.prepare('SELECT count(*) AS n FROM colour_step').get()).toEqual({ n: 1 });
});
