import type { Db } from '../server/db/open.ts';
import { closing, stocked } from './stock.ts';
import { settled } from './walk/look.ts';
import { places } from './walk/places.ts';
import { enter, expect, goes, test } from './world.ts';

test('a tab that was left open over an upgrade loads anew instead of failing on a part that is gone', async ({
  page,
  world,
}) => {
  await enter(page);
  await stocked(world.url);
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('is laid out');
  // The part of an older build is not there any more; the fresh page asks for the one that is.
  let gone = 1;
  await page.route('**/assets/Rack-*.js', (route) =>
    gone-- > 0 ? route.fulfill({ status: 404, contentType: 'text/plain', body: 'older build' }) : route.continue(),
  );
  const loads: string[] = [];
  page.on('load', () => loads.push(page.url()));
  await page.getByRole('navigation', { name: 'The line' }).getByRole('link', { name: /^Rack/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Rack|The rack/);
  expect(loads.length).toBeGreaterThan(0);
});

test('on the workshop’s own computer nothing waits for a network: it is left, and places still open and take what is typed', async ({
  page,
  world,
}) => {
  await enter(page);
  await stocked(world.url);
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('is laid out');
  // What a browser tells its pages when the garage's Wi-Fi is gone; the server on this machine answers all the same.
  await page.evaluate(() => window.dispatchEvent(new Event('offline')));
  await page
    .getByRole('navigation', { name: 'The line' })
    .getByRole('link', { name: /^Masters/ })
    .click();
  await expect(page.locator('main').getByText('Sandlance 110').first()).toBeVisible();
  await page.getByRole('button', { name: 'All clocks' }).click();
  await page.getByLabel('A clock of your own').fill('stir');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('region', { name: 'All clocks' }).getByText('stir')).toBeVisible();
  expect(world.data.db.prepare('SELECT label FROM clock').all()).toEqual([{ label: 'stir' }]);
});

/** Adds markup to all that a maker can type freely, in every row; past the rules of the house, which is what is tried. */
function poison(db: Db, markup: string): string[] {
  const names = (sql: string) => (db.prepare(sql).all() as { name: string }[]).map((row) => row.name);
  for (const trigger of names(`SELECT name FROM sqlite_master WHERE type = 'trigger'`))
    db.exec(`DROP TRIGGER ${trigger}`);
  const typed = ['name', 'title', 'label', 'note', 'notes', 'contact', 'reason'];
  const done: string[] = [];
  for (const table of names(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT IN ('cavity_mark', 'cavity_sum')`,
  ))
    for (const column of names(`SELECT name FROM pragma_table_info('${table}')`))
      if (
        typed.includes(column) &&
        db.prepare(`UPDATE ${table} SET ${column} = ${column} || ?`).run(markup).changes > 0
      )
        done.push(`${table}.${column}`);
  return done;
}

test('what is typed anywhere is shown as it was typed, and runs nowhere', async ({ page, world }) => {
  test.setTimeout(240_000);
  await enter(page);
  const { api, pourId } = await stocked(world.url);
  await closing(api, pourId);
  const markup = ` <img src=x onerror="document.title='run'"><script>document.title='run'</script>`;
  const typed = poison(world.data.db, markup);
  expect(typed).toEqual(
    expect.arrayContaining(['material.name', 'mold.name', 'customer.notes', 'recipe.notes', 'clock.label']),
  );
  for (const path of await places(world.url, 'all')) {
    await goes(page, path);
    await settled(page);
    expect([path, await page.locator('img[src="x"]').count(), (await page.title()) === 'run']).toEqual([
      path,
      0,
      false,
    ]);
  }
  await page.goto('/store');
  await expect(page.getByText(markup.trim()).first()).toBeVisible();
});

test('a shape that is changed as soon as it opens is judged all the same', async ({ page }) => {
  test.setTimeout(120_000);
  await enter(page);
  await page.goto('/masters/sculpt?start=paddle');
  const handle = page.getByRole('slider', { name: 'Station 2, back' });
  await handle.focus();
  // Within the first second, while the first solid is still on its way.
  for (let n = 0; n < 6; n++) {
    await page.keyboard.press('ArrowUp');
    await page.waitForTimeout(120);
  }
  await expect(page.locator('[data-fine=true][data-judged=true]')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/judging, \d+ %/)).toHaveCount(0);
  await expect(
    page
      .getByText(/^\d+(\.\d+)? mL$/)
      .filter({ visible: true })
      .first(),
  ).toBeVisible();
});

test('what cannot be read says so, everywhere, and is there once it is asked again', async ({ page, world }) => {
  test.setTimeout(120_000);
  await enter(page);
  const { pourId } = await stocked(world.url);
  let broken = true;
  const FRAME = /\/api\/(session|workshop|makers|measures|line|clocks|live|health)/;
  await page.route('**/api/**', async (route) => {
    if (!broken || route.request().method() !== 'GET' || FRAME.test(route.request().url())) return route.fallback();
    const error = { code: 'internal', message: 'Something broke; try again.' };
    await route.fulfill({ status: 500, contentType: 'application/json', body: JSON.stringify({ error }) });
  });
  const lists = ['masters', 'molds', 'colours', 'pours', 'rack', 'orders', 'store', 'insight', 'tools', 'ladders'];
  for (const place of [...lists, 'orders/new', 'pours/new', 'molds/new']) {
    broken = true;
    await page.goto(`/${place}`);
    const failed = page.getByRole('heading', { name: 'This cannot be read just now.' });
    await expect(failed, place).toBeVisible({ timeout: 8000 });
    await expect(page.getByText('Something broke; try again.'), place).toBeVisible();
    // The line and the clocks stay: somebody may go elsewhere.
    await expect(page.getByRole('navigation').getByRole('link', { name: /^Orders/ })).toBeVisible();
    broken = false;
    await page.getByRole('button', { name: 'Try again' }).click();
    await expect(failed, place).toHaveCount(0);
    await expect(page.getByText('Reading the records …'), place).toHaveCount(0);
  }
  // The bench, whose answers come with the page, does not even notice.
  broken = true;
  await page.goto(`/pours/${pourId}/bench`);
  await expect(page.getByRole('heading', { name: /Cook to/ })).toBeVisible();
});
