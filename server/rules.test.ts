import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../contract/fields.ts';
import type { Pour, PourRow } from '../contract/pours.ts';
import type { Ledger, Recipe } from '../contract/recipes.ts';
import { poured, type Stocked, stocked, TestWorkshop } from './testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

test('a tap sent again counts once; the same key for another act is refused', async () => {
  const { body: ledger } = await workshop.post<Ledger>('/ledgers', { title: 'a trial', batchMl: 240 });
  const dose = { materialId: stock.colourant.id, amount: 5, unit: 'drop' };
  const path = `/ledgers/${ledger.id}/doses`;
  const first = await workshop.post<Ledger>(path, dose, { key: 'tap-1' });
  const again = await workshop.post<Ledger>(path, dose, { key: 'tap-1' });
  expect(again.body).toEqual(first.body);
  const [a, b] = await Promise.all([
    workshop.post(path, dose, { key: 'tap-2' }),
    workshop.post(path, dose, { key: 'tap-2' }),
  ]);
  expect([a.status, b.status]).toEqual([201, 201]);
  expect((await workshop.get<Ledger>(`/ledgers/${ledger.id}`)).body.doses).toHaveLength(2);
  const other = await workshop.post(path, { ...dose, amount: 6 }, { key: 'tap-1' });
  expect([other.status, other.body.error.code]).toEqual([409, 'key-reused']);
});

test('a refused write is not remembered: it may be sent again once it is mended', async () => {
  const bad = await workshop.post('/customers', { name: '' }, { key: 'k' });
  expect(bad.status).toBe(400);
  expect((await workshop.post('/customers', { name: 'Tideline' }, { key: 'k' })).status).toBe(201);
});

test('two browsers edit one recipe: the second is shown both, and neither is lost', async () => {
  const { name, hex } = stock.recipe;
  const put = (amount: number, version: number) =>
    workshop.ask<Recipe>(
      'PUT',
      `/recipes/${stock.recipe.id}`,
      {
        name,
        hex,
        basisMl: 240,
        items: [{ materialId: stock.colourant.id, amount, unit: 'drop' }],
        reason: `${amount}`,
      },
      { version },
    );
  expect((await put(30, 1)).status).toBe(200);
  const stale = await put(18, 1);
  expect([stale.status, stale.body.error.code]).toEqual([409, 'stale-version']);
  const current = stale.body.error.current as unknown as Recipe;
  expect(current.revision.items[0]?.amount).toBe(30);
  const mended = await put(18, current.version);
  expect(mended.body.revisions.map((revision) => revision.items[0]?.amount)).toEqual([18, 30, 24]);
});

test.each([
  ['PATCH', '/workshop', { roomC: 12 }],
  ['PATCH', '/molds/:mold', { cavityMl: 11 }],
  ['PATCH', '/orders/:order', { notes: 'x' }],
])('%s %s wants the version that was seen', async (method, path, body) => {
  const at = path.replace(':mold', stock.mold.id).replace(':order', stock.order.id);
  expect((await workshop.ask(method, at, body)).status).toBe(428);
  expect((await workshop.ask(method, at, body, { headers: { 'if-match': 'x' } })).status).toBe(400);
  const [one, two] = [
    await workshop.ask(method, at, body, { version: 1 }),
    await workshop.ask(method, at, body, { version: 1 }),
  ];
  expect([one.status, two.status, two.body.error.current?.version]).toEqual([200, 409, 2]);
});

test('what happened cannot be rewritten, whatever the program does', async () => {
  await poured(workshop, stock, 1);
  for (const table of ['shot', 'cavity_mark', 'lot_move', 'recipe_revision', 'master_revision', 'volume_reading']) {
    expect(() => workshop.data.db.prepare(`DELETE FROM ${table}`).run(), table).toThrow(/only added/);
    expect(() => workshop.data.db.prepare(`UPDATE ${table} SET id = 'x'`).run(), table).toThrow(/only added/);
  }
});

