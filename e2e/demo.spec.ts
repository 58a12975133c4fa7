import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { test as base, expect, type Response } from '@playwright/test';
import Database from 'better-sqlite3';
import { type Served, served } from './served.ts';

let root: string;
let demo: Served;
let url: string;

const test = base.extend({
  baseURL: async ({ browserName: _ }, use) => use(url),
});

test.beforeAll(async () => {
  test.setTimeout(240_000);
  root = mkdtempSync(join(tmpdir(), 'blunko-demo-e2e-'));
  demo = await served('demo', '--data', root);
  url = demo.url;
});

test.afterAll(async () => {
  // Ctrl-C closes cleanly.
  expect(await demo.stop()).toBe(0);
  rmSync(root, { recursive: true, force: true });
});

test('two years add up: the rack is what was poured less what left, grams balance, lots are never below nothing', () => {
  const db = new Database(join(root, 'live', 'blunko.db'), { readonly: true });
  const one = (sql: string) => (db.prepare(sql).get() as { n: number }).n;
  expect(one('SELECT count(*) AS n FROM pour')).toBeGreaterThan(90);
  // Counted from the marks of the shots, not from the moves that the rack is made of.
  const good = one(
    `SELECT count(*) AS n FROM mark_now m JOIN pour ON pour.id = m.pour_id WHERE m.grade IN ('sell', 'own') AND pour.closed_at IS NOT NULL`,
  );
  // The sums kept at each close are those of the marks, less what customers found wrong later.
  const wrong = one('SELECT coalesce(sum(baits), 0) AS n FROM complaint');
  expect(wrong).toBe(2);
  expect(one('SELECT sum(sell + own) AS n FROM pour_mold')).toBe(good - wrong);
  const bagged = one(
    `SELECT coalesce(sum(baits), 0) AS n FROM bag_content k
     WHERE NOT EXISTS (SELECT 1 FROM stock_move u WHERE u.bag_id = k.bag_id AND u.kind = 'unpacked')`,
  );
  const left = one(
    `SELECT -coalesce(sum(baits), 0) AS n FROM stock_move WHERE kind IN ('fished', 'given', 'scrapped', 'reversed')`,
  );
  expect(one('SELECT sum(baits) AS n FROM rack_level')).toBe(good - bagged - left);
  expect(one('SELECT count(*) AS n FROM rack_level WHERE baits < 0')).toBe(0);
  expect(
    one('SELECT max(good_g + reject_g + returned_g + residue_g - cooked_g) AS n FROM balance'),
  ).toBeLessThanOrEqual(1e-9);
  const remelt = one('SELECT sum(reject_g + returned_g) AS n FROM balance');
  expect(one("SELECT sum(grams) AS n FROM bin_move WHERE kind = 'cup'")).toBeCloseTo(remelt, 6);
  expect(
    one('SELECT min(level) AS n FROM (SELECT sum(grams) AS level FROM lot_move GROUP BY lot_id)'),
  ).toBeGreaterThanOrEqual(-1e-6);
  // Each bag that was filled is one empty one less in the store.
  const empties = one(
    `SELECT -sum(m.grams) AS n FROM lot_move m JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id
     WHERE m.bag_id IS NOT NULL AND material.kind = 'bags'`,
  );
  expect(empties).toBe(one('SELECT count(*) AS n FROM bag'));
  expect(db.pragma('foreign_key_check')).toEqual([]);
  db.close();
});

