import { readFileSync } from 'node:fs';
import { measure } from '../core/shape/measure.ts';
import { readMesh } from '../core/shape/read.ts';
import { STARTS } from '../core/shape/starts.ts';
import { weld } from '../core/shape/weld.ts';
import { apiOf } from './stock.ts';
import { enter, expect, test } from './world.ts';

test('a tube on its rod held at both ends, its vents by hand; built again it is the same, of its own revision', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000);
  await enter(page);
  const api = apiOf(world.url);
  const spec = STARTS.find((one) => one.id === 'tube')?.spec;
  type Kept = { id: string; latest: { id: string; meshId: string } };
  const master = await api<Kept>('POST', '/masters', { name: 'Reed tube', kind: 'print', shape: 'tube', spec });
  await page.goto(`/molds/build?master=${master.id}`);
  const built = () => expect(page.locator('[data-built=true]')).toBeVisible({ timeout: 60_000 });
  await built();
  await page.getByLabel('Kind of mold').selectOption('machined');
  await page.getByLabel('Held before the nose too').check();
  // A pin of 2 mm leaves 4 mm gates room to fill; one of 4 does not, and it is said what does.
  await page.getByLabel('Pin through nose and gate').fill('4');
  await expect(page.getByRole('status').getByText(/A pin of 4 mm fills the gate; a gate of 5.6 mm/)).toBeVisible();
  await page.getByLabel('Pin through nose and gate').fill('2');
  await built();
  await page.getByLabel('Vents by hand').check();
  const vents = page.getByRole('group', { name: /^Vent \d/ });
  const worked = await vents.count();
  expect(worked).toBeGreaterThan(0);
  await page.getByRole('button', { name: '+ a vent' }).click();
  await built();
  await expect(page.getByRole('listitem').filter({ hasText: 'Vents' })).toContainText(`${worked + 1} a cavity`);

  const part = async (name: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `${name} as STL` }).click(),
    ]);
    const { mesh, collapsed } = weld(readMesh(readFileSync(await download.path())).places);
    return measure(mesh, collapsed);
  };
  const rod = await part('core rod');
  expect(rod).toMatchObject({ watertight: true, shells: 1 });
  // Bore of 68.8 mm and 1.5 % (from 14 % of 62 to the end at 77.5), a wall of 10, a grip of 20; before it nose, gate (6), runner (8), seat (5).
  const bore = 77.5 - 0.14 * 62;
  const pin = 0.14 * 62 * 1.015 + 6 + 8 + 5;
  expect(rod.sizeMm[0]).toBeCloseTo(bore * 1.015 + 30 + pin, 0);
  expect(rod.sizeMm[1]).toBeCloseTo(8.6, 1);

  await page.getByLabel('Once it is made, it is called').fill('Reed tube, both ends');
  await page.getByRole('button', { name: 'Keep as a mold' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Reed tube, both ends/ })).toBeVisible();

  // The master goes on; its mold is built again of the shape that it was made from.
  await api('POST', `/masters/${master.id}/revisions`, {
    reason: 'shorter',
    parentId: master.latest.id,
    spec: { ...spec, bodyMm: 50 },
  });
  await page.getByRole('link', { name: /the same again/i }).click();
  await built();
  await expect(page.getByLabel('Which revision')).toHaveValue(master.latest.id);
  await expect(page.getByLabel('Held before the nose too')).toBeChecked();
  await expect(vents).toHaveCount(worked + 1);
  expect((await part('core rod')).sizeMm[0]).toBeCloseTo(rod.sizeMm[0], 3);
  // Any revision can be built, with the same wish.
  await page.getByLabel('Which revision').selectOption({ label: 'v2' });
  await built();
  expect((await part('core rod')).sizeMm[0]).toBeLessThan(rod.sizeMm[0] - 10);
});
