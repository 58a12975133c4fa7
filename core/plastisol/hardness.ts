import type { Highs } from 'highs';
import * as v from 'valibot';
import { finite, fraction, id, list, nonNegative, positive, signed } from '../bounds.ts';
import { Failure } from '../failure.ts';
import { expression, loadSolver, solve, type Terms } from '../highs.ts';
import { roundMoney } from '../rounding.ts';

/** What a bait is judged with until its own hardness is known, points: soft baits of the trade. */
export const USUAL_SHORE = { '00': 34, A: 20 } as const;

export const modulusSchema = v.strictObject({ scale: v.picklist(['A', '00']), value: finite });

/**
 * Young's modulus (MPa) from a Shore reading.
 * A, 20–80: Gent (1958), E = 0.0981(56 + 7.62336 S)/(0.137505(254 − 2.54 S)).
 * 00, 5–60: 0.0852·exp(0.0103 S), a fit to published 100 % moduli of soft rubbers × 12/7 (neo-Hookean).
 * @throws Failure `out-of-range`.
 */
export function modulus({ scale, value }: v.InferOutput<typeof modulusSchema>): { mpa: number } {
  const [low, high] = scale === 'A' ? [20, 80] : [5, 60];
  if (value < low || value > high) {
    throw new Failure('out-of-range', `Shore ${scale} is turned into stiffness from ${low} to ${high} only.`, 'value');
  }
  const mpa =
    scale === 'A'
      ? (0.0981 * (56 + 7.62336 * value)) / (0.137505 * (254 - 2.54 * value))
      : 0.0852 * Math.exp(0.0103 * value);
  return { mpa };
}

export const blendSchema = v.pipe(
  v.strictObject({
    scale: v.picklist(['A', '00']),
    target: v.pipe(finite, v.minValue(0), v.maxValue(100)),
    tolerance: v.optional(nonNegative(100), 1),
    batchG: positive(1e7),
    parts: list(
      v.pipe(
        v.strictObject({
          id,
          hardness: v.pipe(finite, v.minValue(0), v.maxValue(100)),
          minFraction: v.optional(fraction, 0),
          maxFraction: v.optional(fraction, 1),
          pricePerKgMinor: v.optional(nonNegative(1e9), 0),
        }),
        v.check((part) => part.minFraction <= part.maxFraction, 'the least share is above the most'),
      ),
      'id',
    ),
    additives: v.optional(
      v.pipe(
        v.array(
          v.strictObject({
            id,
            pointsPerPercent: signed(1e3),
            maxFraction: fraction,
            pricePerKgMinor: nonNegative(1e9),
          }),
        ),
        v.maxLength(200, 'too-large'),
      ),
      [],
    ),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const names = [...dataset.value.parts, ...dataset.value.additives].map((row) => row.id);
    if (new Set(names).size !== names.length) {
      addIssue({ message: 'parts and additives each need an id of their own; one is there twice' });
    }
    const least = dataset.value.parts.reduce((sum, part) => sum + part.minFraction, 0);
    const most = dataset.value.parts.reduce((sum, part) => sum + part.maxFraction, 0);
    if (least > 1 + 1e-9 || most < 1 - 1e-9) {
      addIssue({ message: "the parts' limits cannot add up to a whole; loosen the least or the most shares" });
    }
  }),
);
export type BlendInput = v.InferOutput<typeof blendSchema>;

