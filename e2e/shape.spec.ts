import { measure } from '../core/shape/measure.ts';
import { readMesh } from '../core/shape/read.ts';
import { box } from '../core/shape/testing.ts';
import { soupOf, weld } from '../core/shape/weld.ts';
import { writeStl } from '../core/shape/write.ts';
import { enter, expect, test } from './world.ts';

/** Onset speed of an end paddle in sea water, worked out on its own: Shore 00, mm; no salt. */
function onsetMPerS(hardness: number, wrist: [thick: number, high: number, long: number], paddle: [number, number]) {
  const [w, h, l] = wrist.map((mm) => mm / 1000) as [number, number, number];
  const [d, t] = paddle.map((mm) => mm / 1000) as [number, number];
  const pascal = 85_200 * Math.exp(0.0103 * hardness);
  const stiff = (3 * pascal * ((h * w ** 3) / 12)) / (l ** 3 + 1.5 * l * l * d + 0.75 * l * d * d);
  const disc = (Math.PI / 4) * d * d * t;
  const mass = 1020 * disc + 0.24 * 1020 * w * h * l + 0.6 * 1025 * disc;
  return (Math.sqrt(stiff / mass) / (2 * Math.PI)) * (d / 0.2);
}

const inMl = (text: string | null) => Number(text?.match(/([\d.]+) mL/)?.[1]);

test('a bait is sculpted, judged, changed, tried in water and corrected by it', async ({ page, world }) => {
  test.setTimeout(240_000);
  await enter(page);
  await page.goto('/masters/new?way=sculpt');
  await page.getByRole('link', { name: /^Paddle/ }).click();
  const bench = page.locator('[data-judged]');
  const judged = () => expect(bench).toHaveAttribute('data-judged', 'true', { timeout: 60_000 });
  await judged();

  // Figures typed; the estimate is worked out beside it.
  const figures = page.getByRole('complementary', { name: 'Figures of the shape' });
  const wrist = figures.getByLabel('Wrist thick, side to side');
  for (const [label, value] of [
    ['Wrist thick, side to side', '4'],
    ['Wrist high', '7 mm'],
    ['Wrist long', '1.2 cm'],
    ['Paddle across', '15'],
    ['Paddle thick', '4'],
  ] as const)
    await figures.getByLabel(label).fill(value);
  await page.getByLabel('Hardness, Shore 00').fill('30');
  const first = onsetMPerS(30, [4, 7, 12], [15, 4]);
  await expect(page.getByTestId('onset')).toHaveText(`${first.toFixed(2)} m/s`);

  // Out of bounds is said, and changes nothing.
  await wrist.fill('0.2');
  await expect(figures.getByText('at least 0.6 mm')).toBeVisible();
  await expect(page.getByTestId('onset')).toHaveText(`${first.toFixed(2)} m/s`);
  await wrist.fill('4');

  // Nudged by the keyboard, undone, redone; a drag is one step back.
  await wrist.press('ArrowDown');
  await expect(page.getByTestId('onset')).toHaveText(`${onsetMPerS(30, [3.9, 7, 12], [15, 4]).toFixed(2)} m/s`);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('onset')).toHaveText(`${first.toFixed(2)} m/s`);
  const back = page.getByRole('slider', { name: 'Station 2, back' });
  const before = Number(await back.getAttribute('aria-valuenow'));
  const at = await back.boundingBox();
  if (!at) throw new Error('no handle');
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  for (const up of [4, 8, 12]) await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2 - up);
  await page.mouse.up();
  expect(Number(await back.getAttribute('aria-valuenow'))).toBeGreaterThan(before + 1);
  await page.keyboard.press('Control+z');
  await expect(back).toHaveAttribute('aria-valuenow', String(before));
  await back.focus();
  await page.keyboard.press('ArrowUp');
  expect(Number(await back.getAttribute('aria-valuenow'))).toBeCloseTo(before + 0.1, 6);
  await page.keyboard.press('Control+z');

  // Unsaved work is there again after a reload.
  await page.reload();
  await expect(wrist).toHaveValue('4 mm');
  await judged();
  const shownMl = inMl(await page.getByRole('region', { name: 'What the shape will do' }).textContent());

  await page.getByRole('button', { name: 'Keep as a master' }).click();
  await page.getByLabel('Name of the bait').fill('Eelgrass 95');
  await page.getByRole('button', { name: 'Keep it' }).click();
  // A solid is built, measured and kept: on a busy machine that takes its time.
  await expect(page.getByRole('heading', { level: 1, name: /Eelgrass 95/ })).toBeVisible({ timeout: 45_000 });

  // The file that goes to the printer holds what was shown, and is closed.
  const masterId = page.url().split('/').at(-1) as string;
  type M = { bait: { id: string }; latest: { id: string; meshId: string; volumeMl: number } };
  const master = (await (await fetch(`${world.url}/api/masters/${masterId}`)).json()) as M;
  const stl = await fetch(`${world.url}/api/meshes/${master.latest.meshId}/file?format=stl`);
  const kept = measure(weld(readMesh(new Uint8Array(await stl.arrayBuffer())).places).mesh);
  expect(kept).toMatchObject({ watertight: true, shells: 1 });
  expect(kept.volumeMl).toBeCloseTo(master.latest.volumeMl, 2);
  expect(Math.abs((kept.volumeMl ?? 0) / shownMl - 1)).toBeLessThan(0.005);

  // A thinner wrist, with its reason; then both laid over each other.
  await page.getByRole('link', { name: 'Shape bench' }).click();
  await figures.getByLabel('Wrist thick, side to side').fill('3');
  await page.getByRole('button', { name: 'Keep as v2' }).click();
  await page.getByLabel('What was changed, and why').fill('Wrist thinner: should kick at a walk');
  await page.getByRole('button', { name: 'Keep it' }).click();
  // Leaving before the answer would leave the write behind on a slow machine.
  await expect
    .poll(async () => {
      const now = (await (await fetch(`${world.url}/api/masters/${masterId}`)).json()) as { revisions: unknown[] };
      return now.revisions.length;
    })
    .toBe(2);
  await page.goto(`/masters/${masterId}/compare`);
  await expect(page.getByRole('listitem').filter({ hasText: 'wrist thickness' })).toHaveText(
    'wrist thickness4 mm → 3 mm',
  );
  const kicks = page.getByRole('row').filter({ hasText: 'Kicks from, Shore 00 34, estimate' });
  await expect(kicks).toContainText(`${estimate(34, 4).toFixed(2)} m/s`);
  await expect(kicks).toContainText(`${estimate(34, 3).toFixed(2)} m/s`);

  // A ladder: five stubs, two of them drawn.
  await page.goto('/ladders');
  await page.getByLabel('Tails like those of').selectOption({ label: 'Eelgrass 95' });
  await expect(page.getByLabel('Paddle across')).toHaveValue('15 mm');
  await page.getByRole('button', { name: 'Make the five steps' }).click();
  await expect(page.getByRole('heading', { name: /Step 3: draw it at 0.60 m\/s/ })).toBeVisible();
  await page.getByRole('button', { name: 'It does not' }).click();
  await expect(page.getByText('does not', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^1/ }).click();
  await page.getByLabel('Kicks counted in ten seconds').fill('43');
  await page.getByRole('button', { name: 'Keep the count' }).click();
  await expect(page.getByText('4.3 a second, kicks')).toBeVisible();
  await expect(page.getByText(/2 trials in all/)).toBeVisible();

  // A test in the tub makes three: the bench now tells this workshop's own figure.
  await page.goto(`/masters/${masterId}/water`);
  await page.getByRole('button', { name: 'Note a test' }).click();
  await page.getByLabel('Shore 00').fill('34');
  await page.getByRole('group', { name: 'Kick, medium' }).getByRole('button', { name: 'yes' }).click();
  await page.getByLabel('Speed, medium').fill('0.7');
  await page.getByRole('button', { name: 'Keep this test' }).click();
  await expect(page.getByText(/medium 0.70 m\/s/)).toBeVisible();
  await page.goto(`/masters/${masterId}/shape`);
  await expect(page.getByText(/fitted from 3 trials of yours/)).toBeVisible();
});

