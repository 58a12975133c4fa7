import type { Page } from '@playwright/test';
import type { Instrument } from '../contract/instruments.ts';
import type { Pour } from '../contract/pours.ts';
import { type Api, apiOf, big, type Id, stocked, twinMold } from './stock.ts';
import { enter, expect, test, type World } from './world.ts';

const add = (api: Api, kind: Instrument['kind']) =>
  api<Instrument>('POST', '/instruments', { kind, name: `Loft ${kind}`, how: 'stand-in' });
const rows = <T>(world: World, sql: string) => world.data.db.prepare(sql).all() as T[];
const n = (world: World, sql: string) => (world.data.db.prepare(sql).get() as { n: number }).n;

/** A second colour and two more molds beside the stocked one; a cup of each colour, the three molds shared out. */
async function evening(api: Api): Promise<{ cups: Pour[]; shots: number }> {
  const [{ baitId }] = (await api<{ items: (Id & { baitId: string })[] }>('GET', '/molds')).items as [
    Id & { baitId: string },
  ];
  const [first] = (await api<{ items: Id[] }>('GET', '/molds')).items as [Id];
  const second = await twinMold(api, baitId, 'Sandlance × 4, second');
  const third = await twinMold(api, baitId, 'Sandlance × 4, third');
  const pink = await api<Id>('POST', '/materials', { name: 'Sea Pink liquid', kind: 'colourant', hex: '#e58fa0' });
  const recipe = await api<Id>('POST', '/recipes', {
    name: 'Sea Pink',
    hex: '#e58fa0',
    basisMl: 236.5882365,
    items: [{ materialId: pink.id, amount: 12, unit: 'drop' }],
  });
  const { items: colours } = await api<{ items: (Id & { name: string })[] }>('GET', '/colourways');
  const blue = colours.find(({ name }) => name === 'Slack Tide');
  const { items: open } = await api<{ items: Id[] }>('GET', '/pours?only=open');
  for (const { id } of open) {
    const { version } = await api<{ version: number }>('GET', `/pours/${id}`);
    await api('PATCH', `/pours/${id}`, { discarded: true }, version);
  }
  const cup = (colourwayId: string | undefined, molds: [Id, number][]) =>
    api<Pour>('POST', '/pours', { colourwayId, molds: molds.map(([{ id }, shots]) => ({ moldId: id, shots })) });
  const cups = [
    await cup(recipe.id, [
      [first, 2],
      [second, 1],
    ]),
    await cup(blue?.id, [[third, 2]]),
  ];
  return { cups, shots: 5 };
}

/** Does what the bench says until the cup is to be weighed; whatever is measured comes from an instrument. */
async function follow(page: Page, world: World, cup: Pour, scale: Instrument): Promise<void> {
  const api = apiOf(world.url);
  /** What is only waited for is over at once: the oven, and molds that cool. */
  const waited = async (s: number) => {
    world.passes(s / 3600);
    await page.reload();
    await page.getByRole('region', { name: 'Next' }).waitFor();
  };
  const cooking = page.getByRole('region', { name: 'Cooking' });
  const start = cooking.getByRole('button', { name: /^Start/ });
  for (let turn = 0; turn < 160; turn++) {
    const says = (await page.getByRole('region', { name: 'Next' }).getByRole('heading').textContent()) ?? '';
    if (/^Weigh what/.test(says)) return;
    if (/^(Cook|Reheat)/.test(says) && (await start.count()) > 0) {
      const [, minutes, seconds] = /(\d+):(\d\d)/.exec((await start.textContent()) ?? '') ?? [];
      await start.click();
      await expect(cooking.getByText(/^In the oven/)).toBeVisible();
      await waited(60 * Number(minutes) + Number(seconds));
      await expect(cooking.getByText('Out with it: stir, scrape the wall down, read it')).toBeVisible();
      await page.getByRole('button', { name: 'Stirred' }).click();
      const take = page.getByRole('button', { name: 'Take it' });
      await expect(take).toHaveAttribute('aria-disabled', 'false', { timeout: 10_000 });
      await take.click();
      // The next card is another once it was taken.
      await expect(cooking.getByText('Out with it')).toHaveCount(0, { timeout: 10_000 });
    } else if (/^Put in the colour/.test(says)) {
      const { plan } = await api<Pour>('GET', `/pours/${cup.id}`);
      const [item] = plan.items;
      const drops = item?.drops ?? 0;
      expect(drops).toBeGreaterThan(3);
      // A drop is a twentieth of a millilitre, a millilitre of colour a gram.
      await api('POST', `/instruments/${scale.id}/stand-in`, { addG: drops / 20 });
      const saw = page.getByRole('region', { name: 'The scale saw' });
      const counted = saw.getByText(/^\d+ drops$/);
      await expect(counted).toBeVisible({ timeout: 15_000 });
      // The scale is off by a drop or two: what it counted is put right.
      const off = Number.parseInt((await counted.textContent()) ?? '', 10) - drops;
      expect(Math.abs(off)).toBeLessThanOrEqual(3);
      for (let step = 0; step < Math.abs(off); step++)
        await saw.getByRole('button', { name: off > 0 ? 'Less' : 'More' }).click();
      await expect(saw.getByText(`${drops} drops`, { exact: true })).toBeVisible();
      await saw.getByRole('button', { name: 'Right' }).click();
      await expect(saw).toHaveCount(0);
    } else if (/Let them cool|are cooling/.test(says)) await waited(60);
    else if ((await big(page).count()) > 0)
      await big(page)
        .click({ timeout: 3000 })
        .catch(() => undefined);
    await page.waitForTimeout(250);
  }
  throw new Error('The evening did not end.');
}