/** The linear program's common parts: shares that sum to 1, hardness, price, as terms over w0… and a0…. */
function programOf(input: BlendInput) {
  const shares: Terms = input.parts.map((_, i) => [1, `w${i}`]);
  const hardness: Terms = [
    ...input.parts.map((part, i): Terms[number] => [part.hardness, `w${i}`]),
    ...input.additives.map((additive, j): Terms[number] => [100 * additive.pointsPerPercent, `a${j}`]),
  ];
  // Prices scaled to about 1, so that the solver's tolerances mean the same whatever the currency.
  const priciest = Math.max(
    1,
    ...input.parts.map((p) => p.pricePerKgMinor),
    ...input.additives.map((a) => a.pricePerKgMinor),
  );
  const price: Terms = [
    ...input.parts.map((part, i): Terms[number] => [part.pricePerKgMinor / priciest, `w${i}`]),
    ...input.additives.map((additive, j): Terms[number] => [additive.pricePerKgMinor / priciest, `a${j}`]),
  ];
  return {
    hardness,
    price,
    whole: ` sum: ${expression(shares)} = 1`,
    bounds: [
      ...input.parts.map((part, i) => ` ${part.minFraction} <= w${i} <= ${part.maxFraction}`),
      ...input.additives.map((additive, j) => ` 0 <= a${j} <= ${additive.maxFraction}`),
    ],
  };
}

const valueAt = (terms: Terms, solution: Map<string, number>) =>
  terms.reduce((sum, [k, name]) => sum + k * (solution.get(name) ?? 0), 0);

function outOfReach(highs: Highs, input: BlendInput): Failure {
  const { hardness, whole, bounds } = programOf(input);
  const end = (sign: 1 | -1) => {
    const objective = hardness.map(([k, name]): Terms[number] => [sign * k, name]);
    const solution = solve(highs, { objective, rows: [whole], bounds });
    return (solution ? valueAt(hardness, solution) : Number.NaN).toFixed(1);
  };
  return new Failure(
    'hardness-out-of-reach',
    `These parts reach Shore ${input.scale} ${end(1)} to ${end(-1)}, not ${input.target}; add a softer or firmer one.`,
    'target',
  );
}

/**
 * The cheapest blend within `tolerance` points of the target, then the nearest to it: two linear programs in turn.
 * Fractions are of the whole batch, additives included; hardness mixes linearly by mass (refit from readings).
 * @returns fractions and grams by id, hardness in points, cost in minor units.
 * @throws Failure `hardness-out-of-reach` with the range that can be reached.
 * Source: rule of mixtures; solved with HiGHS.
 */
export async function blend(input: BlendInput) {
  const highs = await loadSolver();
  const { hardness, price, whole, bounds } = programOf(input);
  const band = [
    ` high: ${expression(hardness)} <= ${input.target + input.tolerance}`,
    ` low: ${expression(hardness)} >= ${input.target - input.tolerance}`,
  ];
  const cheapest = solve(highs, { objective: price, rows: [whole, ...band], bounds });
  if (!cheapest) throw outOfReach(highs, input);
  const cost = valueAt(price, cheapest);
  const nearest = solve(highs, {
    objective: [[1, 'miss']],
    rows: [
      whole,
      ...band,
      ` price: ${expression(price)} <= ${cost + 1e-9}`,
      ` over: ${expression(hardness)} - 1 miss <= ${input.target}`,
      ` under: ${expression(hardness)} + 1 miss >= ${input.target}`,
    ],
    bounds: [...bounds, ' 0 <= miss'],
  });
  const solution = nearest ?? cheapest;
  const additiveSum = input.additives.reduce((sum, _, j) => sum + (solution.get(`a${j}`) ?? 0), 0);
  const rows = [
    ...input.parts.map((part, i) => ({ ...part, share: solution.get(`w${i}`) ?? 0 })),
    ...input.additives.map((additive, j) => ({ ...additive, share: solution.get(`a${j}`) ?? 0 })),
  ].map((row) => ({ id: row.id, pricePerKgMinor: row.pricePerKgMinor, fraction: row.share / (1 + additiveSum) }));
  return {
    fractions: Object.fromEntries(rows.map((row) => [row.id, row.fraction])),
    grams: Object.fromEntries(rows.map((row) => [row.id, row.fraction * input.batchG])),
    hardness: valueAt(hardness, solution),
    costMinor: roundMoney(
      rows.reduce((sum, row) => sum + (row.fraction * input.batchG * row.pricePerKgMinor) / 1000, 0),
    ),
  };
}
