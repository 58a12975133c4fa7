import { readFileSync } from 'node:fs';
import { measure } from '../core/shape/measure.ts';
import type { Mesh } from '../core/shape/mesh.ts';
import { readMesh } from '../core/shape/read.ts';
import { loadModeller, sculpt } from '../core/shape/sculpt.ts';
import { STARTS } from '../core/shape/starts.ts';
import { ellipse, sweep } from '../core/shape/sweep.ts';
import { stood } from '../core/shape/turn.ts';
import { weld } from '../core/shape/weld.ts';
import { writeStl } from '../core/shape/write.ts';
import { enter, expect, test } from './world.ts';

const fileOf = (name: string, mesh: Mesh) => ({ name, mimeType: 'model/stl', buffer: Buffer.from(writeStl(mesh)) });

test('a scan at an angle, in inches and with holes becomes a straight master, and its mold a file that can be printed', async ({
  page,
  world,
}) => {
  test.setTimeout(180_000);
  const spec = (STARTS[0] as (typeof STARTS)[number]).spec;
  const bait = sculpt(await loadModeller(), { ...spec, bellySlot: null });
  const truth = measure(bait);
  const askew = stood(bait, { x: 25, y: -38, z: 70 }, 1 / 25.4);
  const scan = { ...askew, triangles: askew.triangles.filter((_, i) => Math.floor(i / 3) % 997 !== 5) };
  await enter(page);
  await page.goto('/masters/new?way=bring');
  await page.getByLabel('Mesh file').setInputFiles(fileOf('scan.stl', scan));
  const facts = page.getByRole('region', { name: 'What it measures' });
  await facts.getByRole('button', { name: 'inches' }).click();
  // What is under way keeps the next step waiting: mended while it was still millimetres it would be welded to pieces.
  await facts.getByRole('button', { name: 'Mend it and show what changed' }).click();
  await expect(facts.getByText('13 holes closed')).toBeVisible();
  const lies = page.getByRole('region', { name: 'How it lies' });
  await expect(lies.getByText(/its nose looks along -y of the file, 4\d° askew/)).toBeVisible();
  await lies.getByRole('button', { name: 'Turn it by its shape' }).click();
  const size = truth.sizeMm.map((mm) => `${Number(mm.toPrecision(3))} mm`).join(' × ');
  await expect(lies.getByText(size)).toBeVisible();
  await lies.getByRole('button', { name: 'Take it so' }).click();
  await expect(facts.getByText(/Turned by -?\d+° about its length/)).toBeVisible({ timeout: 30_000 });
  await expect(lies.getByText(/It lies as it should/)).toBeVisible();
  await facts.getByRole('button', { name: 'This is the master' }).click();
  await page.getByLabel('Name of the bait').fill('Driftwood 98');
  await page.getByRole('button', { name: 'Keep this master' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Driftwood 98/ })).toBeVisible();
  const masterId = page.url().split('/').at(-2) as string;
  const master = (await (await fetch(`${world.url}/api/masters/${masterId}`)).json()) as {
    latest: { lengthMm: number; volumeMl: number };
  };
  expect(Math.abs(master.latest.lengthMm / truth.sizeMm[0] - 1)).toBeLessThan(0.003);
  expect(Math.abs(master.latest.volumeMl / (truth.volumeMl as number) - 1)).toBeLessThan(0.002);

  await page.goto(`/molds/build?master=${masterId}`);
  await expect(page.locator('[data-built=true]')).toBeVisible({ timeout: 60_000 });
  // Straight in its block: as long as the bait, its channels and walls, and no more.
  const built = /built: ([\d.]+) mm/.exec((await page.getByRole('status').first().textContent()) ?? '');
  expect(Number(built?.[1])).toBeLessThan(truth.sizeMm[0] * 1.015 + 45);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'lower half as STL' }).click(),
  ]);
  const { mesh, collapsed } = weld(readMesh(readFileSync(await download.path())).places);
  expect(measure(mesh, collapsed)).toMatchObject({ watertight: true, flipped: false, shells: 1 });
});

test('what runs through itself is told where, and ends as a solid all the same', async ({ page }) => {
  test.setTimeout(120_000);
  const rings = Array.from({ length: 61 }, (_, i) => {
    const turn = (400 * i * Math.PI) / 180 / 60;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    return ellipse([9 * c, 9 * s, (1.2 * turn) / Math.PI], [-3 * c, -3 * s, 0], [0, 0, 3], 16);
  });
  await enter(page);
  await page.goto('/masters/new?way=bring');
  await page.getByLabel('Mesh file').setInputFiles(fileOf('hook.stl', sweep(rings)));
  const facts = page.getByRole('region', { name: 'What it measures' });
  await expect(facts.getByText(/It runs through itself near/)).toBeVisible();
  await facts.getByRole('button', { name: 'Mend it and show what changed' }).click();
  await facts.getByRole('button', { name: 'Draw its skin anew' }).click();
  await expect(facts.getByText(/Its skin drawn anew in cells of/)).toBeVisible({ timeout: 90_000 });
  await expect(facts.getByText(/runs through itself/)).toBeHidden();
  await expect(facts.getByRole('button', { name: 'This is the master' })).toBeEnabled();
});
