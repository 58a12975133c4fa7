import * as v from 'valibot';
import { id, list, nonNegative, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { atField, Failure } from '../failure.ts';
import { roundHalfUp } from '../rounding.ts';
import { type Measure, ML_PER_TSP, measuresSchema, unitOf } from '../units/convert.ts';
import { gramsPerMl, isLiquid, isWeighed } from './weigh.ts';

export const scaleSchema = v.strictObject({
  basisMl: positive(1e6),
  batchMl: positive(1e6),
  measures: measuresSchema,
  items: list(
    v.strictObject({
      id,
      amount: nonNegative(1e6),
      unit: v.pipe(v.string(), v.minLength(1), v.maxLength(40)),
      dropsPerMl: v.optional(positive(1e4), usual('dropsPerMl')),
      bulkGPerMl: v.optional(positive(100)),
      strength: v.optional(positive(1e3), 1),
      bottleStrength: v.optional(positive(1e3), 1),
    }),
    'id',
  ),
});
export type ScaleInput = v.InferOutput<typeof scaleSchema>;

export interface Spoon {
  tsp: string;
  count: number;
}

export interface ScaledItem {
  id: string;
  /** Exact amount in the item's own unit. */
  amount: number;
  unit: string;
  ml?: number;
  g?: number;
  /** Its grams come of the usual density of its kind. */
  gByDefault?: boolean;
  /** Whole drops to count, for unit drop. */
  drops?: number;
  /** Measuring spoons to level off, for tsp and tbsp. */
  spoons?: Spoon[];
  roundingFraction: number;
  tooCoarse: boolean;
}

/** Above this error the practical measure is too coarse: weigh it, or cook more. */
export const COARSE_FRACTION = 0.1;

/** Measuring spoons, largest first, in 64ths of a teaspoon. */
const SPOONS: [tsp: string, parts: number][] = [
  ['1', 64],
  ['1/2', 32],
  ['1/4', 16],
  ['1/8', 8],
  ['1/16', 4],
  ['1/32', 2],
  ['1/64', 1],
];
const PARTS = new Map(SPOONS);

/** Nearest 1/64 tsp made of the spoons a maker owns, largest first. */
function spoonsFor(tsp: number): { spoons: Spoon[]; tsp: number } {
  let rest = roundHalfUp(tsp * 64);
  const practical = rest / 64;
  const spoons: Spoon[] = [];
  for (const [tsp, parts] of SPOONS) {
    const count = Math.floor(rest / parts);
    if (count > 0) spoons.push({ tsp, count });
    rest -= count * parts;
  }
  return { spoons, tsp: practical };
}

const roundingOf = (practical: number, exact: number) => (exact === 0 ? 0 : (practical - exact) / exact);

function scaleItem(item: ScaleInput['items'][number], input: ScaleInput, index: number): ScaledItem {
  const { dropsPerMl, bulkGPerMl, unit } = item;
  const { kind, size } = atField(`items.${index}.unit`, () => unitOf(unit, { dropsPerMl, measures: input.measures }));
  if (kind !== 'volume' && kind !== 'mass') {
    throw new Failure(
      'unit-mismatch',
      `"${unit}" measures no amount; use drops, spoons, mL or g.`,
      `items.${index}.unit`,
    );
  }
  const amount = item.amount * ((input.batchMl / input.basisMl) * (item.strength / item.bottleStrength));
  const base = amount * size;
  const ml = kind === 'volume' ? base : bulkGPerMl === undefined ? undefined : base / bulkGPerMl;
  const g = kind === 'mass' ? base : bulkGPerMl === undefined ? undefined : base * bulkGPerMl;
  const scaled: ScaledItem = { id: item.id, amount, unit, roundingFraction: 0, tooCoarse: false };
  if (ml !== undefined) scaled.ml = ml;
  if (g !== undefined) scaled.g = g;
  if (unit === 'drop') {
    scaled.drops = roundHalfUp(amount);
    scaled.roundingFraction = roundingOf(scaled.drops, amount);
  } else if (unit === 'tsp' || unit === 'tbsp') {
    const exactTsp = base / ML_PER_TSP;
    const practical = spoonsFor(exactTsp);
    scaled.spoons = practical.spoons;
    scaled.roundingFraction = roundingOf(practical.tsp, exactTsp);
  }
  scaled.tooCoarse = Math.abs(scaled.roundingFraction) > COARSE_FRACTION;
  return scaled;
}

/**
 * Scales a recipe written for `basisMl` of plastisol to `batchMl`, with whole drops and measuring spoons.
 * factor = batch/basis · strength/bottleStrength; rounding = (practical − exact)/exact.
 * @throws Failure `unknown-unit`, `unit-mismatch`.
 */
export function scaleRecipe(input: ScaleInput): { items: ScaledItem[] } {
  return { items: input.items.map((item, index) => scaleItem(item, input, index)) };
}

/** One line of a written recipe, with what its bottle and material say of it. */
export interface RecipeLine {
  materialId: string;
  materialKind: string;
  amount: number;
  unit: string;
  dropsPerMl: number | null;
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
  bottleStrength: number;
}

/** Whole drops stay whole, there and back. */
const tidy = (value: number, digits: number) => Number(value.toPrecision(digits));

/**
 * What of a liquid an amount is, mL of the house strength; null for what is no liquid, or is weighed.
 * @param bottleStrength of the bottle that was measured from; 1 for what was written down.
 */
export function houseMl(
  { amount, unit }: { amount: number; unit: string },
  { kind, dropsPerMl, bottleStrength }: { kind: string; dropsPerMl: number; bottleStrength: number },
  measures: Measure[],
): number | null {
  const { kind: dimension, size } = unitOf(unit, { dropsPerMl, measures });
  return isLiquid(kind) && dimension === 'volume' ? tidy(amount * size * bottleStrength, 15) : null;
}

/** Millilitres of the house strength as this bottle drips them: what was written in drops is in its own. */
export const inDropsOf = <I extends { amount: number; unit: string; ml: number | null }>(
  item: I,
  dropsPerMl: number,
): I => (item.ml !== null && item.unit === 'drop' ? { ...item, amount: tidy(item.ml * dropsPerMl, 12) } : item);

/** A written recipe scaled to a batch; each result bears its material's id. */
export function scaleLines(lines: RecipeLine[], basisMl: number, batchMl: number, measures: Measure[]): ScaledItem[] {
  const densities = lines.map(({ materialKind, bulkGPerMl, densityGPerMl }) =>
    gramsPerMl({ kind: materialKind, bulkGPerMl, densityGPerMl }),
  );
  const { items } = scaleRecipe({
    basisMl,
    batchMl,
    measures,
    items: lines.map(({ materialId, amount, unit, dropsPerMl, bottleStrength }, index) => ({
      id: materialId,
      amount,
      unit,
      dropsPerMl: dropsPerMl ?? usual('dropsPerMl'),
      bulkGPerMl: densities[index]?.gPerMl,
      strength: 1,
      bottleStrength,
    })),
  });
  return items.map((item, index) =>
    densities[index]?.byDefault && !isWeighed(item.unit, measures) ? { ...item, gByDefault: true } : item,
  );
}

/** The dose that a scaled item is put in as: whole drops and spoons, or measured in mL where even one drop would be too many. */
export function doseOf({ drops, spoons, ml, amount, unit }: ScaledItem): { amount: number; unit: string } {
  if (spoons && spoons.length > 0) {
    const parts = spoons.reduce((sum, { tsp, count }) => sum + count * (PARTS.get(tsp) as number), 0);
    return { amount: parts / 64, unit: 'tsp' };
  }
  if (drops === undefined) return { amount, unit };
  return drops > 0 || ml === undefined ? { amount: drops, unit } : { amount: ml, unit: 'mL' };
}
