import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

test('a quick figure without a record: tried, kept, and found again', async ({ page }) => {
  await enter(page);
  await page.goto('/tools');
  // 45 min is 15 min × 18 mm ÷ 6.
  // The list waits for no example; solids among them take seconds.
  await expect(page.getByRole('link', { name: /Bake a clay master/ })).toContainText('45 min', { timeout: 40_000 });
  await page.getByRole('link', { name: /Size a batch/ }).click();
  // 6 shots of (4 · 11.8 + 4) · 1.06 = 54.272 mL, and 8 mL film: 333.6 mL, at 1.02 g/mL 340.3 g.
  await expect(page.getByText('334 mL', { exact: true }).first()).toBeVisible();
  await expect(page.getByText('340 g', { exact: true })).toBeVisible();
  await page.getByLabel('Shots').fill('12');
  // Twice the shots: 651.264 + 8 = 659.3 mL.
  await expect(page.getByText('659 mL', { exact: true }).first()).toBeVisible();
  await page.getByLabel('Injector holds').fill('40 mL');
  await expect(
    page.getByRole('alert').filter({ hasText: 'One shot takes 54.3 mL and the injector gives 37 mL' }),
  ).toBeVisible();
  await page.getByLabel('Injector holds').fill('120 mL');
  // Two shots a draw of 117 mL: 6 draws, each leaves 3 mL: 677.3 mL.
  await expect(page.getByText('677 mL', { exact: true }).first()).toBeVisible();
  await page.getByLabel('Keep this result as').fill('the spring evening');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const kept = page.getByRole('link', { name: /the spring evening/ });
  await expect(kept).toContainText('677 mL');
  await kept.click();
  await expect(page.getByLabel('Shots')).toHaveValue('12');
  await page.goto('/tools');
  await page.getByRole('button', { name: 'Rename it' }).click();
  await page.getByLabel('Called').fill('the autumn evening');
  await page.getByRole('button', { name: 'Rename it' }).click();
  await expect(page.getByRole('link', { name: /the autumn evening/ })).toContainText('677 mL');
});

test('two counts are compared honestly, and rows are added to a chart', async ({ page }) => {
  await enter(page);
  await page.goto('/tools/yield.compare');
  // 2 of 40 against 9 of 36: Fisher, two-sided, 0.0206.
  await expect(
    page.getByText('2 of 40 against 9 of 36: the first is better; luck alone would do this about 2 in 100.'),
  ).toBeVisible();
  const rejected = page.getByLabel('Rejected');
  await rejected.first().fill('4');
  await expect(page.getByText(/4 of 40 against 9 of 36: no difference is shown/)).toBeVisible();
  await page.goto('/tools/yield.chart');
  await page.getByRole('button', { name: 'one more' }).click();
  await expect(page.getByLabel('Made')).toHaveCount(4);
  // (1 + 3 + 9 + 9) of (24 + 32 + 28 + 28): 19.6 %.
  await expect(page.getByText('19.6 %', { exact: true })).toBeVisible();
});

test('a box of one’s own that is too small says what would fit', async ({ page }) => {
  await enter(page);
  await page.goto('/tools/silicone.plan');
  await page.getByRole('button', { name: 'A box you have …' }).click();
  // Nothing is made up for it: each side is asked for.
  const box = page.getByRole('group', { name: /A box you have/ });
  await expect(page.getByRole('alert').filter({ hasText: /is missing/ })).toBeVisible();
  for (const [side, mm] of [
    ['Length', '115'],
    ['Width', '100'],
    ['Height', '100'],
  ] as const)
    await box.getByLabel(side).fill(mm);
  await expect(
    page.getByRole('alert').filter({ hasText: 'With walls of 3 mm these masters need a box of 116 mm × 60 mm' }),
  ).toBeVisible();
});

test('the whole workshop goes out in one archive and comes back', async ({ page, world }, info) => {
  await enter(page);
  const { api } = await stocked(world.url);
  await page.goto('/settings');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save a backup' }).click();
  const file = info.outputPath('backup.tar.gz');
  await (await download).saveAs(file);
  expect(gunzipSync(readFileSync(file)).includes(Buffer.from('SQLite format 3'))).toBe(true);
  await api('POST', '/customers', { name: 'Came after the backup' });
  await page.getByLabel('Restore from a backup').setInputFiles(file);
  await expect(page.getByText(/Restored\. The workshop as it was before is kept/)).toBeVisible();
  const { items } = await api<{ items: { name: string }[] }>('GET', '/customers');
  expect(items.map((row) => row.name)).toEqual(['Tideline']);
  await page
    .getByLabel('Restore from a backup')
    .setInputFiles({ name: 'x.gz', mimeType: 'application/gzip', buffer: Buffer.from('no archive') });
  await expect(page.getByText(/This is not a whole Blunko backup/)).toBeVisible();
});

