import * as v from 'valibot';
import { positive } from '../bounds.ts';
import { usual } from '../defaults.ts';

/** How the two parts of a rubber go together, and what each weighs. */
export const mixSchema = v.strictObject({
  by: v.picklist(['mass', 'volume']),
  partA: positive(1e6),
  partB: positive(1e6),
  densityAGPerMl: v.optional(positive(100), usual('rubberGPerMl')),
  densityBGPerMl: v.optional(positive(100), usual('rubberGPerMl')),
});
export type Mix = v.InferOutput<typeof mixSchema>;

/** What stands where no tin was written down: a common tin rubber, ten to one. A screen that uses it says so. */
export const USUAL_RUBBER = {
  mix: {
    by: 'mass',
    partA: 10,
    partB: 1,
    densityAGPerMl: usual('rubberGPerMl'),
    densityBGPerMl: usual('rubberGPerMl'),
  },
  potLifeMin: 20,
  demoldMin: 240,
} as const satisfies { mix: Mix; potLifeMin: number; demoldMin: number };

export interface Parts {
  gramsA: number;
  gramsB: number;
  mlA: number;
  mlB: number;
}

/**
 * Splits a mixed volume (mL) into its two parts. Volumes are taken as additive.
 * By mass: density = (A+B)/(A/ρA + B/ρB), grams split A:B. By volume: mL split A:B.
 */
export function splitMix(mixMl: number, mix: Mix): Parts {
  const { partA, partB, densityAGPerMl: rhoA, densityBGPerMl: rhoB } = mix;
  if (mix.by === 'volume') {
    const mlA = (mixMl * partA) / (partA + partB);
    const mlB = (mixMl * partB) / (partA + partB);
    return { gramsA: mlA * rhoA, gramsB: mlB * rhoB, mlA, mlB };
  }
  const density = (partA + partB) / (partA / rhoA + partB / rhoB);
  const gramsA = (mixMl * density * partA) / (partA + partB);
  const gramsB = (mixMl * density * partB) / (partA + partB);
  return { gramsA, gramsB, mlA: gramsA / rhoA, mlB: gramsB / rhoB };
}

/** Factor on pot life and demold time when the room is not at the rated temperature (the ten-degree rule). */
export function roomFactor(ratedC: number, roomC: number): number {
  return 2 ** ((ratedC - roomC) / 10);
}
