import * as v from 'valibot';
import { finite, fraction, nonNegative, positive, signed, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { ceilNear } from '../rounding.ts';
import { celsius, say } from '../units/say.ts';

/** Colder nothing builds evenly, hotter the cup scorches, °C. */
export const DIP_BOUNDS_C = [140, 180] as const;

export const dipSchema = v.strictObject({
  rodMm: positive(1e3),
  lengthMm: positive(1e4),
  wallMm: positive(1e3),
  wallPerDipMm: v.optional(positive(100), usual('dipWallMm')),
  cupC: v.optional(finite, usual('dipC')),
  perDegree: v.optional(signed(100), usual('dipPerDegree')),
  noseMm: v.optional(nonNegative(1e3), usual('dipNoseMm')),
  dripFraction: v.optional(fraction, usual('dripFraction')),
  tubes: whole(1, 1e5),
  cupDiameterMm: v.optional(positive(1e4), usual('dipCupMm')),
});

/**
 * Dips and plastisol for tubes drawn on oiled rods. A cooler cup builds more a dip.
 * @throws Failure `out-of-range` for a cup outside 140–180 °C or one so hot that nothing builds.
 * Source: geometry of the tube (wall as a thin ring, solid nose) plus the depth of liquid the rod needs; wall per dip
 *   is a starting value, to be replaced by this workshop's own log.
 */
export function dipPlan(input: v.InferOutput<typeof dipSchema>) {
  const [least, most] = DIP_BOUNDS_C;
  if (input.cupC < least || input.cupC > most) {
    throw new Failure(
      'out-of-range',
      say`A dip cup is kept between ${celsius(least)} and ${celsius(most)}, not at ${celsius(input.cupC)}.`,
      'cupC',
    );
  }
  const wallPerDip = input.wallPerDipMm * (1 + input.perDegree * (usual('dipC') - input.cupC));
  if (wallPerDip <= 1e-12) {
    throw new Failure(
      'out-of-range',
      say`At ${celsius(input.cupC)} a dip would build no wall; let the cup cool.`,
      'cupC',
    );
  }
  const { rodMm, wallMm, lengthMm } = input;
  const ringMm3 = Math.PI * (rodMm + wallMm) * wallMm * lengthMm;
  const noseMm3 = (Math.PI / 4) * (rodMm + 2 * wallMm) ** 2 * input.noseMm;
  const mlPerTube = (ringMm3 + noseMm3) / 1000;
  const standingMl = ((Math.PI / 4) * input.cupDiameterMm ** 2 * (lengthMm + 10)) / 1000;
  return {
    wallPerDip,
    dips: ceilNear(wallMm / wallPerDip),
    mlPerTube,
    cookMl: input.tubes * mlPerTube * (1 + input.dripFraction) + standingMl,
  };
}