test('the store: a tin is added, counted, and its low mark is seen', async ({ page }) => {
  await enter(page);
  await page.goto('/store');
  await page.getByRole('button', { name: 'Add a material' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Soft 22');
  await page.getByLabel('Lot').fill('A1');
  await page.getByLabel('Holds').fill('5 kg');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: 'Soft 22', level: 2 })).toBeVisible();
  await page.getByRole('button', { name: 'count it' }).click();
  await page.getByLabel('It holds, weighed').fill('1.9 kg');
  await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
  await expect(page.getByText('1900 g', { exact: true }).first()).toBeVisible();
  await page.getByLabel('Reorder at').fill('2 kg');
  await page.getByRole('button', { name: 'Keep', exact: true }).last().click();
  await expect(page.getByRole('button', { name: /Soft 22 1900 g low/ })).toBeVisible();
  await page.getByLabel('New lot').fill('A2');
  await page.getByLabel('Holds').fill('4000');
  await page.getByRole('button', { name: 'Add this lot' }).click();
  await expect(page.getByRole('button', { name: /Soft 22 5.9 kg/ })).toBeVisible();
  await page.goto('/');
  await expect(page.getByText('Soft 22 runs low')).toHaveCount(0);
});

test('a mold one has is added with its bait, and one cup serves two molds', async ({ page, world }) => {
  await enter(page);
  await stocked(world.url);
  await page.goto('/molds/new');
  await page.getByLabel('Name of the mold').fill('Squattie × 6');
  await page.getByLabel('Name of the bait').fill('Squattie 70');
  await page.getByRole('textbox', { name: 'Cavities' }).fill('6');
  // 9.18 g over 1.02 g/mL is 9 mL.
  await page.getByLabel('One bait').fill('9.18 g');
  await page.getByLabel('Sprue and runner of a shot').fill('6 mL');
  await page.getByRole('button', { name: 'Keep this mold' }).click();
  await expect(page.getByText('6 × 9 mL', { exact: false }).first()).toBeVisible();
  await page.goto('/pours/new');
  for (let n = 0; n < 2; n++) await page.getByRole('button', { name: 'Squattie × 6: more' }).click();
  for (let n = 0; n < 3; n++) await page.getByRole('button', { name: 'Sandlance × 4: more' }).click();
  // 2 · (54 + 6) · 1.06 + 3 · (40 + 5) · 1.06 + 8 = 127.2 + 143.1 + 8 = 278.3 mL; sprues 2 · 6 + 3 · 5 = 27 mL come back.
  await expect(page.getByText('278 mL', { exact: true })).toBeVisible();
  await expect(page.getByText('for 24 baits; 27 mL comes back as sprue')).toBeVisible();
  await page.getByRole('button', { name: 'Lay out this pour' }).click();
  await expect(page.getByRole('heading', { name: /Cook 278 mL, 1.2 cups, 284 g/ })).toBeVisible();
  await page.getByRole('link', { name: 'To the bench' }).click();
  await expect(page.getByRole('heading', { name: 'Squattie × 6' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Sandlance × 4' })).toBeVisible();
});

test('an order for a bait that no mold makes says so, and can be cancelled', async ({ page, world }) => {
  await enter(page);
  const { api } = await stocked(world.url);
  await api('POST', '/masters', {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
  });
  await page.goto('/orders/new');
  await page.getByLabel('Bait').selectOption({ label: 'Gannet 160' });
  await page.getByLabel('Packs', { exact: true }).fill('3');
  await page.getByRole('button', { name: 'One more line' }).click();
  await page.getByLabel('Bait').nth(1).selectOption({ label: 'Sandlance 110' });
  await expect(page.getByText('32 baits')).toBeVisible();
  await page.getByRole('button', { name: 'Keep this order' }).click();
  await expect(page.getByText('24 Gannet 160 are short, and no mold here makes it.')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel it' }).click();
  await expect(page.getByText('cancelled', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /Lay out/ })).toHaveCount(0);
});

test('clocks: one of one’s own on the strip, put off, and done, on every screen', async ({ page, world }) => {
  await enter(page);
  await page.getByRole('button', { name: 'all clocks' }).click();
  await page.getByLabel('A clock of your own').fill('Stir the cup');
  await page.getByLabel('Minutes').fill('10');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  const strip = page.getByRole('region', { name: 'Clocks', exact: true });
  await expect(strip.getByText('Stir the cup').first()).toBeVisible();
  // Put off while the Wi-Fi is gone: seen at once, and kept until it is back.
  await page.context().setOffline(true);
  await page.getByRole('button', { name: '+5 min' }).click();
  await expect(page.getByRole('region', { name: 'All clocks' }).getByText(/in 1[45] min/)).toBeVisible();
  await expect(page.getByText('One tap is kept here until the workshop’s computer answers.')).toBeVisible();
  await page.context().setOffline(false);
  await expect(page.getByText('One tap is kept here')).toHaveCount(0);
  await page.goto('/guide');
  await expect(strip.getByText('Stir the cup')).toBeVisible();
  world.passes(1);
  await page.reload();
  await expect(strip.getByText(/due 4[456] min ago/)).toBeVisible();
  await page.getByRole('button', { name: 'all clocks' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(strip.getByText('Nothing is hot, setting or curing.')).toBeVisible();
});

test('a clock that comes due while something else is looked at is told outside the page, once, where that was allowed', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const told: string[] = [];
    class Heard {
      static permission = 'default';
      static requestPermission = async () => {
        Heard.permission = 'granted';
        return 'granted';
      };
      constructor(title: string, { body }: { body: string }) {
        told.push(`${title}: ${body}`);
      }
    }
    Object.assign(window, { Notification: Heard, told });
  });
  await enter(page);
  await page.getByRole('button', { name: 'all clocks' }).click();
  await page.getByRole('button', { name: 'Tell me outside this page too' }).click();
  await expect(page.getByText('Clocks are told outside this page too.')).toBeVisible();
  const start = async (label: string) => {
    await page.getByLabel('A clock of your own').fill(label);
    await page.getByLabel('Minutes').fill('0.08');
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await expect(page.getByRole('region', { name: 'All clocks' }).getByText(label)).toBeVisible();
  };
  const told = () => page.evaluate(() => (window as never as { told: string[] }).told);
  const look = (state: string) =>
    page.evaluate(
      (visible) => Object.defineProperty(document, 'visibilityState', { value: visible, configurable: true }),
      state,
    );
  await start('Stir the cup');
  await page
    .getByRole('region', { name: 'All clocks' })
    .getByText(/due .* ago/)
    .waitFor();
  expect(await told()).toEqual([]);
  await page.getByRole('button', { name: 'Done' }).click();
  await start('Turn the oven off');
  await look('hidden');
  await expect.poll(told).toEqual(['Turn the oven off: It is due.']);
  await page
    .getByRole('region', { name: 'All clocks' })
    .getByText(/due .* ago/)
    .waitFor();
  await page.waitForTimeout(2500);
  expect(await told()).toEqual(['Turn the oven off: It is due.']);
});

test('a master grows a second revision with what was changed', async ({ page, world }) => {
  await enter(page);
  const { masterId, api } = await stocked(world.url);
  await api('POST', '/masters', {
    name: 'Gannet 160',
    shape: 'paddle',
    kind: 'wood',
    lengthMm: 160,
    widthMm: 30,
    heightMm: 36,
    thickestMm: 28,
  });
  await page.goto(`/masters/${masterId}`);
  await page.getByRole('button', { name: 'New revision' }).click();
  await page.getByLabel('What was changed, and why').fill('wrist thinner');
  await page.getByLabel('And a part of').selectOption({ label: 'Gannet 160 v1' });
  await page.getByLabel('Width').fill('14.5');
  await page.getByLabel('Mass, without foil or wire').fill('21 g');
  await page.getByRole('button', { name: 'Keep v2' }).click();
  await expect(page.getByText('from v1 and another master’s revision: width 16 mm → 14.5 mm')).toBeVisible();
  // 21 g at 1.75 g/mL.
  await expect(page.getByText('12 mL', { exact: true }).first()).toBeVisible();
  await page.goto('/masters');
  await expect(page.getByText('110 × 14.5 × 17 mm')).toBeVisible();
});

test('both themes and both makers are kept on the device', async ({ page }) => {
  await enter(page, 'US');
  await page.getByRole('button', { name: 'Night bench theme' }).click();
  await page.goto('/settings');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night');
  await expect(page.getByLabel('Room temperature')).toHaveValue('68 °F');
  await page.getByLabel('Another maker').fill('Corm');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByLabel('Who measures here').locator('option:checked')).toHaveText('Corm');
  await page.getByLabel('Units').selectOption('metric');
  await page.getByLabel('Temperature', { exact: true }).selectOption('C');
  await page.getByRole('button', { name: 'Keep', exact: true }).first().click();
  await expect(page.getByLabel('Room temperature')).toHaveValue('20 °C');
  await page.getByLabel('Who measures here').selectOption({ label: 'Mara' });
  await expect(page.getByLabel('Room temperature')).toHaveValue('68 °F');
  await page.reload();
  await expect(page.getByLabel('Room temperature')).toHaveValue('68 °F');
});

test('what cannot be read is said at the field, and nothing typed is lost', async ({ page }) => {
  await enter(page);
  await page.goto('/masters/new');
  const length = page.getByLabel('Length');
  for (const [typed, said] of [
    ['about so', 'is not a measure; write it like 12.5 mm, 3 1/2 in.'],
    ['3 hands', '"hands" is not a unit known here'],
    ['5 mL', 'mL (volume) cannot become mm (length).'],
    ['-3', 'An amount cannot be negative.'],
  ]) {
    await length.fill(typed as string);
    await expect(page.getByText(said as string)).toBeVisible();
    await page.getByLabel('Width').click();
    await expect(length).toHaveValue(typed as string);
    await expect(length).toHaveAttribute('aria-invalid', 'true');
  }
  await expect(page.getByRole('button', { name: 'Keep this master' })).toBeDisabled();
  await length.fill('4 5/16 in');
  await page.getByLabel('Width').click();
  await expect(length).toHaveValue('110 mm');
});

test('figures of a master that contradict each other are asked about, in words that name both', async ({ page }) => {
  await enter(page);
  await page.goto('/masters/new');
  await page.getByLabel('Name of the bait').fill('Dab 90');
  for (const [label, mm] of [
    ['Length', '90'],
    ['Width', '12'],
    ['Height', '12'],
    ['Thickest', '40'],
  ] as const)
    await page.getByLabel(label).first().fill(mm);
  const keep = page.getByRole('button', { name: 'Keep this master' });
  await keep.click();
  await expect(page.locator('main').getByRole('alert')).toContainText(
    'Its thickest section of 40 mm is more than its width of 12 mm and its height of 12 mm.',
  );
  // What was typed stands as it was typed.
  await expect(page.getByLabel('Thickest').first()).toHaveValue(/^40/);
  await page.getByLabel('Thickest').first().fill('12');
  await keep.click();
  await expect(page.getByRole('heading', { name: /^Dab 90/ })).toBeVisible();
  // 900 g of clay at 1.75 are 514 mL; a box of 90 × 12 × 12 mm holds 13.
  await page.getByRole('button', { name: 'Measure it' }).click();
  await page.getByLabel('Mass, without foil or wire').fill('900');
  await page.getByRole('button', { name: 'Keep this volume' }).click();
  await expect(page.locator('main').getByRole('alert')).toContainText(
    '514 mL do not fit into a bait of 90 mm × 12 mm × 12 mm',
  );
  await page.getByRole('button', { name: 'Keep it all the same' }).click();
  await expect(page.getByText('514 mL').first()).toBeVisible();
});

test('an order that is late says so where it stands, and a line without a price is named beside the total', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api } = await stocked(world.url);
  const [bait] = (await api<{ items: { id: string }[] }>('GET', '/baits')).items;
  const [recipe] = (await api<{ items: { id: string }[] }>('GET', '/recipes')).items;
  const line = { baitId: bait?.id, colourwayId: recipe?.id, perPack: 8 };
  const order = await api<{ id: string; code: string }>('POST', '/orders', {
    newCustomer: { name: 'North Stack Anglers’ Club' },
    dueOn: '2020-01-03',
    lines: [
      { ...line, packs: 3, priceMinor: 640 },
      { ...line, packs: 2 },
    ],
  });
  await page.goto('/orders');
  await expect(page.getByRole('link', { name: new RegExp(order.code) })).toContainText('late');
  await page.goto(`/orders/${order.id}`);
  await expect(page.getByText('Fri 3 Jan, which is past')).toBeVisible();
  await expect(page.getByText('€19.20')).toBeVisible();
  await expect(page.getByText('no price yet')).toContainText('without Sandlance 110 Slack Tide');
  // Agreed later: two packs at 5.90 beside three at 6.40.
  await page.getByText('Due day, prices, notes and the customer').click();
  await page.getByLabel('A pack of Sandlance 110, Slack Tide').last().fill('5.9');
  await page.getByLabel('Due').fill('2030-05-04');
  await page.getByRole('button', { name: 'Keep the terms' }).click();
  await expect(page.getByText('€31.00')).toBeVisible();
  await expect(page.getByText('which is past')).toHaveCount(0);
  await page.getByLabel('Customer', { exact: true }).fill('North Stack Anglers');
  await page.getByRole('button', { name: 'Keep the customer' }).click();
  await expect(page.getByRole('heading', { name: 'North Stack Anglers', exact: true })).toBeVisible();
  await page.goto('/orders/new');
  await page.getByLabel('Due').fill('2020-01-03');
  await expect(page.getByText('that day is past: late from the start')).toBeVisible();
});

