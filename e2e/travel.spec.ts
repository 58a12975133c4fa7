import { readFileSync } from 'node:fs';
import type { Recipe } from '../contract/recipes.ts';
import type { RecipesFile } from '../contract/travel.ts';
import { apiOf, type Id } from './stock.ts';
import { enter, expect, test, World } from './world.ts';

test('a recipe travels in millilitres of the house strength: 40 drops there are 25 of a double bottle here; nobody’s is lost', async ({
  page,
  world,
  browser,
}) => {
  // There: 20 drops a mL, 40 of them in a cup; half a gram of pearl.
  await enter(page);
  const there = apiOf(world.url);
  const blue = await there<Id>('POST', '/materials', {
    name: 'Harbour Blue liquid',
    kind: 'colourant',
    hex: '#1f5f8b',
    dropsPerMl: 20,
  });
  const pearl = await there<Id>('POST', '/materials', {
    name: 'Shell pearl',
    kind: 'powder',
    hex: '#e9e4da',
    bulkGPerMl: 0.42,
  });
  const step = { thicknessMm: 1, mlPerL: 3, overBlack: [0.061, 0.0912, 0.1003], overWhite: [0.3158, 0.7731, 0.9451] };
  await there('POST', `/materials/${blue.id}/steps`, { how: 'typed', ...step });
  await there('POST', '/recipes', {
    name: 'Slack Tide',
    hex: '#4f8796',
    basisMl: 236.5882365,
    items: [
      { materialId: blue.id, amount: 40, unit: 'drop' },
      { materialId: pearl.id, amount: 0.5, unit: 'g' },
    ],
  });
  await page.goto('/colours/travel');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All 1 as JSON' }).click();
  const json = readFileSync(await (await saved).path());
  const file = JSON.parse(json.toString()) as RecipesFile;
  expect(file).toMatchObject({ format: 'blunko.recipes', version: 1 });
  expect(file.recipes[0]?.items).toMatchObject([
    { material: 'Harbour Blue liquid', ml: 2, hex: '#1f5f8b' },
    { material: 'Shell pearl', g: 0.5, bulkGPerMl: 0.42 },
  ]);
  const table = page.waitForEvent('download');
  await page.getByRole('button', { name: 'as a table, CSV' }).click();
  const csv = readFileSync(await (await table).path());
  expect(csv.toString().split(/\r?\n/)[1]).toBe(
    'Slack Tide,#4f8796,,236.5882365,Harbour Blue liquid,colourant,2,,,#1f5f8b',
  );

  // Here: a bottle of double strength that drips 25 a mL. Two millilitres of the house’s are one of it.
  const other = await World.open();
  const mine = await browser.newPage({ baseURL: other.url });
  try {
    await enter(mine);
    const here = apiOf(other.url);
    const own = await here<Id>('POST', '/materials', {
      name: 'Harbour Blue liquid',
      kind: 'colourant',
      hex: '#1f5f8b',
      lot: { code: 'D1', grams: 50, bottleStrength: 2, dropsPerMl: 25 },
    });
    const bring = async (name: string, bytes: Buffer) => {
      await mine.goto('/colours/travel');
      await mine.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/plain', buffer: bytes });
    };
    // Cut short on its way: said, and nothing is brought in.
    await bring('recipes.json', json.subarray(0, json.length - 40));
    await expect(mine.getByText(/breaks off or is no JSON/)).toBeVisible();
    await bring('recipes.json', json);
    await expect(mine.getByText('new here')).toBeVisible();
    await expect(mine.getByText(/New in the store with them, with no bottle yet: Shell pearl/)).toBeVisible();
    // A glove taps twice.
    await mine.getByRole('button', { name: 'Bring 1 in' }).dblclick();
    await expect(mine.getByText(/^1 brought in/)).toBeVisible();
    const { items } = await here<{ items: Recipe[] }>('GET', '/recipes');
    expect(items.map((one) => one.name)).toEqual(['Slack Tide']);
    expect(items[0]?.revision.items[0]).toMatchObject({ materialId: own.id, ml: expect.closeTo(2, 6) });
    await mine.goto(`/colours/${items[0]?.id}`);
    await expect(mine.getByRole('listitem').filter({ hasText: 'Harbour Blue liquid' }).first()).toContainText(
      '25 drops',
    );
    const kept = await here<{ items: { name: string; step: { optics: { k: number[] } } | null }[] }>(
      'GET',
      '/materials',
    );
    expect(kept.items.find((one) => one.name === 'Shell pearl')?.step).toBeNull();

    // The same again changes nothing; one that was changed here meanwhile is kept beside it.
    await bring('recipes.csv', csv);
    await expect(mine.getByText('here already, the same')).toBeVisible();
    await expect(mine.getByRole('button', { name: 'Bring 0 in' })).toBeDisabled();
    const { id, version } = items[0] as Recipe;
    const changed = await fetch(`${other.url}/api/recipes/${id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'if-match': `"${version}"` },
      body: JSON.stringify({
        name: 'Slack Tide',
        hex: '#4f8796',
        notes: '',
        basisMl: 236.5882365,
        reason: 'deeper',
        items: [{ materialId: own.id, amount: 70, unit: 'drop' }],
      }),
    });
    expect(changed.status).toBe(200);
    await bring('recipes.json', json);
    await expect(mine.getByText('another of that name is here')).toBeVisible();
    await mine.getByRole('button', { name: 'Bring 1 in' }).click();
    await expect(mine.getByText(/^1 brought in/)).toBeVisible();
    const after = await here<{ items: Recipe[] }>('GET', '/recipes?sort=name');
    expect(after.items.map((one) => [one.name, one.revision.number])).toEqual([
      ['Slack Tide', 2],
      ['Slack Tide (2)', 1],
    ]);
  } finally {
    await mine.close();
    await other.close();
  }
});
