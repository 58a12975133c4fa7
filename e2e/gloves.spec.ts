import type { Page } from '@playwright/test';
import { type Api, big, layered, stocked, twinMold } from './stock.ts';
import { look } from './walk/look.ts';
import { enter, expect, test } from './world.ts';

interface Cup {
  shots: { id: string; moldId: string; at: string; marks: unknown[] }[];
  heats: { c: number; at: string }[];
}

/** A cup of the stocked colour for its mold and a second one, cooked, coloured and read. */
async function twoMolds(api: Api, colourwayId: string, moldId: string, baitId: string) {
  const second = await twinMold(api, baitId, 'Sandlance second');
  const pour = await api<{ id: string; ledgerId: string; plan: { items: { materialId: string }[] } }>(
    'POST',
    '/pours',
    {
      colourwayId,
      molds: [
        { moldId, shots: 3 },
        { moldId: second.id, shots: 3 },
      ],
    },
  );
  await api('POST', `/pours/${pour.id}/heats`, { kind: 'cook', c: 172 });
  await api('POST', `/ledgers/${pour.ledgerId}/doses`, {
    materialId: pour.plan.items[0]?.materialId,
    amount: 24,
    unit: 'drop',
  });
  return pour.id;
}

/** Two taps where the finger is, whatever stands there by then. */
async function twice(page: Page, apartMs: number): Promise<void> {
  const at = await big(page).boundingBox();
  if (!at) throw new Error('There is no next thing to tap.');
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  await page.mouse.click(x, y);
  await page.waitForTimeout(apartMs);
  await page.mouse.click(x, y);
}

test('two taps 200 ms apart draw one shot, in the mold that the target named, with slow answers too', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, colourwayId, moldId, masterId } = await stocked(world.url);
  const { baitId } = await api<{ baitId: string }>('GET', `/masters/${masterId}`);
  const pourId = await twoMolds(api, colourwayId, moldId, baitId);
  await page.route('**/api/pours/**', async (route) => {
    await new Promise((done) => setTimeout(done, 400));
    await route.continue();
  });
  await page.goto(`/pours/${pourId}/bench`);
  await expect(big(page)).toContainText('Sandlance × 4');
  await twice(page, 200);
  await expect(page.getByRole('heading', { name: 'Hold light pressure: Sandlance × 4.' })).toBeVisible();
  await page.waitForTimeout(1500);
  const { shots } = await api<Cup>('GET', `/pours/${pourId}`);
  expect(shots.map((shot) => [shot.moldId, shot.marks])).toEqual([[moldId, []]]);
  // After its rest the target takes the next tap: held; then the one for the other mold.
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  await expect(page.getByRole('heading', { name: /Draw shot 1 of 3: Sandlance second/ })).toBeVisible();
  await expect(big(page)).toContainText('Sandlance second');
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${pourId}`)).shots.length).toBe(2);
});

test('two taps on what closes the doses open nothing that lies under there', async ({ page, world }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await enter(page);
  const { api, colourwayId, moldId } = await stocked(world.url);
  const { setId } = await layered(api, colourwayId, moldId);
  const { cups } = await api<{ cups: { id: string }[] }>('GET', `/pours/${setId}`);
  for (const cup of cups) await api('POST', `/pours/${cup.id}/heats`, { kind: 'cook', c: 172 });
  world.passes(0.1);
  await page.goto(`/pours/${setId}/bench`);
  await page.getByRole('button', { name: 'Dose', exact: true }).first().click();
  const all = await page.getByRole('button', { name: 'All in, as written' }).boundingBox();
  if (!all) throw new Error('The doses are not open.');
  const [x, y] = [all.x + all.width / 2, all.y + all.height / 2];
  await page.mouse.click(x, y);
  await page.waitForTimeout(150);
  await page.mouse.click(x, y);
  // With two cups above it, the bench’s own Dose lies where All in was.
  await expect.poll(async () => (await api<{ doses: unknown[] }>('GET', `/pours/${setId}`)).doses.length).toBe(1);
  await expect(page.getByRole('button', { name: 'Back to the cup' })).toHaveCount(0);
  // Nor is anything said by it that lies under there.
  expect((await api<{ ticks: unknown[] }>('GET', `/pours/${setId}`)).ticks).toEqual([]);
  // A moment later it opens as ever.
  await page.waitForTimeout(1000);
  await page.getByRole('button', { name: 'Dose', exact: true }).first().click();
  await expect(page.getByRole('button', { name: 'Back to the cup' })).toBeVisible();
});

test('without Wi-Fi a mold that was just filled cools by its own clock, and is not opened', async ({
  page,
  world,
  context,
}) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Shot drawn' }).first().waitFor();
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(page.getByText('hold light pressure', { exact: true })).toBeVisible();
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).click();
  await expect(page.getByText('cooling, by a default')).toBeVisible();
  await expect(page.getByText('open it')).toHaveCount(0);
  // Two minutes in cold aluminium, less the seconds since.
  await expect(page.getByText(/^1:5\d$/).first()).toBeVisible();
  const before = Date.now();
  await page.waitForTimeout(2500);
  await context.setOffline(false);
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${pourId}`)).shots.length, { timeout: 20_000 }).toBe(1);
  // It was drawn when it was tapped, not when the Wi-Fi came back.
  const [shot] = (await api<Cup>('GET', `/pours/${pourId}`)).shots;
  expect(Date.parse(shot?.at ?? '')).toBeLessThan(before);
});

