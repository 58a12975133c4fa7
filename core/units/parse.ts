import { Failure } from '../failure.ts';
import { convert, type UnitContext, unitOf } from './convert.ts';
import type { Dimension } from './dimension.ts';

/** What makers write for a unit, beside its own name. */
const SPELLINGS: Record<string, string> = {
  ml: 'mL',
  millilitre: 'mL',
  milliliter: 'mL',
  cc: 'mL',
  l: 'L',
  litre: 'L',
  liter: 'L',
  teaspoon: 'tsp',
  teaspoons: 'tsp',
  tablespoon: 'tbsp',
  tablespoons: 'tbsp',
  'fl oz': 'floz',
  'fl. oz': 'floz',
  'fluid ounce': 'floz',
  'fluid ounces': 'floz',
  cups: 'cup',
  quart: 'qt',
  gallon: 'gal',
  gallons: 'gal',
  'metric cup': 'cupMetric',
  drops: 'drop',
  gram: 'g',
  grams: 'g',
  kilo: 'kg',
  kilos: 'kg',
  ounce: 'oz',
  ounces: 'oz',
  pound: 'lb',
  pounds: 'lb',
  lbs: 'lb',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '″': 'in',
  millimetre: 'mm',
  millimeter: 'mm',
  centimetre: 'cm',
  centimeter: 'cm',
  '°c': 'C',
  c: 'C',
  '°f': 'F',
  f: 'F',
  k: 'K',
};

/** The unit in which a quantity is stored. */
export const BASE: Record<Dimension, string> = {
  length: 'mm',
  volume: 'mL',
  mass: 'g',
  temperature: 'C',
  speed: 'm/s',
};

const VULGAR: Record<string, string> = {
  '½': ' 1/2',
  '¼': ' 1/4',
  '¾': ' 3/4',
  '⅓': ' 1/3',
  '⅔': ' 2/3',
  '⅛': ' 1/8',
  '⅜': ' 3/8',
  '⅝': ' 5/8',
  '⅞': ' 7/8',
};

const AMOUNT = /^([-−]?)\s*(?:(\d+)\s+(\d+)\s*\/\s*(\d+)|(\d+)\s*\/\s*(\d+)|(\d+(?:[.,]\d+)?|[.,]\d+))\s*(.*)$/;

/** How each quantity may be written, for whoever wrote it otherwise. */
const LIKE: Record<Dimension, string> = {
  length: '12.5 mm, 3 1/2 in',
  volume: '30 mL, 1/8 tsp or 0.5 cup',
  mass: '12 g, 1/2 oz',
  temperature: '165 C, 330 F',
  speed: '0.6 m/s, 2 ft/s',
};

/** A number as typed: `3 1/2`, `1/8`, `0.5`, `0,5`, and the rest of the text as its unit. */
export function parseAmount(text: string, like = '3 1/2 in, 1/8 tsp or 0.5 cup'): { value: number; unit: string } {
  const plain = text
    .trim()
    .replace(/[½¼¾⅓⅔⅛⅜⅝⅞]/g, (sign) => VULGAR[sign] ?? sign)
    .trim();
  const match = AMOUNT.exec(plain);
  if (!match) throw new Failure('not-a-measure', `"${text.trim()}" is not a measure; write it like ${like}.`);
  const [, minus, whole, over, under, topOnly, bottomOnly, decimal, unit] = match;
  const divided = (a: string | undefined, b: string | undefined) => {
    if (Number(b) === 0) throw new Failure('not-a-measure', 'Nothing can be divided by zero; check the fraction.');
    return Number(a) / Number(b);
  };
  const size = whole
    ? Number(whole) + divided(over, under)
    : topOnly
      ? divided(topOnly, bottomOnly)
      : Number(decimal?.replace(',', '.'));
  return { value: minus ? -size : size, unit: (unit ?? '').trim() };
}

/** The unit's own name for what was written, or the text as it is (a maker's measure). */
export function unitNamed(text: string): string {
  const lower = text.toLowerCase().replace(/\.$/, '');
  return SPELLINGS[lower] ?? SPELLINGS[lower.replace(/\s+/g, ' ')] ?? text;
}

export interface ParseContext extends UnitContext {
  /** Unit of a bare number. */
  unit: string;
  densityGPerMl?: number | undefined;
}

/**
 * Reads what a maker typed and returns it in mm, mL, g, °C or m/s.
 * @throws Failure `not-a-measure`, `unknown-unit`, `unit-mismatch`, `out-of-range`.
 */
export function parseQuantity(text: string, dimension: Dimension, context: ParseContext): number {
  const { value, unit } = parseAmount(text, LIKE[dimension]);
  const from = unit === '' ? context.unit : unitNamed(unit);
  const exact = context.measures.find((measure) => measure.unit.toLowerCase() === from.toLowerCase())?.unit ?? from;
  // "oz" for a volume is a fluid ounce, as it is said at the bench.
  const meant = dimension === 'volume' && exact === 'oz' && context.densityGPerMl === undefined ? 'floz' : exact;
  unitOf(meant, context);
  const { dropsPerMl, measures, densityGPerMl } = context;
  return convert({ value, from: meant, to: BASE[dimension], dropsPerMl, measures, densityGPerMl }).value;
}
