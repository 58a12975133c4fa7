import { describe, expect, test } from 'vitest';
import { asWritten } from './cup.ts';
import { lotsInUse } from './lots.ts';
import { houseMl, inDropsOf } from './recipe.ts';

const lot = (id: string, levelG: number, createdAt: string) => ({ id, levelG, createdAt });
const LOTS = [
  lot('b', 20, '2026-02-01'),
  lot('d', 0, '2026-01-01'),
  lot('c', 5, '2026-03-01'),
  lot('a', 9, '2026-02-01'),
];

describe('which bottle is in use', () => {
  test.each([
    ['the oldest that holds something, of two of one day the first', null, 'a b c'],
    ['the one that was chosen, then as before', 'c', 'c a b'],
    ['not one that is empty', 'd', 'a b c'],
    ['nor one that is not here', 'x', 'a b c'],
  ])('%s', (_, chosen, order) => {
    const before = structuredClone(LOTS);
    expect(
      lotsInUse(LOTS, chosen)
        .map((one) => one.id)
        .join(' '),
    ).toBe(order);
    expect(LOTS).toEqual(before);
  });
});

describe('millilitres of the house strength', () => {
  const bottle = { kind: 'colourant', dropsPerMl: 20, bottleStrength: 1 };
  test.each([
    ['40 drops at 20 a mL', { amount: 40, unit: 'drop' }, bottle, 2],
    [
      '25 of a bottle of double strength at 25 a mL',
      { amount: 25, unit: 'drop' },
      { ...bottle, dropsPerMl: 25, bottleStrength: 2 },
      2,
    ],
    ['half a millilitre', { amount: 0.5, unit: 'mL' }, bottle, 0.5],
    ['a scoop', { amount: 2, unit: 'scoop' }, bottle, 1.7],
    ['what is weighed has none', { amount: 2, unit: 'g' }, bottle, null],
    ['nor has what is no liquid', { amount: 0.25, unit: 'tsp' }, { ...bottle, kind: 'flake' }, null],
    ['a third comes back whole', { amount: 7, unit: 'drop' }, { ...bottle, dropsPerMl: 21 }, 0.333333333333333],
  ])('%s', (_, item, from, ml) => {
    expect(houseMl(item, from, [{ unit: 'scoop', ml: 0.85 }])).toBe(ml);
  });

  test('are as many drops as the bottle drips; what was not written in drops stays', () => {
    expect(inDropsOf({ amount: 40, unit: 'drop', ml: 2 }, 25)).toEqual({ amount: 50, unit: 'drop', ml: 2 });
    expect(inDropsOf({ amount: 7, unit: 'drop', ml: 0.333333333333333 }, 21).amount).toBe(7);
    expect(inDropsOf({ amount: 2, unit: 'mL', ml: 2 }, 25).amount).toBe(2);
    expect(inDropsOf({ amount: 3, unit: 'drop', ml: null }, 25).amount).toBe(3);
  });
});

describe('what was dosed, as a recipe is written', () => {
  const dose = (seq: number, amount: number, more: object = {}) => ({
    seq,
    id: `d${seq}`,
    materialId: 'blue',
    amount,
    unit: 'drop',
    reverses: null,
    dropsPerMl: 20,
    bottleStrength: null,
    ...more,
  });
  const bottleOf = (materialId: string) =>
    materialId === 'blue' ? { dropsPerMl: 30, bottleStrength: 1 } : { dropsPerMl: 20, bottleStrength: 2 };

  test('drops of two bottles are one amount of the one in use; strong ones count twice; what was taken back does not', () => {
    const rows = [
      dose(1, 10),
      dose(2, 15, { dropsPerMl: 30 }),
      dose(3, 4, { dropsPerMl: null }),
      dose(4, 99),
      dose(5, 99, { reverses: 'd4' }),
      dose(6, 6, { materialId: 'strong', unit: 'mL', dropsPerMl: null }),
      // From a bottle four times as strong, though another is in use.
      dose(7, 1, { materialId: 'strong', unit: 'mL', dropsPerMl: null, bottleStrength: 4 }),
    ];
    // Half a mL twice, and four of the bottle in use: 15 + 15 + 4 of 30 a mL.
    expect(asWritten(rows, bottleOf)).toEqual([
      { materialId: 'blue', unit: 'drop', amount: 34 },
      { materialId: 'strong', unit: 'mL', amount: 16 },
    ]);
  });
});