test('a tablet ten minutes slow: undo takes back the last thing, and the records bear the true time', async ({
  page,
  world,
}) => {
  await page.addInitScript(`
    const Real = Date;
    const slow = () => Real.now() - 600000;
    window.Date = class extends Real {
      constructor(...given) {
        super(...(given.length === 0 ? [slow()] : given));
      }
      static now() {
        return slow();
      }
    };
  `);
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
  await page.goto(`/pours/${pourId}/bench`);
  await expect(page.getByRole('button', { name: /Cup temperature 172/ })).toBeVisible();
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(page.getByText('shot 1 of 3')).toBeVisible();
  await expect(page.getByText(/^1:5\d$/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo shot' }).click();
  await expect(page.getByText('3 shots to draw')).toBeVisible();
  await expect
    .poll(async () => {
      const { shots, heats } = await api<Cup>('GET', `/pours/${pourId}`);
      return [shots.length, heats.length];
    })
    .toEqual([0, 1]);
  const rows = world.data.db.prepare('SELECT at FROM shot').all() as { at: string }[];
  for (const { at } of rows) expect(Math.abs(Date.now() - Date.parse(at))).toBeLessThan(20_000);
});

test('the keypad: Enter means the figure, and what no cup can be is said with what is possible', async ({
  page,
  world,
}) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Type it' }).click();
  // The first target of the pad has the focus; Enter must not press that again.
  await page.getByRole('button', { name: 'Reheated' }).click();
  await page.keyboard.type('1720');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/1720 °C is no cup: it lies between .30 °C and 400 °C\./)).toBeVisible();
  expect((await api<Cup>('GET', `/pours/${pourId}`)).heats).toEqual([]);
  await page.keyboard.type('172');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /Cup temperature 172/ })).toBeVisible();
  await expect
    .poll(async () => (await api<{ heats: { kind: string; c: number }[] }>('GET', `/pours/${pourId}`)).heats)
    .toMatchObject([{ kind: 'reheat', c: 172 }]);
});

