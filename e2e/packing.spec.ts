// From a table of orders to a parcel, and back from a complaint to the pour.
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import papaparse from 'papaparse';
import { wordsOf } from './pdf.ts';
import { type Api, goodCup, type Id, stocked } from './stock.ts';
import { enter, expect, test } from './world.ts';

const handed = async (page: Page, name: string | RegExp) => {
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()]);
  return file;
};
const cancelled = async (api: Api, id: string) => {
  const { version } = await api<{ version: number }>('GET', `/orders/${id}`);
  await api('PATCH', `/orders/${id}`, { cancelled: true }, version);
};

test('a bulk order comes in from a table, is packed bag after bag by the scale, and goes in two parts', async ({
  page,
  world,
}) => {
  test.setTimeout(240_000);
  const { api, colourwayId, moldId, orderId } = await stocked(world.url);
  await cancelled(api, orderId);
  await enter(page);
  await page.goto('/orders');
  await page.getByRole('link', { name: 'Out of a table' }).click();
  // As a shop's program wrote it: semicolons, commas for points, Windows' own letters, a name that is none of ours.
  const table = [
    'Customer;Ref;Due;Product;Colour;Qty;Price',
    'Harbour\x92s End;A-7;24.6.2030;Sandlance 110;Slack Tide;3;6,50',
    'Harbour\x92s End;A-7;24.6.2030;Sand eel;slack tide;1;',
    'Harbour\x92s End;A-7;24.6.2030;Sandlance 110;Slack Tide;some;',
    'Harbour\x92s End;A-7;24.6.2030;=cmd;Slack Tide;2;',
  ].join('\r\n');
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'spring.csv', mimeType: 'text/csv', buffer: Buffer.from(table, 'latin1') });
  const found = page.getByRole('region', { name: 'What is in it' });
  await expect(found).toContainText('1 order, 1 line');
  await expect(found).toContainText('Harbour’s End new');
  await expect(found).toContainText('3 rows are left over');
  await expect(found).toContainText('“some” is no number of packs');
  await found.getByLabel('Bait “Sand eel”').selectOption({ label: 'Sandlance 110' });
  await expect(found).toContainText('1 order, 2 lines');
  await expect(found).toContainText('2 rows are left over');
  // Twice by a glove: it comes in once.
  await found.getByRole('button', { name: 'Take this order' }).dblclick();
  await expect(page.getByRole('status').first()).toContainText('1 order came in, 2 rows are left over.');
  const orders = (
    await api<{ items: (Id & { code: string; notes: string; lines: { packs: number; priceMinor: number }[] })[] }>(
      'GET',
      '/orders?only=open',
    )
  ).items;
  expect(orders.map(({ notes, lines }) => [notes, lines.map(({ packs, priceMinor }) => [packs, priceMinor])])).toEqual([
    [
      'Their order A-7.',
      [
        [3, 650],
        [1, null],
      ],
    ],
  ]);
  // All of it back in one, and brought once more: what was said of a name is remembered.
  await page.getByRole('button', { name: 'Take all of it back' }).click();
  await expect(page.getByText('taken back')).toBeVisible();
  expect((await api<{ items: Id[] }>('GET', '/orders?only=open')).items).toEqual([]);
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'spring.csv', mimeType: 'text/csv', buffer: Buffer.from(table, 'latin1') });
  await found.getByRole('button', { name: 'Take this order' }).click();
  await expect(page.getByRole('status').first()).toContainText('1 order came in');
  const [order] = (await api<{ items: (Id & { code: string })[] }>('GET', '/orders?only=open')).items;

  // Seventeen good: two bags of eight, and one over; the scale counts what lies on it.
  await goodCup(api, colourwayId, moldId, 4);
  await goodCup(api, colourwayId, moldId, 1);
  world.passes(25);
  await api('POST', '/instruments', { kind: 'scale', name: 'Loft scale', how: 'stand-in' });
  await page.goto(`/orders/${order?.id}`);
  await page.getByRole('link', { name: 'To the packing table' }).click();
  const bag = page.getByRole('region', { name: 'This bag' });
  await expect(bag).toContainText('Bag 1 of 3');
  await bag.getByRole('button', { name: 'Let Loft scale count' }).click();
  const lay = bag.getByRole('button', { name: 'lay a bait on it' });
  const said = bag.getByRole('status');
  await expect(said).toContainText('Lay them on it');
  const grams = page.getByTestId('on-the-scale');
  for (let n = 1; n <= 7; n++) {
    await lay.click();
    // The next is laid once the scale has said so.
    await expect(async () =>
      expect(Number.parseFloat((await grams.textContent()) ?? '')).toBeGreaterThan(10 * n - 3),
    ).toPass();
  }
  // By its volume alone nobody can tell seven from eight.
  await expect(said).toHaveText('7 to 8: count this bag, its weight counts the next');
  await lay.click();
  await expect(said).toHaveText('7 to 9: count this bag, its weight counts the next');
  const eight = Number.parseFloat((await grams.textContent()) ?? '');
  await bag.getByRole('button', { name: 'Packed' }).dblclick();
  await expect(bag).toContainText('Bag 2 of 3');
  await expect(bag.getByRole('button', { name: 'Take the bag off' })).toBeVisible();
  expect(world.data.db.prepare('SELECT count(*) AS n FROM bag').get()).toEqual({ n: 1 });
  // What was on the scale is what the bag weighed, and from now on what a bait weighs.
  const kept = world.data.db.prepare('SELECT grams, baits FROM bag_weighing').get() as { grams: number; baits: number };
  expect(kept.baits).toBe(8);
  expect(Math.abs(kept.grams - eight)).toBeLessThan(0.5);
  await bag.getByRole('button', { name: 'take all off' }).click();
  await expect(said).toContainText('Lay them on it');
  await expect(bag).toContainText('by 1 bag');
  for (let n = 0; n < 7; n++) await lay.click();
  await expect(said).toHaveText('7: 1 bait short', { timeout: 15_000 });
  await expect(bag.getByRole('button', { name: 'Pack it all the same' })).toBeVisible();
  await lay.click();
  await expect(said).toHaveText('8, all of them whole', { timeout: 15_000 });
  await bag.getByRole('button', { name: 'half a bait' }).click();
  await expect(said).toContainText('0.5 of a bait too much', { timeout: 15_000 });
  await bag.getByRole('button', { name: 'take all off' }).click();
  await expect(said).toContainText('Lay them on it', { timeout: 15_000 });
  await bag.getByRole('button', { name: 'Packed' }).click();
  await expect(bag).toContainText('Fewer than 8 are cured.');

  // On paper, read by other code.
  const { bags } = await api<{ bags: { code: string }[] }>('GET', `/orders/${order?.id}`);
  const [labels] = await wordsOf(await handed(page, 'Labels of 2 bags'));
  expect(labels).toEqual(bags.flatMap(({ code }) => ['Sandlance 110', 'Slack Tide', '8 baits', code]));
  const note = (await wordsOf(await handed(page, 'Delivery note'))).flat();
  expect(note).toEqual(expect.arrayContaining([`Delivery note ${order?.code}`, '€13.00', 'To follow']));
  expect(note.join(' ')).toContain(`${bags[0]?.code} (8), ${bags[1]?.code} (8)`);

  // Two bags go now; the rest has its own day.
  await page.goto(`/orders/${order?.id}`);
  const part = page.getByRole('region', { name: 'Ship part of it' });
  await part.getByLabel('The rest is due').fill('2030-07-01');
  await part.getByRole('button', { name: '2 bags go now, 2 as an order of its own' }).click();
  await expect(page.getByText(`The rest of ${order?.code}.`).first()).toBeVisible();
  await page.goto(`/orders/${order?.id}`);
  await page.getByRole('button', { name: 'Sent', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Not sent after all' })).toBeVisible();

  // All of it as a table, a row a line, nothing that a spreadsheet would run.
  await page.goto('/orders');
  const csv = readFileSync(await (await handed(page, 'As a table')).path(), 'utf8');
  const rows = papaparse.parse<Record<string, string>>(csv, { header: true }).data;
  expect(
    rows
      .filter((row) => row.order === order?.code)
      .map(({ packs, packed, price, state }) => [packs, packed, price, state]),
  ).toEqual([['2', '2', '6.5', 'sent']]);
  expect(rows.filter(({ notes }) => notes?.startsWith('The rest')).map(({ packs, state }) => [packs, state])).toEqual([
    ['1', 'short'],
    ['1', 'short'],
  ]);
});

