import { expect, test } from 'vitest';
import { listPrice } from './prices.ts';

test.each([
  ['the whole price', 650, 1, 1, 650],
  ['three quarters of it', 650, 0.75, 1, 488],
  ['to the next ten cents', 650, 0.75, 10, 490],
  ['to the half', 645, 1, 50, 650],
  ['nothing', 650, 0, 10, 0],
])('%s', (_, price, share, to, is) => {
  expect(listPrice(price, share, to)).toBe(is);
});