test('a full browser says that a tap is at risk, and the tap arrives', async ({ page, world, context }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Shot drawn' }).first().waitFor();
  await page.evaluate(() => {
    for (let size = 1_000_000; size > 10; size = Math.floor(size / 2))
      for (let n = 0; n < 12; n++)
        try {
          localStorage.setItem(`fill ${size} ${n}`, 'x'.repeat(size));
        } catch {
          break;
        }
  });
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(page.getByText('This browser has no room left: one tap is only in this page.')).toBeVisible();
  await expect(page.getByText('shot 1 of 3')).toBeVisible();
  await context.setOffline(false);
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${pourId}`)).shots.length, { timeout: 20_000 }).toBe(1);
});

test('a full disk is said in its own words, and the tap waits until there is room', async ({ page, world }) => {
  await enter(page);
  const { pourId, api } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
  await page.goto(`/pours/${pourId}/bench`);
  const message = 'The disk is full; nothing was written.';
  let full = true;
  await page.route('**/shots', (route) =>
    full ? route.fulfill({ status: 507, json: { error: { code: 'disk-full', message } } }) : route.continue(),
  );
  await page.getByRole('button', { name: 'Shot drawn' }).first().click();
  await expect(
    page.getByText(`One tap is kept here until the workshop’s computer takes it. It says: ${message}`),
  ).toBeVisible();
  await expect(page.getByText('shot 1 of 3')).toBeVisible();
  full = false;
  await expect.poll(async () => (await api<Cup>('GET', `/pours/${pourId}`)).shots.length, { timeout: 20_000 }).toBe(1);
  await expect(page.getByText(message)).toHaveCount(0);
});

for (const [where, width, height] of [
  ['on a phone', 390, 844],
  ['at 200 % on a tablet', 512, 384],
  ['at 200 % on a desk', 640, 400],
] as const)
  test(`${where} the bench is whole: the cup, the molds and the one next thing`, async ({ page, world }) => {
    await page.setViewportSize({ width, height });
    await enter(page);
    const { pourId, api } = await stocked(world.url);
    await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 172 });
    await page.goto(`/pours/${pourId}/bench`);
    await page.getByRole('button', { name: 'Shot drawn' }).first().click();
    const cavity = page.getByRole('button', { name: 'Cavity 4: not marked' });
    await cavity.scrollIntoViewIfNeeded();
    const size = await cavity.boundingBox();
    expect(Math.min(size?.width ?? 0, size?.height ?? 0)).toBeGreaterThanOrEqual(64);
    // What rests after the tap takes no finger for a moment.
    await expect(page.locator('[aria-disabled=true]')).toHaveCount(0);
    expect(await look(page)).toEqual([]);
    await cavity.click();
    await page.getByRole('button', { name: 'air bubble' }).click();
    await expect(page.getByRole('button', { name: 'Cavity 4: air bubble' })).toBeVisible();
    await page.getByRole('button', { name: 'Rest good' }).first().click();
    await expect.poll(async () => (await api<Cup>('GET', `/pours/${pourId}`)).shots[0]?.marks.length).toBe(4);
  });

test('a tap on its way moves nothing under the next one; a single one that waits is said', async ({
  page,
  world,
  context,
}) => {
  await enter(page);
  const { pourId } = await stocked(world.url);
  await page.goto(`/pours/${pourId}/bench`);
  const next = page.getByRole('region', { name: 'Next' });
  const read = async (figure: string) => {
    await page.getByRole('button', { name: /^Cup temperature/ }).click();
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: `Cup temperature ${figure} °C; type a new one` })).toBeVisible();
  };
  await page.route('**/heats', async (route) => {
    await new Promise((done) => setTimeout(done, 1000));
    await route.continue();
  });
  // Its answer takes a second: meanwhile what stands next keeps its lower edge.
  const edge = async () => {
    const box = await next.boundingBox();
    return (box?.y ?? 0) + (box?.height ?? 0);
  };
  const before = await edge();
  await read('172');
  expect(await edge()).toBe(before);
  await read('171');
  expect(await edge()).toBe(before);
  await expect
    .poll(async () => (await world.data.db.prepare('SELECT count(*) AS n FROM heat').get()) as object)
    .toEqual({ n: 2 });
  await page.unroute('**/heats');
  await context.setOffline(true);
  await read('169');
  const said = page.getByText('One tap is kept here until the workshop’s computer answers.');
  await expect(said).toBeVisible();
  await context.setOffline(false);
  await expect(said).toBeHidden();
  expect(world.data.db.prepare('SELECT count(*) AS n FROM heat').get()).toEqual({ n: 3 });
});
