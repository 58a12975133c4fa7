import type { Order } from '../contract/orders.ts';
import type { Recipe } from '../contract/recipes.ts';
import type { TasteWish } from '../contract/tastes.ts';
import { STARTS } from '../core/shape/starts.ts';
import { type Id, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('a bait is ordered by a theme: three different proposals, a picture, and a line that is planned like any other', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api } = await stocked(world.url);
  await api('POST', '/materials', { name: 'Buoy Red liquid', kind: 'colourant', hex: '#c02c3a' });
  await api('POST', '/materials', { name: 'Lamp Yellow liquid', kind: 'colourant', hex: '#e6b422' });
  await page.goto('/orders/new');
  await page.getByRole('button', { name: 'One by taste' }).click();
  await page.getByRole('button', { name: 'Take this line out' }).click();
  await page.getByLabel('What it is to be like').fill('warm, like a shrimp in my dreams');
  await page.getByLabel('Packs').fill('3');
  await page.getByRole('button', { name: 'Keep this order' }).dblclick();
  await expect(page.getByText('colour not chosen')).toBeVisible();
  await expect(page.getByText(/Of this nothing is known here: dreams/)).toBeVisible();
  await page.getByRole('button', { name: 'Propose three' }).dblclick();
  const proposals = page.getByRole('radio');
  await expect(proposals).toHaveCount(3);
  const orderId = page.url().split('/').at(-1) as string;
  const wish = async () =>
    (await api<{ items: TasteWish[] }>('GET', `/orders/${orderId}/tastes`)).items[0] as TasteWish;
  const made = (await wish()).proposals;
  expect(made.map(({ from }) => from)).toEqual(['store', 'store', 'store']);
  // The one recipe here is blue, which is no answer; of the three liquids the red and the yellow one are.
  const looks = made.flatMap((one) => (one.from === 'store' ? [one.hex] : []));
  const redOverBlue = (hex: string) => Number.parseInt(hex.slice(1, 3), 16) - Number.parseInt(hex.slice(5, 7), 16);
  expect(redOverBlue(looks[0] ?? '')).toBeGreaterThan(40);
  await proposals.nth(0).click();
  await page.getByLabel('Name of the new colour').fill('Rock Pool');
  const approve = page.getByRole('button', { name: 'Approved' });
  await approve.click();
  await expect(page.getByText(/Add the picture that the customer said yes to/)).toBeVisible();
  await page.locator('input[type=file]').setInputFiles({ name: 'yes.png', mimeType: 'image/png', buffer: PNG });
  await expect(page.getByRole('img', { name: /^Taken/ })).toBeVisible();
  await approve.dblclick();
  await expect(page.getByText('Rock Pool').first()).toBeVisible();
  const order = await api<Order>('GET', `/orders/${orderId}`);
  expect(order.lines.map(({ colourwayName, packs, perPack }) => [colourwayName, packs, perPack])).toEqual([
    ['Rock Pool', 3, 8],
  ]);
  expect(order.need.lines[0]?.short).toBe(24);
  // The one that was there, and this: no tap counted twice.
  expect((await api<{ items: Order[] }>('GET', '/orders')).items).toHaveLength(2);
  const recipe = await api<Recipe>('GET', `/recipes/${order.lines[0]?.colourwayId}`);
  expect(recipe.hex).toBe(looks[0]);
  expect(recipe.notes).toBe('warm, like a shrimp in my dreams');
});

test('layers stand in the bait’s own shape: a section says how thick each is, and why it would peel', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, colourwayId } = await stocked(world.url);
  const paddle = STARTS.find((one) => one.id === 'paddle');
  await api('POST', '/masters', { name: 'Sprat 80', shape: 'paddle', kind: 'clay', spec: paddle?.spec });
  const pearl = await api<Id>('POST', '/materials', { name: 'Milk white', kind: 'colourant', hex: '#eeeae2' });
  const belly = await api<Id>('POST', '/recipes', {
    name: 'Ebb Glass',
    hex: '#eeeae2',
    basisMl: 236.5882365,
    items: [{ materialId: pearl.id, amount: 30, unit: 'drop' }],
  });
  const layered = await api<Id>('POST', '/colourways', {
    name: 'Gannet Coat',
    hex: '#335577',
    layers: [
      { place: 'belly', recipeId: belly.id, measure: 'share', shareFraction: 0.5 },
      { place: 'back', recipeId: colourwayId, joins: 'melted', measure: 'rest' },
    ],
  });
  await page.goto(`/colours/${layered.id}`);
  const middle = page.getByRole('img', { name: /^Cut in the middle/ });
  await expect(middle).toBeVisible();
  const says = (await middle.getAttribute('aria-label')) ?? '';
  const [back, under] = ['back', 'belly'].map((place) => Number(new RegExp(`${place} ([\\d.]+) mm`).exec(says)?.[1]));
  // Together as tall as the section, and half of the volume of a body that is about as wide below as above is about half of it.
  expect((back ?? 0) / ((back ?? 0) + (under ?? 1))).toBeGreaterThan(0.35);
  expect((back ?? 0) / ((back ?? 0) + (under ?? 1))).toBeLessThan(0.65);
  // 170 on 20 °C meet at 95.
  await expect(page.getByText(/it would meet at 95 °C and peel/)).toBeVisible();
  await expect(
    page
      .getByText(/as a solid/)
      .or(page.getByRole('img', { name: /as a solid/ }))
      .first(),
  ).toBeVisible();
  // A star and a family, found again on the list.
  await page.getByRole('button', { name: 'make it a favourite' }).click();
  await expect(page.getByRole('button', { name: 'a favourite' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('Family').fill('sea');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.goto('/colours');
  await page.getByRole('button', { name: /sea/ }).click();
  await expect(page.getByRole('link', { name: /Gannet Coat/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Slack Tide v1/ })).toHaveCount(0);
  await page.goto(`/colours/${belly.id}`);
  await expect(page.getByRole('heading', { name: 'Where it is used' }).locator('..')).toContainText(
    'Gannet Coat, its belly',
  );
});
