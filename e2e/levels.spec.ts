// What a drop, a level and a softener come to, on the screens where they are told and used; sums made by hand.
import { writeStl } from '../core/shape/write.ts';
import { type Api, big, type Id, row, softAndFirm, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

/** A roof: 100 long, 20 wide at its foot, 10 high. Under f of its height lies 1 − (1 − f)² of it. */
const roof = {
  positions: Float64Array.from([0, -10, 0, 0, 10, 0, 0, 0, 10, 100, -10, 0, 100, 10, 0, 100, 0, 10]),
  triangles: Uint32Array.from([0, 2, 1, 3, 4, 5, 0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4, 2, 0, 3, 2, 3, 5]),
};

async function roofMold(api: Api, url: string): Promise<string> {
  const sent = await fetch(`${url}/api/meshes`, { method: 'POST', body: Buffer.from(writeStl(roof)) });
  const { id: meshId } = (await sent.json()) as Id;
  const master = await api<Id & { baitId: string; latest: Id }>('POST', '/masters', {
    name: 'Keelson 100',
    shape: 'stick',
    kind: 'print',
    meshId,
  });
  const about = { kind: 'silicone-open', fill: 'open-pour', cavities: 2, cavityMl: 10 };
  const revision = { baitId: master.baitId, revisionId: master.latest.id };
  return (await api<Id>('POST', '/molds', { name: 'Keelson × 2', ...about, ...revision })).id;
}

test('a belly up to half of the height: so many mm and mL in each mold, as its shape has it and as it stands', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api } = await stocked(world.url);
  const moldId = await roofMold(api, world.url);
  const [material] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  const items = [{ materialId: material?.id, amount: 6, unit: 'drop' }];
  await api('POST', '/recipes', { name: 'Limpet', hex: '#a5733f', basisMl: 236.5882365, items });
  await page.goto('/colours');
  await page.getByRole('link', { name: 'Put melts in layers' }).click();
  await page.getByLabel('Name of the colour').fill('Night Tide');
  await page.getByLabel('How much').first().selectOption({ label: 'up to a level' });
  await page.getByLabel('Of its height, %').fill('50');
  await page.getByRole('button', { name: 'Keep this colour' }).click();
  await expect(page.getByText('up to 50 % of its height')).toBeVisible();
  // Half of its height is three quarters of it.
  await expect(page.getByText('filled flat, the back up default: belly to 5 mm, 7.5 mL a cavity')).toBeVisible();

  await page.goto(`/molds/${moldId}`);
  await page.getByRole('button', { name: 'change', exact: true }).click();
  await page.getByLabel('Stands, while it is filled').selectOption({ label: 'flat, the belly up' });
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('filled flat, the belly up')).toBeVisible();

  await page.goto('/colours');
  await page.getByRole('link', { name: /Night Tide/ }).click();
  await expect(page.getByText('filled flat, the belly up: belly to 5 mm, 2.5 mL a cavity')).toBeVisible();
  await page.getByRole('link', { name: 'Pour it' }).click();
  // A mold whose bait has no shape here cannot be filled up to a level.
  const shots = async (name: string) =>
    page.getByRole('listitem').filter({ hasText: name }).getByRole('button', { name: 'more' }).click();
  await shots('Sandlance × 4');
  await expect(page.getByText('its bait has no shape here')).toBeVisible();
  await page.getByRole('listitem').filter({ hasText: 'Sandlance × 4' }).getByRole('button', { name: 'less' }).click();
  await shots('Keelson × 2');
  // 2 × 2.5 mL, 6 % of feed, 8 mL of film; the back three times as much.
  await expect(page.getByText('13.3 mL')).toBeVisible();
  await expect(page.getByText('23.9 mL')).toBeVisible();
  await page.getByRole('button', { name: 'Lay out this pour' }).click();
  await expect(page.getByText('belly, up to 5 mm')).toBeVisible();
  await expect(page.getByText('Keelson × 2 filled flat, the belly up')).toBeVisible();
  await page.goto(`${page.url()}/bench`);
  await expect(page.getByText('belly 5 mL, up to 5 mm')).toBeVisible();
  await expect(page.getByText('filled flat, the belly up')).toBeVisible();
});

