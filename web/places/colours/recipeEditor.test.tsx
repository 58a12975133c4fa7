// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { Page } from '../../testing/page.tsx';
import { EditRecipe, NewRecipe } from './RecipeEditor.tsx';

const id = (n: number) => `01a217a4-fdac-76c5-8de1-fc914937aa${String(n).padStart(2, '0')}`;
const material = (n: number, name: string, kind: string, awayAt: string | null = null) => ({
  id: id(n),
  name,
  kind,
  version: 1,
  awayAt,
  hex: '#1f5f8b',
  lots: [],
  lotId: null,
  dropsPerMl: null,
  bulkGPerMl: null,
  densityGPerMl: null,
  sizeMm: null,
  cut: null,
  step: null,
});
const STORE = {
  items: [
    material(1, 'Harbour Blue', 'colourant'),
    material(2, 'Silver flake', 'flake'),
    material(3, 'Fine salt', 'salt'),
    material(4, 'Soft 22', 'plastisol'),
    material(5, 'Old Green', 'colourant', '2026-01-01'),
  ],
  nextCursor: null,
};
const item = (n: number, materialName: string, materialKind: string, amount: number, unit: string) => ({
  id: `i${n}`,
  materialId: id(n),
  materialName,
  materialKind,
  amount,
  unit,
});
const RECIPE = {
  id: 'r1',
  version: 3,
  name: 'Slack Tide',
  hex: '#4f8796',
  notes: '',
  revision: {
    number: 2,
    reason: 'deeper',
    basisMl: 240,
    items: [item(1, 'Harbour Blue', 'colourant', 18, 'drop'), item(2, 'Silver flake', 'flake', 0.25, 'tsp')],
  },
};

let page: Page;
type Answer = NonNullable<Parameters<typeof Page.open>[1]>['answer'];
const openNew = async (answer: Answer = () => ({ body: { id: 'r9' } })) => {
  page = await Page.open(<NewRecipe />, {
    at: '/colours/new',
    route: '/colours/new',
    gets: {
      '/api/materials': STORE,
      '/api/masters': { items: [], nextCursor: null },
      '/api/measures': { items: [{ id: 's', name: 'scoop', ml: 7 }], nextCursor: null },
    },
    answer,
  });
};
const openOld = async (answer: Answer = () => ({ body: { id: 'r1' } })) => {
  page = await Page.open(<EditRecipe />, {
    at: '/colours/r1/edit',
    route: '/colours/:id/edit',
    gets: {
      '/api/materials': STORE,
      '/api/masters': { items: [], nextCursor: null },
      '/api/recipes/r1': RECIPE,
    },
    answer,
  });
};
beforeEach(() => localStorage.clear());
afterEach(() => page.close());

