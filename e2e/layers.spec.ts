// Baits of several melts: from the colour to the packed bag, with sums made by hand.
import type { Page } from '@playwright/test';
import { type Api, big, type Id, stocked, twinMold } from './stock.ts';
import { enter, expect, test } from './world.ts';

interface Cup extends Id {
  code: string;
  closedAt: string | null;
  cups: { id: string; recipeName: string }[];
  shots: {
    id: string;
    parts: { ml: number; layer: number; pourId: string; doseSeq: number; heatSeq: number }[];
    redone: object[];
  }[];
  balance: { goodG: number; rejectG: number; returnedG: number; unaccountedG: number } | null;
}

const next = (page: Page, words: string | RegExp) =>
  expect(page.getByRole('region', { name: 'Next' }).getByRole('heading')).toHaveText(words);

/** Types what the cup that is asked for reads. */
async function reads(page: Page, figures: string): Promise<void> {
  await page.getByRole('button', { name: 'Type it' }).click();
  for (const figure of figures) await page.getByRole('button', { name: figure, exact: true }).click();
  await page.getByRole('button', { name: 'Enter' }).click();
}

const melt = (api: Api, name: string, hex: string, materialId: string) =>
  api<Id>('POST', '/recipes', { name, hex, basisMl: 236.5882365, items: [{ materialId, amount: 6, unit: 'drop' }] });

/** The store's one colourant. */
const colourant = async (api: Api) => ((await api<{ items: Id[] }>('GET', '/materials')).items[0] as Id).id;