test('another bottle: as many of its drops as make the same millilitres, on card, sheet and board', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, colourwayId, moldId } = await stocked(world.url);
  const [material] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  await api('POST', `/materials/${material?.id}/lots`, { code: 'B1', grams: 100 });
  await page.goto(`/store?material=${material?.id}`);
  await page.getByLabel('New lot').fill('B2');
  await page.getByLabel('Holds').fill('80');
  await page.getByLabel('Bottle strength').fill('2');
  await page.getByRole('button', { name: 'Add this lot' }).click();
  await row(page, 'B2').getByRole('button', { name: 'its drop' }).click();
  await row(page, 'B2').getByLabel('Drops in a mL').fill('30');
  await row(page, 'B2').getByRole('button', { name: 'Keep' }).click();
  await expect(row(page, 'B2')).toContainText('strength 2, 30 drops a mL');
  await expect(row(page, 'B1')).toContainText('in use');
  await row(page, 'B2').getByRole('button', { name: 'use this one' }).click();
  await expect(row(page, 'B2')).toContainText('in use');

  // 24 drops of 20 a mL are 1.2 mL; of 30 a mL 36, and half of them from a bottle twice as strong.
  await page.goto(`/colours/${colourwayId}`);
  await expect(page.getByText('18 drops').first()).toBeVisible();
  const pour = await api<Id>('POST', '/pours', { colourwayId, molds: [{ moldId, shots: 3 }] });
  await page.goto(`/pours/${pour.id}/bench`);
  await page.getByRole('button', { name: 'Type it' }).click();
  for (const figure of '174') await page.getByRole('button', { name: figure, exact: true }).click();
  await page.getByRole('button', { name: 'Enter' }).click();
  await big(page).click();
  await expect(page.getByText('From lot B2, 30 drops a mL, 2 × as strong')).toBeVisible();
  // At the cup the other bottle is one tap away.
  // (3 × 47.7 + 8) mL of a recipe for 236.6: 0.637 of 18, and of 24.
  await expect(page.getByText('11 drops')).toBeVisible();
  await page.getByRole('button', { name: 'take B1' }).click();
  await expect(page.getByText('From lot B1, 20 drops a mL default')).toBeVisible();
  await expect(page.getByText('15 drops')).toBeVisible();
});

test('softener: what a percent of it does is told at its tin, and a cup is blended with it', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, colourwayId, moldId } = await stocked(world.url);
  await softAndFirm(api);
  const tin = { name: 'Loft Ease', kind: 'softener', pricePerKgMinor: 900, lot: { code: 'E1', grams: 900 } };
  const { id } = await api<Id>('POST', '/materials', tin);
  await page.goto(`/store?material=${id}`);
  await page.getByLabel('Points a percent').fill('-1.5');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Nothing is changed yet.')).toBeVisible();
  await page.goto(`/pours/new?colour=${colourwayId}&mold=${moldId}`);
  await page.getByLabel('Wanted').fill('16');
  await page.getByRole('button', { name: 'Blend for 16' }).click();
  // 22 − 1.5 a percent: to 17, a point off, by 3⅓ % of the plastisol or more.
  await expect(page.getByText(/Shore 00 1[67]\.\d ±/)).toBeVisible({ timeout: 45_000 });
  await expect(page.getByText('Loft Ease').locator('visible=true').first()).toBeVisible();
  await expect(page.getByText('At most 10 % of Loft Ease default')).toBeVisible();
  await page.getByRole('button', { name: 'Lay out this pour' }).click();
  await expect(row(page, 'Loft Ease').first()).toContainText('lot E1');
  // Nobody weighed a mL of it; of the other it was told.
  await expect(row(page, 'Loft Ease').first()).toContainText(/g default/);
  await expect(row(page, 'Soft 22').first()).not.toContainText('default');
  const { parts, blend } = await api<{
    parts: { name: string; share: number }[];
    blend: { hardness: { value: number } };
  }>('GET', `/pours/${page.url().split('/').at(-1)}`);
  const share = (name: string) => parts.find((part) => part.name === name)?.share ?? 0;
  expect(blend.hardness.value).toBeCloseTo(22 - (150 * share('Loft Ease')) / share('Soft 22'), 4);
  expect(Math.abs(blend.hardness.value - 16)).toBeLessThanOrEqual(1 + 1e-6);
});
