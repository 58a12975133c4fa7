import { expect, test } from 'vitest';
import { listPrice, priceFor, totalsOf } from './prices.ts';

test.each([
  ['the whole price', 650, 1, 1, 650],
  ['three quarters of it', 650, 0.75, 1, 488],
  ['to the next ten cents', 650, 0.75, 10, 490],
  ['to the half', 645, 1, 50, 650],
  ['nothing', 650, 0, 10, 0],
])('%s', (_, price, share, to, is) => {
  expect(listPrice(price, share, to)).toBe(is);
});

test.each([
  ['no tax', 0, [3 * 650 + 2 * 410, 0, 2770]],
  ['a fifth', 0.2, [2770, 554, 3324]],
  ['a tax that ends in half a cent', 0.055, [2770, 152, 2922]],
])('what is to be paid, with %s', (_, tax, [net, of, total]) => {
  const lines = [
    { packs: 3, priceMinor: 650 },
    { packs: 2, priceMinor: 410 },
    { packs: 4, priceMinor: null },
  ];
  expect(totalsOf(lines, tax as number)).toEqual({ netMinor: net, taxMinor: of, totalMinor: total, unpriced: 1 });
});

test('a club and a shop pay their share, anybody else the price; what has none costs nothing known', () => {
  const terms = { clubFraction: 0.9, shopFraction: 0.75, roundMinor: 10 };
  expect((['private', 'club', 'shop'] as const).map((list) => priceFor(list, 650, terms))).toEqual([650, 590, 490]);
  expect(priceFor('shop', null, terms)).toBeNull();
});
