import { usual } from '../defaults.ts';
import { binGrams, type Layer } from './bin.ts';
import { mixRemelt } from './remelt.ts';

/** A part of a cup's plastic: its share as planned, and its grams where it was weighed in. */
export interface CupPart {
  share: number;
  weighedG: number | null;
}

/**
 * Grams of each part that are in the cup: as weighed, and of what was not, its share of the rest.
 * @param plasticG all of the cup's plastic by its own weight, doses left out.
 */
export function gramsOf(parts: CupPart[], plasticG: number): number[] {
  const weighed = parts.reduce((sum, one) => sum + (one.weighedG ?? 0), 0);
  const open = parts.reduce((sum, one) => sum + (one.weighedG === null ? one.share : 0), 0);
  const rest = Math.max(0, plasticG - weighed);
  return parts.map((one) => one.weighedG ?? (open > 0 ? (rest * one.share) / open : 0));
}

/**
 * How often a cup counts as cooked and how salty it is, of fresh plastic and of what came out of bins.
 * @param cupG all of the cup, doses included; `freshG` of it from lots; `dosedSaltG` dosed into it. Shares of the cup.
 */
export function cupState({
  cupG,
  freshG,
  remelt,
  dosedSaltG,
}: {
  cupG: number;
  freshG: number;
  remelt: Layer[];
  dosedSaltG: number;
}) {
  const parts = [{ grams: freshG, heats: 0 as number | null }, ...remelt].filter((one) => one.grams > 0);
  const mixed =
    parts.length > 0
      ? mixRemelt({ parts: parts.map(({ grams, heats }) => ({ grams, heats })) })
      : { afterCooking: 1, unknownFraction: 0 };
  const sum = (of: (layer: Layer) => number) => remelt.reduce((total, one) => total + of(one), 0);
  return {
    heats: mixed.afterCooking,
    unknownFraction: mixed.unknownFraction,
    remeltFraction: freshG + binGrams(remelt) > 0 ? binGrams(remelt) / (freshG + binGrams(remelt)) : 0,
    saltFraction: cupG > 0 ? Math.min(1, (dosedSaltG + sum((one) => one.saltG)) / cupG) : 0,
    saltUnknownFraction: cupG > 0 ? Math.min(1, sum((one) => one.saltUnknownG) / cupG) : 0,
  };
}

/** What a part does to the hardness of a cup: a plastisol has one of its own, an additive changes that of the others. */
export interface Telling {
  share: number;
  /** Points, and how sure they are. */
  hardness: number | null;
  sd: number | null;
  /** Points that each percent of the plastisols' mass adds to the cup; null of what is no additive, or not known. */
  pointsPerPercent?: number | null;
}

/**
 * Hardness of what is mixed, points, and how sure it is; null where a part of it is not known.
 * Source: rule of mixtures by mass over the plastisols, additives by their points for each percent of the plastisols' mass
 * (as in `hardness.blend`); independent errors, those of the additives' points are not known.
 */
export function mixHardness(parts: Telling[]): { value: number; sd: number } | null {
  const there = parts.filter(({ share }) => share > 0);
  const own = there.filter((part) => (part.pointsPerPercent ?? null) === null);
  const base = own.reduce((sum, { share }) => sum + share, 0);
  if (base <= 0) return null;
  let [value, variance] = [0, 0];
  for (const { share, hardness, sd } of own) {
    if (hardness === null) return null;
    value += (share / base) * hardness;
    variance += ((share / base) * (sd ?? 0)) ** 2;
  }
  for (const { share, pointsPerPercent } of there) value += ((100 * share) / base) * (pointsPerPercent ?? 0);
  return { value: Math.min(100, Math.max(0, value)), sd: Math.sqrt(variance) };
}

/** The same parts with another share of one: the others give way alike, so that they stay a whole. */
export function withShare<T extends { share: number }>(parts: T[], index: number, share: number): T[] {
  const rest = parts.reduce((sum, part, i) => sum + (i === index ? 0 : part.share), 0);
  const left = 1 - share;
  return parts.map((part, i) => ({
    ...part,
    share: i === index ? share : rest > 0 ? (part.share * left) / rest : left / (parts.length - 1),
  }));
}

/** A plastisol whose hardness is known, and its price. */
export interface KnownPlastic {
  materialId: string;
  hardness: number | null;
  pricePerKgMinor: number | null;
}

/** A softener or hardener of which it is known what a percent of it does. */
export interface KnownAdditive {
  materialId: string;
  pointsPerPercent: number;
  pricePerKgMinor: number | null;
}

/** What `hardness.blend` is asked for a cup: shares do not depend on how large it is. An additive without a price is never free filler. */
export const blendAsk = (
  { scale, value }: { scale: 'A' | '00'; value: number },
  known: KnownPlastic[],
  additives: KnownAdditive[],
) => ({
  scale,
  target: value,
  batchG: 1000,
  parts: known.map(({ materialId, hardness, pricePerKgMinor }) => ({
    id: materialId,
    hardness,
    pricePerKgMinor: pricePerKgMinor ?? 0,
  })),
  additives: additives.flatMap(({ materialId, pointsPerPercent, pricePerKgMinor }) =>
    pricePerKgMinor === null
      ? []
      : [{ id: materialId, pointsPerPercent, maxFraction: usual('additiveMost'), pricePerKgMinor }],
  ),
});

/** Whether there is anything to choose between: two plastisols, or one and what changes it. */
export const canBlend = (known: KnownPlastic[], additives: KnownAdditive[]): boolean =>
  known.length > 0 && known.length + additives.filter((one) => one.pricePerKgMinor !== null).length >= 2;

/** Less than this of a part is none: no scale shows it. */
const LEAST_SHARE = 1e-4;

/** Shares of a blend by material, what no scale shows left out, so that they are a whole. */
export function blendShares(fractions: Record<string, number>): { materialId: string; share: number }[] {
  const parts = Object.entries(fractions).filter(([, share]) => share > LEAST_SHARE);
  const whole = parts.reduce((sum, [, share]) => sum + share, 0);
  return parts.map(([materialId, share]) => ({ materialId, share: share / whole }));
}
