import { expect, test } from 'vitest';
import { COST_BEGUN } from '../../../contract/costs.ts';
import type { Material } from '../../../contract/materials.ts';
import type { RecipeItem } from '../../../contract/recipes.ts';
import { baitCost, baitCostSchema } from '../../../core/plan/cost.ts';
import { check } from '../../../core/validate.ts';
import { type CostOf, costAsked } from './costAsked.ts';

const material = (id: string, pricePerKgMinor: number | null) =>
  ({ id, name: id, pricePerKgMinor, densityGPerMl: null }) as Material;
const OF: CostOf = {
  mold: { cavities: 4, cavityMl: 13.1, made: 200, rejected: 14 },
  perPack: 8,
  melts: [{ share: 1, items: [], basisMl: 240 }],
  plastic: { ...material('Soft 22', 1450), densityGPerMl: 1.02 },
  materials: [material('blue', 6000)],
  bag: material('bag', 12_000),
  beside: [],
  hands: undefined,
  packS: 48,
  wish: { ...COST_BEGUN, wagePerHourMinor: 1500, wasteFraction: 0, marginFraction: 0.5 },
  measures: [],
};
const drops = {
  materialId: 'blue',
  materialName: 'blue',
  materialKind: 'colourant',
  amount: 24,
  unit: 'drop',
  dropsPerMl: 20,
  bottleStrength: 1,
  bulkGPerMl: null,
  densityGPerMl: null,
} as never as RecipeItem;

test('a pack by hand: 13.1 mL × 1.02 × 14.50 a kg eight times, a bag, 130 s a shot of four and 48 s to pack, 7 % rejects', () => {
  const { input, unpriced } = costAsked(OF);
  expect(unpriced).toEqual([]);
  const found = baitCost(check(baitCostSchema, input));
  // 8 × 19.3749 = 155.0; 12; (32.5 + 6) s × 8 ÷ 0.93 ÷ 3600 × 15.00.
  expect(found.costExactMinor).toBeCloseTo(8 * 19.3749 + 12 + ((38.5 * 8) / 0.93 / 3600) * 1500, 6);
  expect([found.plasticMinor, found.piecesMinor, found.labourMinor, found.moldMinor]).toEqual([155, 12, 138, 0]);
  expect(found.priceMinor).toBe(610);
});

test('colour is in it by its recipe, each melt by its share; what has no price is named', () => {
  const melts = [
    { share: 0.25, items: [drops], basisMl: 240 },
    { share: 0.75, items: [], basisMl: 240 },
  ];
  const { input } = costAsked({ ...OF, melts });
  // 24 drops of a twentieth of a mL in 240 mL: 5 mL a litre, of a quarter of 13.1 mL, at 1 g/mL.
  expect(input.plastic.map(({ id, grams }) => [id, Number(grams.toFixed(6))])).toEqual([
    ['Soft 22', Number((13.1 * 1.02).toFixed(6))],
    ['blue', Number(((13.1 / 4) * 0.005).toFixed(6))],
  ]);
  expect(costAsked({ ...OF, melts, materials: [material('blue', null)], bag: material('bag', null) }).unpriced).toEqual(
    ['blue', 'bag'],
  );
});

test('hands as they are learnt take the place of the guess', () => {
  const hands = {
    moldId: 'm',
    handsS: 80,
    openS: 40,
    fillS: 40,
    turns: 9,
    waitedS: 100,
    wait: { factor: 1, openings: 0 },
  };
  expect(costAsked({ ...OF, hands }).input.minutes).toBeCloseTo((20 + 6) / 60, 9);
});

test('what goes with a bag is in its cost: a label of 15.00 a thousand, 2 g of oil at 40.00 a kg', () => {
  const materials = [material('label', 1500), material('oil', 4000)];
  const beside = [
    { materialId: 'label', amount: 1 },
    { materialId: 'oil', amount: 2 },
    { materialId: 'gone', amount: 1 },
  ];
  const { input, unpriced } = costAsked({ ...OF, materials, beside });
  expect(unpriced).toEqual([]);
  // 1.5 cents are two, and eight.
  expect(input.pieces?.map(({ id, priceMinor }) => [id, priceMinor])).toEqual([
    ['bag', 12],
    ['label', 2],
    ['oil', 8],
  ]);
});