test('a whole evening of two colours and three molds: each heat by the thermometer, each drop by the scale, each shot in its window', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000);
  await enter(page);
  await stocked(world.url);
  const api = apiOf(world.url);
  const { cups, shots } = await evening(api);
  const [thermometer, scale] = [await add(api, 'thermometer'), await add(api, 'scale')];
  await page.goto(`/pours/${cups[0]?.id}/evening`);
  await expect(page.getByText(/Begun now it ends at/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: /^Thermometer/ }).click();
  for (const [index, cup] of cups.entries()) {
    await page.goto(`/pours/${cup.id}/bench`);
    // Said once an evening.
    const before = page.getByRole('button', { name: 'All of it is on' });
    if (index === 0) await before.click();
    await expect(before).toHaveCount(0);
    await page.getByRole('button', { name: 'Point it here' }).click();
    await page.getByRole('button', { name: 'Cup on it' }).click();
    await expect(page.getByRole('button', { name: 'Take it' })).toBeVisible({ timeout: 15_000 });
    await follow(page, world, cup, scale);
  }
  expect(n(world, 'SELECT count(*) AS n FROM shot_live')).toBe(shots);
  // Whatever heat a shot was drawn at, an instrument told it, and it was in the window of a hand injector.
  const drawn = rows<{ c: number; instrument_id: string }>(
    world,
    'SELECT h.c, h.instrument_id FROM shot_part p JOIN shot_live s ON s.id = p.shot_id JOIN heat h ON h.seq = p.heat_seq',
  );
  expect(drawn).toHaveLength(shots);
  for (const { c, instrument_id } of drawn) {
    expect(instrument_id).toBe(thermometer.id);
    expect(c).toBeGreaterThanOrEqual(158);
    expect(c).toBeLessThanOrEqual(180);
  }
  expect(n(world, 'SELECT count(*) AS n FROM dose')).toBe(2);
  expect(n(world, "SELECT count(*) AS n FROM bench_tick WHERE what = 'dressed'")).toBe(1);
  expect(n(world, "SELECT count(*) AS n FROM bench_tick WHERE what = 'laid'")).toBe(1);
  expect(n(world, 'SELECT count(*) AS n FROM burst')).toBeGreaterThanOrEqual(6);
  // Four baits a shot, each looked at once.
  expect(n(world, "SELECT count(*) AS n FROM mark_now WHERE grade = 'sell'")).toBe(4 * shots);
  expect(n(world, "SELECT count(*) AS n FROM clock WHERE ended_at IS NULL AND kind IN ('open', 'burst')")).toBe(0);
});

