import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { ImportBody, OrderImport } from '../../contract/imports.ts';
import type { Customer, OrderRow } from '../../contract/orders.ts';
import { poured, type Stocked, stocked, TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
let stock: Stocked;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
  stock = await stocked(workshop);
});
afterEach(() => workshop.close());

const orders = async () => (await workshop.get<{ items: OrderRow[] }>('/orders?limit=200&sort=due')).body.items;
const customers = async () =>
  (await workshop.get<{ items: Customer[] }>('/customers')).body.items.map(({ name }) => name);
const file = (more: Partial<ImportBody> = {}): ImportBody => ({
  name: 'spring.csv',
  baitIds: [stock.master.baitId],
  colourwayIds: [stock.recipe.id],
  orders: [
    {
      customerId: stock.order.customerId,
      newCustomer: null,
      dueOn: '2026-04-01',
      notes: 'A-7',
      lines: [
        [0, 0, 4, 8, 650],
        [0, 0, 2, 6, null],
      ],
    },
    { customerId: null, newCustomer: 'Harbour School', dueOn: '2026-04-02', notes: '', lines: [[0, 0, 1, 8, 0]] },
    { customerId: null, newCustomer: 'harbour school', dueOn: '2026-04-03', notes: '', lines: [[0, 0, 1, 8, null]] },
  ],
  leftOver: [{ row: 5, cells: ['Eel', '=1+1'], why: 'no bait is called “Eel”' }],
  ...more,
});
const bring = (more?: Partial<ImportBody>) => workshop.post<OrderImport>('/orders/imports', file(more));

describe('a file of orders', () => {
  test('comes in whole: one new customer however often it is named, prices as they stand, what is left over kept', async () => {
    const { status, body } = await bring();
    expect([status, body.orders.map(({ code }) => code), body.leftOver]).toEqual([
      201,
      ['N2', 'N3', 'N4'],
      [{ row: 5, cells: ['Eel', '=1+1'], why: 'no bait is called “Eel”' }],
    ]);
    expect(
      (await orders()).map(({ customer, dueOn, lines }) => [
        customer,
        dueOn,
        lines.map(({ packs, perPack, priceMinor }) => [packs, perPack, priceMinor]),
      ]),
    ).toEqual([
      ['Quayside Chandlery', '2026-03-09', [[2, 8, null]]],
      [
        'Quayside Chandlery',
        '2026-04-01',
        [
          [4, 8, 650],
          [2, 6, null],
        ],
      ],
      ['Harbour School', '2026-04-02', [[1, 8, 0]]],
      ['Harbour School', '2026-04-03', [[1, 8, null]]],
    ]);
  });

  test.each([
    ['a bait that is not there', { baitIds: ['018f0000-0000-7000-8000-000000000001'] }],
    ['a line that names none of the list', { colourwayIds: [] }],
    [
      'a customer that is not there',
      {
        orders: [
          {
            customerId: '018f0000-0000-7000-8000-000000000001',
            newCustomer: null,
            dueOn: '2026-04-01',
            notes: '',
            lines: [[0, 0, 1, 1, null] as [number, number, number, number, null]],
          },
        ],
      },
    ],
    ['no order at all', { orders: [] }],
    [
      'a day that there is not',
      {
        orders: [
          {
            customerId: null,
            newCustomer: 'X',
            dueOn: '2026-02-30',
            notes: '',
            lines: [[0, 0, 1, 1, null] as [number, number, number, number, null]],
          },
        ],
      },
    ],
  ])('with %s nothing of it comes in', async (_, more) => {
    const { status } = await bring(more);
    expect(status).toBeGreaterThanOrEqual(400);
    expect([(await orders()).length, await customers()]).toEqual([1, ['Quayside Chandlery']]);
  });

  test('is taken back in one: its orders and its new customers are gone, others stay; the file is still told', async () => {
    const { body } = await bring();
    const back = await workshop.post<{ items: OrderImport[] }>(`/orders/imports/${body.id}/take-back`, {});
    expect(back.body.items.map(({ name, orders: of, takenBackAt }) => [name, of, takenBackAt !== null])).toEqual([
      ['spring.csv', [], true],
    ]);
    expect([(await orders()).map(({ code }) => code), await customers()]).toEqual([['N1'], ['Quayside Chandlery']]);
    expect((await workshop.post(`/orders/imports/${body.id}/take-back`, {})).body.error.code).toBe('already-reversed');
    // Its numbers are not given again.
    expect((await bring()).body.orders.map(({ code }) => code)).toEqual(['N5', 'N6', 'N7']);
  });

  test('is not taken back once something was done for it, and says for which order', async () => {
    const { body } = await bring();
    const [one] = body.orders;
    const lineId = (await orders()).find(({ id }) => id === one?.id)?.lines[1]?.id;
    const pour = await poured(workshop, stock, 2);
    await workshop.post(`/pours/${pour.id}/close`, { cookedG: 150, goodG: 71.4, rejectG: 10.2, returnedG: 60 });
    workshop.waits(25);
    await workshop.post(`/orders/${one?.id}/pack`, { lineId, bags: 1 });
    const { body: refused } = await workshop.post(`/orders/imports/${body.id}/take-back`, {});
    expect(refused.error).toMatchObject({ code: 'in-use', message: expect.stringContaining('N2') });
    expect((await orders()).length).toBe(4);
  });

  test('10,000 lines come in one request', async () => {
    const lines = Array.from({ length: 200 }, () => [0, 0, 1, 8, 650] as [number, number, number, number, number]);
    const many = Array.from({ length: 50 }, () => ({
      customerId: stock.order.customerId,
      newCustomer: null,
      dueOn: '2026-04-01',
      notes: '',
      lines,
    }));
    const { status, body } = await bring({ orders: many, leftOver: [] });
    expect([status, body.orders.length]).toEqual([201, 50]);
  });
});
