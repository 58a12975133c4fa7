import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { closing, layered, stocked } from './stock.ts';
import { settled } from './walk/look.ts';
import { enter, expect, goes, test } from './world.ts';

const digits = async (page: Page, text: string) => {
  for (const digit of text) await page.getByRole('button', { name: digit, exact: true }).click();
};

test('the bench goes on without the Wi-Fi: taps wait, and each counts once', async ({ page, world, context }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Type it' }).click();
  await digits(page, '174');
  await page.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByRole('button', { name: /Cup temperature 174/ })).toBeVisible();

  await context.setOffline(true);
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(page.getByText('shot 1 of 3')).toBeVisible();
  await page.getByRole('button', { name: 'Cavity 3: not marked' }).click();
  await page.getByRole('button', { name: 'air bubble' }).click();
  await page.getByRole('button', { name: 'Rest good' }).first().click();
  await expect(page.getByText(/taps are kept here until/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Cavity 3: air bubble' })).toBeVisible();
  // The tablet is put down and picked up again: what was tapped is still there.
  expect((await api<{ shots: unknown[] }>('GET', `/pours/${pourId}`)).shots).toHaveLength(0);

  await context.setOffline(false);
  await expect(page.getByText(/taps are kept here until/)).toHaveCount(0, { timeout: 15_000 });
  // Nothing is said of taps on their way: they are asked for where they arrive.
  const arrived = async () => {
    const { shots } = await api<{ shots: { marks: { grade: string; reason: string | null }[] }[] }>(
      'GET',
      `/pours/${pourId}`,
    );
    return shots.map((shot) => shot.marks.map((mark) => mark.reason ?? mark.grade));
  };
  await expect.poll(arrived).toEqual([['sell', 'sell', 'bubble', 'sell']]);
});

test('a lost answer and a double tap count once', async ({ page, world }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await page.goto(`/pours/${pourId}/bench`);
  let cut = 2;
  await page.route('**/heats', async (route) => {
    // The write arrives, its answer does not.
    if (cut-- > 0) {
      await route.fetch();
      await route.abort();
    } else await route.continue();
  });
  await page.getByRole('button', { name: 'Type it' }).click();
  await digits(page, '176');
  await page.getByRole('button', { name: 'Enter' }).click();
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('blunko.tap.')).length), {
      timeout: 20_000,
    })
    .toBe(0);
  expect((await api<{ heats: unknown[] }>('GET', `/pours/${pourId}`)).heats).toHaveLength(1);
});

