import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Order } from '../../contract/orders.ts';
import type { Recipe } from '../../contract/recipes.ts';
import type { TasteWish } from '../../contract/tastes.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const wished = (more: object = {}) => ({
  baitId: stock.master.baitId,
  theme: 'like a shrimp',
  packs: 3,
  perPack: 8,
  ...more,
});
const ask = (orderId: string, more: object = {}) =>
  workshop.post<Page<TasteWish>>(`/orders/${orderId}/tastes`, wished(more));
const wish = async (orderId: string) =>
  (await workshop.get<Page<TasteWish>>(`/orders/${orderId}/tastes`)).body.items[0] as TasteWish;
const order = async (id: string) => (await workshop.get<Order>(`/orders/${id}`)).body;
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const photo = (id: string) =>
  fetch(`${workshop.url}/api/photos?aboutType=taste_wish&aboutId=${id}`, {
    method: 'POST',
    headers: { 'content-type': 'image/png' },
    body: PNG,
  });
const MADE = () => ({
  from: 'store',
  hex: '#aa7755',
  basisMl: 240,
  items: [{ materialId: stock.colourant.id, amount: 12, unit: 'drop' }],
});
async function proposed(orderId: string): Promise<TasteWish> {
  await ask(orderId);
  const { id, version } = await wish(orderId);
  const proposals = [{ from: 'book', recipeId: stock.recipe.id }, MADE()];
  const answer = await workshop.ask('PUT', `/tastes/${id}/proposals`, { proposals }, { version });
  expect(answer.status).toBe(200);
  return wish(orderId);
}
const approve = ({ id, version }: TasteWish, body: object) =>
  workshop.ask<Order>('PUT', `/tastes/${id}/approved`, body, { version });

test('an order may be of a theme alone: nothing of it is short, and it is not sent before a colour is chosen', async () => {
  const made = await workshop.made<Order>('/orders', {
    newCustomer: { name: 'Tideline' },
    dueOn: '2026-03-12',
    lines: [],
    tastes: [wished()],
  });
  expect(made).toMatchObject({ state: 'asked', undecided: 1, lines: [], shortBaits: 0 });
  const sent = await workshop.ask('PATCH', `/orders/${made.id}`, { sent: true }, { version: made.version });
  expect(sent.body.error.message).toMatch(/not chosen yet/);
  const none = await workshop.post('/orders', { newCustomer: { name: 'x' }, dueOn: '2026-03-12', lines: [] });
  expect([none.status, none.body.error.path]).toEqual([400, 'lines']);
});

test('without a picture nothing is approved; with one the new colour is written down and the order has its line, once', async () => {
  const { id } = stock.order;
  const before = await proposed(id);
  const early = await approve(before, { proposal: 1, name: 'Rock pool' });
  expect([early.status, early.body.error.code]).toEqual([400, 'photo-missing']);
  expect((await photo(before.id)).status).toBe(201);
  const nameless = await approve(before, { proposal: 1 });
  expect(nameless.body.error.path).toBe('name');
  const { status, body } = await approve(before, { proposal: 1, name: 'Rock pool' });
  expect(status).toBe(200);
  expect(body.undecided).toBe(0);
  const line = body.lines.at(-1);
  expect(line).toMatchObject({ packs: 3, perPack: 8, colourwayName: 'Rock pool', hex: '#aa7755' });
  const recipe = (await workshop.get<Recipe>(`/recipes/${line?.colourwayId}`)).body;
  expect(recipe).toMatchObject({
    notes: 'like a shrimp',
    revision: { reason: 'by taste', items: [{ amount: 12, unit: 'drop' }] },
  });
  // What is short is planned like any other line.
  expect(body.need.lines.at(-1)?.short).toBe(24);
  const again = await approve(await wish(id), { proposal: 0 });
  expect([again.status, again.body.error.code]).toEqual([409, 'already-closed']);
  expect((await order(id)).lines).toHaveLength(2);
});

test('one of the book is approved under its own name; another screen that proposed meanwhile is not overwritten', async () => {
  const { id } = stock.order;
  const before = await proposed(id);
  await photo(before.id);
  const stale = await workshop.ask(
    'PUT',
    `/tastes/${before.id}/proposals`,
    { proposals: [MADE()] },
    { version: before.version - 1 },
  );
  expect(stale.status).toBe(409);
  const { body } = await approve(before, { proposal: 0 });
  expect(body.lines.at(-1)).toMatchObject({ colourwayId: stock.recipe.id, packs: 3 });
});

test('a wish is put away and taken up again; a proposal that is none, and an order that is gone, are refused', async () => {
  const { id } = stock.order;
  const first = await proposed(id);
  await workshop.ask('PATCH', `/tastes/${first.id}`, { away: true }, { version: first.version });
  expect((await order(id)).undecided).toBe(0);
  const away = await wish(id);
  await workshop.ask('PATCH', `/tastes/${first.id}`, { away: false }, { version: away.version });
  expect((await order(id)).undecided).toBe(1);
  await photo(first.id);
  expect((await approve(await wish(id), { proposal: 2 })).body.error.path).toBe('proposal');
  expect((await ask(id, { baitId: stock.recipe.id })).body.error.path).toBe('baitId');
  const { version } = await order(id);
  await workshop.ask('PATCH', `/orders/${id}`, { cancelled: true }, { version });
  expect((await approve(await wish(id), { proposal: 0 })).body.error.code).toBe('already-closed');
});
