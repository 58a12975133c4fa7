import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

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

test('what is typed into a name is shown as it was typed, and runs nowhere', async ({ page, world }) => {
  await enter(page);
  const { api } = await stocked(world.url);
  const name = `<img src=x onerror="document.title='run'">`;
  await api('POST', '/materials', { name, kind: 'colourant' });
  await api('POST', '/customers', { name: `<script>document.title='run'</script>` });
  for (const path of ['/store', '/orders/new', '/colours/new']) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).waitFor();
    expect(await page.locator('img[src="x"]').count()).toBe(0);
    expect(await page.title()).not.toBe('run');
  }
  await page.goto('/store');
  await expect(page.getByText(name).first()).toBeVisible();
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
