import type { Page, Request } from '@playwright/test';
import { stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

/** Holds back every script of the pages until it is let go: the first seconds of slow Wi-Fi. */
async function holdScripts(page: Page): Promise<() => void> {
  let letGo = () => {};
  const held = new Promise<void>((done) => {
    letGo = done;
  });
  await page.route('**/assets/*.js', async (route) => {
    await held;
    // A page that was left meanwhile has no use for it.
    await route.continue().catch(() => undefined);
  });
  return letGo;
}

test('Today’s sentence stands before any script has come, and does not move when they do', async ({ page, world }) => {
  await enter(page);
  await stocked(world.url);
  // The browser keeps nothing of the first visit: every script is asked for again.
  await page.evaluate(async () => {
    for (const kept of await navigator.serviceWorker.getRegistrations()) await kept.unregister();
    for (const name of await caches.keys()) await caches.delete(name);
  });
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    const letGo = await holdScripts(page);
    await page.goto('/', { waitUntil: 'commit' });
    const sentence = page.getByRole('heading', { level: 1 });
    await expect(sentence).toHaveText('Slack Tide is laid out. 3 shots to draw.');
    await page.evaluate(() => document.fonts.ready);
    const before = await sentence.boundingBox();
    letGo();
    await expect(page.getByRole('link', { name: 'Back to the bench' })).toBeVisible();
    await page.evaluate(() => document.fonts.ready);
    const after = await sentence.boundingBox();
    expect([after?.x, after?.height], `${width}`).toEqual([before?.x, before?.height]);
    expect(Math.abs((after?.y ?? 0) - (before?.y ?? 99)), `${width}`).toBeLessThanOrEqual(2);
    await page.unroute('**/assets/*.js');
  }
});

test('a night bench is dark before its first script, by day too; another place is as it was chosen', async ({
  page,
  world,
}) => {
  await enter(page);
  const { pourId } = await stocked(world.url);
  const theme = async (path: string) => {
    const letGo = await holdScripts(page);
    await page.goto(path, { waitUntil: 'commit' });
    await page.locator('#root > *').first().waitFor();
    const shown = await page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
    letGo();
    await page.unroute('**/assets/*.js');
    return shown;
  };
  await page.emulateMedia({ colorScheme: 'light' });
  const [day, bench] = [await theme('/'), await theme(`/pours/${pourId}/bench`)];
  expect(day).not.toBe(bench);
  await page.evaluate(() => localStorage.setItem('blunko.theme', 'night'));
  expect(await theme('/rack')).toBe(bench);
  await page.evaluate(() => localStorage.removeItem('blunko.theme'));
  await page.emulateMedia({ colorScheme: 'dark' });
  expect(await theme('/rack')).toBe(bench);
});

test('at the cup the one next thing stands before any script has come, where it will stay', async ({ page, world }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    const letGo = await holdScripts(page);
    await page.goto(`/pours/${pourId}/bench`, { waitUntil: 'commit' });
    const box = async () => {
      await page.evaluate(() => document.fonts.ready);
      const { x, y, height: tall } = (await page.getByRole('heading', { level: 1 }).boundingBox()) ?? { x: -1 };
      const figure = await page.locator('.huge').boundingBox();
      return [x, y, tall, figure?.x, figure?.y, figure?.width].map((value) => Math.round(value ?? -1));
    };
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Put in the colour.');
    await expect(page.locator('.huge')).toHaveText('172');
    const before = await box();
    letGo();
    await expect(page.getByRole('button', { name: 'Dose', exact: true }).last()).toBeVisible();
    const after = await box();
    expect(after, `${width}`).toEqual(before);
    await page.unroute('**/assets/*.js');
  }
});

test('a first view asks for nothing that came with it, and what changed meanwhile is fetched', async ({
  page,
  world,
}) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  const asked = async (path: string, there: RegExp) => {
    const paths: string[] = [];
    const note = (request: Request) => {
      const { pathname } = new URL(request.url());
      if (pathname.startsWith('/api/')) paths.push(pathname);
    };
    // The page before hears of what was just written and fetches it: it is left first.
    await page.goto('about:blank');
    page.on('request', note);
    await page.goto(path);
    await expect(page.locator('main')).toContainText(there);
    page.off('request', note);
    return paths;
  };
  expect(await asked('/', /3 shots to draw/)).toEqual(['/api/live']);
  expect(await asked(`/pours/${pourId}/bench`, /Slack Tide/)).toEqual(['/api/live']);

  // Somebody reads a temperature on another tablet after the page was sent and before its line is open.
  let letGo = () => {};
  const held = new Promise<void>((done) => {
    letGo = done;
  });
  await page.route('**/api/live', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`/pours/${pourId}/bench`);
  const temperature = page.getByRole('button', { name: /^Cup temperature/ });
  await expect(temperature).toContainText('—');
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 171 });
  letGo();
  await expect(temperature).toContainText('171');
});
