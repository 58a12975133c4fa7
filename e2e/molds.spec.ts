import { readFileSync } from 'node:fs';
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { PDFDocument } from 'pdf-lib';
import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

const accessible = async (page: Page) => {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
};

test('a mold is weighed, fitted with keels, cleaned, and made anew when it is worn', async ({ page, world }) => {
  test.setTimeout(120_000);
  await enter(page);
  const { moldId, api } = await stocked(world.url);
  await page.goto(`/molds/${moldId}`);
  await expect(page.getByText('Computed, not yet weighed.')).toBeVisible();

  // Eight baits of 97.92 g at 1.02 g/mL are 12 mL each, for the 10 that were taken; a shot of 55.08 g leaves 6 mL of channels.
  await page.getByLabel('How many').fill('8');
  await page.getByLabel('Together').fill('97.92 g');
  await page.getByRole('button', { name: 'Weighed' }).click();
  await expect(page.getByText('20.0 % more than the computed 10 mL, from 8 weighed.')).toBeVisible();
  await page.getByLabel('On the scale').selectOption('shot');
  await page.getByLabel('How many').fill('1');
  await page.getByLabel('Together').fill('55.08 g');
  await page.getByRole('button', { name: 'Weighed' }).click();
  await expect(page.getByText('4 × 12 mL, sprue 6 mL', { exact: false })).toBeVisible();
  // A slip is taken back by the row beside it.
  await page.getByRole('listitem').filter({ hasText: 'whole shot' }).getByRole('button', { name: 'take back' }).click();
  await expect(page.getByText('4 × 12 mL, sprue 5 mL', { exact: false })).toBeVisible();

  // A lead keel of 5.67 g takes half a millilitre of plastic, and makes a floating bait of 12 mL sink.
  await page.getByText('Set something in').click();
  await page.getByLabel('Of', { exact: true }).selectOption('lead');
  await page.getByLabel('Weighs').fill('5.67 g');
  await page.getByLabel('Its middle from the nose').fill('40 mm');
  await page.getByLabel('Under the middle').fill('5');
  await page.getByRole('button', { name: 'Set in' }).click();
  await expect(page.getByText('Many places restrict lead in tackle', { exact: false })).toBeVisible();
  await expect(
    page.getByText(/Each bait sinks at \d+ mm\/s, plain it (hangs in the water|floats at \d+ mm\/s)/),
  ).toBeVisible();

  await expect(page.getByText('never cleaned, as far as is written down', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Cleaned now' }).click();
  await expect(page.getByText(/last cleaned .*, 0 shots ago/)).toBeVisible();
  await accessible(page);

  await page.getByRole('button', { name: 'Make it anew' }).click();
  await page.getByRole('button', { name: 'Retire this, make that' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Sandlance × 4, 2nd' })).toBeVisible();
  await expect(page.getByText('Computed, not yet weighed.')).toBeVisible();
  const { items } = await api<{ items: { name: string; retiredAt: string | null }[] }>('GET', '/molds');
  expect(items.map((one) => [one.name, one.retiredAt === null])).toEqual([
    ['Sandlance × 4', false],
    ['Sandlance × 4, 2nd', true],
  ]);
});

test('a wrap: the master in an epoxy bed, moved too near the wall, filled to measure, and its first pour in no yield', async ({
  page,
  world,
}) => {
  test.setTimeout(150_000);
  await enter(page);
  const { masterId, api } = await stocked(world.url);
  await api('POST', '/materials', { name: 'Soft 22', kind: 'plastisol', lot: { code: 'A1', grams: 500 } });
  await api('POST', '/materials', {
    name: 'Loft Soft',
    kind: 'silicone',
    mix: { by: 'mass', partA: 10, partB: 1 },
    potLifeMin: 20,
    demoldMin: 240,
    hardnessScale: 'A',
    hardness: 28,
    cure: 'platinum',
    pricePerKgMinor: 3000,
    lot: { code: 'kit', grams: 1000 },
  });
  await page.goto(`/molds/plan?master=${masterId}&pour=wrap`);
  for (const _ of [1, 2]) await page.getByRole('button', { name: 'Masters: less' }).click();
  // On end in its block, as a wrap's master stands: 37 × 36 × 120 mm less 10 mL, 149.84 mL, and 7 %.
  await expect(page.getByText('Mix 160 mL, in one go')).toBeVisible();
  await page.getByLabel('The master', { exact: true }).selectOption('flat');
  // Lying: 130 × 36 × 27 mm less 10 mL is 116.36 mL; with 7 % 124.5 mL, 136.95 g: seven of a kilogram.
  await expect(page.getByText('Mix 125 mL, in one go')).toBeVisible();
  await expect(page.getByText(/Stiffer than this mold wants: this mold asks for Shore A 5–18/)).toBeVisible();
  await expect(page.getByText(/The store’s .* make 7 of them/)).toBeVisible();
  await expect(page.getByText(/Platinum cure: Baked polymer clay is mostly fine/)).toBeVisible();

  // Four steps of a millimetre towards the wall leave 6 of its 10.
  const master = page.getByRole('button', { name: /^Master 1,/ });
  await master.focus();
  for (const _ of [1, 2, 3, 4]) await page.keyboard.press('ArrowUp');
  await expect(page.getByText(/Only 6 mm of rubber between a master and the wall: under 8 mm it tears/)).toBeVisible();
  await page.getByRole('button', { name: 'Back in rows' }).click();
  await expect(page.getByText(/Only 6 mm/)).toHaveCount(0);

  // 115 mL of grain round it: 126.36 − 115 = 11.36 mL, 14 % over what was measured.
  await page.getByText('The amount by filling it').click();
  await page.getByLabel('It took').fill('115 mL');
  await expect(page.getByText(/So a master has 11\.4 mL, 14 % more than measured before/)).toBeVisible();
  await page.getByLabel('It took').fill('');

  // A bed 3 mm deep: 130 × 36 × 3 mm less 10 mL × 1.5 / 17 of the master.
  await page.getByText('Held by a thin film of glue', { exact: true }).click();
  await page.getByLabel('The master is held by').selectOption('bed');
  await expect(page.getByText('13.2 mL of resin', { exact: false })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Mixed now: start the clocks' })).toHaveCount(0);
  await page.getByText('Bubbles: under vacuum').click();
  await expect(page.getByText(/leave 1\d min of pot life/)).toBeVisible();
  await accessible(page);

  await page.getByText('The box to cut').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Cut list and net, 1:1 (PDF)' }).click(),
  ]);
  const pdf = await PDFDocument.load(readFileSync(await file.path()));
  // The cut list, and a net of 216 × 122 mm that fits one page laid across.
  expect(pdf.getPages().map((one) => [one.getWidth() > one.getHeight()])).toEqual([[false], [true]]);

  await page.getByRole('button', { name: 'Keep the plan, then mix the resin' }).click();
  await page.getByRole('button', { name: 'Resin mixed now: start its clocks' }).click();
  await expect(page.getByText(/Work it, set the masters/)).toBeVisible();
  await expect(
    page
      .getByRole('region', { name: 'Clocks' })
      .getByText(/Straighten the masters/)
      .first(),
  ).toBeVisible();
  world.passes(9);
  await page.reload();
  await expect(page.getByText('The bed is firm: seal its edge, then the rubber.')).toBeVisible();
  await page.getByRole('button', { name: 'Mixed now: start the clocks' }).click();
  await expect(page.getByRole('heading', { name: 'Still workable' })).toBeVisible();
  for (const step of [
    /^1\. /,
    /Spot of mixed rubber/,
    /Box of board/,
    /level, both ways/,
    /Weigh part A/,
    /Vacuum until/,
    /Pour into one corner/,
    /Demold when/,
  ])
    await page.getByRole('checkbox', { name: step }).first().click();
  // Mixed a moment ago: its four hours are asked about, and what is done all the same is noted.
  await expect(page.locator('main').getByRole('alert')).toContainText('this rubber sets for 4 h 55 more');
  await page.getByRole('button', { name: 'Done all the same' }).click();
  await expect(page.getByText('It was opened 4 h 55 before its clock said so.')).toBeVisible();
  for (const step of [/Slit it/, /Pour hole at/, /Full cure/])
    await page.getByRole('checkbox', { name: step }).first().click();
  await page.getByRole('button', { name: /Poured plain/ }).click();
  await expect(page.getByText('12 steps done')).toBeVisible();
  const { items } = await api<{ items: { name: string; levelG: number }[] }>('GET', '/materials');
  // A bait of 10 mL less the 0.88 in the bed: 9 g.
  expect(items.find((one) => one.name === 'Soft 22')?.levelG).toBe(491);
});

test('rods: the log of dips decides how many make the wall', async ({ page, world }) => {
  await enter(page);
  const { api } = await stocked(world.url);
  const rods = await api<{ id: string }>('POST', '/molds', {
    name: 'Rods',
    kind: 'dip-rods',
    fill: 'dip',
    newBait: { name: 'Sprat Tube 80', shape: 'tube' },
    cavities: 10,
    cavityMl: 4.6,
  });
  await page.goto(`/molds/${rods.id}`);
  // 2 mm at 0.7 a dip: three. Dips of 1.1 mm here, as heavy as the start's own three: 0.9 a dip after one reading, 1.03 after five.
  await expect(page.getByText(/^3 dips of 0\.70 mm each/)).toBeVisible();
  await page.getByLabel('Wall it built').fill('3.3 mm');
  await page.getByRole('button', { name: 'Log it' }).click();
  await expect(page.getByText(/^3 dips of 0\.90 mm each/)).toBeVisible();
  for (let n = 0; n < 4; n++) {
    await page.getByLabel('Wall it built').fill('3.3 mm');
    await page.getByRole('button', { name: 'Log it' }).click();
    await expect(page.getByText(new RegExp(`fitted from ${n + 2} readings`))).toBeVisible();
  }
  await expect(page.getByText(/^2 dips of 1\.03 mm each/)).toBeVisible();
});