test('the network is cut for a minute with twelve taps: nothing is lost, nothing doubled, each at its own moment', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, pourId, moldId } = await stocked(world.url);
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 174 });
  const { ledgerId } = await api<Pour>('GET', `/pours/${pourId}`);
  const [colour] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  await api('POST', `/ledgers/${ledgerId}/doses`, { materialId: colour?.id, amount: 24, unit: 'drop' });
  await page.goto(`/pours/${pourId}/bench`);
  await expect(big(page)).toHaveText(/Drawn/);
  await page.context().setOffline(true);
  const tap = async (name: RegExp, double = false) => {
    const target = page.getByRole('button', { name }).first();
    await expect(target).toHaveAttribute('aria-disabled', 'false');
    await (double ? target.dblclick() : target.click());
  };
  await tap(/^Clamped: not known/, true);
  await tap(/^The mold: not known/);
  await tap(/^Injector: not known/);
  await tap(/^The mold: warm/);
  await tap(/^Degassed: not known/);
  await page.getByRole('button', { name: 'Stirred' }).click();
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).dblclick();
  // Held, by the same target, which rests after each tap.
  await expect(big(page)).toHaveText(/^Held/);
  await expect(big(page)).toHaveAttribute('aria-disabled', 'false');
  await big(page).dblclick();
  await expect(page.getByText(/^shot 1 of 3/)).toBeVisible();
  await tap(/^It felt: not known/);
  await tap(/^The baits lie: not known/);
  await page.getByRole('button', { name: 'Stirred' }).click();
  await page.getByRole('button', { name: 'Cavity 2: not marked' }).click();
  await page.getByRole('button', { name: 'short fill' }).click();
  // Still there after the page is opened anew without a server.
  expect(n(world, 'SELECT count(*) AS n FROM bench_tick')).toBe(0);
  world.passes(1 / 60);
  await page.context().setOffline(false);
  await expect.poll(() => n(world, 'SELECT count(*) AS n FROM cavity_mark')).toBe(1);
  const ticks = rows<{ what: string; said: string; nth: number | null; mold_id: string | null }>(
    world,
    'SELECT what, said, nth, mold_id FROM bench_tick ORDER BY seq',
  );
  expect(ticks).toEqual([
    { what: 'clamps', said: 'opposite', nth: 1, mold_id: moldId },
    { what: 'mold', said: 'warm', nth: 1, mold_id: moldId },
    { what: 'injector', said: 'warm', nth: 1, mold_id: moldId },
    { what: 'mold', said: 'cold', nth: 1, mold_id: moldId },
    { what: 'degassed', said: 'vacuum', nth: null, mold_id: null },
    { what: 'held', said: 'yes', nth: 1, mold_id: moldId },
    { what: 'felt', said: 'smooth', nth: 1, mold_id: moldId },
    { what: 'lie', said: 'flat', nth: 1, mold_id: moldId },
  ]);
  expect(n(world, 'SELECT count(*) AS n FROM stir')).toBe(2);
  expect(n(world, 'SELECT count(*) AS n FROM shot_live')).toBe(1);
  // Made a minute before they arrived, in their order.
  const moments = rows<{ at: string }>(world, 'SELECT at FROM bench_tick ORDER BY seq').map(({ at }) => at);
  expect([...moments].sort()).toEqual(moments);
  expect(
    n(world, 'SELECT (julianday(max(s.at)) - julianday(min(t.at))) * 86400 < 50 AS n FROM shot s, bench_tick t'),
  ).toBe(1);
});

test('an instrument that is stuck or drops out is shown and not believed; the reading is typed instead', async ({
  page,
  world,
}) => {
  await enter(page);
  const { api, pourId } = await stocked(world.url);
  const { id } = await add(api, 'thermometer');
  await api('POST', `/pours/${pourId}/heats`, { kind: 'cook', c: 150 });
  await page.goto(`/pours/${pourId}/bench`);
  await page.getByRole('button', { name: 'Point it here' }).click();
  await expect(big(page)).toHaveText(/^Take 1[45]\d/, { timeout: 10_000 });
  await api('POST', `/instruments/${id}/stand-in`, { fault: 'stuck' });
  await expect(page.getByText(/has said the very same for long/)).toBeVisible({ timeout: 20_000 });
  await expect(big(page)).toHaveText('Type it');
  await api('POST', `/instruments/${id}/stand-in`, { fault: 'none' });
  await expect(big(page)).toHaveText(/^Take/, { timeout: 10_000 });
  await api('POST', `/instruments/${id}/stand-in`, { fault: 'dropout' });
  await expect(page.getByText(/says nothing: see its battery/)).toBeVisible({ timeout: 20_000 });
  expect(n(world, 'SELECT count(*) AS n FROM heat')).toBe(1);
});