test('bags are counted in pieces, and one that is packed is one less in the store', async ({ page, world }) => {
  await enter(page);
  const { api, pourId, orderId, moldId } = await stocked(world.url);
  await page.goto('/store');
  await page.getByRole('button', { name: 'Add a material' }).click();
  await page.getByLabel('Kind').selectOption('bags');
  await page.getByLabel('Name', { exact: true }).fill('Small bags');
  await page.getByLabel('Holds').fill('12.5');
  await expect(page.getByText('Write a whole number here.')).toBeVisible();
  await page.getByLabel('Holds').fill('12');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: /Small bags 12 pieces/ })).toBeVisible();
  // Six shots of four baits, all good: two packs of eight.
  type P = { shots: { id: string }[] };
  for (let n = 0; n < 6; n++) {
    const { shots } = await api<P>('POST', `/pours/${pourId}/shots`, { moldId });
    const marks = [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' }));
    await api('POST', `/pours/${pourId}/shots/${shots.at(-1)?.id}/marks`, { marks });
  }
  await api('POST', `/pours/${pourId}/close`, { cookedG: 300, goodG: 245, rejectG: 0, returnedG: 40, residueG: 6 });
  world.passes(25);
  await page.goto(`/orders/${orderId}`);
  await page.getByRole('button', { name: 'Pack 2' }).click();
  await expect(page.getByText('2 of 2 packed')).toBeVisible();
  await page.goto('/store');
  await expect(page.getByRole('button', { name: /Small bags 10 pieces/ })).toBeVisible();
});

