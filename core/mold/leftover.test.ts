import { expect, test } from 'vitest';
import { check } from '../validate.ts';
import { leftoverFills } from './leftover.ts';
import { planSchema } from './silicone.ts';

const like = check(planSchema, {
  pour: 'open-face',
  masters: [{ volumeMl: 10, lengthMm: 110, widthMm: 16, heightMm: 17, count: 3 }],
  mix: { by: 'mass', partA: 10, partB: 1 },
  potLifeMin: 20,
  demoldMin: 240,
});
const waiting = [
  // 70 × 26 × 16 mm less 2 mL: 27.12 mL.
  { id: 'prawn', volumeMl: 2, lengthMm: 50, widthMm: 6, heightMm: 6 },
  // 60 × 32 × 18 mm less 4 mL: 30.56 mL.
  { id: 'grub', volumeMl: 4, lengthMm: 40, widthMm: 12, heightMm: 8 },
  { id: 'glider', volumeMl: 60, lengthMm: 160, widthMm: 40, heightMm: 30 },
  // As big as its box: no plan, and no block.
  { id: 'block', volumeMl: 500, lengthMm: 40, widthMm: 12, heightMm: 8 },
];

test.each([
  [27, []],
  [28, ['prawn']],
  [31, ['grub', 'prawn']],
  [1000, ['glider', 'grub', 'prawn']],
])('%d mL left fill %j', (leftMl, ids) => {
  expect(leftoverFills(like, leftMl, waiting).map((one) => one.id)).toEqual(ids);
});

test('what it needs is the block less the master', () => {
  expect(leftoverFills(like, 28, waiting)[0]?.needMl).toBeCloseTo(27.12, 9);
});