test('a laminate through two equal cups and two injectors, from its colour to the packed bag', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, moldId, pourId } = await stocked(world.url);
  await melt(api, 'Limpet', '#a5733f', await colourant(api));
  // The stocked pour is put away: this evening has one set of cups.
  await page.goto(`/pours/${pourId}`);
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByText('Put away before anything was drawn.')).toBeVisible();

  await page.goto('/colours');
  await page.getByRole('link', { name: 'Put melts in layers' }).click();
  await page.getByLabel('Name of the colour').fill('Night Tide');
  await page.getByLabel('Of each bait, %').fill('50');
  await page.getByRole('button', { name: 'Keep this colour' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Night Tide v1');
  await expect(page.getByRole('img', { name: 'Night Tide cut across: belly 50 %, back 50 %' })).toBeVisible();

  await page.goto('/orders/new');
  await page.getByLabel('Customer').selectOption({ label: 'Tideline' });
  await page.getByLabel('Colour').selectOption({ label: 'Night Tide' });
  await page.getByRole('button', { name: 'Keep this order' }).click();
  await expect(page.getByText('short 8 of 8 baits')).toBeVisible();
  const orderPage = page.url();
  // Both are pushed at once; how many injectors there are is said under Settings.
  await expect(page.getByText('2 cups are pushed into it at once, which takes as many injectors')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Lay out this pour' })).toHaveCount(0);
  await page.goto('/settings');
  await page.getByLabel('Injectors').fill('2');
  await page
    .locator('form')
    .filter({ has: page.getByLabel('Injectors') })
    .getByRole('button', { name: 'Keep' })
    .click();
  await expect.poll(async () => (await api<{ injectors: number }>('GET', '/workshop')).injectors).toBe(2);
  await page.goto(orderPage);
  // Three shots of 47.7 mL in halves and 8 mL of film in each glass: 79.55 mL twice.
  await expect(page.getByText('159 mL')).toBeVisible();
  await expect(page.getByText('in 2 cups')).toBeVisible();
  await page.getByRole('button', { name: 'Lay out this pour' }).click();
  await expect(page.getByRole('heading', { name: 'Drawn from' })).toBeVisible();
  const lead = page.url().split('/').at(-1) as string;
  const { cups } = await api<Cup>('GET', `/pours/${lead}`);
  // 45 mL a shot, half from each.
  await expect(page.getByText('22.5 mL a shot')).toHaveCount(2);

  await page.getByRole('link', { name: 'To the bench' }).click();
  await next(page, 'Limpet: Cook to 175 °C, stir, read.');
  await reads(page, '174');
  await next(page, 'Limpet: Put in the colour.');
  await big(page).click();
  await page.getByRole('button', { name: 'All in, as written' }).click();
  await next(page, 'Slack Tide: Cook to 175 °C, stir, read.');
  await reads(page, '171');
  await next(page, 'Slack Tide: Put in the colour.');
  await big(page).click();
  await page.getByRole('button', { name: 'All in, as written' }).click();
  await next(page, 'Draw shot 1 of 3 from all 2 cups: Sandlance × 4.');
  // The cup in hand is the one last read; a tap takes up the other.
  const strip = page.getByRole('navigation', { name: 'Cups of this evening' });
  await expect(strip.getByRole('button', { pressed: true })).toContainText('Slack Tide');
  await strip.getByRole('button', { name: /Limpet/ }).click();
  await expect(page.getByRole('button', { name: 'Cup temperature 174 °C; type a new one' })).toBeVisible();
  await big(page).dblclick();
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${lead}`)).shots.length).toBe(1);
  const drawn = (await api<Cup>('GET', `/pours/${lead}`)).shots[0];
  expect(drawn?.parts.map((part) => [part.layer, part.ml, part.pourId, part.doseSeq > 0, part.heatSeq > 0])).toEqual(
    cups.map((cup, layer) => [layer, 22.5, cup.id, true, true]),
  );

  for (let n = 1; n < 3; n++) await api('POST', `/pours/${lead}/shots`, { moldId });
  world.passes(0.2);
  await page.reload();
  for (const shot of (await api<Cup>('GET', `/pours/${lead}`)).shots)
    await api('POST', `/pours/${lead}/shots/${shot.id}/marks`, {
      marks: [1, 2, 3, 4].map((cavity) => ({ cavity, grade: 'sell' })),
    });
  await page.reload();
  await next(page, 'Weigh what came out.');
  await big(page).click();
  await expect(page.getByText('12 to sell of 12 made.')).toBeVisible();
  // 12 baits of 10.2 g and sprues: 122.4 g, and of each glass what is left.
  await page.getByLabel('Cooked').first().fill('82 g');
  await page.getByLabel('Good baits').fill('122.4 g');
  await page.getByLabel('Sprues and leftover').first().fill('12 g');
  const other = page.getByRole('group', { name: /Slack Tide/ });
  await other.getByLabel('Cooked').fill('80 g');
  await other.getByLabel('Sprues and leftover').fill('16 g');
  // 162 − 122.4 − 28.
  await expect(page.getByText('11.6 g')).toBeVisible();
  await page.getByRole('button', { name: 'Close all 2 cups' }).click();
  await expect(page.getByText('Closed; it stands as it was.')).toBeVisible();
  const closed = await Promise.all(cups.map((cup) => api<Cup>('GET', `/pours/${cup.id}`)));
  const goods = closed.map((cup) => cup.balance?.goodG ?? 0);
  expect(goods[0] as number).toBeCloseTo(61.2, 0);
  expect(goods.reduce((sum, g) => sum + g, 0)).toBeCloseTo(122.4, 9);

  world.passes(25);
  await page.goto(orderPage);
  await page.getByRole('button', { name: 'Pack 1' }).click();
  await expect(page.getByText('1 of 1 packed')).toBeVisible();
  await page.getByRole('link', { name: /B1 · 8/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Bag B1');
  await expect(page.getByText('Night Tide', { exact: true })).toBeVisible();
  // The bag leads to the cup that led, and that to the other.
  await page.getByRole('link', { name: closed[0]?.code as string, exact: true }).click();
  await expect(page.getByRole('link', { name: closed[1]?.code as string, exact: true })).toBeVisible();
});

test('a bait of three layers in two-piece silicone, one layer poured again', async ({ page, world }) => {
  await enter(page);
  const { api, masterId, colourwayId } = await stocked(world.url);
  const { baitId } = await api<{ baitId: string }>('GET', `/masters/${masterId}`);
  const limpet = await melt(api, 'Limpet', '#a5733f', await colourant(api));
  const colour = await api<Id>('POST', '/colourways', {
    name: 'Gannet Coat',
    hex: '#4d6f86',
    notes: '',
    layers: [
      { place: 'belly', recipeId: limpet.id, measure: 'share', shareFraction: 0.35 },
      { place: 'side', recipeId: colourwayId, measure: 'ml', eachMl: 2, joins: 'melted' },
      { place: 'back', recipeId: limpet.id, measure: 'rest', joins: 'melted' },
    ],
  });
  const mold = await api<Id>('POST', '/molds', {
    name: 'Two-piece × 2',
    kind: 'silicone-two-piece',
    fill: 'gravity',
    baitId,
    cavities: 2,
    cavityMl: 20,
    sprueMl: 4,
  });
  const pour = await api<Cup>('POST', '/pours', { colourwayId: colour.id, molds: [{ moldId: mold.id, shots: 1 }] });
  for (const cup of pour.cups) await api('POST', `/pours/${cup.id}/heats`, { kind: 'cook', c: 172 });
  for (const cup of pour.cups) {
    const { ledgerId, plan } = await api<{ ledgerId: string; plan: { items: { materialId: string }[] } }>(
      'GET',
      `/pours/${cup.id}`,
    );
    await api('POST', `/ledgers/${ledgerId}/doses`, { materialId: plan.items[0]?.materialId, amount: 3, unit: 'drop' });
  }
  await page.goto(`/pours/${pour.id}/bench`);
  // 2 × 7, 2 × 2, and 2 × 11 with the sprue's 4: together 44 mL.
  const lane = page.getByRole('region', { name: 'Molds' });
  for (const words of ['belly 14 mL', 'side line 4 mL', 'back 26 mL']) await expect(lane).toContainText(words);
  await next(page, 'Fill the belly, shot 1 of 1: Two-piece × 2.');
  await big(page).click();
  await next(page, 'Fill the side line, shot 1 of 1: Two-piece × 2.');
  await expect(page.getByText('melt its surface with the heat gun')).toBeVisible();
  await big(page).click();
  await next(page, 'Fill the back, shot 1 of 1: Two-piece × 2.');
  // The side line of the second bait slipped: it is lifted out and poured again, before any grade.
  await page.getByRole('button', { name: 'Cavity 2: not marked' }).click();
  await expect(page.getByText('Its grade is for when all layers are in.')).toBeVisible();
  await page.getByRole('button', { name: 'side line again' }).click();
  await big(page).click();
  // It is held for some seconds, then topped up: a busy machine comes to see the one or the other.
  await next(page, /^(Hold light pressure:|Top up) Two-piece × 2\.$/);
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${pour.id}`)).shots[0]?.parts.length).toBe(3);
  const [shot] = (await api<Cup>('GET', `/pours/${pour.id}`)).shots;
  expect(shot?.parts.map((part) => Number(part.ml.toFixed(9)))).toEqual([14, 4, 26]);
  expect(shot?.redone).toMatchObject([{ layer: 1, cavity: 2, ml: 2 }]);

  world.passes(1);
  await page.reload();
  await next(page, 'Open Two-piece × 2 and look.');
  await big(page).click();
  await next(page, 'Weigh what came out.');
  await big(page).click();
  await expect(page.getByText('2 to sell of 2 made.')).toBeVisible();
});

