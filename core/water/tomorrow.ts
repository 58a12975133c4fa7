import * as v from 'valibot';
import { celsius, finite, list, nonNegative } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { Z95 } from '../plastisol/between.ts';
import { modulus } from '../plastisol/hardness.ts';
import { posterior } from '../ridge.ts';

const hours = v.pipe(nonNegative(1e6), v.title('Old, hours'));
const c = v.pipe(celsius, v.title('At'));

/** A bait firms for about a day: younger than a few minutes it is no bait, and older it gains nothing. */
const [YOUNGEST_H, OLDEST_H] = [0.05, 48];
/** The logarithm of its age, in tens, against a cured one's. */
const aged = (h: number) => Math.log10(Math.min(OLDEST_H, Math.max(YOUNGEST_H, h)) / usual('cureH'));

/** Two readings tell of age or cold only where they differ in one of them. */
const [LEAST_C, LEAST_LOG] = [2, 0.1];
const differs = (a: { c: number; hours: number }, b: { c: number; hours: number }) =>
  Math.abs(a.c - b.c) >= LEAST_C || Math.abs(aged(a.hours) - aged(b.hours)) >= LEAST_LOG;

export const firmsSchema = v.strictObject({
  /** Readings of one and the same cup, at two ages or two temperatures; on the scale 00. */
  readings: v.pipe(
    list(v.strictObject({ cup: v.pipe(v.string(), v.minLength(1), v.maxLength(120)), hours, c, value: finite })),
    v.maxLength(500, 'too-large'),
  ),
});

export interface Slopes {
  /** Points for each degree colder. */
  perDegree: { value: number; sd: number };
  /** Points for each tenfold of its age. */
  perLogHour: { value: number; sd: number };
  /** Pairs of readings that say so; 0: starting values. */
  n: number;
}

const GUESSES = () => [
  { value: usual('firmsPerDegree'), sd: usual('firmsPerDegree') / 2 },
  { value: usual('firmsPerLogHour'), sd: usual('firmsPerLogHour') / 2 },
];

export const startingSlopes = (): Slopes => {
  const [perDegree, perLogHour] = GUESSES() as [Slopes['perDegree'], Slopes['perLogHour']];
  return { perDegree, perLogHour, n: 0 };
};

/**
 * How much firmer a bait becomes by age and by cold, from readings of the same cups at two ages or two temperatures; drawn to
 * the starting values where few speak.
 * @returns points a degree and points a tenfold of hours, each with its standard deviation.
 * Source: ridge regression on differences within a cup (Hoerl & Kennard 1970); starting values are guesses.
 */
export function firms({ readings }: v.InferOutput<typeof firmsSchema>): Slopes {
  const cups = new Map<string, typeof readings>();
  for (const row of readings) cups.set(row.cup, [...(cups.get(row.cup) ?? []), row]);
  const told = [...cups.values()].flatMap((rows) => {
    const [first, ...later] = rows;
    if (!first) return [];
    return later
      .filter((row) => differs(first, row))
      .map((row) => ({
        shares: [first.c - row.c, aged(row.hours) - aged(first.hours)],
        value: row.value - first.value,
        // Both readings may be off.
        sd: usual('readingSdPoints') * Math.SQRT2,
      }));
  });
  const [perDegree, perLogHour] = posterior(told, GUESSES()) as [Slopes['perDegree'], Slopes['perLogHour']];
  return { perDegree, perLogHour, n: told.length };
}

const slope = v.strictObject({ value: finite, sd: nonNegative(1e3) });

export const tomorrowSchema = v.strictObject({
  /** As it is cured, on the scale 00. */
  hardness: v.pipe(finite, v.title('Cured, Shore 00')),
  hardnessC: v.optional(c, usual('roomC')),
  now: v.strictObject({ hours, c }),
  cured: v.strictObject({ hours: v.optional(hours, usual('cureH')), c }),
  slopes: v.optional(v.strictObject({ perDegree: slope, perLogHour: slope })),
});

export interface Tomorrow {
  hardnessNow: number;
  hardnessThen: number;
  /** So many times as fast the stream has to be before it kicks. */
  faster: number;
  fasterLow: number;
  fasterHigh: number;
}

/**
 * A bait that was tried warm and young, and how it will swim cured and cold: the onset of its kick goes with the root of its
 * modulus, whatever its shape.
 * @throws Failure `out-of-range` where it would leave the scale.
 * Source: `bait.kick`: f ~ √k, onset ~ f; Shore 00 to modulus as in `hardness.modulus`; 95 of 100 by the slopes' own errors.
 */
export function tomorrow({
  hardness,
  hardnessC,
  now,
  cured,
  slopes = startingSlopes(),
}: v.InferOutput<typeof tomorrowSchema>): Tomorrow {
  const [dC, dLog] = [now.c - cured.c, aged(cured.hours) - aged(now.hours)];
  const { perDegree, perLogHour } = slopes;
  const at = (h: number, ofC: number) => hardness + perDegree.value * (hardnessC - ofC) + perLogHour.value * aged(h);
  const hardnessNow = at(now.hours, now.c);
  const hardnessThen = at(cured.hours, cured.c);
  const mpa = (value: number) => {
    try {
      return modulus({ scale: '00', value }).mpa;
    } catch (error) {
      if (error instanceof Failure)
        throw new Failure(
          'out-of-range',
          `At ${value.toFixed(0)} points the scale 00 tells nothing of how stiff it is: 5 to 60.`,
          'hardness',
        );
      throw error;
    }
  };
  const faster = Math.sqrt(mpa(hardnessThen) / mpa(hardnessNow));
  // On the scale 00 the modulus is an exponential of the points: its logarithm's error goes straight on.
  const perPoint = Math.log(mpa(40) / mpa(30)) / 20;
  const sd = perPoint * Math.hypot(dC * perDegree.sd, dLog * perLogHour.sd);
  return {
    hardnessNow,
    hardnessThen,
    faster,
    fasterLow: faster * Math.exp(-Z95 * sd),
    fasterHigh: faster * Math.exp(Z95 * sd),
  };
}
