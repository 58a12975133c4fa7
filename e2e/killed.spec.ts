import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import type { Clock } from '../contract/workshop.ts';
import { type Served, served } from './served.ts';
import { big, type Id, stocked } from './stock.ts';
import { enter } from './world.ts';

/** A port that nobody has. */
const freePort = () =>
  new Promise<number>((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

test('the workshop’s computer is killed in the middle of a pour and started again: taps, clocks and the open mold are there, once', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const data = mkdtempSync(join(tmpdir(), 'blunko-killed-'));
  const port = String(await freePort());
  const start = () => served('start', '--data', data, '--port', port);
  let there: Served = await start();
  const page = await browser.newPage({ baseURL: there.url, viewport: { width: 1024, height: 768 } });
  try {
    await enter(page);
    const { api, pourId, moldId } = await stocked(there.url);
    await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 174 });
    const { ledgerId } = await api<{ ledgerId: string }>('GET', `/pours/${pourId}`);
    const [colour] = (await api<{ items: Id[] }>('GET', '/materials')).items;
    await api('POST', `/ledgers/${ledgerId}/doses`, { materialId: colour?.id, amount: 24, unit: 'drop' });
    await page.goto(`/pours/${pourId}/bench`);
    await expect(big(page)).toHaveText(/^Drawn/);
    await big(page).click();
    await expect(page.getByText('shot 1 of 3')).toBeVisible();
    const opens = async () =>
      (await api<{ items: Clock[] }>('GET', '/clocks')).items.filter(({ kind }) => kind === 'open');
    await expect.poll(async () => (await opens()).length).toBe(1);
    const [before] = await opens();

    // The server itself, whatever started it.
    const gone = new Promise((done) => there.child.once('exit', done));
    execFileSync('pkill', ['-KILL', '-P', String(there.child.pid)]);
    await gone;
    await expect(big(page)).toHaveText(/^Held/);
    await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
    await big(page).dblclick();
    await page.getByRole('button', { name: 'Stirred' }).click();
    await page.getByRole('button', { name: /^It felt: not known/ }).click();
    await page.waitForTimeout(1500);
    there = await start();
    const db = new Database(join(data, 'live', 'blunko.db'), { readonly: true });
    const n = (sql: string) => (db.prepare(sql).get() as { n: number }).n;
    await expect.poll(() => n('SELECT count(*) AS n FROM bench_tick'), { timeout: 30_000 }).toBe(2);
    expect(db.prepare('SELECT what, said, nth, mold_id FROM bench_tick ORDER BY seq').all()).toEqual([
      { what: 'held', said: 'yes', nth: 1, mold_id: moldId },
      { what: 'felt', said: 'smooth', nth: 1, mold_id: moldId },
    ]);
    expect([n('SELECT count(*) AS n FROM shot_live'), n('SELECT count(*) AS n FROM stir')]).toEqual([1, 1]);
    db.close();
    // The mold's clock is the same one, due when it was.
    expect(await opens()).toEqual([before]);
    await page.reload();
    await expect(page.getByText('shot 1 of 3')).toBeVisible();
  } finally {
    await page.close();
    await there.stop();
    rmSync(data, { recursive: true, force: true });
  }
});
