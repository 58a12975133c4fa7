// The shape bench in a browser: how long each redraw of the solid takes while a station is dragged, and how long the page
// was held up meanwhile, by one script and between two frames.
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { STARTS } from '../core/shape/starts.ts';
import { served } from '../e2e/served.ts';

const CHROMIUM = '/usr/bin/chromium';
const MOVES = 60;

/** Runs in the page, as text: what compiles this file would leave its own helpers in a function. */
const WATCH = `
  const seen = (window.seen = { script: 0, frame: 0, last: 0, redraws: [] });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) seen.script = Math.max(seen.script, entry.duration);
  }).observe({ type: 'longtask', buffered: false });
  requestAnimationFrame(function frame(at) {
    if (seen.last > 0) seen.frame = Math.max(seen.frame, at - seen.last);
    seen.last = at;
    requestAnimationFrame(frame);
  });
`;

async function measured(base: string): Promise<void> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: ['--no-sandbox'] });
  const first = await browser.newPage();
  await first.goto(base);
  await first.getByLabel('Your name at the bench').fill('Bench');
  await first.getByRole('button', { name: /^Start with/ }).click();
  await first.close();
  console.log(`${'shape'.padEnd(10)}   redraw, middle and slowest   longest script   longest between two frames`);
  for (const { id } of STARTS) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript({ content: WATCH });
    await page.goto(`${base}/masters/sculpt?start=${id}`);
    await page.locator('[data-judged=true]').waitFor({ timeout: 120_000 });
    const handle = page.getByRole('slider', { name: 'Station 2, back' });
    const at = await handle.boundingBox();
    if (!at) throw new Error('There is no handle to drag.');
    const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.evaluate(() => {
      const { seen } = window as unknown as { seen: { script: number; frame: number; redraws: number[] } };
      Object.assign(seen, { script: 0, frame: 0 });
      const bench = document.querySelector('[data-redraw-ms]') as Element;
      new MutationObserver(() => seen.redraws.push(Number(bench.getAttribute('data-redraw-ms')))).observe(bench, {
        attributes: true,
        attributeFilter: ['data-redraw-ms'],
      });
    });
    for (let n = 1; n <= MOVES; n++) {
      await page.mouse.move(x, y - 12 * Math.sin((n / MOVES) * 4 * Math.PI));
      await page.waitForTimeout(25);
    }
    await page.mouse.up();
    await page.locator('[data-judged=true]').waitFor({ timeout: 120_000 });
    const seen = await page.evaluate(
      () => (window as unknown as { seen: { script: number; frame: number; redraws: number[] } }).seen,
    );
    const redraws = [...seen.redraws].sort((a, b) => a - b);
    console.log(
      `${id.padEnd(10)}${String(redraws[Math.floor(redraws.length / 2)]).padStart(15)} ms ${String(redraws.at(-1)).padStart(6)} ms${(seen.script > 0 ? `${seen.script.toFixed(0)} ms` : 'under 50 ms').padStart(17)}${`${seen.frame.toFixed(0)} ms`.padStart(29)}`,
    );
    await page.close();
  }
  await browser.close();
}

if (!existsSync(CHROMIUM)) console.log('Chromium is not installed: the page is not measured.');
else {
  const root = mkdtempSync(join(tmpdir(), 'blunko-bench-'));
  const workshop = await served('start', '--data', root);
  await measured(workshop.url);
  await workshop.stop();
  rmSync(root, { recursive: true, force: true });
}