test('1,200 baits over two twin molds: hours and evenings are said, and what is laid out is what one evening holds', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, masterId, colourwayId, pourId } = await stocked(world.url);
  await page.goto(`/pours/${pourId}`);
  await page.getByRole('button', { name: 'Put it away' }).click();
  const { baitId } = await api<{ baitId: string }>('GET', `/masters/${masterId}`);
  await twinMold(api, baitId, 'Sandlance × 4, twin');
  const order = await api<Id>('POST', '/orders', {
    newCustomer: { name: 'Quayside Chandlery' },
    dueOn: '2030-04-01',
    lines: [{ baitId, colourwayId, packs: 150, perPack: 8 }],
  });
  await page.goto(`/orders/${order.id}`);
  const { need } = await api<{
    need: {
      cups: {
        molds: { moldId: string; shots: number }[];
        minutes: number;
        evenings: number;
        tonight: { molds: { shots: number }[]; glasses: number };
      }[];
    };
  }>('GET', `/orders/${order.id}`);
  const [cup] = need.cups;
  const shots = (cup?.molds ?? []).map((mold) => mold.shots);
  // Both molds alike, 130 s of hands a shot, 155 minutes an evening.
  expect(Math.abs((shots[0] ?? 0) - (shots[1] ?? 99))).toBeLessThanOrEqual(1);
  const all = shots.reduce((sum, n) => sum + n, 0);
  expect(cup?.minutes).toBeCloseTo((all * 130) / 60, 6);
  const evenings = Math.ceil((all * 130) / 60 / 155);
  await expect(page.getByText(`${evenings} evenings`)).toBeVisible();
  const tonight = (cup?.tonight.molds ?? []).reduce((sum, mold) => sum + mold.shots, 0);
  expect(tonight * 130).toBeLessThanOrEqual(155 * 60);
  await expect(page.getByText(`The first: ${tonight} shots from ${cup?.tonight.glasses} cups.`)).toBeVisible();
  await page.getByRole('button', { name: 'Lay out the first evening' }).click();
  await expect(page.getByRole('link', { name: 'To the bench' })).toBeVisible();
  const pours = await api<{ items: { cookMl: number; closedAt: string | null }[] }>(
    'GET',
    '/pours?only=open&limit=200',
  );
  expect(pours.items).toHaveLength(cup?.tonight.glasses ?? 0);
  // No cup is over a US pint less 15 %.
  for (const { cookMl } of pours.items) expect(cookMl).toBeLessThanOrEqual(473.176473 * 0.85);
  await page.goto('/pours');
  await expect(page.getByRole('heading', { name: /This evening: \d+ cups/ })).toBeVisible();
});
