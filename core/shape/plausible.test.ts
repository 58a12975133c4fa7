import { expect, test } from 'vitest';
import { contradiction, type Sizes } from './plausible.ts';

const SIZES: Sizes = { lengthMm: 110, widthMm: 16, heightMm: 17, thickestMm: 15 };
const says = (sizes: Partial<Sizes>, volumeMl: number | null) => contradiction({ ...SIZES, ...sizes }, volumeMl);

// The box of 110 × 16 × 17 mm holds 29.92 mL: 31.4 with what a ruler is off by, 1.5 at the least.
test.each<[what: string, sizes: Partial<Sizes>, volumeMl: number | null, path: string | undefined]>([
  ['a bait as it is', {}, 13, undefined],
  ['not weighed yet', {}, null, undefined],
  ['thicker than wide and high', { thickestMm: 40 }, null, 'thickestMm'],
  ['as thick as it is high', { thickestMm: 17 }, 13, undefined],
  ['a millimetre over, as rulers are', { thickestMm: 17.8 }, 13, undefined],
  ['two over', { thickestMm: 18 }, 13, 'thickestMm'],
  ['heavier than its box', {}, 514, 'volume'],
  ['a little over its box', {}, 31.3, undefined],
  ['a little more', {}, 31.5, 'volume'],
  ['thin claws', {}, 1.6, undefined],
  ['next to nothing', {}, 1.4, 'volume'],
  ['a flat ribbon is wide and not high', { heightMm: 3, thickestMm: 3 }, 3, undefined],
])('%s', (_what, sizes, volumeMl, path) => {
  expect(says(sizes, volumeMl)?.path).toBe(path);
});

test('both figures are named', () => {
  expect(says({ lengthMm: 90, widthMm: 12, heightMm: 12, thickestMm: 12 }, 514)?.said.text).toMatch(
    /^514 mL do not fit into a bait of 90 mm × 12 mm × 12 mm: a box of that size holds 13 mL/,
  );
  expect(says({ thickestMm: 40 }, null)?.said.text).toMatch(
    /thickest section of 40 mm .* width of 16 mm .* height of 17 mm/,
  );
});
