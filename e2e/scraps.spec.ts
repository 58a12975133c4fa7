import { differenceCiede2000 } from 'culori';
import type { Bin, BinWithMoves } from '../contract/bins.ts';
import type { ColourLook } from '../contract/looks.ts';
import type { Material } from '../contract/materials.ts';
import { STARTS } from '../core/shape/starts.ts';
import { apiOf, type Id } from './stock.ts';
import { enter, expect, test } from './world.ts';

/** sRGB byte to linear light, by the standard's own two branches. */
const linear = (byte: number) => {
  const v = byte / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
};
const linearOf = (hex: string) => [1, 3, 5].map((at) => linear(Number.parseInt(hex.slice(at, at + 2), 16)));

test('a bin of given baits is known by one puck: salt by its density, colour by its look, and what makes it the one that is wanted', async ({
  page,
  world,
}) => {
  await enter(page);
  const api = apiOf(world.url);
  const blue = await api<Id>('POST', '/materials', {
    name: 'Harbour Blue liquid',
    kind: 'colourant',
    hex: '#1f5f8b',
    dropsPerMl: 20,
    lot: { code: 'A1', grams: 100 },
  });
  const recipe = await api<Id>('POST', '/recipes', {
    name: 'Slack Tide',
    hex: '#4f8796',
    basisMl: 236.5882365,
    items: [{ materialId: blue.id, amount: 24, unit: 'drop' }],
  });
  const bin = await api<Bin>('POST', '/bins', { name: 'Given', hex: '#557755' });
  await api('POST', `/bins/${bin.id}/moves`, {
    kind: 'given',
    grams: 500,
    heats: null,
    saltG: null,
    note: 'from the club',
    looked: true,
  });
  await page.goto('/rack');
  await page.getByRole('button', { name: /Given/ }).click();
  await page.getByRole('link', { name: 'what is in it' }).click();
  const keep = page.getByRole('button', { name: 'Keep what it tells' });
  await expect(keep).toBeDisabled();
  await page.getByLabel('The puck weighs').fill('22 g');
  await page.getByLabel('Hung in water it weighs').fill('2 g');
  // 22 g in 20 mL: 1.100 g/mL; by hand (1/1.02 − 1/1.1) / (1/1.02 − 1/2.165) are 13.75 %.
  await expect(page.getByText('1.100', { exact: true })).toBeVisible();
  await expect(page.getByText('13.8 %', { exact: true })).toBeVisible();
  await page.getByLabel('Readings').fill('48 51 50');
  await expect(page.getByText('50', { exact: true })).toBeVisible();
  // Foamy: nothing can be told, and what was typed stays.
  await page.getByLabel('Bubbles in it').selectOption('foamy');
  await expect(page.getByText(/foamy puck tells neither/)).toBeVisible();
  await page.getByLabel('Bubbles in it').selectOption('none');
  await page.getByLabel('Over white').fill('#b9cfd6');
  await page.getByLabel('Over black').fill('#3a5660');
  await page.getByLabel('It is to become').selectOption({ label: 'Slack Tide' });
  const row = page.getByRole('listitem').filter({ hasText: 'Harbour Blue liquid' });
  await expect(row).toBeVisible();
  const asked = await api<{ toAdd: { items: { drops: number }[] } }>('POST', '/calc/remelt.know', {
    massG: 22,
    inWaterG: 2,
    colour: { thicknessMm: 3, overBlack: linearOf('#3a5660'), overWhite: linearOf('#b9cfd6') },
    wish: {
      target: { linear: await lookOf(api, blue.id) },
      colourants: [{ id: 'blue', ...(await opticsOf(api, blue.id)), dropsPerMl: 20 }],
      batchMl: 236.5882365,
    },
  });
  await expect(row).toContainText(`${asked.toAdd.items[0]?.drops}`);
  // Tapped twice it is one puck.
  await keep.dblclick();
  await expect(page.getByRole('heading', { name: 'What the last puck told' })).toBeVisible();
  const kept = await api<BinWithMoves>('GET', `/bins/${bin.id}`);
  expect(kept.grams).toBe(500);
  expect(world.data.db.prepare('SELECT count(*) AS n FROM bin_puck').get()).toEqual({ n: 1 });
  expect(kept.layers[0]?.saltUnknownG).toBeCloseTo(0, 9);
  expect(kept.layers[0]?.saltG).toBeCloseTo(500 * 0.137515, 1);
  expect(kept.colour?.unknownFraction).toBeCloseTo(0, 9);
  // What a share of it does to the recipe, told in ΔE by the colour library.
  await page.goto(`/colours/${recipe.id}`);
  const remelt = page.getByRole('heading', { name: 'With remelt in the cup' }).locator('..');
  const off = Number(/ΔE ([\d.]+)/.exec((await remelt.textContent()) ?? '')?.[1]);
  const own = await opticsOf(api, blue.id);
  const [fresh, mixed] = await Promise.all(
    [0, 0.2].map(async (share) =>
      api<{ hex: string }>('POST', '/calc/colour.predict', {
        base: {
          k: [0.002, 0.002, 0.004].map((one, i) => one * (1 - share) + share * (kept.colour?.optics.k[i] as number)),
          s: [0.001, 0.001, 0.001].map((one, i) => one * (1 - share) + share * (kept.colour?.optics.s[i] as number)),
        },
        items: [{ ...own, mlPerL: (24 / 20 / 236.5882365) * 1000 }],
        thicknessMm: 8,
        background: [1, 1, 1],
      }),
    ),
  );
  expect(off).toBeCloseTo(differenceCiede2000()(fresh?.hex ?? '', mixed?.hex ?? ''), 0);
});

