import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Material } from '../../contract/materials.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Recipe } from '../../contract/recipes.ts';
import type { Today } from '../../contract/today.ts';
import { closing, poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const material = async (id: string) => (await workshop.get<Material>(`/materials/${id}`)).body;
const levels = async (id: string) => (await material(id)).lots.map((lot) => Math.round(lot.levelG * 1000) / 1000);

describe('lots', () => {
  test('what came, what went and what was counted add up to a level', async () => {
    const lot = stock.colourant.lots[0]?.id as string;
    const move = (body: object) => workshop.post<Material>(`/lots/${lot}/moves`, body);
    await move({ kind: 'used', grams: 12.5 });
    await move({ kind: 'received', grams: 20 });
    expect((await move({ kind: 'counted', levelG: 105 })).body.levelG).toBe(105);
    const moves = workshop.data.db.prepare('SELECT kind, grams FROM lot_move WHERE lot_id = ? ORDER BY seq').all(lot);
    expect(moves).toEqual([
      { kind: 'received', grams: 100 },
      { kind: 'used', grams: -12.5 },
      { kind: 'received', grams: 20 },
      { kind: 'counted', grams: -2.5 },
    ]);
  });

  test('a cup empties the opened lot before it starts the next, and a pour says which it used', async () => {
    const { id } = stock.plastisol;
    await workshop.post(`/lots/${stock.plastisol.lots[0]?.id}/moves`, { kind: 'counted', levelG: 100 });
    await workshop.post(`/materials/${id}/lots`, { code: 'A2', grams: 5000 });
    const pour = await poured(workshop, stock, 5);
    const { body } = await workshop.post<Pour>(`/pours/${pour.id}/close`, closing(19, 1));
    // 254 g cooked: 100 from the old lot, 154 from the new one.
    expect(await levels(id)).toEqual([0, 4846]);
    expect(body.lots.map(({ lotCode, grams }) => [lotCode, Math.round(grams)])).toEqual([
      ['A1', 100],
      ['A2', 154],
    ]);
  });

  test('doses are drawn too: 24 drops of 1/20 mL at 1 g/mL are 1.2 g', async () => {
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 1 }],
    });
    await workshop.post(`/ledgers/${pour.ledgerId}/doses`, {
      materialId: stock.colourant.id,
      amount: 24,
      unit: 'drop',
    });
    const { body: shot } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    await workshop.post(`/pours/${pour.id}/shots/${shot.shots[0]?.id}/marks`, {
      marks: [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' })),
    });
    await workshop.post(`/pours/${pour.id}/close`, { cookedG: 60, goodG: 40.8, rejectG: 0, returnedG: 10 });
    expect(await levels(stock.colourant.id)).toEqual([98.8]);
    expect(await levels(stock.plastisol.id)).toEqual([5000 - 58.8]);
  });

  test('the same code twice for one material is refused; for another it is fine', async () => {
    const twice = await workshop.post(`/materials/${stock.plastisol.id}/lots`, { code: 'A1', grams: 10 });
    expect([twice.status, twice.body.error.code]).toEqual([409, 'already-exists']);
    expect((await workshop.post(`/materials/${stock.colourant.id}/lots`, { code: 'A1', grams: 10 })).status).toBe(201);
  });
});

test('what runs low needs somebody, until it is bought', async () => {
  const { id, version } = stock.colourant;
  await workshop.ask('PATCH', `/materials/${id}`, { reorderG: 120 }, { version });
  const needs = async () => (await workshop.get<Today>('/today')).body.needs.filter((need) => need.kind === 'store');
  expect(await needs()).toMatchObject([
    { when: { text: '100 g left' }, title: 'Harbour Blue liquid runs low', to: `/store?material=${id}` },
  ]);
  await workshop.post(`/materials/${id}/lots`, { code: 'B2', grams: 50 });
  expect(await needs()).toEqual([]);
});

test('what a lot held when it came stays known while it empties', async () => {
  const { id, lots } = stock.plastisol;
  const lot = lots[0]?.id as string;
  await workshop.post(`/lots/${lot}/moves`, { kind: 'used', grams: 1200 });
  await workshop.post(`/lots/${lot}/moves`, { kind: 'received', grams: 500 });
  expect((await material(id)).lots.map(({ levelG, receivedG }) => [levelG, receivedG])).toEqual([[4300, 5500]]);
});

test('a double-strength bottle takes half the drops', async () => {
  const strong = await workshop.post<Material>('/materials', {
    name: 'Coal liquid',
    kind: 'colourant',
    lot: { code: 'C1', grams: 50, bottleStrength: 2 },
  });
  const { body: recipe } = await workshop.post<Recipe>('/recipes', {
    name: 'Night Ferry',
    hex: '#2b3358',
    basisMl: 240,
    items: [
      { materialId: strong.body.id, amount: 20, unit: 'drop' },
      { materialId: stock.colourant.id, amount: 20, unit: 'drop' },
    ],
  });
  const { body } = await workshop.get<{ items: { drops: number }[] }>(`/recipes/${recipe.id}/scaled?batchMl=480`);
  expect(body.items.map((item) => item.drops)).toEqual([20, 40]);
});

test('a measure of one’s own is weighed once and then used like any other', async () => {
  await workshop.post('/measures', { name: 'scoop', count: 10, grams: 6.8 });
  const { body: recipe, status } = await workshop.post<Recipe>('/recipes', {
    name: 'Scooped',
    hex: '#ffffff',
    basisMl: 240,
    items: [{ materialId: stock.colourant.id, amount: 2, unit: 'scoop' }],
  });
  expect(status).toBe(201);
  const { body } = await workshop.get<{ items: { ml: number; amount: number }[] }>(
    `/recipes/${recipe.id}/scaled?batchMl=120`,
  );
  expect(body.items[0]).toMatchObject({ amount: 1, ml: expect.closeTo(0.68, 9) });
});

test.each([
  ['a rubber without its ratio', { name: 'Loft', kind: 'silicone', potLifeMin: 20, demoldMin: 60 }, 'mix'],
  ['a colour that is none', { name: 'X', kind: 'flake', hex: 'red' }, 'hex'],
  ['a hardness beyond the scale', { name: 'X', kind: 'plastisol', hardness: 101 }, 'hardness'],
  ['a strength of nothing', { name: 'X', kind: 'colourant', strength: 0 }, 'strength'],
  ['a name of control characters', { name: 'a\u0000b', kind: 'salt' }, 'name'],
])('%s is refused', async (_what, body, path) => {
  const answer = await workshop.post('/materials', body);
  expect([answer.status, answer.body.error.path]).toEqual([400, path]);
});
