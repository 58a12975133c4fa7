import { colourOf, gramColour } from '../plastisol/bin.ts';
import { bands, hexOf, linearOf, type Optics } from './light.ts';
import { lookHex } from './look.ts';
import { absorptionOverScatter } from './nominal.ts';

/**
 * What melts mixed by grams come to: by what is known of them, else as far as their looks tell, deep pieces of each, as cloudy as each other.
 * @returns null where nothing is mixed. Source: Kubelka & Munk 1931; K/S averaged by mass, R = 1 + x − √(x² + 2x).
 */
export function mixedHex(parts: { hex: string; grams: number; optics?: Optics | null }[]): string | null {
  const total = parts.reduce((sum, { grams }) => sum + grams, 0);
  if (!(total > 0)) return null;
  // What each does to light is known: then it is no guess.
  const known = colourOf(
    parts.map(({ grams, optics }) => ({ grams, colour: optics ? gramColour(grams, optics) : undefined })),
  );
  if (known && parts.every(({ optics }) => optics)) return lookHex(known.optics);
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