test('two tablets at one cup see each other’s shots', async ({ page, world, browser }) => {
  await enter(page);
  const { pourId } = await stocked(world.url);
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${world.url}/pours/${pourId}/bench`);
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  // Nobody has read this cup: it asks before it takes the shot.
  await expect(page.getByRole('heading', { name: 'Nobody has read this cup yet.' })).toBeVisible();
  await page.getByRole('button', { name: 'Drawn without a reading' }).click();
  await expect(other.getByText('shot 1 of 3')).toBeVisible();
  await other.getByRole('button', { name: 'Undo shot' }).click();
  await expect(page.getByText('3 shots to draw')).toBeVisible();
  await other.context().close();
});

test('targets at the bench are as large as a glove', async ({ page, world }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await page.setViewportSize({ width: 1024, height: 768 });
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 174 });
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(page.getByRole('button', { name: /^Cavity/ })).toHaveCount(4);
  const sizes = await page.locator('main button, main a.btn').evaluateAll(
    (all) =>
      all.map((one) => ({ name: one.textContent ?? '', ...one.getBoundingClientRect().toJSON() })) as {
        name: string;
        width: number;
        height: number;
      }[],
  );
  expect(sizes.length).toBeGreaterThan(8);
  for (const { name, width, height } of sizes) expect(Math.min(width, height), name).toBeGreaterThanOrEqual(64);
});

test('two browsers edit one recipe: the second sees both and loses nothing', async ({ page, world, browser }) => {
  await enter(page);
  const { colourwayId, api } = await stocked(world.url);
  const other = await (await browser.newContext()).newPage();
  for (const one of [page, other]) {
    await one.goto(`${world.url}/colours/${colourwayId}/edit`);
    // Both have the first version before them, however busy the machine is.
    await expect(one.getByLabel('Amount')).toHaveValue('24 drops');
  }
  const write = async (one: Page, amount: string, why: string) => {
    await one.getByLabel('Amount').fill(amount);
    await one.getByLabel('What was changed, and why').fill(why);
    await one.getByRole('button', { name: /^Keep as v/ }).click();
  };
  await write(page, '30 drops', 'deeper for thin tails');
  await expect(page.getByText('v2', { exact: true }).first()).toBeVisible();
  await write(other, '18 drops', 'paler');
  const both = other.locator('main').getByRole('alert');
  await expect(both).toContainText('Somebody saved v2 while you were writing.');
  await expect(both).toContainText('30 drop');
  await expect(both).toContainText('18 drops');
  await both.getByRole('button', { name: 'Save mine as v3; theirs stays as v2' }).click();
  await expect(other.getByText('v3', { exact: true }).first()).toBeVisible();
  const { revisions } = await api<{ revisions: { items: { amount: number }[] }[] }>('GET', `/recipes/${colourwayId}`);
  expect(revisions.map((revision) => revision.items[0]?.amount)).toEqual([18, 30, 24]);
  await other.context().close();
});

test('doses are counted by tap, taken back, and kept as a recipe', async ({ page, world }) => {
  await enter(page);
  await stocked(world.url);
  await page.goto('/colours/dosing');
  await page.getByLabel('What you are after').fill('deep harbour');
  await page.getByLabel('Plastisol in the cup').fill('1 cup');
  await page.getByRole('button', { name: 'Open the ledger' }).click();
  for (const dose of ['10', '10', '5', '1'])
    await page.getByRole('button', { name: `${dose} drop of Harbour Blue liquid` }).click();
  await expect(page.getByText('26 drops', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Undo 1 drop/ }).click();
  await expect(page.getByText('25 drops', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByText('25 drops', { exact: true })).toBeVisible();
  await page.getByLabel('Keep as recipe, named').fill('Deep Harbour');
  await page.getByRole('button', { name: 'Keep as recipe' }).click();
  await expect(page.getByRole('heading', { name: /Deep Harbour v1/ })).toBeVisible();
  // Kept for one cup: two cups take twice 25.
  await page.getByRole('button', { name: '2 cups' }).click();
  await expect(page.getByText('50 drops', { exact: true })).toBeVisible();
});

test('US units are shown and typed everywhere, and a maker’s own measure is weighed once', async ({ page, world }) => {
  await enter(page, 'US');
  await page.goto('/masters/new');
  await page.getByLabel('Name of the bait').fill('Ragworm 140');
  await page.getByLabel('Length').fill('5 1/2');
  await page.getByLabel('Width').fill('1/2 in');
  await page.getByLabel('Height').fill('11 mm');
  await page.getByLabel('Thickest section').fill('0.43');
  await page.getByLabel('Volume').selectOption('displaced');
  await page.getByLabel('Water it pushed up').fill('1 1/2 tsp');
  await page.getByRole('button', { name: 'Keep this master' }).click();
  // 5.5 in; 11 mm is 0.43 in; 1.5 tsp is a quarter of a fluid ounce.
  await expect(
    page.getByRole('img', { name: /From above 5.5 in by 0.5 in; from the side 0.43 in high/ }),
  ).toBeVisible();
  await expect(page.getByText('0.25 fl oz', { exact: true }).first()).toBeVisible();
  await expect(page.getByText(/at 270 °F for the thickest/)).toBeVisible();
  await page.goto('/settings');
  await page.getByLabel('Called').fill('scoop');
  await page.getByLabel('Weigh together').fill('6.8 g');
  await page.getByRole('button', { name: 'Keep this measure' }).click();
  await expect(page.getByText('1 scoop', { exact: true })).toBeVisible();
  await stocked(world.url);
  await page.goto('/colours/new');
  await page.getByLabel('Name of the colour').fill('Scooped');
  await page.getByLabel('What goes in').selectOption({ label: 'Harbour Blue liquid' });
  await page.getByLabel('Amount').fill('2 scoops');
  await page.getByRole('button', { name: 'Keep this recipe' }).click();
  await expect(page.getByText('2 scoop', { exact: true }).first()).toBeVisible();
});

test('by keyboard alone: a place, a search, a command, and back', async ({ page, world }) => {
  await enter(page);
  await stocked(world.url);
  await page.keyboard.press('g');
  await page.keyboard.press('d');
  await expect(page.getByRole('heading', { name: 'Molds', level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: 'Search and commands' })).toBeFocused();
  await page.keyboard.type('slack');
  await expect(page.getByRole('option', { name: /Slack Tide/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Slack Tide/ })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'A new recipe' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: 'A new recipe' }).click();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keyboard shortcuts' })).toBeVisible();
});

test('an unknown page or record says so and leads back', async ({ page }) => {
  await enter(page);
  for (const path of [
    '/no/such/place',
    '/masters/none',
    '/pours/none',
    '/orders/none',
    '/bags/B999',
    '/tools/no.such',
    '/colours/none',
    '/molds/none',
  ]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 }), path).toHaveText(
      /Nothing hangs on this nail|This cannot be shown/,
    );
    await expect(page.locator('main a.btn-primary'), path).toBeVisible();
  }
  await page.goto('/no/such/place');
  await page.getByRole('link', { name: 'Back to today' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Start with a bait.');
});

test('nobody is shut out: every main page passes the accessibility rules, by day and by night', async ({
  page,
  world,
}) => {
  test.setTimeout(400_000);
  await enter(page);
  const { pourId, colourwayId, orderId, moldId, masterId, api } = await stocked(world.url);
  const { layeredId, setId } = await layered(api, colourwayId, moldId);
  const paths = [
    '/',
    '/masters',
    `/masters/${masterId}`,
    '/molds',
    `/molds/${moldId}`,
    '/molds/plan',
    '/colours',
    `/colours/${colourwayId}`,
    '/colours/new',
    '/colours/layers',
    `/colours/${layeredId}`,
    '/pours',
    `/pours/${setId}?close`,
    `/pours/${setId}/bench`,
    `/pours/${pourId}`,
    `/pours/${pourId}/bench`,
    '/orders',
    `/orders/${orderId}`,
    '/orders/plan',
    '/orders/cost',
    '/orders/money',
    '/orders/season',
    '/orders/import',
    `/orders/${orderId}/packing`,
    '/customers',
    '/store',
    '/tools',
    '/tools/batch.size',
    '/tools/mesh.measure',
    '/guide',
    '/settings',
    '/masters/new?way=sculpt',
    '/masters/sculpt?start=claws',
    `/masters/${masterId}/shape`,
    `/masters/${masterId}/water`,
    '/ladders',
  ];
  await closing(api, pourId);
  const faults: string[] = [];
  for (const theme of ['daylight', 'night']) {
    await page.evaluate((name) => localStorage.setItem('blunko.theme', name), theme);
    await page.goto('/');
    const shown =
      theme === 'daylight'
        ? [...paths, '/rack', '/pours', '/insight']
        : [
            '/',
            '/molds/plan',
            `/pours/${pourId}/bench`,
            `/orders/${orderId}`,
            '/rack',
            '/insight',
            `/masters/${masterId}/shape`,
            '/ladders',
          ];
    for (const path of shown) {
      await goes(page, path);
      await page.locator('main h1').first().waitFor();
      await settled(page);
      const axe = new AxeBuilder({ page });
      // By night only the colours are others.
      const rules =
        theme === 'night'
          ? axe.withRules(['color-contrast'])
          : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']);
      const { violations } = await rules.analyze();
      for (const { id, nodes } of violations)
        for (const node of nodes)
          faults.push(`${path} ${theme} ${id}: ${node.html.slice(0, 140)} ${node.failureSummary?.slice(0, 160)}`);
    }
  }
  expect(faults).toEqual([]);
});
