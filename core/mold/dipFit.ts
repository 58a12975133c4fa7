import * as v from 'valibot';
import { list, positive, signed, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { celsius, say } from '../units/say.ts';
import { DIP_BOUNDS_C } from './dip.ts';

export const dipFitSchema = v.strictObject({
  log: list(
    v.strictObject({
      dips: whole(1, 100),
      wallMm: positive(100),
      cupC: v.pipe(signed(1e3), v.minValue(DIP_BOUNDS_C[0]), v.maxValue(DIP_BOUNDS_C[1])),
    }),
  ),
  /** What is taken while the log says little: the starting values, as heavy as this many dips. */
  priorPerDipMm: v.optional(positive(100), usual('dipWallMm')),
  priorPerDegree: v.optional(signed(1), usual('dipPerDegree')),
  priorDips: v.optional(positive(1e4), 3),
});

/** The cup that a wall a dip is told for, °C. */
const TOLD_C = usual('dipC');
/** How far from there the starting slope is taken to be known, °C. */
const PRIOR_REACH_C = 8;

/**
 * Wall a dip at 155 °C (mm) and its fall per degree, from this workshop's own dips.
 * @returns both, how many dips they rest on, and the typical miss of a logged wall, mm.
 * @throws Failure `out-of-range` when the log gives a dip that builds no wall.
 * Source: weighted least squares of wall ÷ dips on (155 − cup °C), each reading as heavy as its dips, with the starting
 *   values as earlier readings on both sides of 155 °C (ridge).
 */
export function dipFit({ log, priorPerDipMm, priorPerDegree, priorDips }: v.InferOutput<typeof dipFitSchema>) {
  const prior = [-PRIOR_REACH_C, PRIOR_REACH_C].map((x) => ({
    x,
    y: priorPerDipMm * (1 + priorPerDegree * x),
    w: priorDips / 2,
  }));
  const rows = [...prior, ...log.map(({ dips, wallMm, cupC }) => ({ x: TOLD_C - cupC, y: wallMm / dips, w: dips }))];
  const sum = (of: (row: (typeof rows)[number]) => number) => rows.reduce((total, row) => total + row.w * of(row), 0);
  const [w, x, y] = [sum(() => 1), sum((row) => row.x), sum((row) => row.y)];
  const slope = (sum((row) => row.x * row.y) - (x * y) / w) / (sum((row) => row.x * row.x) - (x * x) / w);
  const wallPerDipMm = (y - slope * x) / w;
  if (!(wallPerDipMm > 0))
    throw new Failure(
      'out-of-range',
      say`These dips build no wall at ${celsius(TOLD_C)}; look through the log for a slip.`,
      'log',
    );
  const missMm = Math.sqrt(
    log.reduce(
      (total, { dips, wallMm, cupC }) => total + (wallMm - dips * (wallPerDipMm + slope * (TOLD_C - cupC))) ** 2,
      0,
    ) / log.length,
  );
  return {
    wallPerDipMm,
    perDegree: slope / wallPerDipMm,
    dips: log.reduce((total, row) => total + row.dips, 0),
    readings: log.length,
    missMm,
  };
}
