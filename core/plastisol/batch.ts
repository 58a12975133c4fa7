import * as v from 'valibot';
import { id, list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { atMost, ceilNear, floorNear } from '../rounding.ts';
import { ML_PER_CUP } from '../units/convert.ts';
import { ml, say } from '../units/say.ts';

const ML_CAP = 1e6;

const moldFields = {
  cavities: whole(1, 1e4),
  cavityMl: positive(ML_CAP),
  sprueMl: v.optional(nonNegative(ML_CAP), 0),
  runnerMl: v.optional(nonNegative(ML_CAP), 0),
  share: v.optional(v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(1)), 1),
};

const cupFields = {
  feedFraction: v.optional(nonNegative(10), usual('feedFraction')),
  injectorMl: v.optional(positive(ML_CAP)),
  deadMl: v.optional(nonNegative(ML_CAP), usual('deadMl')),
  cupFilmMl: v.optional(nonNegative(ML_CAP), usual('cupFilmMl')),
  densityGPerMl: v.optional(positive(100), usual('plastisolGPerMl')),
};

export const sizeSchema = v.strictObject({
  molds: list(v.strictObject({ id, shots: whole(1, 1e6), ...moldFields }), 'id'),
  ...cupFields,
});
export type SizeInput = v.InferOutput<typeof sizeSchema>;

export const fromCupSchema = v.strictObject({
  availableMl: positive(1e9),
  mold: v.strictObject(moldFields),
  ...cupFields,
});

type Cup = Pick<SizeInput, 'feedFraction' | 'injectorMl' | 'deadMl'>;
type Cavities = Pick<SizeInput['molds'][number], 'cavities' | 'cavityMl' | 'sprueMl' | 'runnerMl' | 'share'>;

/** mL that one shot draws from this cup, feed included. */
export function shotMlOf(mold: Cavities, feedFraction: number): number {
  return (mold.cavities * mold.cavityMl + mold.sprueMl + mold.runnerMl) * (1 + feedFraction) * mold.share;
}

function shotsPerLoad(shotMl: number, cup: Cup, path: string): number {
  if (cup.injectorMl === undefined) return Number.POSITIVE_INFINITY;
  const perLoad = floorNear((cup.injectorMl - cup.deadMl) / shotMl);
  if (perLoad >= 1) return perLoad;
  throw new Failure(
    'shot-exceeds-injector',
    say`One shot takes ${ml(shotMl)} and the injector gives ${ml(Math.max(0, cup.injectorMl - cup.deadMl))}; use a larger one, or fill in two draws.`,
    path,
  );
}

/** None where there is no injector. */
const loadsFor = (shots: number, perLoad: number) => ceilNear(shots / perLoad);

/**
 * How much to cook so that every mold gets its shots. mL, g; cups are US cups.
 * cook = Σ shots·shot + Σ loads·dead + film on the cup's wall.
 * @throws Failure `shot-exceeds-injector`.
 * Source: conservation of volume; feed, dead volume and film are starting values that the balances replace.
 */
export function batchSize(input: SizeInput) {
  const molds = input.molds.map((mold, index) => {
    const shotMl = shotMlOf(mold, input.feedFraction);
    return { id: mold.id, shotMl, loads: loadsFor(mold.shots, shotsPerLoad(shotMl, input, `molds.${index}`)) };
  });
  let cookMl = input.cupFilmMl;
  let baits = 0;
  let baitMl = 0;
  let returnMl = 0;
  input.molds.forEach((mold, index) => {
    const { shotMl, loads } = molds[index] as (typeof molds)[number];
    cookMl += mold.shots * shotMl + loads * input.deadMl;
    baits += mold.shots * mold.cavities;
    baitMl += mold.shots * mold.cavities * mold.cavityMl * mold.share;
    returnMl += mold.shots * (mold.sprueMl + mold.runnerMl) * mold.share + loads * input.deadMl;
  });
  return {
    cookMl,
    cookG: cookMl * input.densityGPerMl,
    cups: cookMl / ML_PER_CUP,
    baits,
    yieldFraction: baitMl / cookMl,
    returnMl,
    molds,
  };
}

/**
 * The most shots that a cup already cooked still fills.
 * @throws Failure `cup-too-small` when not even one fits, `shot-exceeds-injector`.
 */
export function batchFromCup(input: v.InferOutput<typeof fromCupSchema>) {
  const shotMl = shotMlOf(input.mold, input.feedFraction);
  const perLoad = shotsPerLoad(shotMl, input, 'mold');
  const cookMl = (shots: number) => shots * shotMl + loadsFor(shots, perLoad) * input.deadMl + input.cupFilmMl;
  let shots = Math.max(0, floorNear((input.availableMl - input.cupFilmMl) / shotMl));
  if (perLoad !== Number.POSITIVE_INFINITY) {
    const loadMl = perLoad * shotMl + input.deadMl;
    const fullLoads = Math.max(0, floorNear((input.availableMl - input.cupFilmMl) / loadMl));
    const restMl = input.availableMl - input.cupFilmMl - fullLoads * loadMl - input.deadMl;
    shots = fullLoads * perLoad + Math.min(perLoad - 1, Math.max(0, floorNear(restMl / shotMl)));
  }
  if (!atMost(cookMl(1), input.availableMl)) {
    throw new Failure('cup-too-small', say`One shot needs ${ml(cookMl(1))} in the cup.`, 'availableMl');
  }
  const leftover = input.availableMl - cookMl(shots);
  return {
    shots,
    leftoverMl: Math.abs(leftover) <= 1e-9 * input.availableMl ? 0 : leftover,
    baits: shots * input.mold.cavities,
  };
}

/** How many glasses a cup is cooked in, and how full each stands (0 to 1). */
export function inGlasses(cookMl: number, glassMl: number): { glasses: number; fill: number } {
  const glasses = Math.max(1, ceilNear(cookMl / glassMl));
  return { glasses, fill: cookMl / glasses / glassMl };
}
