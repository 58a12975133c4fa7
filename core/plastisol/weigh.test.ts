import { describe, expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { doseOf, scaleLines } from './recipe.ts';
import { doseGrams } from './weigh.ts';

const material = { kind: 'flake', bulkGPerMl: null, densityGPerMl: null, dropsPerMl: null };
const HERE = { dropsPerMl: 20, measures: [{ unit: 'scoop', ml: 0.68 }] };
const weighs = (amount: number, unit: string, change: object = {}) =>
  doseGrams({ amount, unit }, { ...material, ...change }, HERE);

describe('what a dose weighs', () => {
  // By hand: 1 tsp is 4.92892159375 mL.
  test.each<[what: string, amount: number, unit: string, change: object, g: number, byDefault: boolean]>([
    ['a spoon of flake that nobody weighed', 2, 'tsp', {}, 4.929, true],
    ['of one that somebody did', 2, 'tsp', { bulkGPerMl: 0.62 }, 6.112, false],
    ['salt', 4, 'tsp', { kind: 'salt' }, 23.659, true],
    ['powder', 1, 'tsp', { kind: 'powder' }, 2.464, true],
    ['drops by the workshop’s drop', 24, 'drop', { kind: 'colourant' }, 1.2, true],
    ['drops by the bottle’s own', 24, 'drop', { kind: 'colourant', dropsPerMl: 30, densityGPerMl: 1.1 }, 0.88, false],
    ['a maker’s own measure', 3, 'scoop', { kind: 'powder' }, 1.02, true],
    ['a measured liquid', 10, 'mL', { kind: 'softener', densityGPerMl: 0.98 }, 9.8, false],
    ['oil', 10, 'mL', { kind: 'oil' }, 9.2, true],
    ['what was weighed weighs that, whatever its bulk', 17.2, 'g', {}, 17.2, false],
  ])('%s', (_what, amount, unit, change, g, byDefault) => {
    const found = weighs(amount, unit, change);
    expect(found.g).toBeCloseTo(g, 3);
    expect(found.byDefault).toBe(byDefault);
  });

  test('what measures no amount is refused', () => {
    expect(() => weighs(3, 'mm')).toThrow(Failure);
    expect(() => weighs(3, 'handful')).toThrow(Failure);
  });
});

describe('a recipe scaled to its cup', () => {
  const line = (materialId: string, materialKind: string, amount: number, unit: string) => ({
    materialId,
    materialKind,
    amount,
    unit,
    dropsPerMl: 20,
    bulkGPerMl: null,
    densityGPerMl: null,
    bottleStrength: 1,
  });
  const recipe = [line('black', 'colourant', 7, 'drop'), line('flake', 'flake', 1, 'tsp')];

  test('grams by the usual density of a kind say so, those of a scale or of a known bulk do not', () => {
    const lines = [
      line('flake', 'flake', 1, 'tsp'),
      { ...line('pearl', 'powder', 1, 'tsp'), bulkGPerMl: 0.6 },
      line('salt', 'salt', 20, 'g'),
      line('more salt', 'salt', 1, 'oz'),
    ];
    const items = scaleLines(lines, 240, 240, []);
    expect(items.map((item) => [item.id, item.gByDefault ?? false])).toEqual([
      ['flake', true],
      ['pearl', false],
      ['salt', false],
      ['more salt', false],
    ]);
    expect(items[1]?.g).toBeCloseTo(4.92892159375 * 0.6, 9);
  });

  test('what goes in as written is what was counted and levelled, not what was computed', () => {
    const doses = (batchMl: number) => scaleLines(recipe, 480, batchMl, []).map(doseOf);
    // 0.7018 tsp is nearest to 45/64: a half, an eighth, a sixteenth and a 64th.
    expect(doses(336.86)).toEqual([
      { amount: 5, unit: 'drop' },
      { amount: 45 / 64, unit: 'tsp' },
    ]);
    // Too little for a spoon or a drop: as computed.
    expect(doses(3)).toEqual([
      { amount: expect.closeTo(0.0021875, 6), unit: 'mL' },
      { amount: expect.closeTo(0.00625, 9), unit: 'tsp' },
    ]);
  });
});
