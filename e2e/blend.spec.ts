import { type Id, row, softAndFirm, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

test('a cup of soft and firm for a wanted 34 with a quarter of remelt: blended, weighed in, and back into its bin', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, moldId, colourwayId } = await stocked(world.url);
  // A glass that holds it, froth and all.
  const { version } = await api<{ version: number }>('GET', '/workshop');
  const enlarged = await fetch(`${world.url}/api/workshop`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json', 'if-match': `"${version}"` },
    body: JSON.stringify({ glassMl: 1000 }),
  });
  expect(enlarged.status).toBe(200);
  await softAndFirm(api);

  // Used baits from the club: looked through, weighed, cooked three times by what the club says.
  await page.goto('/rack');
  await page.getByRole('link', { name: 'To the pours' }).waitFor();
  const bin = await api<Id>('POST', '/bins', { name: 'Greens', hex: '#557755' });
  await page.goto('/rack');
  await page.getByRole('button', { name: /Greens/ }).click();
  await page.getByRole('button', { name: 'given or used baits in' }).click();
  await page.getByLabel('From whom').fill('the club');
  await page.getByLabel('Sorted and weighed').fill('400 g');
  await page.getByLabel('Cooked so often').fill('3');
  await page.getByLabel('Salt in it').fill('0');
  const into = page.getByRole('button', { name: 'Into the bin' });
  // Nobody looked it through yet.
  await expect(into).toBeDisabled();
  await page.getByLabel('Dry, no hooks or lead').check();
  await into.click();
  await expect(page.getByRole('button', { name: /400 g Greens 3 heats/ })).toBeVisible();

  // Twelve shots of (4 · 10 + 5) · 1.06 mL and 8 mL film are 580.4 mL: 592 g.
  await page.goto(`/pours/new?mold=${moldId}&colour=${colourwayId}`);
  for (let n = 4; n < 12; n++) await page.getByRole('button', { name: 'Sandlance × 4: more' }).click();
  await expect(page.getByText('592 g of plastic in 580 mL', { exact: true })).toBeVisible();
  // The cheaper one first: within a point of 34 that is 33, so (33 − 22) / (58 − 22) = 30.6 % firm.
  await page.getByLabel('Wanted').fill('34');
  await page.getByRole('button', { name: 'Blend for 34' }).click();
  await expect(row(page, 'Firm 58').getByLabel('Share, %')).toHaveValue('30.6');
  await expect(page.getByText('33.0 ±')).toBeVisible();
  await expect(page.getByText('by the labels alone: no reading speaks of them yet')).toBeVisible();
  await page.getByLabel('With some').selectOption({ label: 'remelt: Greens' });
  // A quarter of it: the others give way. How hard that is nobody knows.
  await expect(row(page, 'Firm 58').getByLabel('Share, %')).toHaveValue('22.9');
  await expect(page.getByText('How hard it will be is not known.')).toBeVisible();
  await page.getByRole('button', { name: 'Lay out this pour' }).click();

  await expect(page.getByText('25 % remelt; cooked 4 times once this cup is.')).toBeVisible();
  await expect(row(page, 'Soft 22')).toContainText('308 g');
  await expect(row(page, 'Remelt, Greens')).toContainText('148 g');
  // As planned, by one tap; a second one weighs nothing more in.
  await row(page, 'Firm 58').getByRole('button', { name: 'Weighed in' }).dblclick();
  await expect(row(page, 'Firm 58')).toContainText('weighed 136 g');
  await expect(page.getByRole('button', { name: 'change the blend' })).toHaveCount(0);

  const id = page.url().split('/').at(-1) as string;
  for (let n = 0; n < 12; n++) {
    const { shots } = await api<{ shots: Id[] }>('POST', `/pours/${id}/shots`, { moldId });
    const marks = [1, 2, 3, 4].map((cavity) => ({
      cavity,
      grade: n === 0 && cavity === 4 ? 'own' : 'sell',
      ...(n === 0 && cavity === 4 ? { reason: 'colour' } : {}),
    }));
    await api('POST', `/pours/${id}/shots/${shots.at(-1)?.id}/marks`, { marks });
  }
  await page.goto(`/pours/${id}?close`);
  await expect(page.getByText('47 to sell, 1 own water of 48 made.')).toBeVisible();
  await page.getByLabel('Cooked').fill('592');
  // 48 of 10.2 g are 489.6 g: own water is kept with them.
  await page.getByLabel('Good baits').fill('489.6');
  await page.getByLabel('Sprues and leftover').fill('90');
  await page.getByLabel('Left on glass and felt').fill('8');
  await page.getByLabel('Into the bin').selectOption({ label: 'Greens' });
  await expect(page.getByText('4.4 g')).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText('82.7 %')).toBeVisible();

  // 592 − 136 g were shared out by 0.5208 and 0.25: 147.9 g left the bin, 90 g came back one heat older.
  await page.goto('/rack');
  await page.getByRole('button', { name: /342 g Greens 4 heats/ }).click();
  await expect(row(page, '3 heats')).toContainText('252 g');
  await expect(row(page, '4 heats')).toContainText('90 g');
  await expect(row(page, 'own water, offered to no order')).toContainText('Slack Tide');
  const { grams } = await api<{ grams: number }>('GET', `/bins/${bin.id}`);
  expect(grams).toBeCloseTo(400 - (456 * 0.25) / (0.25 + (0.75 * 25) / 36) + 90, 4);
});
