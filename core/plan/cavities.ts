import * as v from 'valibot';
import { nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { roundMoney } from '../rounding.ts';

export const cavitiesSchema = v.strictObject({
  baitsWanted: whole(1, 1e5),
  mostCavities: v.optional(whole(1, 60), 12),
  cavityMl: positive(1e5),
  sprueMl: v.optional(nonNegative(1e5), 0),
  runnerMlPerCavity: v.optional(nonNegative(1e5), 0),
  /** From pouring one shot to the next into the same mold: fill, wait, open, close. */
  fillS: v.optional(nonNegative(1e5), usual('fillS')),
  fillSPerCavity: v.optional(nonNegative(1e5), usual('fillSPerCavity')),
  waitS: positive(1e6),
  openS: v.optional(nonNegative(1e5), usual('openBetweenS')),
  setUpMin: v.optional(nonNegative(1e4), usual('setUpMin')),
  moldFixedMinor: v.optional(nonNegative(1e9), 0),
  moldPerCavityMinor: nonNegative(1e9),
  plastisolPerKgMinor: v.optional(nonNegative(1e9), 0),
  plastisolDensityGPerMl: v.optional(positive(25), usual('plastisolGPerMl')),
  /** What comes back as sprue and is melted again, and is therefore no loss. */
  returnFraction: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1)), usual('returnFraction')),
});

/**
 * The same evening with a mold of one, two, … cavities.
 * @returns per count of cavities: shots, minutes at the bench, plastisol cooked (mL), cost of the mold and of plastisol
 * lost in sprues, in minor units; and the count from which one more saves less than ten minutes.
 * Source: shots = baits ÷ cavities, up; each shot costs its fill, its wait and its opening.
 */
export function cavities(input: v.InferOutput<typeof cavitiesSchema>) {
  const rows = Array.from({ length: input.mostCavities }, (_, i) => {
    const n = i + 1;
    const shots = Math.ceil(input.baitsWanted / n - 1e-9);
    const shotS = input.fillS + n * input.fillSPerCavity + input.waitS + input.openS;
    const sprueMl = shots * (input.sprueMl + n * input.runnerMlPerCavity);
    const lostG = sprueMl * (1 - input.returnFraction) * input.plastisolDensityGPerMl;
    return {
      cavities: n,
      shots,
      minutes: input.setUpMin + (shots * shotS) / 60,
      cookedMl: shots * n * input.cavityMl + sprueMl,
      moldMinor: roundMoney(input.moldFixedMinor + n * input.moldPerCavityMinor),
      lostMinor: roundMoney((lostG * input.plastisolPerKgMinor) / 1000),
    };
  });
  const enough = rows.find((row, i) => row.minutes - (rows[i + 1]?.minutes ?? row.minutes) < 10) ?? rows[0];
  return { rows, enoughCavities: enough?.cavities ?? 1 };
}
