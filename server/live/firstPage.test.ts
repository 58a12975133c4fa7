import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { JSDOM } from 'jsdom';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { FIRST_ANSWERS, type FirstAnswers } from '../../contract/first.ts';
import type { Pour } from '../../contract/pours.ts';
import { showText } from '../../core/units/show.ts';
import { setPasscode } from '../session/passcode.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';

let pages: string;
let workshop: TestWorkshop;
beforeEach(async () => {
  pages = mkdtempSync(join(tmpdir(), 'blunko-pages-'));
  mkdirSync(join(pages, '.vite'));
  // The page as it is written, with the script that a build names.
  writeFileSync(
    join(pages, 'index.html'),
    readFileSync('web/index.html', 'utf8').replace('"/main.tsx"', '"/assets/index-a.js"'),
  );
  const manifest = {
    'index.html': { file: 'assets/index-a.js', isEntry: true },
    'places/pours/Bench.tsx': {
      file: 'assets/Bench-b.js',
      src: 'places/pours/Bench.tsx',
      imports: ['index.html', '_cup.js'],
    },
    'bold.woff2': { file: 'assets/atkinson-hyperlegible-next-latin-700-normal-d.woff2' },
    '_cup.js': { file: 'assets/cup-c.js', imports: ['places/pours/Bench.tsx'] },
  };
  writeFileSync(join(pages, '.vite', 'manifest.json'), JSON.stringify(manifest));
});
afterEach(async () => {
  await workshop.close();
  rmSync(pages, { recursive: true, force: true });
});

const opened = async (lan = false) => {
  workshop = await TestWorkshop.open(lan, undefined, pages);
};

/** The page as a browser reads it. */
async function page(path: string, cookie = '') {
  const answer = await fetch(workshop.url + path, { headers: { cookie } });
  const html = await answer.text();
  const { document } = new JSDOM(html).window;
  const first = JSON.parse(document.getElementById(FIRST_ANSWERS)?.textContent ?? 'null') as FirstAnswers;
  return { answer, html, document, first };
}

test('a page holds what its first view asks for, as the server would answer it, and Today’s sentence', async () => {
  await opened();
  await workshop.post('/makers', { name: 'Una', system: 'metric', temperature: 'C' });
  const { recipe, mold } = await stocked(workshop);
  const today = await page('/');
  expect(today.answer.headers.get('cache-control')).toBe('no-store');
  expect(Object.keys(today.first.answers).sort()).toEqual(
    ['/clocks', '/line', '/makers', '/measures', '/session', '/today', '/workshop'].sort(),
  );
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: mold.id, shots: 2 }],
  });
  const bench = await page(`/pours/${pour.id}/bench`);
  for (const { first } of [await page('/'), bench])
    for (const [address, answer] of Object.entries(first.answers))
      expect(answer, address).toEqual((await workshop.get(address)).body);
  const told = (await workshop.get<{ lead: string; act: string }>('/today')).body;
  expect((await page('/')).document.querySelector('h1')?.textContent).toBe(`${told.lead} ${told.act}`);
  expect(bench.document.querySelector('h1')?.textContent).toBe('Cook to 175 °C, stir, read.');
  // Another write is another state: who listens from then on knows that the page is older.
  expect(bench.first.write).not.toBe(today.first.write);
  expect((await page('/')).first.write).toBe(bench.first.write);
  const preloads = [...bench.document.querySelectorAll('link[rel=modulepreload]')].map((link) =>
    link.getAttribute('href'),
  );
  expect(preloads).toEqual(['/assets/Bench-b.js', '/assets/cup-c.js']);
  expect(bench.document.querySelector('link[as=font]')?.getAttribute('href')).toBe(
    '/assets/atkinson-hyperlegible-next-latin-700-normal-d.woff2',
  );
  expect(today.document.querySelectorAll('link[rel*=preload]')).toHaveLength(0);
});