describe('refused with a reason, nothing written', () => {
  const cases: [
    what: string,
    ask: (pour: Pour, shotId: string) => Promise<{ status: number; body: { error: { code: string; path?: string } } }>,
    code: string,
    path?: string,
  ][] = [
    [
      'a cavity map longer than the mold’s',
      (pour, shot) => workshop.post(`/pours/${pour.id}/shots/${shot}/marks`, { marks: [{ cavity: 5, grade: 'sell' }] }),
      'invalid-input',
      'marks.0.cavity',
    ],
    [
      'a bad bait without a reason',
      (pour, shot) =>
        workshop.post(`/pours/${pour.id}/shots/${shot}/marks`, { marks: [{ cavity: 1, grade: 'remelt' }] }),
      'invalid-input',
      'marks.0',
    ],
    [
      'a cavity marked twice',
      (pour, shot) =>
        workshop.post(`/pours/${pour.id}/shots/${shot}/marks`, {
          marks: [
            { cavity: 1, grade: 'sell' },
            { cavity: 1, grade: 'sell' },
          ],
        }),
      'invalid-input',
      'marks',
    ],
    [
      'a shot of a mold that is not in the cup',
      (pour) => workshop.post(`/pours/${pour.id}/shots`, { moldId: stock.master.id }),
      'invalid-input',
      'moldId',
    ],
    [
      'a recipe for zero millilitres',
      () =>
        workshop.post('/recipes', {
          name: 'X',
          hex: '#000000',
          basisMl: 0,
          items: [{ materialId: stock.colourant.id, amount: 1, unit: 'drop' }],
        }),
      'invalid-input',
      'basisMl',
    ],
    [
      'a recipe in an unknown unit',
      () =>
        workshop.post('/recipes', {
          name: 'X',
          hex: '#000000',
          basisMl: 240,
          items: [{ materialId: stock.colourant.id, amount: 1, unit: 'smidgen' }],
        }),
      'unknown-unit',
    ],
    [
      'a recipe measured in degrees',
      () =>
        workshop.post('/recipes', {
          name: 'X',
          hex: '#000000',
          basisMl: 240,
          items: [{ materialId: stock.colourant.id, amount: 1, unit: 'C' }],
        }),
      'unit-mismatch',
    ],
    [
      'closing with baits not looked at',
      (pour) => workshop.post(`/pours/${pour.id}/close`, { cookedG: 300, goodG: 10, rejectG: 0, returnedG: 0 }),
      'cavities-unmarked',
    ],
    [
      'a second bait of the same name',
      () =>
        workshop.post('/masters', {
          name: 'SANDLANCE 110',
          shape: 'paddle',
          kind: 'clay',
          lengthMm: 1,
          widthMm: 1,
          heightMm: 1,
          thickestMm: 1,
        }),
      'already-exists',
      'name',
    ],
    ['a master bigger than its box', () => planned({ lengthMm: 100, widthMm: 60, heightMm: 60 }), 'box-too-small'],
    ['a plan with other cavities than the mold', () => planned(undefined, 3), 'invalid-input', 'cavities'],
    [
      'a measure that bears a unit’s name',
      () => workshop.post('/measures', { name: 'cup', count: 1, grams: 5 }),
      'invalid-input',
      'name',
    ],
    [
      'an order for no bait',
      () => workshop.post('/orders', { newCustomer: { name: 'N' }, dueOn: '2026-02-30', lines: [] }),
      'invalid-input',
    ],
    [
      'more taken from a lot than it holds',
      () => workshop.post(`/lots/${stock.plastisol.lots[0]?.id}/moves`, { kind: 'used', grams: 5001 }),
      'not-enough-stock',
      'grams',
    ],
  ];
  const planned = (box: object | undefined, cavities = 2) =>
    workshop.post('/molds', {
      name: 'Box',
      kind: 'silicone-open',
      fill: 'open-pour',
      baitId: stock.master.baitId,
      cavities,
      cavityMl: 10,
      planInput: {
        pour: 'open-face',
        masters: [{ volumeMl: 10, lengthMm: 110, widthMm: 16, heightMm: 17, count: 2 }],
        box,
        mix: { by: 'mass', partA: 1, partB: 1 },
        potLifeMin: 20,
        demoldMin: 60,
      },
    });
  test.each(cases)('%s', async (_what, ask, code, path) => {
    const { body: pour } = await workshop.post<Pour>('/pours', {
      colourwayId: stock.recipe.id,
      molds: [{ moldId: stock.mold.id, shots: 2 }],
    });
    const { body: after } = await workshop.post<Pour>(`/pours/${pour.id}/shots`, { moldId: stock.mold.id });
    const before = workshop.rows();
    const { status, body } = await ask(pour, after.shots[0]?.id as string);
    expect(body.error.code).toBe(code);
    if (path) expect(body.error.path).toBe(path);
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
    expect(workshop.rows()).toBe(before);
  });
});

test('names are data: quotes, SQL and emoji come back as they were written', async () => {
  for (const name of [`Robert'); DROP TABLE pour;--`, '🐟🎣 Ebb “Glass”', '100 % _wild_']) {
    expect((await workshop.post<{ name: string }>('/customers', { name })).body.name).toBe(name);
    const { body } = await workshop.get<Page<{ name: string }>>(`/customers?q=${encodeURIComponent(name.slice(0, 8))}`);
    expect(body.items.map((row) => row.name)).toEqual([name]);
  }
});

test('a list is walked page by page without a gap or a repeat while it grows', async () => {
  const made: string[] = [];
  for (let n = 0; n < 7; n++) {
    workshop.waits(0.01);
    made.unshift(
      (
        await workshop.post<Pour>('/pours', {
          colourwayId: stock.recipe.id,
          molds: [{ moldId: stock.mold.id, shots: 1 }],
        })
      ).body.code,
    );
  }
  const seen: string[] = [];
  for (let cursor = '', turns = 0; turns < 10; turns++) {
    const { body } = await workshop.get<Page<PourRow>>(`/pours?limit=3${cursor ? `&cursor=${cursor}` : ''}`);
    seen.push(...body.items.map((row) => row.code));
    if (turns === 0)
      await workshop.post('/pours', { colourwayId: stock.recipe.id, molds: [{ moldId: stock.mold.id, shots: 1 }] });
    if (!body.nextCursor) break;
    cursor = body.nextCursor;
  }
  expect(seen).toEqual(made);
  for (const query of [
    'limit=201',
    'limit=0',
    'limit=x',
    'cursor=abc',
    'sort=colour',
    'surprise=1',
    'limit=1&limit=2',
  ]) {
    expect((await workshop.get(`/pours?${query}`)).status, query).toBe(400);
  }
});
