import { type DefaultName, usual } from '../defaults.ts';
import { convert, type Measure, unitOf } from '../units/convert.ts';
import { dropOf } from './lots.ts';

/** What is known of a material as it is dosed; null: not known. */
export interface Doseable {
  kind: string;
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
  dropsPerMl: number | null;
}

const LIQUIDS = new Set(['colourant', 'softener', 'hardener', 'stabilizer', 'oil']);

/** Whether it is dosed as a liquid: millilitres mean the same of every bottle, drops do not. */
export const isLiquid = (kind: string) => LIQUIDS.has(kind);

/** What a levelled mL weighs where nobody has weighed one, by kind; all else is a liquid like colour. */
const BY_KIND: Record<string, DefaultName> = {
  plastisol: 'plastisolGPerMl',
  flake: 'flakeBulkGPerMl',
  powder: 'powderBulkGPerMl',
  salt: 'saltBulkGPerMl',
  oil: 'oilGPerMl',
};

/** Grams of a mL of it as it is measured out, and whether that is only the usual figure of its kind. */
export function gramsPerMl({ kind, bulkGPerMl, densityGPerMl }: Omit<Doseable, 'dropsPerMl'>): {
  gPerMl: number;
  byDefault: boolean;
} {
  const own = bulkGPerMl ?? densityGPerMl;
  return own === null
    ? { gPerMl: usual(BY_KIND[kind] ?? 'colourantGPerMl'), byDefault: true }
    : { gPerMl: own, byDefault: false };
}

/** Whether a unit is one of mass: what was weighed needs no density. */
export const isWeighed = (unit: string, measures: Measure[]) =>
  unitOf(unit, { dropsPerMl: usual('dropsPerMl'), measures }).kind === 'mass';

/**
 * What a dose weighs: drops and spoons to mL, mL to grams. Nothing that was put in weighs nothing.
 * @param dose with what a drop of it was when it fell, where that was written down. @param dropsPerMl the workshop's own drop. @returns g, and whether a usual density was needed.
 * @throws Failure `unknown-unit`, `unit-mismatch` for a unit that measures no amount.
 */
export function doseGrams(
  { amount, unit, dropsPerMl: itsDrop }: { amount: number; unit: string; dropsPerMl?: number | null },
  material: Doseable,
  { dropsPerMl, measures }: { dropsPerMl: number; measures: Measure[] },
): { g: number; byDefault: boolean } {
  const { gPerMl, byDefault } = gramsPerMl(material);
  const drop = dropOf(itsDrop ?? null, material.dropsPerMl, dropsPerMl);
  const { value } = convert({
    value: amount,
    from: unit,
    to: 'g',
    dropsPerMl: drop.perMl,
    measures,
    densityGPerMl: gPerMl,
  });
  return { g: value, byDefault: byDefault && !isWeighed(unit, measures) };
}
