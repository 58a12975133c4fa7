import { colourOf, gramColour, type Layer } from '../plastisol/bin.ts';
import { bands, type Optics } from './light.ts';
import { PLAIN_PLASTIC } from './nominal.ts';

/** Fresh plastic as a layer: never cooked, without salt, plain. */
export const freshLayer = (grams: number): Layer => ({
  heats: 0,
  grams,
  saltG: 0,
  saltUnknownG: 0,
  colour: gramColour(grams, PLAIN_PLASTIC),
});

/**
 * What a cup does to light: its fresh plastic, the remelt in it and what was dosed into all of it.
 * @param dosed what the doses alone add, a mm: none of their plastic.
 * @returns K and S a mm, and the share of the cup's plastic whose colour nobody knows; null where that is all of it.
 * Source: K and S add up by mass.
 */
export function colourOfCup(
  cup: { freshG: number; remelt: Layer[] },
  dosed: Optics,
): { optics: Optics; unknownFraction: number } | null {
  const plastic = colourOf([freshLayer(Math.max(0, cup.freshG)), ...cup.remelt]);
  if (!plastic) return null;
  return {
    optics: {
      k: bands((i) => plastic.optics.k[i] + dosed.k[i]),
      s: bands((i) => plastic.optics.s[i] + dosed.s[i]),
    },
    unknownFraction: plastic.unknownFraction,
  };
}
