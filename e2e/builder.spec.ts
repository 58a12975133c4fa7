import { readFileSync } from 'node:fs';
import { AxeBuilder } from '@axe-core/playwright';
import { strFromU8, unzipSync } from 'fflate';
import { PDFDocument } from 'pdf-lib';
import { measure } from '../core/shape/measure.ts';
import { readMesh } from '../core/shape/read.ts';
import { STARTS } from '../core/shape/starts.ts';
import { weld } from '../core/shape/weld.ts';
import { apiOf, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

type Point = [number, number, number];
const inMl = (text: string | null) => Number(text?.match(/([\d.]+) mL/)?.[1]);

test('from a sculpted master to the halves of its mold, printed and machined, and boxes for silicone', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000);
  await enter(page);
  const api = apiOf(world.url);
  const spec = STARTS.find((one) => one.id === 'stick')?.spec;
  const master = await api<{ id: string; latest: { volumeMl: number } }>('POST', '/masters', {
    name: 'Reed stick',
    kind: 'print',
    shape: 'stick',
    spec,
  });
  await page.goto(`/masters/${master.id}`);
  await page.getByRole('link', { name: 'Build a mold' }).click();
  const built = () => expect(page.locator('[data-built=true]')).toBeVisible({ timeout: 60_000 });
  const figure = async (label: string) =>
    (await page.getByRole('listitem').filter({ hasText: label }).textContent())?.slice(label.length) ?? '';
  await built();

  // A cavity is the bait, 1.5 % larger every way; a shot is two of them and what leads to them.
  const cavityMl = master.latest.volumeMl * 1.015 ** 3;
  expect(inMl(await figure('One cavity')) / cavityMl).toBeCloseTo(1, 2);
  const channelsMl = inMl(await figure('Sprue, runner, gates'));
  expect(inMl(await figure('One shot'))).toBeCloseTo(2 * cavityMl + channelsMl, 0);

  // The files are closed solids that together with the shot make up the block.
  const halfMl: number[] = [];
  for (const name of ['lower half', 'upper half']) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `${name} as STL` }).click(),
    ]);
    // Named by bait, revision, cavities and part.
    expect(download.suggestedFilename()).toMatch(/^Reed-stick-v1-x\d+-[a-z-]+\.stl$/);
    const { mesh, collapsed } = weld(readMesh(readFileSync(await download.path())).places);
    const found = measure(mesh, collapsed);
    expect(found).toMatchObject({ watertight: true, flipped: false, shells: 1 });
    halfMl.push(found.volumeMl ?? 0);
  }
  // And all of them in one file, which holds as much.
  const [all] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'All parts in one 3MF' }).click(),
  ]);
  expect(all.suggestedFilename()).toMatch(/^Reed-stick-v1-x2-all-parts\.3mf$/);
  const model = strFromU8(unzipSync(readFileSync(await all.path()))['3D/3dmodel.model'] as Uint8Array);
  expect([...model.matchAll(/<object [^>]*name="([^"]+)"/g)].map(([, name]) => name)).toEqual([
    'lower half',
    'upper half',
  ]);
  // By the divergence theorem over the triangles as they are written.
  const numbers = (text: string, tag: RegExp) => [...text.matchAll(tag)].map(([, ...at]) => at.map(Number));
  const volumesMl = [...model.matchAll(/<mesh>(.*?)<\/mesh>/gs)].map(([, mesh = '']) => {
    const corners = numbers(mesh, /<vertex x="([^"]+)" y="([^"]+)" z="([^"]+)"/g);
    const sixfold = numbers(mesh, /<triangle v1="(\d+)" v2="(\d+)" v3="(\d+)"/g).map((of) => {
      const [[a, b, c], [d, e, f], [g, h, i]] = of.map((at) => corners[at]) as [Point, Point, Point];
      return a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
    });
    return sixfold.reduce((sum, one) => sum + one, 0) / 6000;
  });
  expect(volumesMl).toEqual(halfMl.map((ml) => expect.closeTo(ml, 2)));

  const sizes = (await page.getByText(/^built:/).textContent())?.match(/[\d.]+(?= mm)/g)?.map(Number) ?? [];
  const blockMl = sizes.reduce((product, mm) => product * mm, 1) / 1000;
  const sumMl = (halfMl[0] as number) + (halfMl[1] as number) + 2 * cavityMl + channelsMl;
  expect(sumMl / blockMl).toBeCloseTo(1, 1.5);

  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(violations.map((one) => `${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);

  // Six layers of 0.1 mm are 0.6 mm over hollow infill: blown through; 15 of them make 1.5 mm.
  await page.getByLabel('Solid layers').fill('6');
  await page.getByLabel('Layer, mm').fill('0.1');
  await expect(page.getByText(/plastic blows through under 1.5 mm. 4 perimeters and 15 layers hold/)).toBeVisible();
  await page.getByLabel('Solid layers').fill('15');
  await expect(page.getByText(/: it holds/)).toBeVisible();

  // What cannot be built is said, with the change that mends it, and what was built stays.
  const wall = page.getByLabel('Wall, all round');
  await wall.fill('4');
  await expect(page.getByText(/a wall of 9\.3 mm or a thinner pin mends it/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep as a mold' })).toBeDisabled();
  await wall.fill('12');
  await built();

  // A stick is widest in one plane: its wavy seam is as good as flat, and says so. Four pieces are four files.
  await page.getByLabel('Seam follows the edge').check();
  await page.getByLabel('Four pieces (one cavity)').check();
  await built();
  await expect(page.getByRole('button', { name: /(left|right) as STL/ })).toHaveCount(4);
  await expect(page.getByText('Its edge lies in one plane: a flat seam does the same.')).toBeVisible();
  await page.getByLabel('Four pieces (one cavity)').uncheck();
  await page.getByLabel('Seam follows the edge').uncheck();

  await page.getByLabel('Kind of mold').selectOption('silicone-box');
  await built();
  expect(inMl(await figure('Rubber to pour'))).toBeGreaterThan(50);
  await page.getByLabel('Kind of mold').selectOption('machined');
  await page.getByLabel('Cavities', { exact: true }).fill('4');
  await built();
  await expect(page.getByText('licensed or trained people only', { exact: false })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  const sheet = page.getByRole('region', { name: 'Set-up sheet' });
  await expect(sheet.getByRole('row', { name: /^Cavities/ })).toContainText('4, 1.5 % larger than the bait');
  await expect(sheet.getByRole('row', { name: /^Pin 1/ })).toContainText('x 6.0, y 6.0');
  await expect(sheet.getByRole('row', { name: /^Nose/ })).toHaveCount(4);
  await page.emulateMedia({ media: 'screen' });
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Set-up sheet (PDF)' }).click(),
  ]);
  expect((await PDFDocument.load(readFileSync(await file.path()))).getTitle()).toBe(
    'Set-up sheet: mold for Reed stick v1',
  );
  // Heads to the middle from both sides: two baits and more in a row, which 200 mm of stock do not give.
  await page.getByLabel('Must come out of my stock').check();
  await expect(page.getByText(/mm more than the stock is long/)).toBeVisible();
  await page.getByLabel('Must come out of my stock').uncheck();
  await built();
  await page.getByLabel('See through').check();
  await page.getByLabel('Cut open').check();

  await page.getByLabel('Once it is made, it is called').fill('Reed × 4, aluminium');
  await page.getByRole('button', { name: 'Keep as a mold' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Reed × 4/ })).toBeVisible();
  const { items } = await api<{ items: { name: string; cavities: number; cavityMl: number }[] }>('GET', '/molds');
  expect(items[0]).toMatchObject({ name: 'Reed × 4, aluminium', cavities: 4 });
  expect((items[0]?.cavityMl ?? 0) / cavityMl).toBeCloseTo(1, 2);
  await page.getByRole('link', { name: 'Build the same again' }).click();
  await expect(page.getByLabel('Cavities', { exact: true })).toHaveValue('4');
  await expect(page.getByLabel('Kind of mold')).toHaveValue('machined');
});

test('a two-piece block is poured half by half, and the second half only over release agent', async ({
  page,
  world,
}) => {
  test.setTimeout(120_000);
  await enter(page);
  const { masterId } = await stocked(world.url);
  await page.goto(`/molds/plan?master=${masterId}&pour=two-piece`);
  await page.getByLabel('Name', { exact: true }).fill('Loft Firm');
  await page.getByLabel('Pot life, min').fill('20');
  await page.getByLabel('Demold, min').fill('240');
  await page.getByLabel('In the store, both parts').fill('2 kg');
  await page.getByRole('button', { name: 'Keep this rubber' }).click();
  for (const _ of [1, 2]) await page.getByRole('button', { name: 'Masters: less' }).click();
  // One master of 110 × 16 × 17 mm and 10 mL: 130 × 36 × (8.5 + 10) mm less 5 mL is 81.58 mL; with 7 % 87.3 mL, 96.0 g.
  await expect(page.getByText('Mix 87.3 mL for each half, in one go')).toBeVisible();
  await expect(page.getByRole('img', { name: 'Part A: 87.3 g, which is 79.4 mL' })).toBeVisible();
  await expect(page.getByRole('group', { name: /Box 130 mm long, 36 mm wide, 37 mm high/ })).toBeVisible();
  // The box for it: boards of 5 mm, and a net of 130 + 2 · 42 + 12 by 36 + 84 + 12 mm.
  await page.getByText('The box to cut').click();
  await expect(page.getByRole('row', { name: /1 × floor/ })).toContainText('140 mm × 46 mm');
  const [net] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Net for card, 1:1 (SVG)' }).click(),
  ]);
  expect(readFileSync(await net.path(), 'utf8')).toContain('width="226.00mm" height="132.00mm"');
  await page.getByRole('button', { name: 'Mixed now: start the clocks' }).click();
  await expect(page.getByRole('heading', { name: 'Still workable' })).toBeVisible();
  // A single open block of it needs 130 × 36 × 27 mm less 10 mL, 116.4 mL: more than 100 left over, less than 120.
  await page.getByText('Some is left in the cup').click();
  await page.getByLabel('Left over').fill('100');
  await expect(page.getByText('No master is small enough', { exact: false })).toBeVisible();
  await page.getByLabel('Left over').fill('120');
  await expect(page.getByRole('listitem').filter({ hasText: 'takes 116 mL' })).toBeVisible();
  world.passes(5);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'First half is set' })).toBeVisible();
  const second = page.getByRole('button', { name: 'Second half mixed now' });
  await expect(second).toBeDisabled();
  await expect(page.getByText(/Release agent first, and tick that step/)).toBeVisible();
  await page.getByRole('checkbox', { name: /Release agent on all of the silicone/ }).click();
  await second.click();
  await expect(page.getByRole('heading', { name: 'Still workable' })).toBeVisible();
  await expect(
    page
      .getByRole('region', { name: 'Clocks' })
      .getByText(/second half/)
      .first(),
  ).toBeVisible();
});
