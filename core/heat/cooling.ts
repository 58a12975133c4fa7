import * as v from 'valibot';
import { celsius, nonNegative, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';

export const coolingSchema = v.strictObject({
  readings: v.pipe(
    v.array(v.strictObject({ s: v.pipe(v.number(), v.minValue(-1e7), v.maxValue(1e7)), c: celsius })),
    v.minLength(1),
    v.maxLength(1000, 'too-large'),
  ),
  ambientC: celsius,
  priorTauS: v.optional(positive(1e7), usual('cupTauS')),
  /** How much the starting guess counts against the readings, s²: as two readings a minute and a half apart. */
  priorWeightS2: v.optional(nonNegative(1e12), usual('cupTauWeightS2')),
  targetsC: v.pipe(v.array(celsius), v.maxLength(100, 'too-large')),
});
export type CoolingInput = v.InferOutput<typeof coolingSchema>;

export interface Cooling {
  tauS: number;
  /** °C at a moment, s, of the readings' own clock. */
  targets: {
    c: number;
    atS: number;
    /** From the last reading on; less than nothing: it is past. */
    inS: number;
    /** How far off that may be, standard deviation. */
    sdS: number;
  }[];
}

/** What the fit itself came to, for a curve: ln(c − room) = a − k·s. */
interface Fit {
  a: number;
  k: number;
  meanS: number;
  spread: number;
  n: number;
  /** Standard deviation of one reading's logarithm. */
  sd: number;
}

function fitted({ readings, ambientC, priorTauS, priorWeightS2: w }: CoolingInput): Fit {
  const points = readings.map(({ s, c }, i) => {
    if (c <= ambientC)
      throw new Failure(
        'out-of-range',
        'A cup is warmer than its room: read it again, or set the room as it is.',
        `readings.${i}.c`,
      );
    return { s, y: Math.log(c - ambientC), warm: c - ambientC };
  });
  const n = points.length;
  const mean = (of: (p: (typeof points)[number]) => number) => points.reduce((sum, p) => sum + of(p), 0) / n;
  const [meanS, meanY] = [mean(({ s }) => s), mean(({ y }) => y)];
  const spread = points.reduce((sum, { s }) => sum + (s - meanS) ** 2, 0) + w;
  const falling = -points.reduce((sum, { s, y }) => sum + (s - meanS) * (y - meanY), 0) + w / priorTauS;
  // Two readings at one moment and no guess say nothing of how it cools.
  const k = spread > 0 ? falling / spread : 0;
  if (!(k > 0))
    throw new Failure('never', 'It is warming, not cooling: read it once more when the heat is off.', 'readings');
  const a = meanY + k * meanS;
  const squares = points.reduce((sum, { s, y }) => sum + (y - (a - k * s)) ** 2, 0);
  const ofThermometer = usual('thermometerSdC') / mean(({ warm }) => warm);
  return { a, k, meanS, spread, n, sd: Math.max(ofThermometer, n > 2 ? Math.sqrt(squares / (n - 2)) : 0) };
}

/**
 * How a cup cools, from its readings; with few of them mostly as cups do.
 * @returns its time constant; when it is at each target, and how far off that may be.
 * @throws Failure `out-of-range`, `never`.
 * Source: Newton's law of cooling; least squares of the logarithm, drawn to the usual time constant by a weight; errors carried on.
 */
export function cooling(input: CoolingInput): Cooling {
  const { a, k, meanS, spread, n, sd } = fitted(input);
  const lastS = input.readings.reduce((last, { s }) => Math.max(last, s), Number.NEGATIVE_INFINITY);
  return {
    tauS: 1 / k,
    targets: input.targetsC.map((c, i) => {
      if (c <= input.ambientC) throw new Failure('never', 'It never gets down to that in this room.', `targetsC.${i}`);
      const atS = (a - Math.log(c - input.ambientC)) / k;
      return { c, atS, inS: atS - lastS, sdS: (sd * Math.sqrt(1 / n + (atS - meanS) ** 2 / spread)) / k };
    }),
  };
}

/** How warm it is at a moment of the readings' own clock, °C. @throws as `cooling`. */
export function coolingAt(input: Omit<CoolingInput, 'targetsC'>): (s: number) => number {
  const { a, k } = fitted({ ...input, targetsC: [] });
  return (s) => input.ambientC + Math.exp(a - k * s);
}