test('in the demo the evening goes on: the open cup is finished, weighed, and its order is good', async ({ page }) => {
  test.setTimeout(120_000);
  await page.goto('/');
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toContainText(/Slack Tide is in the cup\. 3 of \d+ shots drawn\./);
  const shots = Number(/3 of (\d+)/.exec((await heading.textContent()) ?? '')?.[1]);
  expect(shots).toBeGreaterThan(3);
  await page.getByRole('link', { name: 'Back to the bench' }).click();
  // The same evening’s second cup stands beside it.
  await expect(page.getByRole('navigation', { name: 'Cups of this evening' })).toContainText('Slack Tide');
  // The third shot waits to be looked at; the rest are drawn. Each of the four cavities good.
  for (let shot = 3; shot <= shots; shot++) {
    if (shot > 3) {
      await page.getByRole('button', { name: /^Drawn/ }).click();
      await expect(page.getByText(`shot ${shot} of ${shots}`)).toBeVisible();
    }
    await page.getByRole('button', { name: 'Rest good' }).first().click();
    await expect(page.getByRole('button', { name: 'Cavity 4: good' })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Weigh', exact: true }).click();
  const counted = (await page.locator('#close p').first().textContent()) ?? '';
  const of = (grade: string) => Number(new RegExp(`(\\d+) ${grade}`).exec(counted)?.[1] ?? 0);
  // Own water is weighed with what is to sell.
  const kept = of('to sell') + of('own water');
  expect(kept).toBeGreaterThanOrEqual(4 * (shots - 2));
  const cooked = 4 * shots * 13 + 104;
  await page.getByLabel('Cooked').fill(String(cooked));
  await page.getByLabel('Good baits').fill(String(kept * 13));
  await page.getByLabel('Rejects').fill(String((4 * shots - kept) * 13));
  await page.getByLabel('Sprues and leftover').fill('70');
  await page.getByLabel('Left on glass and felt').fill('9');
  // 104 − 70 − 9 = 25 g are unaccounted for.
  await expect(page.getByText('25 g', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(page.getByText(`${((100 * kept * 13) / cooked).toFixed(1)} %`)).toBeVisible();
  // The order's Slack Tide is no longer short: all of it lies on the rack, curing.
  await page
    .getByRole('link', { name: /Quayside Chandlery N/ })
    .first()
    .click();
  await expect(page.getByText(/in stock, \d+ curing/).first()).toBeVisible();
  // A cup for what is still short, with one tap.
  await page.getByRole('button', { name: 'Lay out this pour' }).first().click();
  await expect(page.getByRole('link', { name: 'To the bench' })).toBeVisible();
});

test('every place opens full, and Today’s first load is under 200 kB of compressed script', async ({ page }) => {
  const scripts: Promise<number>[] = [];
  const weigh = (response: Response) => {
    if (response.status() === 200 && /\.js(\?|$)/.test(response.url()))
      scripts.push(response.body().then((body) => gzipSync(body).length));
  };
  page.on('response', weigh);
  await page.goto('/');
  await page.getByRole('heading', { name: 'Needs you' }).waitFor();
  await page.waitForLoadState('networkidle').catch(() => undefined);
  // What the next places bring is not weighed: their bodies go when they are left.
  page.off('response', weigh);
  const bytes = (await Promise.all(scripts)).reduce((sum, n) => sum + n, 0);
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(200_000);
  for (const [path, text] of [
    ['/masters', 'Gannet 160'],
    ['/molds', 'Sprat rods × 10'],
    ['/colours', 'Ebb Glass'],
    ['/pours', 'Older pours'],
    ['/rack', 'Remelt bins'],
    ['/orders', 'Tideline'],
    ['/store', 'Soft 22'],
    ['/insight', /Rejects average \d+\.\d %/],
  ] as const) {
    await page.goto(path);
    await expect(page.locator('main').getByText(text).first(), path).toBeVisible();
  }
});

test('a port in use is said before anything else is done, with the way out', () => {
  const port = new URL(url).port;
  const demo = spawnSync(process.execPath, ['scripts/demo.mjs', '--port', port], { encoding: 'utf8', timeout: 20_000 });
  expect(demo.status).toBe(1);
  expect(demo.stderr).toContain(
    `Port ${port} is already in use. Choose another: npm run demo -- --port ${Number(port) + 1}`,
  );
});
