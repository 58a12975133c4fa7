import * as v from 'valibot';
import { positive, signed } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import type { Dimension } from './dimension.ts';

/** US customary volumes by definition of the US gallon (231 in³); mass by the international avoirdupois pound. */
export const ML_PER_TSP = 4.92892159375;
export const ML_PER_CUP = ML_PER_TSP * 48;

/** Size of one unit in mL, g, mm or m/s. Temperatures are affine and have their own table. */
const SCALES: Record<string, { kind: Dimension; size: number }> = {
  mL: { kind: 'volume', size: 1 },
  L: { kind: 'volume', size: 1000 },
  tsp: { kind: 'volume', size: ML_PER_TSP },
  tbsp: { kind: 'volume', size: ML_PER_TSP * 3 },
  floz: { kind: 'volume', size: ML_PER_TSP * 6 },
  cup: { kind: 'volume', size: ML_PER_CUP },
  qt: { kind: 'volume', size: ML_PER_TSP * 192 },
  gal: { kind: 'volume', size: ML_PER_TSP * 768 },
  cupMetric: { kind: 'volume', size: 250 },
  g: { kind: 'mass', size: 1 },
  kg: { kind: 'mass', size: 1000 },
  oz: { kind: 'mass', size: 28.349523125 },
  lb: { kind: 'mass', size: 453.59237 },
  mm: { kind: 'length', size: 1 },
  cm: { kind: 'length', size: 10 },
  in: { kind: 'length', size: 25.4 },
  'm/s': { kind: 'speed', size: 1 },
  'km/h': { kind: 'speed', size: 1 / 3.6 },
  'ft/s': { kind: 'speed', size: 0.3048 },
  mph: { kind: 'speed', size: 0.44704 },
};

/** kelvin = (value + offset) · scale */
const TEMPERATURES: Record<string, { offset: number; scale: number }> = {
  C: { offset: 273.15, scale: 1 },
  F: { offset: 459.67, scale: 5 / 9 },
  K: { offset: 0, scale: 1 },
};

const BUILT_IN = new Set([...Object.keys(SCALES), ...Object.keys(TEMPERATURES), 'drop']);

/** A maker's own measure (a scoop, a squirt), weighed once: mL for one. */
export const measureSchema = v.strictObject({
  unit: v.pipe(
    v.string(),
    v.minLength(1),
    v.maxLength(40),
    v.check((name) => !BUILT_IN.has(name), 'that name is already a unit; call the measure something else'),
  ),
  ml: positive(1e6),
});
export type Measure = v.InferOutput<typeof measureSchema>;

/** Measures as an optional list whose names do not repeat. */
export const measuresSchema = v.optional(
  v.pipe(
    v.array(measureSchema),
    v.maxLength(200, 'too-large'),
    v.check((rows) => new Set(rows.map((row) => row.unit)).size === rows.length, 'two measures bear the same name'),
  ),
  [],
);

const unitName = v.pipe(v.string(), v.minLength(1), v.maxLength(40));

export const convertSchema = v.strictObject({
  value: signed(1e15),
  from: unitName,
  to: unitName,
  dropsPerMl: v.optional(positive(1e4), usual('dropsPerMl')),
  densityGPerMl: v.optional(positive(1e3)),
  measures: measuresSchema,
});

export interface UnitContext {
  dropsPerMl: number;
  measures: Measure[];
}

/** Kind and size (in mL, g, mm, m/s; 1 for temperatures) of a unit, or `unknown-unit`. */
export function unitOf(unit: string, context: UnitContext): { kind: Dimension; size: number } {
  if (Object.hasOwn(SCALES, unit)) return SCALES[unit] as { kind: Dimension; size: number };
  if (Object.hasOwn(TEMPERATURES, unit)) return { kind: 'temperature', size: 1 };
  if (unit === 'drop') return { kind: 'volume', size: 1 / context.dropsPerMl };
  const own = context.measures.find((measure) => measure.unit === unit);
  if (own) return { kind: 'volume', size: own.ml };
  throw new Failure(
    'unknown-unit',
    `"${unit}" is not a unit known here; weigh it once and add it as your own measure.`,
  );
}

function convertTemperature(value: number, from: string, to: string): number {
  const source = TEMPERATURES[from] as { offset: number; scale: number };
  const target = TEMPERATURES[to] as { offset: number; scale: number };
  const kelvin = (value + source.offset) * source.scale;
  if (kelvin < -1e-9) throw new Failure('out-of-range', `${value} ${from} is below absolute zero.`, 'value');
  return from === to ? value : kelvin / target.scale - target.offset;
}

/**
 * Converts a volume, mass, length, speed or temperature.
 * @throws Failure `unknown-unit`, `unit-mismatch` (volume ↔ mass without a density, or kinds that never meet),
 *   `out-of-range` (a negative amount, below absolute zero), checked in that order.
 * Source: US customary units as defined on the international yard and pound.
 */
export function convert(input: v.InferOutput<typeof convertSchema>): { value: number } {
  const from = unitOf(input.from, input);
  const to = unitOf(input.to, input);
  const massAndVolume =
    (from.kind === 'mass' && to.kind === 'volume') || (from.kind === 'volume' && to.kind === 'mass');
  if (from.kind !== to.kind && !(massAndVolume && input.densityGPerMl !== undefined)) {
    const hint = massAndVolume ? ' without a density in g/mL' : '';
    throw new Failure('unit-mismatch', `${input.from} (${from.kind}) cannot become ${input.to} (${to.kind})${hint}.`);
  }
  if (from.kind === 'temperature') return { value: convertTemperature(input.value, input.from, input.to) };
  if (input.value < 0) throw new Failure('out-of-range', 'An amount cannot be negative.', 'value');
  if (input.from === input.to) return { value: input.value };
  const base = input.value * from.size;
  const density = input.densityGPerMl ?? 1;
  const crossed = from.kind === to.kind ? base : from.kind === 'mass' ? base / density : base * density;
  return { value: crossed / to.size };
}
