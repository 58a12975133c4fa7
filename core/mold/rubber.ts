import * as v from 'valibot';
import { positive } from '../bounds.ts';

/** How the two parts of a rubber go together, and what each weighs. */
export const mixSchema = v.strictObject({
  by: v.picklist(['mass', 'volume']),
  partA: positive(1e6),
  partB: positive(1e6),
  densityAGPerMl: v.optional(positive(100), 1.1),
  densityBGPerMl: v.optional(positive(100), 1.1),
});
export type Mix = v.InferOutput<typeof mixSchema>;

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
