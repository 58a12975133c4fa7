import * as v from 'valibot';
import { id, list, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { dosed, hexText, optics, reflected, thickness } from './fields.ts';
import { deltaE, type Lacking, labOf, moreOf } from './lab.ts';
import { hexOf, layerOver, linearOf, meltOf, type Optics, type Rgb } from './light.ts';
import { type Colourant, type Found, search } from './search.ts';

/** Bottles that a search may take of. */
export const colourantsHere = v.pipe(
  list(
    v.strictObject({
      id,
      ...optics.entries,
      maxMlPerL: v.optional(positive(1000), usual('colourMostMlPerL')),
      dropsPerMl: v.optional(positive(1e4), usual('dropsPerMl')),
    }),
    'id',
  ),
  v.maxLength(60, 'too-large'),
);

export const matchSchema = v.strictObject({
  target: v.union([hexText, reflected, v.strictObject({ hex: hexText }), v.strictObject({ linear: reflected })]),
  thicknessMm: v.pipe(thickness, v.gtValue(0)),
  background: reflected,
  base: optics,
  /** What is in the melt already and stays as it is. */
  fixed: v.optional(v.pipe(v.array(dosed), v.maxLength(40, 'too-large')), []),
  colourants: colourantsHere,
  batchMl: positive(1e6),
  wholeDrops: v.optional(v.boolean(), true),
  maxColourants: v.optional(whole(1, 6), 4),
  timeLimitMs: v.optional(positive(60_000), 1000),
  seed: v.optional(whole(0, 4294967295), 1),
});
export type MatchInput = v.InferOutput<typeof matchSchema>;

/** Nearer than this most people tell no difference side by side. */
export const NEAR_DELTA_E = 2;

export interface Matched {
  items: { id: string; drops: number; mlPerL: number }[];
  linear: Rgb;
  hex: string;
  deltaE00: number;
  /** What nothing that is here can give, where it cannot get near. */
  lacking: Lacking | null;
  /** The time limit came before the search was through. */
  cutOff: boolean;
  evaluations: number;
}

function targetOf(target: MatchInput['target']): Rgb {
  if (typeof target === 'string') return linearOf(target);
  if (Array.isArray(target)) return target as Rgb;
  return 'hex' in target ? linearOf(target.hex) : (target.linear as Rgb);
}

/**
 * Doses of what is in store that come nearest to a colour at a thickness over a ground. The same by the same seed: the search has so
 * many looks and no more, and the time limit only cuts it off, which is said.
 * @param nowMs a clock, where there is one: without it nothing is cut off.
 * @returns drops of each bottle for the batch, mL/L, and how far off it looks (ΔE00).
 * Source: Kubelka–Munk as in `colour.predict`; CIEDE2000; beam search with Levenberg–Marquardt steps, then whole drops tried about the best.
 */
export function match(input: MatchInput, nowMs?: () => number): Matched {
  const { thicknessMm, background, base, fixed, colourants, batchMl, wholeDrops, maxColourants, seed } = input;
  const plain: Optics = meltOf(base, fixed);
  const wanted = labOf(targetOf(input.target));
  const seen = (doses: { colourant: Colourant; mlPerL: number }[]) =>
    layerOver(
      meltOf(
        plain,
        doses.map(({ colourant: { k, s }, mlPerL }) => ({ k, s, mlPerL })),
      ),
      thicknessMm,
      background,
    );
  const until = nowMs && nowMs() + input.timeLimitMs;
  const found: Found = search({
    plain,
    wanted,
    thicknessMm,
    background,
    colourants: colourants.map((one) => ({ ...one, dropMlPerL: 1000 / (batchMl * one.dropsPerMl) })),
    most: Math.min(maxColourants, colourants.length),
    wholeDrops,
    seed,
    isLate: nowMs && until !== undefined ? () => nowMs() > until : () => false,
  });
  const linear = seen(found.doses);
  const deltaE00 = deltaE(labOf(linear), wanted);
  return {
    items: found.doses
      .filter(({ mlPerL }) => mlPerL > 0)
      .map(({ colourant, mlPerL }) => ({
        id: colourant.id,
        drops: wholeDrops ? Math.round(mlPerL / colourant.dropMlPerL) : mlPerL / colourant.dropMlPerL,
        mlPerL,
      }))
      .sort((a, b) => b.mlPerL - a.mlPerL),
    linear,
    hex: hexOf(linear),
    deltaE00,
    lacking: deltaE00 > NEAR_DELTA_E ? moreOf(wanted, labOf(linear)) : null,
    cutOff: found.cutOff,
    evaluations: found.looks,
  };
}
