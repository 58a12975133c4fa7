import type { Locator, Page } from '@playwright/test';
import { differenceCiede2000 } from 'culori';
import type { Material } from '../contract/materials.ts';
import type { Recipe } from '../contract/recipes.ts';
import type { Seen } from '../core/colour/predict.ts';
import { STARTS } from '../core/shape/starts.ts';
import { apiOf, type Id } from './stock.ts';
import { enter, expect, test } from './world.ts';

const PLAIN = { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] };
/** sRGB byte to linear light, by the standard's own two branches. */
const linear = (byte: number) => {
  const v = byte / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
};
const bytesOf = (hex: string) => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));

/** What a canvas shows at a share of its width, half way down. */
const pixel = (canvas: Locator, share: number) =>
  canvas.evaluate((of: HTMLCanvasElement, at) => {
    const x = Math.min(of.width - 1, Math.floor(at * of.width));
    return [...(of.getContext('2d')?.getImageData(x, Math.floor(of.height / 2), 1, 1).data ?? [])].slice(0, 3);
  }, share);

/** A picture under a yellowish lamp: paper, black card, the step over each, a quarter of the width each. */
const PATCHES = [
  [232, 224, 205],
  [28, 26, 24],
  [110, 170, 196],
  [40, 62, 78],
] as const;

function pictured(page: Page): Promise<string> {
  return page.evaluate((patches) => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [400, 100];
    const draw = canvas.getContext('2d') as CanvasRenderingContext2D;
    patches.forEach(([r, g, b], i) => {
      draw.fillStyle = `rgb(${r} ${g} ${b})`;
      draw.fillRect(100 * i, 0, 100, 100);
    });
    return canvas.toDataURL('image/png').split(',')[1] as string;
  }, PATCHES);
}

