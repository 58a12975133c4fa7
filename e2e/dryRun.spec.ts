import type { Page } from '@playwright/test';
import { big } from './stock.ts';
import { enter, expect, test } from './world.ts';

/** An evening of training by what the card says; `said` taps each tick to its usual word first. */
async function run(page: Page, said: boolean): Promise<{ good: number; made: number; lost: number[] }> {
  await page.getByRole('button', { name: 'To the bench' }).click();
  await page.getByRole('button', { name: '60×' }).click();
  const cooking = page.getByRole('region', { name: 'Cooking' });
  const start = cooking.getByRole('button', { name: /^Start/ });
  const card = page.getByRole('region', { name: 'Next' }).getByRole('heading');
  const take = async () => {
    await page.getByRole('button', { name: 'Stirred' }).click();
    await page.getByRole('button', { name: 'Take it' }).click();
  };
  for (let turn = 0; turn < 200; turn++) {
    const says = (await card.textContent()) ?? '';
    if (/^Weigh what/.test(says)) break;
    if (/^(Cook|Reheat)/.test(says)) {
      if ((await start.count()) > 0) {
        await start.click();
        await expect(cooking.getByText('Out with it: stir, scrape the wall down, read it')).toBeVisible();
      }
      await take();
      await page.waitForTimeout(950);
    } else if (/^Put in the colour/.test(says)) {
      await big(page).click();
      await page.getByRole('button', { name: 'All in, as written' }).click();
    } else if (/^Draw shot/.test(says) && said) {
      // Read just before, so that it is drawn in its window.
      await take();
      for (const what of [/^Clamped: not known/, /^The mold: not known/, /^Injector: not known/]) {
        const target = page.getByRole('button', { name: what });
        if ((await target.count()) > 0) await target.click();
      }
      await page.waitForTimeout(950);
      if (/^Draw shot/.test((await card.textContent()) ?? '')) await big(page).click();
    } else if (/^Open/.test(says) && said) {
      const lie = page.getByRole('button', { name: /^The baits lie: not known/ });
      if ((await lie.count()) > 0) await lie.click();
      await big(page)
        .click({ timeout: 3000 })
        .catch(() => undefined);
    } else if ((await big(page).count()) > 0)
      await big(page)
        .click({ timeout: 3000 })
        .catch(() => undefined);
    await page.waitForTimeout(200);
  }
  await big(page).click();
  const sum = (await page.getByText(/baits are good, after/).textContent()) ?? '';
  const [, good, made] = /(\d+) of (\d+) baits/.exec(sum) ?? [];
  const costs = await page
    .getByRole('region', { name: 'What it cost' })
    .getByText(/^−\d+$/)
    .allTextContents();
  return { good: Number(good), made: Number(made), lost: costs.map((text) => Number(text.slice(1))) };
}

test('a dry run at 60×: out come the baits that the choices made, what they cost adds up, done right it costs little, and nothing is recorded', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000);
  await enter(page);
  await page.goto('/pours');
  await page.goto('/dry-run');
  await expect(page.getByRole('listitem')).toHaveCount(5);
  const writes: string[] = [];
  page.on('request', (request) => request.method() !== 'GET' && writes.push(request.url()));
  await page.goto('/dry-run/injection');
  const careless = await run(page, false);
  expect(careless.made).toBe(12);
  expect(careless.lost.reduce((sum, one) => sum + one, 0)).toBe(12 - careless.good);
  await page.getByRole('button', { name: 'Once more, the same evening' }).click();
  const careful = await run(page, true);
  expect(careful.made).toBe(12);
  expect(careful.lost.reduce((sum, one) => sum + one, 0)).toBe(12 - careful.good);
  expect(careful.good).toBeGreaterThanOrEqual(careless.good + 3);
  expect(writes).toEqual([]);
  expect(world.data.db.prepare('SELECT count(*) AS n FROM pour').get()).toEqual({ n: 0 });
});
