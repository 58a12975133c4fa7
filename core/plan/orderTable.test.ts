import { describe, expect, test } from 'vitest';
import { dayOf, figureOf, guessedMapping, meaningOf, type OrderTableKnown, ordersOf } from './orderTable.ts';

const KNOWN: OrderTableKnown = {
  baits: [
    { id: 'sand', name: 'Sandlance 110', packCount: 8 },
    { id: 'prawn', name: 'Prawnlet 55', packCount: 6 },
  ],
  colours: [
    { id: 'slack', name: 'Slack Tide' },
    { id: 'limpet', name: 'Limpet' },
  ],
  customers: [{ id: 'club', name: 'North Stack Anglers’ Club' }],
  means: {},
  monthFirst: false,
  minorPerUnit: 100,
  usualDue: '2026-03-20',
  usualCustomer: '',
};
const HEAD = ['Customer', 'Order', 'Due', 'Bait', 'Colour', 'Packs', 'Price'];
const read = (rows: string[][], more: Partial<OrderTableKnown> = {}) =>
  ordersOf(rows, guessedMapping(HEAD), { ...KNOWN, ...more });

describe('a table of orders', () => {
  test('rows of one reference are one order; a name is found however it is written', () => {
    const { orders, left } = read([
      ["north stack  anglers' club", 'A-7', '24.3.2026', 'SANDLANCE 110', 'slack tide', '4', '6,50'],
      ['North Stack Anglers’ Club', 'A-7', '24.3.2026', 'Prawnlet 55', 'Limpet', '2', ''],
      ['Harbour School', '', '2026-04-01', 'Prawnlet 55', 'Limpet', '12', '€ 5.00'],
    ]);
    expect(left).toEqual([]);
    expect(orders).toEqual([
      {
        customerId: 'club',
        newCustomer: null,
        dueOn: '2026-03-24',
        notes: 'Their order A-7.',
        lines: [
          { baitId: 'sand', colourwayId: 'slack', packs: 4, perPack: 8, priceMinor: 650 },
          { baitId: 'prawn', colourwayId: 'limpet', packs: 2, perPack: 6, priceMinor: null },
        ],
      },
      {
        customerId: null,
        newCustomer: 'Harbour School',
        dueOn: '2026-04-01',
        notes: '',
        lines: [{ baitId: 'prawn', colourwayId: 'limpet', packs: 12, perPack: 6, priceMinor: 500 }],
      },
    ]);
  });

  test.each([
    [
      'no such bait',
      ['Club', '', '', 'Eel', 'Limpet', '1', ''],
      /no bait is called “Eel”/,
      { what: 'bait', name: 'Eel' },
    ],
    [
      'no such colour',
      ['Club', '', '', 'Prawnlet 55', 'Pink', '1', ''],
      /no colour is called “Pink”/,
      { what: 'colour', name: 'Pink' },
    ],
    ['half a pack', ['Club', '', '', 'Prawnlet 55', 'Limpet', '1,5', ''], /“1,5” is no number of packs/, null],
    ['no packs', ['Club', '', '', 'Prawnlet 55', 'Limpet', '0', ''], /“0” is no number of packs/, null],
    ['words for packs', ['Club', '', '', 'Prawnlet 55', 'Limpet', 'some', ''], /“some” is no number/, null],
    [
      'a day that there is not',
      ['Club', '', '31.2.2026', 'Prawnlet 55', 'Limpet', '1', ''],
      /“31.2.2026” is no day/,
      null,
    ],
    ['a price below nothing', ['Club', '', '', 'Prawnlet 55', 'Limpet', '1', '-3'], /“-3” is no price/, null],
    ['nobody', ['', '', '', 'Prawnlet 55', 'Limpet', '1', ''], /no customer/, null],
    ['more baits than a line holds', ['Club', '', '', 'Sandlance 110', 'Limpet', '5000', ''], /split it/, null],
  ])('%s is left over with its reason, as it stood', (_, cells, why, unknown) => {
    const { orders, left } = read([cells]);
    expect(orders).toEqual([]);
    expect(left).toEqual([{ row: 2, cells, why: expect.stringMatching(why), unknown }]);
  });

  test('what a name means here is said once', () => {
    const means = { [meaningOf('bait', 'Sand eel  BIG')]: 'sand' };
    const { orders } = read([['Club', '', '', 'sand eel big', 'Limpet', '1', '']], { means });
    expect(orders[0]?.lines[0]?.baitId).toBe('sand');
  });

  test('empty rows are none; where no day is said the usual one is taken', () => {
    const { orders, left } = read([
      ['', ' ', '', '', '', '', ''],
      ['Club', '', '', 'Prawnlet 55', 'Limpet', '1', ''],
    ]);
    expect([orders.map(({ dueOn }) => dueOn), left]).toEqual([['2026-03-20'], []]);
  });

  test('10,000 rows of one customer are orders of 200 lines each, none is lost', () => {
    const { orders, left } = read(
      Array.from({ length: 10_000 }, () => ['Club', '', '', 'Prawnlet 55', 'Limpet', '1', '']),
    );
    expect([orders.length, new Set(orders.map(({ lines }) => lines.length)), left]).toEqual([50, new Set([200]), []]);
  });
});

test('columns are known by what people write over them', () => {
  expect(
    guessedMapping(['Ref', 'Client', 'Product', 'Qty', 'Colour', 'Delivery date', 'Unit price', 'Remarks']),
  ).toEqual({
    order: 0,
    customer: 1,
    bait: 2,
    packs: 3,
    colour: 4,
    due: 5,
    price: 6,
    notes: 7,
  });
  expect(guessedMapping(['a', 'b'])).toEqual({});
});

test.each([
  ['6.50', 6.5],
  ['6,50', 6.5],
  ['1.234,50', 1234.5],
  ['1,234.50', 1234.5],
  ['1 234', 1234],
  ['1.234', 1234],
  ['€ 7', 7],
  ['12 packs', 12],
  ['-3', -3],
  ['', null],
  ['none', null],
])('%s is %s', (text, value) => {
  expect(figureOf(text)).toBe(value);
});

test.each([
  ['2026-03-04', false, '2026-03-04'],
  ['3/4/2026', false, '2026-04-03'],
  ['3/4/2026', true, '2026-03-04'],
  ['24/3/2026', true, '2026-03-24'],
  ['3/24/2026', false, '2026-03-24'],
  ['4.3.26', false, '2026-03-04'],
  ['4 March 2026', false, '2026-03-04'],
  ['2026-03-04T10:00', false, '2026-03-04'],
  ['30.2.2026', false, null],
  ['soon', false, null],
])('the day %s, month first %s, is %s', (text, monthFirst, is) => {
  expect(dayOf(text, monthFirst)).toBe(is);
});
