import { describe, expect, test } from 'vitest';
import { cupFor, planCup } from './cup.ts';

const mold = (id: string, injectorMl: number | null) => ({
  id,
  cavities: 4,
  cavityMl: 10,
  sprueMl: 5,
  runnerMl: 0,
  injectorMl,
});
const line = (materialId: string, amount: number, unit: string) => ({
  materialId,
  materialName: `the ${materialId}`,
  materialKind: 'colourant',
  amount,
  unit,
  dropsPerMl: 20,
  bulkGPerMl: null,
  densityGPerMl: 1,
  bottleStrength: 1,
  lotCode: materialId === 'blue' ? 'L1' : null,
});

describe('a cup for its shots', () => {
  // A shot of (4 × 10 + 5) × 1.06 = 47.7 mL; a load of it leaves 3 mL, the wall keeps 8.
  test.each([
    ['the smallest injector limits both molds', [180, 120], [3, 2], 9 * 47.7 + 5 * 3 + 8],
    ['one that is poured, and none limits', [180, null], [0, 0], 9 * 47.7 + 8],
    ['none at all', [null, null], [0, 0], 9 * 47.7 + 8],
  ] as const)('%s', (_, [a, b], loads, cookMl) => {
    const cup = cupFor([
      { mold: mold('a', a), shots: 6 },
      { mold: mold('b', b), shots: 3 },
    ]);
    expect(cup.cookMl).toBeCloseTo(cookMl, 9);
    expect(cup.molds.map((one) => one.loads)).toEqual(loads);
  });

  test('a shot that no load holds is refused', () => {
    expect(() => cupFor([{ mold: mold('a', 40), shots: 1 }])).toThrow('takes');
  });
});

describe('a pour as it is laid out', () => {
  const wish = {
    drawn: [
      { mold: mold('a', null), shots: 4, opens: { waitS: [240], basis: 'kind' as const } },
      { mold: mold('b', null), shots: 2 },
    ],
    recipe: { basisMl: 100, lines: [line('blue', 10, 'drop'), line('black', 2, 'drop')] },
    measures: [],
  };
  // 6 × 47.7 + 8 = 294.2 mL: 29.42 drops and 5.884.
  test('keeps molds, shots, waits and the lot of each line; drops are whole', () => {
    const plan = planCup(wish);
    expect(plan).toMatchObject({
      returnMl: 6 * 5,
      molds: [
        { moldId: 'a', shots: 4, loads: 0, opens: { waitS: [240] } },
        { moldId: 'b', shots: 2, loads: 0 },
      ],
      items: [
        { materialId: 'blue', materialName: 'the blue', lotCode: 'L1', drops: 29 },
        { materialId: 'black', materialName: 'the black', lotCode: null, drops: 6 },
      ],
    });
    expect(plan.cookMl).toBeCloseTo(294.2, 9);
    expect(plan.molds[1]).not.toHaveProperty('opens');
  });
});
