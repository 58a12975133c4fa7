import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { giftsOf, MARGINS_BY, marginsBy, type SoldRow } from './margins.ts';

const sold = (more: Partial<SoldRow>): SoldRow => ({
  orderId: 'n1',
  code: 'N1',
  customerId: 'quay',
  customer: 'Quayside Chandlery',
  baitId: 'sand',
  bait: 'Sandlance 110',
  colourwayId: 'pink',
  colour: 'Sea Pink',
  hex: '#d98cab',
  evening: '2026-03-02',
  baits: 8,
  revenueMinor: 650,
  materialMinor: 170,
  minutes: 6,
  gift: false,
  ...more,
});

describe('what was earned', () => {
  test('an hour brings what was paid less materials: 650 − 170 in six minutes are 48.00', () => {
    expect(marginsBy([sold({})], 'bait')).toMatchObject([
      { name: 'Sandlance 110', marginMinor: 480, perHourMinor: 4800 },
    ]);
  });
  test('a wage is taken off the margin, and not off what an hour brings', () => {
    expect(marginsBy([sold({})], 'bait', 1500)).toMatchObject([
      { labourMinor: 150, marginMinor: 330, perHourMinor: 4800 },
    ]);
  });
  test('the best hour comes first; under its cost is told as it is', () => {
    const rows = [
      sold({ colourwayId: 'a', colour: 'A', revenueMinor: 100 }),
      sold({ colourwayId: 'b', colour: 'B', revenueMinor: 900 }),
      sold({ colourwayId: 'b', colour: 'B', revenueMinor: 900, minutes: 12 }),
    ];
    expect(
      marginsBy(rows, 'colour').map(({ name, marginMinor, perHourMinor }) => [name, marginMinor, perHourMinor]),
    ).toEqual([
      ['B', 1460, (1460 / 18) * 60],
      ['A', -70, -700],
    ]);
  });
  test('what was given away stands at its cost, and what has no price is no sale', () => {
    const rows = [sold({ gift: true, revenueMinor: 0 }), sold({ revenueMinor: null }), sold({})];
    expect(giftsOf(rows, 1000)).toEqual({ baits: 8, costMinor: 270 });
    expect(marginsBy(rows, 'customer')).toMatchObject([{ baits: 8, revenueMinor: 650 }]);
  });
  test('however it is summed, it is the same money', () => {
    const any = fc.array(
      fc.record({
        orderId: fc.constantFrom('n1', 'n2', 'n3'),
        customerId: fc.constantFrom('a', 'b'),
        baitId: fc.constantFrom('x', 'y'),
        colourwayId: fc.constantFrom('p', 'q', 'r'),
        evening: fc.constantFrom('2026-03-02', '2026-03-09'),
        revenueMinor: fc.option(fc.integer({ min: 0, max: 5000 })),
        materialMinor: fc.integer({ min: 0, max: 900 }),
        minutes: fc.integer({ min: 0, max: 60 }),
        gift: fc.boolean(),
      }),
    );
    fc.assert(
      fc.property(any, (some) => {
        const rows = some.map(sold);
        const paid = rows.filter(({ gift, revenueMinor }) => !gift && revenueMinor !== null);
        const whole = paid.reduce((sum, row) => sum + (row.revenueMinor ?? 0) - row.materialMinor, 0);
        for (const by of MARGINS_BY)
          expect(marginsBy(rows, by).reduce((sum, { marginMinor }) => sum + marginMinor, 0)).toBe(whole);
      }),
    );
  });
});