test('at the cup its heat, its name and the one next thing stand in the page, as whoever works here reads them', async () => {
  await opened();
  await workshop.post('/makers', { name: 'Una', system: 'us', temperature: 'F' });
  const { recipe, mold } = await stocked(workshop);
  const { body: pour } = await workshop.post<Pour>('/pours', {
    colourwayId: recipe.id,
    molds: [{ moldId: mold.id, shots: 2 }],
  });
  const path = `/pours/${pour.id}`;
  const seen = async () => {
    const { document } = await page(`${path}/bench`);
    return [...document.querySelectorAll('#root h1, #root p')].map((text) => text.textContent);
  };
  await workshop.post(`${path}/heats`, { kind: 'cook', c: 150 });
  await workshop.post(`${path}/heats`, { kind: 'reheat', c: 150 });
  const dose = { materialId: recipe.revision.items[0]?.materialId, amount: 5, unit: 'drop' };
  await workshop.post(`/ledgers/${pour.ledgerId}/doses`, dose);
  workshop.now = new Date(workshop.now.getTime() + 130_000);
  // 150 °C is 302 °F; a mold of four at 10 mL and 5 mL of sprue, twice, and what stays behind.
  expect(await seen()).toEqual([
    '302°F',
    `Slack Tide P1 · ${showText(pour.cookMl, 'volume', { system: 'us', temperature: 'F' })} · read 2:10 ago · heat 2`,
    'Reheat: 302 °F is under 316 °F.',
    'Short bursts at low power, stir, read again.',
  ]);
  expect((await page(`${path}/bench`)).html).not.toMatch(/\{\w+\}|<!--|next <|> next/);
  // While all cool, nothing stands out.
  await workshop.post(`${path}/heats`, { kind: 'reheat', c: 170 });
  await workshop.post(`${path}/shots`, { moldId: mold.id });
  // Held and topped up, it cools.
  workshop.waits(60 / 3600);
  expect(await seen()).toHaveLength(2);
  // Two who read in different units, or a cup that is done: nothing is drawn that the page would take back.
  await workshop.post('/makers', { name: 'Corm', system: 'metric', temperature: 'C' });
  expect(await seen()).toEqual(['Blunko']);
});

test('what somebody typed stays text, in the sentence and in the answers', async () => {
  await opened();
  const markup = '</script><img src=x onerror=alert(1)>&amp;$&{act}-->';
  await workshop.post('/makers', { name: markup, system: 'metric', temperature: 'C' });
  const { recipe, mold } = await stocked(workshop);
  workshop.data.db.prepare('UPDATE recipe SET name = ?').run(markup);
  await workshop.post('/pours', { colourwayId: recipe.id, molds: [{ moldId: mold.id, shots: 2 }] });
  const { document, html, first } = await page('/');
  expect(document.querySelector('img')).toBeNull();
  expect(html).not.toContain('<img');
  expect((first.answers['/makers'] as { items: { name: string }[] }).items[0]?.name).toBe(markup);
  const { lead, act } = first.answers['/today'] as { lead: string; act: string };
  expect(lead).toContain(markup);
  expect(document.querySelector('h1')?.textContent).toBe(`${lead} ${act}`);
});

test('a stranger in the network gets a page with nothing in it; whoever is known gets all', async () => {
  await opened(true);
  await setPasscode(workshop.data.db, '12345678');
  const stranger = await page('/');
  // Not even who they are: a browser that follows a link from elsewhere keeps its cookie back, and asks again with it.
  expect(stranger.first.answers).toEqual({});
  expect(stranger.document.querySelector('h1')).toBeNull();
  const { headers } = await workshop.post('/session', { passcode: '12345678' });
  const known = await page('/', headers.get('set-cookie')?.split(';')[0]);
  expect(known.first.answers).toMatchObject({ '/session': { needed: true, known: true }, '/makers': { items: [] } });
  // Nobody is named yet: the page asks who is here before it says anything.
  expect(known.document.querySelector('h1')).toBeNull();
});

test('a record that is not there, or a question that breaks, does not keep the page shut', async () => {
  await opened();
  const gone = await page('/pours/00000000-0000-7000-8000-000000000000/bench');
  expect(gone.answer.status).toBe(200);
  expect(Object.keys(gone.first.answers)).not.toContain('/pours/00000000-0000-7000-8000-000000000000');
  expect(Object.keys(gone.first.answers)).toContain('/materials?limit=200');
  workshop.data.db.exec('DROP TABLE rack_level');
  const broken = await page('/');
  expect([broken.answer.status, broken.document.querySelector('h1')]).toEqual([200, null]);
  expect(Object.keys(broken.first.answers)).not.toContain('/today');
});
