import { usual } from '../defaults.ts';

/** How flake is cut. */
export const CUTS = ['hex', 'square', 'string'] as const;
export type Cut = (typeof CUTS)[number];

/** Face of a flake over its width squared: a hexagon across flats, a square, a string six times as long as wide. */
const FACE: Record<Cut, number> = { hex: Math.sqrt(3) / 2, square: 1, string: 1 / 6 };

export interface Flake {
  gPerL: number;
  /** Across; of a string its length. */
  sizeMm: number;
  cut: Cut;
  thicknessMm?: number;
  densityGPerMl?: number;
}

/**
 * How many flakes are in a millilitre, and how much of a view they cover.
 * @returns count a mL; and for a thickness the count a cm² that lies behind it, and the share of the view that some flake stands in.
 * Source: grams over the mass of one; a flat piece that lies any way shows half its face on average (Cauchy 1832); what overlaps, by Poisson.
 */
export function flakesIn({
  gPerL,
  sizeMm,
  cut,
  thicknessMm = usual('flakeThickMm'),
  densityGPerMl = usual('flakeGPerMl'),
}: Flake): { perMl: number; faceMm2: number; behind(thickMm: number): { perCm2: number; covered: number } } {
  const faceMm2 = FACE[cut] * sizeMm ** 2;
  const gramsEach = (faceMm2 * thicknessMm * densityGPerMl) / 1000;
  const perMl = gPerL / 1000 / gramsEach;
  return {
    perMl,
    faceMm2,
    behind: (thickMm) => {
      const perCm2 = (perMl * thickMm) / 10;
      return { perCm2, covered: 1 - Math.exp((-perCm2 / 100) * (faceMm2 / 2)) };
    },
  };
}