/** The same tail in fresh water, as the comparison tells it. */
function estimate(hardness: number, thick: number): number {
  const sea = 1020 + 0.6 * 1025;
  const fresh = 1020 + 0.6 * 1000;
  // Wrist and paddle swing together: only the share of the disc changes with the water.
  const disc = (Math.PI / 4) * 0.015 ** 2 * 0.004;
  const beam = 0.24 * 1020 * (thick / 1000) * 0.007 * 0.012;
  return onsetMPerS(hardness, [thick, 7, 12], [15, 4]) * Math.sqrt((sea * disc + beam) / (fresh * disc + beam));
}

test('a mesh with a hole, in inches, is asked about, mended, kept and judged', async ({ page }, info) => {
  await enter(page);
  await page.goto('/masters/new?way=bring');
  // 3 × 0.6 × 0.5 in, one of its twelve triangles gone.
  const whole = box(3, 0.6, 0.5);
  const open = weld(soupOf(whole).slice(9)).mesh;
  const stl = Buffer.from(writeStl(open));
  await page.getByLabel('Mesh file').setInputFiles({ name: 'brick.stl', mimeType: 'model/stl', buffer: stl });
  const facts = page.getByRole('region', { name: 'What it measures' });
  await expect(facts.getByText(/3 open edges/)).toBeVisible();
  await expect(facts.getByText(/it looks like inches/)).toBeVisible();
  await facts.getByRole('button', { name: 'inches' }).click();
  await expect(facts.getByText('76.2 mm × 15.2 mm × 12.7 mm')).toBeVisible();
  await facts.getByRole('button', { name: 'Mend it and show what changed' }).click();
  await expect(facts.getByText('1 hole closed')).toBeVisible();
  // 0.9 in³ are 14.748 mL.
  await expect(facts.getByText('14.7 mL')).toBeVisible();
  await facts.getByRole('button', { name: 'This is the master' }).click();
  await page.getByLabel('Name of the bait').fill('Brick 76');
  await page.getByRole('button', { name: 'Keep this master' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /Brick 76/ })).toBeVisible();
  await expect(page.locator('[data-judged=true]')).toBeVisible({ timeout: 60_000 });
  await page.getByText('All figures as a table').click();
  // A ball of half the height fits inside at most.
  await expect(page.getByRole('row').filter({ hasText: 'Thickest section' })).toContainText('12.7 mm');

  // Not a mesh, and one that breaks off, are refused with what to do; nothing stalls.
  await page.goto('/masters/new?way=bring');
  for (const [buffer, words] of [
    [Buffer.from('a letter to the customer'), /neither STL nor OBJ; export it again/],
    [stl.subarray(0, stl.length - 30), /Its header says 11 triangles/],
  ] as const) {
    await page.getByLabel('Mesh file').setInputFiles({ name: 'bad.stl', mimeType: 'model/stl', buffer });
    await expect(page.locator('main').getByText(words)).toBeVisible();
  }
  await page.screenshot({ path: info.outputPath('refused.png') });
});