test('a complaint leads from the bag back to its pour, counts there from then on, and is made good', async ({
  page,
  world,
}) => {
  const { api, colourwayId, moldId, orderId } = await stocked(world.url);
  const cup = await goodCup(api, colourwayId, moldId, 5);
  await api('POST', `/pours/${cup.id}/hardness`, { scale: '00', value: 34 });
  world.passes(25);
  const order = await api<{ version: number; lines: Id[] }>('GET', `/orders/${orderId}`);
  await api('POST', `/orders/${orderId}/pack`, { lineId: order.lines[0]?.id, bags: 2 });
  const { version } = await api<{ version: number }>('GET', `/orders/${orderId}`);
  await api('PATCH', `/orders/${orderId}`, { sent: true }, version);
  await enter(page);
  const rejected = async () => (await api<{ made: number; rejected: number }>('GET', `/molds/${moldId}`)).rejected;
  expect(await rejected()).toBe(1);

  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('B1');
  await page.getByRole('option', { name: /B1/ }).first().click();
  const from = page.getByRole('region', { name: 'Poured in' });
  await expect(from).toContainText('5 shots, cavities 1, 2, 3, 4, they lay as nobody noted');
  await expect(from).toContainText('1 air bubble');
  const wrong = page.getByRole('region', { name: 'Found wrong' });
  await wrong.getByRole('button', { name: 'Something is wrong with it' }).click();
  await wrong.getByLabel('Wrong is').selectOption('bent');
  await wrong.getByLabel('Of how many').selectOption('3');
  await wrong.getByLabel('In their words').fill('tails to one side');
  await wrong.getByRole('button', { name: 'Note it against the pour' }).dblclick();
  await expect(wrong).toContainText('3 bent');
  await expect.poll(rejected).toBe(4);
  await page.getByRole('region', { name: 'Poured in' }).getByRole('link', { name: 'Sandlance × 4' }).click();
  await expect(page.getByRole('region', { name: 'What customers found' })).toContainText('3 bent');
  await page.goBack();
  // Taken back and said again: each counts once.
  await wrong.getByRole('button', { name: 'take back' }).click();
  await expect(wrong).toContainText('Nothing was said of it.');
  await expect.poll(rejected).toBe(1);
  await wrong.getByRole('button', { name: 'Something is wrong with it' }).click();
  await wrong.getByRole('button', { name: 'Note it against the pour' }).click();
  await expect.poll(rejected).toBe(2);
  await wrong.getByRole('button', { name: '1 more for Tideline' }).click();
  await expect(page.getByText('In place of 1 from B1.').first()).toBeVisible();
  await page.getByRole('link', { name: 'Tideline' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Tideline');
  await expect(page.getByText('In their words')).toHaveCount(0);
  await expect(page.getByRole('listitem').filter({ hasText: '1 bent' })).toContainText('B1');
  // Who would tap the same bait at its cavity as well sees that it counts already.
  await page.goto(`/pours/${cup.id}`);
  await page.getByText('Looked at again').click();
  await page.getByLabel('it came back from a customer').check();
  await expect(page.getByText('Of these it is counted already:').locator('..')).toContainText('1 bent');
});

test('two colours go into one bag: a set is made of the lines, packed as one, and is apart again once it is opened', async ({
  page,
  world,
}) => {
  const { api, colourwayId, moldId, orderId } = await stocked(world.url);
  await cancelled(api, orderId);
  const { baitId } = await api<{ baitId: string }>('GET', `/molds/${moldId}`);
  const [material] = (await api<{ items: Id[] }>('GET', '/materials')).items;
  const pink = await api<Id>('POST', '/recipes', {
    name: 'Sea Pink',
    hex: '#d98cab',
    basisMl: 240,
    items: [{ materialId: material?.id, amount: 3, unit: 'drop' }],
  });
  const { customerId } = await api<{ customerId: string }>('GET', `/orders/${orderId}`);
  const line = (colour: string, perPack: number) => ({ baitId, colourwayId: colour, packs: 2, perPack });
  const order = await api<Id>('POST', '/orders', {
    customerId,
    dueOn: '2030-05-01',
    lines: [line(colourwayId, 4), line(pink.id, 3)],
  });
  await goodCup(api, colourwayId, moldId, 3);
  await goodCup(api, pink.id, moldId, 3);
  world.passes(25);
  await enter(page);
  await page.goto(`/orders/${order.id}`);
  await page.getByText('They thought again').click();
  const into = page.getByRole('region', { name: 'Into one bag' });
  for (const colour of ['Slack Tide', 'Sea Pink'])
    await into.getByRole('checkbox', { name: new RegExp(colour) }).check();
  await into.getByLabel('The set is called').fill('Beginners');
  await into.getByRole('button', { name: 'Pack these 2 together' }).dblclick();
  await expect(page.getByText('in the set “Beginners”')).toHaveCount(2);
  await page.getByRole('link', { name: 'To the packing table' }).click();
  const bag = page.getByRole('region', { name: 'This bag' });
  await expect(bag).toContainText('4 × Sandlance 110');
  await expect(bag).toContainText('3 × Sandlance 110');
  await bag.getByRole('button', { name: 'Packed' }).dblclick();
  await expect(bag).toContainText('Bag 2 of 2');
  await bag.getByRole('link', { name: 'B1' }).click();
  const from = page.getByRole('region', { name: 'Poured in' });
  await expect(from).toContainText(/P\d+, 4 of its baits/);
  await expect(from).toContainText(/P\d+, 3 of its baits/);
  const { lines } = await api<{ lines: { packed: number }[] }>('GET', `/orders/${order.id}`);
  expect(lines.map(({ packed }) => packed)).toEqual([1, 1]);
  await page.getByRole('button', { name: 'Open it again' }).click();
  await expect(page.getByText('Opened again; its baits are back on the rack.')).toBeVisible();
  const again = await api<{ lines: { packed: number }[] }>('GET', `/orders/${order.id}`);
  expect(again.lines.map(({ packed }) => packed)).toEqual([0, 0]);
});
