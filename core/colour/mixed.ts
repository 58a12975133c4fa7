import { bands, hexOf, linearOf } from './light.ts';
import { absorptionOverScatter } from './nominal.ts';

/**
 * What melts mixed by grams come to, as far as their looks tell: deep pieces of each, as cloudy as each other.
 * @returns null where nothing is mixed. Source: Kubelka & Munk 1931; K/S averaged by mass, R = 1 + x − √(x² + 2x).
 */
export function mixedHex(parts: { hex: string; grams: number }[]): string | null {
  const total = parts.reduce((sum, { grams }) => sum + grams, 0);
  if (!(total > 0)) return null;
  return hexOf(
    bands((i) => {
      const x = parts.reduce(
        (sum, { hex, grams }) => sum + (grams / total) * absorptionOverScatter(linearOf(hex)[i]),
        0,
      );
      return 1 + x - Math.sqrt(x * (x + 2));
    }),
  );
}
