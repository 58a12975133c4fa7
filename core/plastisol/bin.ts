/** Grams in a bin that were cooked equally often, with the salt in them. */
export interface Layer {
  /** Null where nobody knows. */
  heats: number | null;
  grams: number;
  saltG: number;
  /** Grams whose salt nobody knows. */
  saltUnknownG: number;
}

export const binGrams = (layers: Layer[]): number => layers.reduce((sum, one) => sum + one.grams, 0);

const unknown = (grams: number): Layer => ({ heats: null, grams, saltG: 0, saltUnknownG: grams });
const part = (layer: Layer, share: number): Layer => ({
  heats: layer.heats,
  grams: layer.grams * share,
  saltG: layer.saltG * share,
  saltUnknownG: layer.saltUnknownG * share,
});

/**
 * What leaves a bin that is stirred by hand: of everything in it alike. What is taken beyond all that is recorded was there
 * all the same: it leaves as unknown, and the bin stands below nothing until it is weighed.
 * @returns layers that add up to `grams`.
 */
export function takeFromBin(layers: Layer[], grams: number): Layer[] {
  const there = layers.filter((one) => one.grams > 0);
  const held = binGrams(there);
  const share = held > 0 ? Math.min(1, grams / held) : 0;
  const taken = there.map((one) => part(one, share)).filter((one) => one.grams > 0);
  const rest = grams - binGrams(taken);
  return rest > 1e-9 * grams ? [...taken, unknown(rest)] : taken;
}

/** What a count changes: more than was recorded is unknown, less is gone of everything alike. */
export function countBin(layers: Layer[], actualG: number): Layer[] {
  const diff = actualG - binGrams(layers);
  if (Math.abs(diff) < 1e-9) return [];
  return diff > 0 ? [unknown(diff)] : takeFromBin(layers, -diff).map((one) => part(one, -1));
}

/**
 * What comes back out of a cup into a bin: once more cooked, with its share of the cup's salt; what was unknown stays so.
 * @param cup grams of the whole cup, how often it counts as cooked, the share of it whose heats and salt are unknown.
 */
export function returnedOf(
  grams: number,
  cup: { heats: number; unknownFraction: number; saltFraction: number; saltUnknownFraction: number },
): Layer[] {
  const layer = (share: number, heats: number | null): Layer => ({
    heats,
    grams: grams * share,
    saltG: grams * share * cup.saltFraction,
    saltUnknownG: grams * share * cup.saltUnknownFraction,
  });
  return [layer(1 - cup.unknownFraction, cup.heats), layer(cup.unknownFraction, null)].filter((one) => one.grams > 0);
}