type Api = ReturnType<typeof apiOf>;
/** What the colour is taken for, by the calculator that foresees it: nobody measured it, so its look at an ordinary dose says. */
async function opticsOf(api: Api, materialId: string): Promise<{ k: number[]; s: number[] }> {
  const { hex } = await api<Material>('GET', `/materials/${materialId}`);
  const scatter = 0.12 / 7.4;
  return {
    k: linearOf(hex as string).map((r) => {
      const held = Math.min(0.95, Math.max(0.004, r));
      return (scatter * (1 - held) ** 2) / (2 * held);
    }),
    s: [scatter, scatter, scatter],
  };
}
async function lookOf(api: Api, materialId: string): Promise<number[]> {
  const { linear: seen } = await api<{ linear: number[] }>('POST', '/calc/colour.predict', {
    base: { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] },
    items: [{ ...(await opticsOf(api, materialId)), mlPerL: (24 / 20 / 236.5882365) * 1000 }],
    thicknessMm: 8,
    background: [1, 1, 1],
  });
  return seen;
}

test('a look at the cup stands beside what was foreseen, waits for the Wi-Fi, counts once, and teaches the next forecast', async ({
  page,
  world,
}) => {
  await enter(page);
  const api = apiOf(world.url);
  const paddle = STARTS.find((one) => one.id === 'paddle');
  await api('POST', '/masters', { name: 'Sandlance 110', shape: 'paddle', kind: 'clay', spec: paddle?.spec });
  const blue = await api<Id>('POST', '/materials', {
    name: 'Harbour Blue liquid',
    kind: 'colourant',
    hex: '#1f5f8b',
    dropsPerMl: 20,
  });
  const ledger = await api<Id>('POST', '/ledgers', { title: 'deep water', batchMl: 250 });
  await api('POST', `/ledgers/${ledger.id}/doses`, { materialId: blue.id, amount: 20, unit: 'drop' });
  await page.goto(`/colours/dosing/${ledger.id}`);
  const looks = page.getByRole('region', { name: 'Looks at the cup' });
  await expect(looks).toBeVisible();
  await expect(page.getByText(/As it comes out here/)).toHaveCount(0);
  const before = await api<{ hex: string }>('POST', '/calc/colour.predict', {
    base: { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] },
    items: [{ ...(await opticsOf(api, blue.id)), mlPerL: 4 }],
    thicknessMm: 3,
    background: [1, 1, 1],
  });
  const seen = '#5f86a6';
  await looks.getByLabel('Over white paper').fill(seen);
  const off = differenceCiede2000()(before.hex, seen);
  await expect(looks.getByText(off.toFixed(1), { exact: true })).toBeVisible();
  await page.context().setOffline(true);
  await looks.getByRole('button', { name: 'Keep this look' }).click();
  await expect(looks.getByText('A look waits for the workshop’s computer.')).toBeVisible();
  expect((await api<{ items: ColourLook[] }>('GET', `/ledgers/${ledger.id}/looks`)).items).toEqual([]);
  await page.context().setOffline(false);
  await expect(looks.getByRole('button', { name: 'take it back' })).toHaveCount(1);
  const { items } = await api<{ items: ColourLook[] }>('GET', `/ledgers/${ledger.id}/looks`);
  expect(items).toHaveLength(1);
  expect(items[0]?.deltaE00).toBeCloseTo(off, 0);
  await expect(page.getByText('As it comes out here: Harbour Blue liquid, by 1 look.')).toBeVisible();
  // Taken back, nothing is learnt.
  await looks.getByRole('button', { name: 'take it back' }).click();
  await expect(page.getByText(/As it comes out here/)).toHaveCount(0);
  expect((await api<Material>('GET', `/materials/${blue.id}`)).learnt).toBeNull();
});
