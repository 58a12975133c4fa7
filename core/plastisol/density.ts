import { usual } from '../defaults.ts';
import type { Layer } from './bin.ts';

/**
 * What a mL of several things weighs that are stirred together, each by what it weighs alone, g/mL.
 * @param parts grams, or shares of the mass. Source: volumes add.
 * @returns null of nothing.
 */
export function mixedGPerMl(parts: { grams: number; gPerMl: number }[]): number | null {
  const grams = parts.reduce((sum, one) => sum + one.grams, 0);
  const ml = parts.reduce((sum, one) => sum + one.grams / one.gPerMl, 0);
  return ml > 0 ? grams / ml : null;
}

/** Remelt: plastisol with the salt that is known to be in it, g/mL. */
export const remeltGPerMl = (layers: Pick<Layer, 'grams' | 'saltG'>[]): number =>
  mixedGPerMl(
    layers.flatMap(({ grams, saltG }) => [
      { grams: Math.max(0, grams - saltG), gPerMl: usual('plastisolGPerMl') },
      { grams: saltG, gPerMl: usual('saltGPerMl') },
    ]),
  ) ?? usual('plastisolGPerMl');

/**
 * A cup's plastic, g/mL, of its parts by their shares of the mass; plastisol as usual where none is told.
 * @param parts each with what a mL of it weighs.
 */
export const plasticGPerMl = (parts: { share: number; gPerMl: number }[]): number =>
  mixedGPerMl(parts.map(({ share, gPerMl }) => ({ grams: share, gPerMl }))) ?? usual('plastisolGPerMl');

/** What a cup weighs per mL: its plastic, its colour and the salt that was dosed beside each other. */
export const cupGPerMl = (cup: { plasticG: number; plasticGPerMl: number; dosedG: number; saltG: number }): number =>
  mixedGPerMl([
    { grams: cup.plasticG, gPerMl: cup.plasticGPerMl },
    { grams: cup.dosedG - cup.saltG, gPerMl: usual('colourantGPerMl') },
    { grams: cup.saltG, gPerMl: usual('saltGPerMl') },
  ]) ?? cup.plasticGPerMl;