test('a colour is measured off a picture, foreseen in a bait, and matched out of what is in store', async ({
  page,
  world,
}) => {
  await enter(page);
  const api = apiOf(world.url);
  const add = (name: string, hex: string) =>
    api<Id>('POST', '/materials', { name, kind: 'colourant', hex, dropsPerMl: 20, lot: { code: 'A1', grams: 100 } });
  const blue = await add('Harbour Blue liquid', '#1f5f8b');
  const yellow = await add('Lamp Yellow liquid', '#e6b422');
  const paddle = STARTS.find((one) => one.id === 'paddle');
  await api('POST', '/masters', { name: 'Sandlance 110', shape: 'paddle', kind: 'clay', spec: paddle?.spec });

  // Nobody measured it: 6 drops of 1/20 mL into 50 mL are 6 mL in a litre, in a step of 2 mm.
  await page.goto(`/store?material=${blue.id}`);
  await page.getByRole('link', { name: 'Measure its colour' }).click();
  const keep = page.getByRole('button', { name: 'Keep this measurement' });
  await page.getByLabel('Dosed').fill('6 drops');
  await page.getByLabel('The step is thick').fill('2 mm');
  await expect(page.getByText('6.00 mL in a litre')).toBeVisible();
  // Neither colour was read yet.
  await expect(keep).toBeDisabled();
  const picture = Buffer.from(await pictured(page), 'base64');
  await page.locator('input[type=file]').setInputFiles({ name: 'step.png', mimeType: 'image/png', buffer: picture });
  const canvas = page.locator('canvas').first();
  const tap = async (quarter: number) => {
    const box = await canvas.boundingBox();
    if (!box) throw new Error('no picture');
    await canvas.click({ position: { x: ((quarter + 0.5) * box.width) / 4, y: box.height / 2 } });
  };
  // Black tapped for paper: said, and taken back.
  for (const quarter of [1, 0, 2, 3]) await tap(quarter);
  await expect(page.getByText(/tap the white paper first/)).toBeVisible();
  for (let n = 0; n < 4; n++) await page.getByRole('button', { name: 'take the last tap back' }).click();
  for (const quarter of [0, 1, 2, 3]) await tap(quarter);
  await expect(page.getByText('All are read.')).toBeVisible();
  await keep.click();
  await expect(page.getByText(/Measured .* off a picture/)).toBeVisible();
  const { step } = await api<Material>('GET', `/materials/${blue.id}`);
  const [paper, card, white, black] = PATCHES;
  for (const i of [0, 1, 2] as const) {
    const share = (of: readonly number[]) =>
      (linear(of[i] as number) - linear(card[i])) / (linear(paper[i]) - linear(card[i]));
    // Kept as a colour of 256 steps a band.
    expect(step?.overWhite[i]).toBeCloseTo(share(white), 1.9);
    expect(step?.overBlack[i]).toBeCloseTo(share(black), 1.9);
  }
  expect(step?.mlPerL).toBeCloseTo(6, 9);
  const again = await api<{ k: number[] }>('POST', '/calc/colour.calibrate', {
    thicknessMm: 2,
    mlPerL: 6,
    overBlack: step?.overBlack,
    overWhite: step?.overWhite,
    base: PLAIN,
  });
  for (const i of [0, 1, 2] as const) expect(step?.optics.k[i]).toBeCloseTo(again.k[i] as number, 12);

  // 12 drops in a cup of 236.6 mL are 2.536 mL in a litre: on the wedge over white, 8 mm lie half way.
  const recipe = await api<Recipe>('POST', '/recipes', {
    name: 'Slack Tide',
    hex: '#4f8796',
    basisMl: 236.5882365,
    items: [{ materialId: blue.id, amount: 12, unit: 'drop' }],
  });
  await page.goto(`/colours/${recipe.id}`);
  const foreseen = await api<Seen>('POST', '/calc/colour.predict', {
    base: PLAIN,
    items: [{ ...step?.optics, mlPerL: (12 / 20 / 236.5882365) * 1000 }],
    thicknessMm: 8,
    background: [0.9, 0.9, 0.88],
  });
  const wedge = page.getByRole('img', { name: /thick over white/ });
  const seen = await pixel(wedge, 0.5);
  for (const [i, byte] of bytesOf(foreseen.hex).entries())
    expect(Math.abs((seen[i] as number) - byte)).toBeLessThanOrEqual(2);
  // Thin it is paler than thick.
  const [thin, thick] = [await pixel(wedge, 0), await pixel(wedge, 0.99)];
  expect((thin[0] as number) - (thick[0] as number)).toBeGreaterThan(30);
  await expect(page.getByRole('img', { name: 'Sandlance 110 in Slack Tide, over white' })).toBeVisible();
  // What the tail hides is luminance over black by luminance over white, as the calculator has it at the thickness that is told.
  const told = await page.getByText(/Its tail of .* hides \d+ % of what is behind it/).textContent();
  const [, tailMm, hides] = told?.match(/tail of ([\d.]+) mm hides\s+(\d+) %/) ?? [];
  const opacityOf = async (mlPerL: number, thicknessMm = Number(tailMm)) => {
    const item = { ...step?.optics, mlPerL };
    const at = { base: PLAIN, items: [item], thicknessMm };
    const [black, white] = await Promise.all(
      [0, 1].map((g) => api<Seen>('POST', '/calc/colour.predict', { ...at, background: [g, g, g] })),
    );
    return (black?.luminanceY as number) / (white?.luminanceY as number);
  };
  const now = await opacityOf((12 / 20 / 236.5882365) * 1000);
  // The thickness is told to a tenth of a millimetre, the share to a percent.
  expect(Math.abs(now - Number(hides) / 100)).toBeLessThan(0.015);
  // To the body it takes less than to the tail.
  await page.getByRole('button', { name: 'its body' }).click();
  await page.getByRole('button', { name: '70 %' }).click();
  const timesNow = async () =>
    Number(/([\d.]+) times its colour/.exec((await page.getByText(/times its colour/).textContent()) ?? '')?.[1]);
  const toBody = await timesNow();
  const [, bodyMm] =
    /body of .*, ([\d.]+) mm, hides/.exec((await page.getByText(/The body of/).textContent()) ?? '') ?? [];
  expect(Math.abs((await opacityOf((12 / 20 / 236.5882365) * 1000 * toBody, Number(bodyMm))) - 0.7)).toBeLessThan(0.02);
  await page.getByRole('button', { name: 'its tail' }).click();
  expect(await timesNow()).toBeGreaterThan(toBody);
  await page.getByRole('button', { name: 'Keep as v2' }).dblclick();
  await expect(page.getByText('“dosed to the tail of Sandlance 110”')).toBeVisible();
  const dosed = (await api<Recipe>('GET', `/recipes/${recipe.id}`)).revision;
  expect(dosed.number).toBe(2);
  // Whole drops: within half of one of what was wanted.
  const drops = dosed.items[0]?.amount as number;
  expect(Number.isInteger(drops)).toBe(true);
  const per = 1000 / 20 / 236.5882365;
  expect(await opacityOf((drops - 0.6) * per)).toBeLessThan(0.715);
  expect(await opacityOf((drops + 0.6) * per)).toBeGreaterThan(0.685);
  await expect(page.getByText('never measured')).toHaveCount(0);

  // Matched: a green out of the blue that was measured and the yellow that was not; first off a picture, under the same lamp.
  await page.goto('/colours/match');
  await page.locator('input[type=file]').setInputFiles({ name: 'bait.png', mimeType: 'image/png', buffer: picture });
  for (const quarter of [0, 1, 2]) await tap(quarter);
  await expect(page.getByText('All are read.')).toBeVisible();
  const read = bytesOf(await page.getByRole('textbox', { name: 'Wanted' }).inputValue());
  for (const i of [0, 1, 2] as const) {
    const share = (linear(white[i]) - linear(card[i])) / (linear(paper[i]) - linear(card[i]));
    expect(linear(read[i] as number)).toBeCloseTo(share, 1.9);
  }
  await page.getByRole('textbox', { name: 'Wanted' }).fill('#4f8a6a');
  await expect(page.getByText('Lamp Yellow liquid: never measured')).toBeVisible();
  await page.getByLabel('Keep as recipe, named').fill('Ebb Green');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: /Ebb Green/ })).toBeVisible();
  const { items } = await api<{ items: Recipe[] }>('GET', '/recipes');
  const kept = items.find((one) => one.name === 'Ebb Green') as Recipe;
  const optics = new Map([
    [blue.id, step?.optics],
    [yellow.id, yellowByLook()],
  ]);
  const made = await api<Seen>('POST', '/calc/colour.predict', {
    base: PLAIN,
    items: kept.revision.items.map(({ materialId, amount }) => ({
      ...optics.get(materialId),
      mlPerL: ((amount / 20) * 1000) / kept.revision.basisMl,
    })),
    thicknessMm: 8,
    background: [1, 1, 1],
  });
  expect(made.hex).toBe(kept.hex);
  expect(differenceCiede2000()(made.hex, '#4f8a6a')).toBeLessThan(6);

  // Used up: what replaces it is asked for, and becomes the next revision.
  const lots = (await api<Material>('GET', `/materials/${yellow.id}`)).lots;
  await api('POST', `/lots/${lots[0]?.id}/moves`, { kind: 'counted', levelG: 0 });
  await page.goto(`/colours/${kept.id}`);
  await page.getByRole('link', { name: 'What replaces it' }).click();
  await page.getByRole('button', { name: 'Keep as v2 of Ebb Green' }).click();
  await expect(page.getByText('“without Lamp Yellow liquid”')).toBeVisible();
  const after = await api<Recipe>('GET', `/recipes/${kept.id}`);
  expect(after.revision.items.map((item) => item.materialName)).not.toContain('Lamp Yellow liquid');
});

/** What an unmeasured yellow of that look is taken for: K/S = (1 − R)²/2R of its look, 0.12 a mm scattered at 7.4 mL/L. */
function yellowByLook() {
  const s = 0.12 / 7.4;
  const look = bytesOf('#e6b422').map(linear);
  return { k: look.map((r) => (s * (1 - r) ** 2) / (2 * r)), s: [s, s, s] };
}