test('what is no longer made leaves the lists, stays in the records, and comes back; a slip is thrown out', async ({
  page,
  world,
}) => {
  await enter(page);
  const { masterId, orderId, api } = await stocked(world.url);
  await page.goto(`/masters/${masterId}`);
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.locator('main').getByRole('alert')).toContainText('still wanted by N1');
  const { version } = await api<{ version: number }>('GET', `/orders/${orderId}`);
  await fetch(`${world.url}/api/orders/${orderId}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json', 'if-match': String(version) },
    body: '{"cancelled":true}',
  });
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByText('Put away: in no list to pick from.')).toBeVisible();
  await page.goto('/masters');
  await expect(page.getByRole('link', { name: /Sandlance 110/ })).toBeHidden();
  await page.goto('/orders/new');
  await expect(page.getByText('An order needs a bait.')).toBeVisible();
  await page.goto('/masters');
  await page.getByText('1 put away').click();
  await page.getByRole('link', { name: 'Sandlance 110' }).click();
  await page.getByRole('button', { name: 'Take it out again' }).click();
  await page.goto('/orders/new');
  await expect(page.getByLabel('Bait')).toHaveText('Sandlance 110');

  await page.goto('/store?new');
  await page.getByLabel('Kind').selectOption('flake');
  await page.getByLabel('Name', { exact: true }).fill('Sliver flake');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Throw it out' }).click();
  await page.getByRole('button', { name: 'For good' }).click();
  await expect(page.getByRole('button', { name: /Sliver flake/ })).toHaveCount(0);
});