describe('a new recipe', () => {
  test('what is of the store goes by its kind’s usual unit, where none was written', async () => {
    await openNew();
    await page.typeAt('name', 'Ebb Glass');
    await page.pickAt('items.0.materialId', 'Silver flake');
    await page.typeAt('items.0.amount', '1/4');
    await page.press('Keep this recipe');
    expect(page.sent).toMatchObject([
      { path: '/api/recipes', body: { name: 'Ebb Glass', items: [{ materialId: id(2), amount: 0.25, unit: 'tsp' }] } },
    ]);
    // A US cup.
    expect(page.body.basisMl).toBeCloseTo(236.588, 3);
    expect(page.path).toBe('/colours/r9');
  });

  test.each([
    ['Harbour Blue', '18', 18, 'drop'],
    ['Harbour Blue', '18 drops', 18, 'drop'],
    ['Silver flake', '2 g', 2, 'g'],
    ['Fine salt', '1 1/2 tbsp', 1.5, 'tbsp'],
    ['Fine salt', '2 Scoops', 2, 'scoop'],
  ])('%s: “%s”', async (name, text, amount, unit) => {
    await openNew();
    await page.typeAt('name', 'Ebb Glass');
    await page.pickAt('items.0.materialId', name);
    await page.typeAt('items.0.amount', text);
    await page.press('Keep this recipe');
    expect((page.body.items as object[])[0]).toMatchObject({ amount, unit });
  });

  test('something new goes into the store first, once, even where the recipe is refused then', async () => {
    let refused = 0;
    await openNew(({ path }) =>
      path === '/api/materials'
        ? { body: { id: id(9) } }
        : refused++ === 0
          ? {
              status: 400,
              body: { error: { code: 'already-exists', message: 'There is one of that name.', path: 'name' } },
            }
          : { body: { id: 'r9' } },
    );
    await page.typeAt('name', 'Ebb Glass');
    await page.typeAt('items.0.newName', ' Tern white ');
    await page.typeAt('items.0.amount', '6 drops');
    await page.press('Keep this recipe');
    expect(page.at('name').getAttribute('aria-invalid')).toBe('true');
    await page.typeAt('name', 'Ebb Glass 2');
    await page.press('Keep this recipe');
    expect(page.sent.map((one) => one.path)).toEqual(['/api/materials', '/api/recipes', '/api/recipes']);
    expect(page.sent[0]?.body).toEqual({ name: 'Tern white', kind: 'colourant' });
    expect((page.body.items as { materialId: string }[])[0]?.materialId).toBe(id(9));
  });

  test('only what is dosed and in use is offered, and nothing twice', async () => {
    await openNew();
    const offered = (n: number) =>
      [...page.at<HTMLSelectElement>(`items.${n}.materialId`).options].map((one) => one.textContent);
    expect(offered(0)).toEqual(['something new…', 'Harbour Blue', 'Silver flake', 'Fine salt']);
    await page.pickAt('items.0.materialId', 'Harbour Blue');
    await page.press('One more');
    expect(offered(1)).toEqual(['something new…', 'Silver flake', 'Fine salt']);
  });

  test('a unit that the workshop refuses is refused at the amount, where it was written', async () => {
    await openNew(() => ({
      status: 400,
      body: { error: { code: 'unknown-unit', message: 'No unit is called glug.', path: 'items.0.unit' } },
    }));
    await page.typeAt('name', 'Ebb Glass');
    await page.pickAt('items.0.materialId', 'Harbour Blue');
    await page.typeAt('items.0.amount', '2 glug');
    const button = page.button('Keep this recipe');
    if (!button.disabled) await page.press('Keep this recipe');
    expect([page.at('items.0.amount').getAttribute('aria-invalid'), page.path]).toEqual(['true', '/colours/new']);
  });
});

describe('a recipe is changed', () => {
  test('it begins as written, and is sent by the version that was opened, with a reason', async () => {
    await openOld();
    expect([page.at('items.0.amount').value, page.at('items.1.amount').value]).toEqual(['18 drops', '0.25 tsp']);
    const send = page.button('Keep as v3');
    expect(send.disabled).toBe(true);
    await page.typeAt('items.0.amount', '20 drops');
    await page.typeAt('reason', 'paler than the sample');
    await page.press('Keep as v3');
    expect(page.sent).toMatchObject([
      {
        path: '/api/recipes/r1',
        method: 'PUT',
        body: { reason: 'paler than the sample', items: [{ amount: 20 }, { amount: 0.25 }] },
      },
    ]);
  });

  const theirs = {
    ...RECIPE,
    version: 4,
    revision: {
      ...RECIPE.revision,
      number: 3,
      reason: 'theirs',
      items: [item(1, 'Harbour Blue', 'colourant', 30, 'drop')],
    },
  };
  const stale = () => {
    let asked = 0;
    return () =>
      asked++ === 0
        ? { status: 409, body: { error: { code: 'stale-version', message: 'Changed meanwhile.', current: theirs } } }
        : { body: { id: 'r1' } };
  };
  const change = async () => {
    await openOld(stale());
    await page.typeAt('items.0.amount', '20 drops');
    await page.typeAt('reason', 'mine');
    await page.press('Keep as v3');
  };

  test('saved by somebody else meanwhile, both are shown and mine goes after theirs', async () => {
    await change();
    expect(page.text).toContain('Theirs, saved: “theirs”30 drop Harbour Blue');
    expect(page.text).toContain('Yours, not saved yet20 drops Harbour Blue');
    await page.press(/^Save mine as v4/);
    expect(page.sent.at(-1)?.body).toMatchObject({ reason: 'mine', items: [{ amount: 20 }, { amount: 0.25 }] });
    expect(page.path).toBe('/colours/r1');
  });

  test('or one goes on from theirs, and the reason that was typed is still there', async () => {
    await change();
    await page.press('Go on from theirs');
    expect([
      page.at('items.0.amount').value,
      page.at('reason').value,
      page.box.querySelector('[data-field="items.1.amount"]'),
    ]).toEqual(['30 drops', 'mine', null]);
  });
});
