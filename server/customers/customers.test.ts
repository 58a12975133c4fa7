import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { CustomerWith, Order } from '../../contract/orders.ts';
import { type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const customer = async (id: string) => (await workshop.get<CustomerWith>(`/customers/${id}`)).body;
const order = (customerId: string, more: object = {}, line: object = {}) =>
  workshop.made<Order>('/orders', {
    customerId,
    dueOn: '2026-03-12',
    ...more,
    lines: [{ baitId: stock.master.baitId, colourwayId: stock.recipe.id, packs: 3, perPack: 8, ...line }],
  });

describe('a customer', () => {
  test('has a page: what they took, what is open; what was cancelled was not taken', async () => {
    const id = stock.order.customerId;
    await order(id);
    const gone = await order(id, { dueOn: '2026-04-01' });
    await workshop.ask('PATCH', `/orders/${gone.id}`, { cancelled: true }, { version: gone.version });
    const page = await customer(id);
    expect(
      page.took.map(({ baitName, colourwayName, packs, baits, lastOn }) => [
        baitName,
        colourwayName,
        packs,
        baits,
        lastOn,
      ]),
    ).toEqual([['Sandlance 110', 'Slack Tide', 5, 40, '2026-03-12']]);
    expect(page.ordered.map(({ code, state }) => [code, state])).toEqual([
      [gone.code, 'cancelled'],
      ['N2', 'short'],
      ['N1', 'short'],
    ]);
    expect([page.orders, page.complaints]).toEqual([3, []]);
  });

  test.each([
    ['private', 650],
    ['club', 550],
    ['shop', 440],
  ])('who pays as %s is asked their price, to the next ten cents', async (priceList, wanted) => {
    const [bait] = (await workshop.get<{ items: { id: string; version: number }[] }>('/baits')).body.items;
    await workshop.ask('PATCH', `/baits/${bait?.id}`, { priceMinor: 650 }, { version: bait?.version ?? 0 });
    const { version } = (await workshop.get<{ version: number }>('/workshop')).body;
    await workshop.ask('PATCH', '/workshop', { clubFraction: 0.85, shopFraction: 0.68, roundMinor: 10 }, { version });
    const made = await workshop.made<{ id: string }>('/customers', {
      name: 'Ellary Kayak Hire',
      contact: '',
      notes: '',
      priceList,
    });
    expect((await order(made.id)).lines[0]?.priceMinor).toBe(wanted);
    // What was agreed wins.
    expect((await order(made.id, {}, { priceMinor: 600 })).lines[0]?.priceMinor).toBe(600);
  });

  test('that was written down twice becomes one: orders go over, the other is put away and says where it went', async () => {
    const one = await workshop.made<{ id: string; version: number }>('/customers', {
      name: 'Quayside',
      contact: 'pier 3',
      notes: 'rings twice',
    });
    await order(one.id);
    const into = stock.order.customerId;
    const { body } = await workshop.ask<CustomerWith>(
      'POST',
      `/customers/${one.id}/merge`,
      { intoId: into },
      { version: one.version },
    );
    expect([body.id, body.orders, body.notes]).toEqual([into, 2, 'Quayside: pier 3\nrings twice']);
    const left = await customer(one.id);
    expect([left.orders, left.mergedIntoId, left.awayAt !== null]).toEqual([0, into, true]);
    const again = await workshop.ask('POST', `/customers/${one.id}/merge`, { intoId: into }, { version: left.version });
    expect(again.body.error.code).toBe('not-applicable');
    const itself = await workshop.ask('POST', `/customers/${into}/merge`, { intoId: into }, { version: body.version });
    expect(itself.body.error.path).toBe('intoId');
  });
});
