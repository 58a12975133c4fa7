import { usual } from '../defaults.ts';
import { bands, linearOf, type Optics } from './light.ts';

/** Plain plastisol, cooked clear. Starting guess: all but clear, a trace of yellow. */
export const PLAIN_PLASTIC: Optics = { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] };

/** No pigment is whiter or blacker than this. */
const [WHITEST, BLACKEST] = [0.95, 0.004];

/** Absorption over scatter of a deep piece that reflects so much. Source: Kubelka & Munk 1931, K/S = (1 − R)²/2R. */
export function absorptionOverScatter(reflected: number): number {
  const r = Math.min(WHITEST, Math.max(BLACKEST, reflected));
  return (1 - r) ** 2 / (2 * r);
}

/**
 * What a colourant that nobody measured is taken for: at an ordinary dose it scatters so much, and a thick piece of it looks as it is named.
 * @param hex its look. @param usualMlPerL an ordinary dose. @returns K and S a mm at 1 mL/L.
 */
export function nominalOptics(hex: string, usualMlPerL: number): Optics {
  const scatter = usual('nominalScatterPerMm') / usualMlPerL;
  const look = linearOf(hex);
  return {
    k: bands((i) => scatter * absorptionOverScatter(look[i])),
    s: [scatter, scatter, scatter],
  };
}
