import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type BrowserContext, chromium, expect, test } from '@playwright/test';
import pino from 'pino';
import { type Opened, open } from '../server/listen.ts';
import { setPasscode } from '../server/session/passcode.ts';
import { movedApp } from '../server/way/moved.ts';
import { stocked } from './stock.ts';

// A tablet that trusts the workshop's own root, as its maker told it to: the real store of the browser, no flag.
let opened: Opened;
let plain: Server;
let plainUrl: string;
let tablet: BrowserContext;
const home = mkdtempSync(join(tmpdir(), 'blunko-tablet-'));
const root = mkdtempSync(join(tmpdir(), 'blunko-lan-e2e-'));

function trust(certificate: string): void {
  const store = join(home, '.pki', 'nssdb');
  mkdirSync(store, { recursive: true });
  const file = join(home, 'root.crt');
  writeFileSync(file, certificate);
  const certutil = (...args: string[]) => {
    const { status, stderr } = spawnSync('certutil', ['-d', `sql:${store}`, ...args], { encoding: 'utf8' });
    if (status !== 0) throw new Error(`certutil: ${stderr}`);
  };
  certutil('-N', '--empty-password');
  certutil('-A', '-t', 'C,,', '-n', 'workshop', '-i', file);
}

const common = { root, clock: () => new Date(), log: pino({ level: 'error' }), port: 0 };
let ledgerId: string;
let materialId: string;

/** A ledger to dose into, made before the workshop is open to its network. */
async function stockUp(): Promise<void> {
  const alone = await open(common);
  const { api } = await stocked(alone.url);
  await api('POST', '/makers', { name: 'Mara', system: 'metric', temperature: 'C' });
  ledgerId = (await api<{ id: string }>('POST', '/ledgers', { title: 'deep harbour', batchMl: 240 })).id;
  materialId = (await api<{ items: { id: string }[] }>('GET', '/materials')).items[0]?.id ?? '';
  await setPasscode(alone.data.db, 'harbour light');
  await alone.close();
}

test.beforeAll(async () => {
  await stockUp();
  opened = await open({
    ...common,
    pages: fileURLToPath(new URL('../dist', import.meta.url)),
    lan: { port: 0, addresses: () => ['127.0.0.1'] },
  });
  const { port } = new URL(opened.lanUrls[0] as string);
  const certificate = readFileSync(join(root, 'keys', 'root.crt'), 'utf8');
  trust(certificate);
  // What a tablet finds at the plain address, which in a test is on the loopback.
  plain = createServer(movedApp(() => ({ port: Number(port), root: certificate })));
  await new Promise<void>((done) => plain.listen(0, '127.0.0.1', done));
  plainUrl = `http://127.0.0.1:${(plain.address() as AddressInfo).port}`;
  tablet = await chromium.launchPersistentContext(join(home, 'profile'), {
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-background-networking'],
    env: { ...process.env, HOME: home } as Record<string, string>,
    serviceWorkers: 'allow',
    viewport: { width: 1024, height: 768 },
  });
});
test.afterAll(async () => {
  await tablet.close();
  await new Promise((done) => plain.close(done));
  await opened.close();
  for (const folder of [home, root]) rmSync(folder, { recursive: true, force: true });
});

test('a tablet comes from the plain address with the taps that waited there, and opens again without the server', async () => {
  test.setTimeout(90_000);
  const page = await tablet.newPage();
  await page.goto(`${plainUrl}/colours/dosing/${ledgerId}`);
  // The page of an earlier version kept its taps in one list under this address.
  await page.evaluate(
    ([path, material]) =>
      localStorage.setItem(
        'blunko.outbox',
        JSON.stringify([
          {
            key: 'waited-here',
            path,
            body: { materialId: material, amount: 7, unit: 'drop' },
            said: '7 drops',
            about: 'x',
          },
        ]),
      ),
    [`/ledgers/${ledgerId}/doses`, materialId] as const,
  );
  await page.reload();
  await expect(page.getByText('1 tap waits in this browser and will go along.')).toBeVisible();
  const certificate = await page.request.get(`${plainUrl}/blunko-root.crt`);
  expect([certificate.headers()['content-type'], await certificate.text()]).toEqual([
    'application/x-x509-ca-cert',
    expect.stringContaining('BEGIN CERTIFICATE'),
  ]);
  expect((await page.request.get(`${plainUrl}/api/workshop`)).status()).toBe(426);
  await page.getByRole('link', { name: /^Go on to https/ }).click();

  // Trusted: no warning stands between, and the passcode is asked for.
  await page.getByLabel('Passcode').fill('harbour light');
  await page.getByRole('button', { name: 'Open the workshop' }).click();
  await expect(page.getByText('7 drops', { exact: true })).toBeVisible();
  const doses = () => opened.data.db.prepare('SELECT amount FROM dose WHERE ledger_id = ?').all(ledgerId);
  expect(doses()).toEqual([{ amount: 7 }]);
  expect(await page.evaluate(() => [isSecureContext, 'wakeLock' in navigator, location.hash])).toEqual([
    true,
    true,
    '',
  ]);

  // The live line was refused before the passcode and is open now: what another page adds is seen here.
  const other = await tablet.newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: '5 drop of Harbour Blue liquid' }).click();
  await expect(page.getByText('12 drops', { exact: true })).toBeVisible();
  await other.close();

  // Kept by the browser: with the server gone the shell still opens, and says what is the matter.
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
  await page.getByText('12 drops', { exact: true }).waitFor();
  await tablet.setOffline(true);
  await page.goto(`${new URL(page.url()).origin}/pours`);
  await expect(page.getByRole('heading', { name: 'The workshop’s computer does not answer.' })).toBeVisible({
    timeout: 20_000,
  });
  await tablet.setOffline(false);
  await expect(page.getByRole('heading', { name: 'Pours' })).toBeVisible({ timeout: 20_000 });
});
