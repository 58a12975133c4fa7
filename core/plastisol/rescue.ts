import * as v from 'valibot';
import { id, list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { expression, loadSolver, type Program, solve, type Terms } from '../highs.ts';
import { shotMlOf } from './batch.ts';

/** As many molds as a rescue looks through. */
export const MOST_MOLDS = 12;
const mold = v.strictObject({
  id,
  cavities: whole(1, 1e4),
  cavityMl: positive(1e6),
  sprueMl: v.optional(nonNegative(1e6), 0),
  runnerMl: v.optional(nonNegative(1e6), 0),
  secondsPerShot: v.pipe(positive(1e5), v.title('A shot takes, s')),
  /** Baits that somebody waits for. */
  wanted: v.pipe(whole(0, 1e6), v.title('Baits wanted')),
  /** It can be filled so often before it has to be waited for; left out: as often as there is time. */
  mostShots: v.optional(v.pipe(whole(0, 1e6), v.title('Shots at most'))),
});

export const rescueSchema = v.strictObject({
  availableMl: v.pipe(nonNegative(1e6), v.title('Left in the cup')),
  secondsLeft: v.pipe(nonNegative(1e6), v.title('Before it leaves its window, s')),
  molds: v.pipe(list(mold, 'id'), v.maxLength(MOST_MOLDS, 'too-large')),
  feedFraction: v.optional(nonNegative(10), usual('feedFraction')),
});
export type RescueInput = v.InferOutput<typeof rescueSchema>;

export interface Rescue {
  shots: { id: string; shots: number; baits: number; wanted: number }[];
  /** Of the baits that somebody waits for, so many are served. */
  served: number;
  usedMl: number;
  leftMl: number;
  seconds: number;
}

/**
 * What a leftover cup can still make before it leaves its window: the shots that serve most wanted baits, and of those the ones
 * that use most of it.
 * @throws Failure `cup-too-small` where not one shot fits, by plastic or by time.
 * Source: a whole-number program solved twice, first for the baits, then for the plastic (branch and bound, HiGHS).
 */
export async function rescue({ availableMl, secondsLeft, molds, feedFraction }: RescueInput): Promise<Rescue> {
  const each = molds.map((one) => {
    const shotMl = shotMlOf({ ...one, share: 1 }, feedFraction);
    const fits = Math.floor(Math.min(availableMl / shotMl, secondsLeft / one.secondsPerShot) + 1e-9);
    const most = Math.min(fits, one.mostShots ?? fits);
    return { ...one, shotMl, most };
  });
  if (each.every(({ most }) => most < 1))
    throw new Failure(
      'cup-too-small',
      'Not one more shot of these molds: too little is left, or there is no time. Reheat it, or let it go to its remelt bin.',
      'availableMl',
    );
  const highs = await loadSolver();
  const terms = (of: (one: (typeof each)[number]) => number): Terms => each.map((one, i) => [of(one), `n${i}`]);
  const row = (name: string, parts: Terms, most: number) => ` ${name}: ${expression(parts)} <= ${most}`;
  const program: Omit<Program, 'objective'> = {
    rows: [
      row(
        'plastic',
        terms(({ shotMl }) => shotMl),
        availableMl * (1 + 1e-9),
      ),
      row(
        'time',
        terms(({ secondsPerShot }) => secondsPerShot),
        secondsLeft * (1 + 1e-9),
      ),
      ...each.map(({ cavities }, i) => ` made${i}: g${i} - ${cavities} n${i} <= 0`),
    ],
    bounds: each.flatMap(({ most, wanted }, i) => [` 0 <= n${i} <= ${most}`, ` 0 <= g${i} <= ${wanted}`]),
    whole: each.map((_, i) => `n${i}`),
  };
  const baits: Terms = each.map((_, i) => [1, `g${i}`]);
  const first = solve(highs, { ...program, objective: baits.map(([k, name]) => [-k, name]) });
  const served = Math.round(baits.reduce((sum, [, name]) => sum + (first?.get(name) ?? 0), 0));
  const second = solve(highs, {
    ...program,
    rows: [...program.rows, ` served: ${expression(baits)} >= ${served - 1e-6}`],
    objective: terms(({ shotMl }) => -shotMl),
  });
  const shots = each.map((one, i) => {
    const n = Math.round(second?.get(`n${i}`) ?? 0);
    return { id: one.id, shots: n, baits: n * one.cavities, wanted: one.wanted };
  });
  const usedMl = shots.reduce((sum, { shots: n }, i) => sum + n * (each[i]?.shotMl as number), 0);
  return {
    shots: shots.filter(({ shots: n }) => n > 0),
    served,
    usedMl,
    leftMl: Math.max(0, availableMl - usedMl),
    seconds: shots.reduce((sum, { shots: n }, i) => sum + n * (each[i]?.secondsPerShot as number), 0),
  };
}
