import * as v from 'valibot';
import { finite, fraction, id, list, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { posterior } from '../ridge.ts';

const points = v.pipe(finite, v.minValue(0), v.maxValue(100));

export const fitSchema = v.pipe(
  v.strictObject({
    /** What the cups were blended of, and what each is called by its label. */
    parts: v.pipe(list(v.strictObject({ id, nominal: points }), 'id'), v.maxLength(60, 'too-large')),
    readings: v.pipe(
      v.array(v.strictObject({ fractions: v.record(id, fraction), hardness: points })),
      v.maxLength(1000, 'too-large'),
    ),
    priorSd: v.optional(positive(100), usual('nominalSdPoints')),
    noiseSd: v.optional(positive(100), usual('readingSdPoints')),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const known = new Set(dataset.value.parts.map((part) => part.id));
    dataset.value.readings.forEach((reading, index) => {
      const at = (message: string) =>
        addIssue({
          message,
          path: [
            { type: 'object', origin: 'value', input: dataset.value, key: 'readings', value: dataset.value.readings },
            { type: 'array', origin: 'value', input: dataset.value.readings, key: index, value: reading },
            { type: 'object', origin: 'value', input: reading, key: 'fractions', value: reading.fractions },
          ],
        });
      const strange = Object.keys(reading.fractions).find((part) => !known.has(part));
      if (strange !== undefined) at(`"${strange}" is none of the parts; name it there, or leave the reading out`);
      const sum = Object.values(reading.fractions).reduce((whole, share) => whole + share, 0);
      if (Math.abs(sum - 1) > 1e-6) at(`the shares of a cup add up to 1, not to ${Number(sum.toFixed(4))}`);
    });
  }),
);
export type FitInput = v.InferOutput<typeof fitSchema>;

export interface HardnessFit {
  n: number;
  /** Points and their standard deviation, by part. */
  parts: Record<string, { hardness: number; sd: number }>;
  /** Root mean square of what the readings are off the fit; left out where there are none. */
  residualSd?: number;
}

/**
 * Each part's own hardness from this workshop's cured readings, shrunk to its label where few speak of it.
 * Points of one Shore scale; shares of the cup's mass.
 * Source: rule of mixtures; ridge regression as a Bayes posterior, C = (XᵀX/σ² + I/τ²)⁻¹, h = C(Xᵀy/σ² + nominal/τ²)
 *   (Hoerl & Kennard 1970); σ a durometer's scatter, τ how far labels are off.
 */
export function fitHardness({ parts, readings, priorSd, noiseSd }: FitInput): HardnessFit {
  const shares = readings.map(({ fractions }) => parts.map((part) => fractions[part.id] ?? 0));
  const found = posterior(
    readings.map(({ hardness }, n) => ({ shares: shares[n] as number[], value: hardness, sd: noiseSd })),
    parts.map(({ nominal }) => ({ value: nominal, sd: priorSd })),
  );
  const squares = readings.map(
    (reading, n) =>
      (reading.hardness - found.reduce((sum, one, i) => sum + one.value * (shares[n]?.[i] as number), 0)) ** 2,
  );
  return {
    n: readings.length,
    parts: Object.fromEntries(
      parts.map((part, i) => [part.id, { hardness: found[i]?.value as number, sd: found[i]?.sd as number }]),
    ),
    ...(squares.length > 0
      ? { residualSd: Math.sqrt(squares.reduce((sum, one) => sum + one, 0) / squares.length) }
      : {}),
  };
}
