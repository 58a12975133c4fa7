// One current picture of each main view, from the demo workshop. Options: --out DIR, --data DIR (a demo made before), --only NAME
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { chromium, type Page } from '@playwright/test';
import type { Page as List } from '../contract/fields.ts';
import { served } from '../e2e/served.ts';

const { values } = parseArgs({
  options: { out: { type: 'string', default: 'docs/screenshots' }, data: { type: 'string' }, only: { type: 'string' } },
});
// On what a maker's own command builds and serves.
const own = values.data === undefined;
const data = values.data ?? mkdtempSync(join(tmpdir(), 'blunko-shots-'));
mkdirSync(values.out, { recursive: true });
const workshop = await served(own ? 'demo' : 'start', '--data', data);
const base = workshop.url;

async function idOf(list: string, name: string): Promise<string> {
  const { items } = (await (
    await fetch(`${base}/api/${list}${['ladders', 'bins'].includes(list) ? '' : '?limit=200'}`)
  ).json()) as List<{
    id: string;
    name?: string;
    code?: string;
    customer?: string;
    closedAt?: string | null;
    startedAt?: string | null;
  }>;
  const found = items.find((row) =>
    name === 'open'
      ? row.closedAt === null && row.startedAt !== null
      : name === 'closed'
        ? row.closedAt
        : [row.name, row.customer].includes(name),
  );
  if (!found) throw new Error(`The demo has no ${name} in ${list}.`);
  return found.id;
}

interface View {
  name: string;
  path: string;
  bench?: boolean;
  before?(page: Page): Promise<void>;
}

const pourOpen = await idOf('pours', 'open');
const pourClosed = (
  (await (await fetch(`${base}/api/pours?limit=60`)).json()) as List<{
    id: string;
    closedAt: string | null;
  }>
).items.filter((row) => row.closedAt)[8]?.id;
const sandlance = await idOf('masters', 'Sandlance 110');
const judged = async (page: Page) => {
  await page.locator('[data-judged=true]').waitFor({ timeout: 60_000 });
  await page.waitForTimeout(500);
};
/** A bait in its colour is drawn beside the page. */
const painted = async (page: Page) => {
  await page.locator('canvas').first().waitFor({ timeout: 30_000 });
  await page.waitForTimeout(800);
};
const views: View[] = [
  { name: 'today', path: '/' },
  { name: 'master', path: `/masters/${sandlance}` },
  { name: 'shape', path: `/masters/${sandlance}/shape`, before: judged },
  { name: 'water', path: `/masters/${sandlance}/water` },
  { name: 'ladder', path: `/ladders/${await idOf('ladders', 'Ladder 1')}`, bench: true },
  {
    name: 'mold-builder',
    path: `/molds/build?master=${sandlance}`,
    before: async (page) => {
      await page.locator('[data-built=true]').waitFor({ timeout: 60_000 });
      await page.waitForTimeout(800);
    },
  },
  {
    name: 'evening',
    path: `/pours/${pourOpen}/evening`,
    before: async (page) => page.getByText(/Begun now it ends/).waitFor(),
  },
  { name: 'mold-care', path: `/molds/${await idOf('molds', 'Sandlance 110 × 4')}` },
  {
    name: 'recipe',
    path: `/colours/${await idOf('recipes', 'Bladderwrack')}`,
    before: async (page) => {
      await page.getByRole('button', { name: '1½' }).click();
      await painted(page);
    },
  },
  { name: 'bench', path: `/pours/${pourOpen}/bench`, bench: true },
  { name: 'layers', path: `/colours/${await idOf('colourways', 'Gannet Coat')}`, before: painted },
  { name: 'pour-sheet', path: `/pours/${pourClosed}` },
  { name: 'rack', path: '/rack' },
  {
    name: 'scraps',
    path: `/rack/bins/${await idOf('bins', 'Used baits, mixed')}`,
    before: async (page) => {
      await page.locator('[data-field=massG]').fill('23.4');
      await page.locator('[data-field=inWaterG]').fill('1.6');
      await page.locator('[data-field=pressed]').fill('41 44 43');
      await page.locator('[data-field=overWhite]').fill('#b0a594');
      await page.locator('[data-field=overBlack]').fill('#5c554b');
      await page.getByLabel('It is to become').selectOption({ label: 'Bladderwrack' });
      await page.waitForTimeout(2500);
    },
  },
  { name: 'order', path: `/orders/${await idOf('orders', 'Quayside Chandlery')}` },
  { name: 'plan', path: '/orders/plan' },
  { name: 'packing', path: `/orders/${await idOf('orders', 'Ellary Kayak Hire')}/packing`, bench: true },
  { name: 'earns', path: '/orders/money' },
  { name: 'insight', path: '/insight' },
];

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-background-networking'],
});
try {
  for (const view of views.filter((one) => !values.only || one.name.startsWith(values.only))) {
    const page = await browser.newPage({
      viewport: view.bench ? { width: 1024, height: 768 } : { width: 1280, height: 800 },
    });
    await page.goto(base + view.path);
    await page.locator('main').waitFor();
    await page.getByText('Reading the records').waitFor({ state: 'detached' });
    await page.waitForTimeout(700);
    await view.before?.(page);
    await page.waitForTimeout(200);
    await page.screenshot({ path: join(values.out, `${view.name}.png`) });
    await page.close();
  }
} finally {
  await browser.close();
  await workshop.stop();
  if (own) rmSync(data, { recursive: true, force: true });
}
