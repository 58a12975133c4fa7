import { usual } from '../defaults.ts';
import { bands, hexOf, layerOver, linearOf, type Optics } from './light.ts';
import { absorptionOverScatter } from './nominal.ts';

/**
 * What melts mixed by grams come to: by what is known of them, else as far as their looks tell, deep pieces of each, as cloudy as each other.
 * @returns null where nothing is mixed. Source: Kubelka & Munk 1931; K/S averaged by mass, R = 1 + x − √(x² + 2x).
 */
export function mixedHex(parts: { hex: string; grams: number; optics?: Optics | null }[]): string | null {
  const total = parts.reduce((sum, { grams }) => sum + grams, 0);
  if (!(total > 0)) return null;
  // What each does to light is known: then it is no guess.
  if (parts.every(({ optics }) => optics)) {
    const mean = (of: (one: Optics) => number) =>
      parts.reduce((sum, { optics, grams }) => sum + (grams / total) * of(optics as Optics), 0);
    const melt = { k: bands((i) => mean(({ k }) => k[i])), s: bands((i) => mean(({ s }) => s[i])) };
    return hexOf(layerOver(melt, usual('matchedAtMm'), [1, 1, 1]));
  }
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
