import { bands, type Optics, type Rgb } from '../colour/light.ts';

/** What grams of several melts do to light, as sums that add up: K and S a mm, each times its grams. */
export interface GramColour {
  /** Grams whose colour is known. */
  g: number;
  k: Rgb;
  s: Rgb;
}

export const gramColour = (grams: number, { k, s }: Optics): GramColour => ({
  g: grams,
  k: bands((i) => k[i] * grams),
  s: bands((i) => s[i] * grams),
});

const share = ({ g, k, s }: GramColour, of: number): GramColour => ({
  g: g * of,
  k: bands((i) => k[i] * of),
  s: bands((i) => s[i] * of),
});

/** Grams in a bin that were cooked equally often, with the salt in them. */
export interface Layer {
  /** Null where nobody knows. */
  heats: number | null;
  grams: number;
  saltG: number;
  /** Grams whose salt nobody knows. */
  saltUnknownG: number;
  /** As far as its colour is known. */
  colour?: GramColour | undefined;
}

/**
 * What is stirred together of these does to light, a mm, and of which share of it nobody knows the colour; null where nobody knows any.
 * Source: K and S add up by mass, all melts being about as heavy.
 */
export function colourOf(
  layers: Pick<Layer, 'grams' | 'colour'>[],
): { optics: Optics; unknownFraction: number } | null {
  const sum = (of: (one: GramColour) => number) =>
    layers.reduce((total, { colour }) => total + (colour ? of(colour) : 0), 0);
  const [known, all] = [sum(({ g }) => g), layers.reduce((total, { grams }) => total + Math.max(0, grams), 0)];
  // What is left of sums that were taken away again is no colour.
  if (!(known > 1e-6) || !(all > 0)) return null;
  const mean = (of: (one: GramColour) => number) => Math.max(0, sum(of) / known);
  return {
    optics: { k: bands((i) => mean(({ k }) => k[i])), s: bands((i) => mean(({ s }) => s[i])) },
    unknownFraction: Math.min(1, Math.max(0, 1 - known / all)),
  };
}

export const binGrams = (layers: Layer[]): number => layers.reduce((sum, one) => sum + one.grams, 0);

const unknown = (grams: number): Layer => ({ heats: null, grams, saltG: 0, saltUnknownG: grams });
/** So much of all of a layer; less than nothing takes it away. */
export const partOf = (layer: Layer, of: number): Layer => ({
  heats: layer.heats,
  grams: layer.grams * of,
  saltG: layer.saltG * of,
  saltUnknownG: layer.saltUnknownG * of,
  ...(layer.colour ? { colour: share(layer.colour, of) } : {}),
});

/**
 * What leaves a bin that is stirred by hand: of everything in it alike. What is taken beyond all that is recorded was there
 * all the same: it leaves as unknown, and the bin stands below nothing until it is weighed.
 * @returns layers that add up to `grams`.
 */
export function takeFromBin(layers: Layer[], grams: number): Layer[] {
  const there = layers.filter((one) => one.grams > 0);
  const held = binGrams(there);
  const taking = held > 0 ? Math.min(1, grams / held) : 0;
  const taken = there.map((one) => partOf(one, taking)).filter((one) => one.grams > 0);
  const rest = grams - binGrams(taken);
  return rest > 1e-9 * grams ? [...taken, unknown(rest)] : taken;
}

/** What a count changes: more than was recorded is unknown, less is gone of everything alike. */
export function countBin(layers: Layer[], actualG: number): Layer[] {
  const diff = actualG - binGrams(layers);
  if (Math.abs(diff) < 1e-9) return [];
  return diff > 0 ? [unknown(diff)] : takeFromBin(layers, -diff).map((one) => partOf(one, -1));
}

/**
 * What comes back out of a cup into a bin: once more cooked, with its share of the cup's salt; what was unknown stays so.
 * @param cup how often it counts as cooked, the shares of it whose heats and salt are unknown, and its colour where that is known.
 */
export function returnedOf(
  grams: number,
  cup: {
    heats: number;
    unknownFraction: number;
    saltFraction: number;
    saltUnknownFraction: number;
    colour?: { optics: Optics; unknownFraction: number } | null;
  },
): Layer[] {
  const layer = (of: number, heats: number | null): Layer => ({
    heats,
    grams: grams * of,
    saltG: grams * of * cup.saltFraction,
    saltUnknownG: grams * of * cup.saltUnknownFraction,
    ...(cup.colour ? { colour: gramColour(grams * of * (1 - cup.colour.unknownFraction), cup.colour.optics) } : {}),
  });
  return [layer(1 - cup.unknownFraction, cup.heats), layer(cup.unknownFraction, null)].filter((one) => one.grams > 0);
}

/**
 * What a puck tells of all that lies in a bin: how its salt and its colour change, heat by heat, no gram moved.
 * @param layers as they are recorded. @param known the salt of its mass; K and S a mm where they were read.
 */
export function toldByPuck(layers: Layer[], known: { saltFraction: number; optics: Optics | null }): Layer[] {
  return layers
    .filter(({ grams }) => grams > 0)
    .map(({ heats, grams, saltG, saltUnknownG, colour }) => {
      const seen = known.optics && gramColour(grams, known.optics);
      return {
        heats,
        grams: 0,
        saltG: grams * known.saltFraction - saltG,
        saltUnknownG: -saltUnknownG,
        ...(seen
          ? {
              colour: {
                g: seen.g - (colour?.g ?? 0),
                k: bands((i) => seen.k[i] - (colour?.k[i] ?? 0)),
                s: bands((i) => seen.s[i] - (colour?.s[i] ?? 0)),
              },
            }
          : {}),
      };
    });
}
