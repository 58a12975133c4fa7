import { measure } from '../core/shape/measure.ts';
import { readMesh } from '../core/shape/read.ts';
import { weld } from '../core/shape/weld.ts';
import { enter, expect, test } from './world.ts';

/** What each is known by, on the animal as on the bait. */
const BAITS = [
  { start: 'crayfish', name: 'Burn crayfish', heading: 'Crayfish', parts: ['open pincers', 'legs', 'tail down'] },
  { start: 'curl', name: 'Rib curl', heading: 'Curl tail', parts: [] },
  { start: 'boot', name: 'Skerry boot', heading: 'Boot shad', parts: ['fin, back', 'fin, belly'] },
] as const;

for (const { start, name, heading, parts } of BAITS)
  test(`the ${start} is sculpted whole, kept, and drawn as it is`, async ({ page, world }) => {
    test.setTimeout(180_000);
    await enter(page);
    await page.goto('/masters/new?way=sculpt');
    await page.getByRole('link', { name: new RegExp(`^${heading}`) }).click();
    const bench = page.locator('[data-judged]');
    const judged = () => expect(bench).toHaveAttribute('data-judged', 'true', { timeout: 90_000 });
    await judged();
    const figures = page.getByRole('complementary', { name: 'Figures of the shape' });
    for (const title of ['Bent, seen from the side', 'Claws and legs', 'Fins'])
      await figures.getByText(new RegExp(`^${title}`)).click();
    for (const part of parts) await expect(figures.getByText(part, { exact: true }).first()).toBeVisible();
    // Bent by a hand: ten degrees more, and its tail lies lower.
    await figures.getByRole('button', { name: '+ a bend' }).click();
    await judged();
    await page.getByRole('button', { name: 'Keep as a master' }).click();
    await page.getByLabel('Name of the bait').fill(name);
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('heading', { level: 1, name: new RegExp(name) })).toBeVisible({ timeout: 40_000 });
    const masterId = page.url().split('/').at(-1) as string;
    type M = { baitId: string; latest: { meshId: string; spec: { bends: unknown[] } } };
    const master = (await (await fetch(`${world.url}/api/masters/${masterId}`)).json()) as M;
    expect(master.latest.spec.bends.length).toBe(start === 'crayfish' ? 2 : 1);
    const stl = await fetch(`${world.url}/api/meshes/${master.latest.meshId}/file?format=stl`);
    const kept = measure(weld(readMesh(new Uint8Array(await stl.arrayBuffer())).places).mesh);
    expect(kept).toMatchObject({ watertight: true, shells: 1 });
    // The list draws its own outline: as wide over its length as the mesh is.
    await page.goto('/masters');
    const path = page
      .getByRole('link', { name: new RegExp(name) })
      .locator('path')
      .first();
    await expect
      .poll(async () => {
        const box = await path.boundingBox();
        return Math.abs((box?.height ?? 0) / (box?.width ?? 1) - kept.sizeMm[1] / kept.sizeMm[0]);
      })
      .toBeLessThan(0.03);
  });

test('what was shaped survives a refused keep and a reload; dragged on a bent back a station goes where the hand goes', async ({
  page,
  world,
}) => {
  test.setTimeout(180_000);
  await enter(page);
  const made = await fetch(`${world.url}/api/masters`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      name: 'Taken',
      shape: 'stick',
      kind: 'clay',
      lengthMm: 80,
      widthMm: 12,
      heightMm: 12,
      thickestMm: 12,
    }),
  });
  expect(made.status).toBe(201);
  await page.goto('/masters/sculpt?start=prawn');
  const bench = page.locator('[data-judged]');
  await expect(bench).toHaveAttribute('data-judged', 'true', { timeout: 60_000 });
  // The last station lies on the bend: pulled along its own normal, up and toward the tail.
  const back = page.getByRole('slider', { name: 'Station 3, back' });
  const belly = page.getByRole('slider', { name: 'Station 3, belly' });
  const [from, under] = [await back.boundingBox(), await belly.boundingBox()];
  if (!from || !under) throw new Error('no handle');
  const [x, y] = [from.x + from.width / 2, from.y + from.height / 2];
  const [dx, dy] = [x - (under.x + under.width / 2), y - (under.y + under.height / 2)];
  const before = Number(await back.getAttribute('aria-valuenow'));
  // From belly to back it is 4 + 3.4 mm of paper: so many px a mm.
  const pxPerMm = Math.hypot(dx, dy) / (before + Number(await belly.getAttribute('aria-valuenow')));
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (const share of [0.25, 0.5, 0.75, 1]) {
    const by = (12 * share) / Math.hypot(dx, dy);
    await page.mouse.move(x + dx * by, y + dy * by);
    expect(Number(await back.getAttribute('aria-valuenow'))).toBeCloseTo(before + (12 * share) / pxPerMm, 0);
  }
  await page.mouse.up();
  const dragged = await back.getAttribute('aria-valuenow');
  // Kept under a name that is taken it is refused in words, and all is still there after a reload.
  await page.getByRole('button', { name: 'Keep as a master' }).click();
  await page.getByLabel('Name of the bait').fill('Taken');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/already a bait called Taken/)).toBeVisible();
  await page.reload();
  await expect(back).toHaveAttribute('aria-valuenow', dragged as string);
  await page.getByRole('button', { name: 'Keep as a master' }).click();
  await page.getByLabel('Name of the bait').fill('Own prawn');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Own prawn/ })).toBeVisible();

  // In a field: what cannot be taken is undone by itself, what was taken with the shape.
  await page.goto('/masters/sculpt?start=stick');
  const wrist = page.getByLabel('Wrist high');
  await wrist.fill('9');
  await wrist.fill('0.2');
  await expect(page.getByText('at least 0.6 mm')).toBeVisible();
  await wrist.press('Control+z');
  await expect(wrist).toHaveValue('9 mm');
  await wrist.press('Control+z');
  await expect(wrist).toHaveValue('8 mm');

  // A copy of it begins with its figures, and leaves it as it is.
  await page.goto('/masters/new?way=sculpt');
  await page.getByRole('link', { name: /Own prawn v1/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Copy of Own prawn v1/ })).toBeVisible();
  await expect(back).toHaveAttribute('aria-valuenow', dragged as string);
  // Larger, from below, and back again.
  await page.getByRole('button', { name: 'larger' }).click();
  await page.getByRole('button', { name: 'Look from below' }).click();
  await page.getByRole('button', { name: 'smaller' }).click();
  // Bore, slots and hollow are dashed.
  await page.getByLabel('Bore', { exact: true }).check();
  await page.getByLabel('Hollow inside').check();
  await expect(page.locator('[data-inside] > g')).toHaveCount(2);
});
