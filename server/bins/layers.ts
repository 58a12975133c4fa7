import type { Layer } from '../../core/plastisol/bin.ts';

/** Columns of what a layer does to light, as sums that add up. */
export const COLOUR_SUMS = ['colour_g', 'k_r', 'k_g', 'k_b', 's_r', 's_g', 's_b'] as const;

/** SQL: all that adds up of rows that are layers. */
export const SUMS = ['grams', 'salt_g', 'salt_unknown_g', ...COLOUR_SUMS]
  .map((column) => `sum(${column}) AS ${column}`)
  .join(', ');

/** A layer as its row tells it. */
export interface LayerRow extends Omit<Layer, 'colour'> {
  colourG: number;
  kR: number;
  kG: number;
  kB: number;
  sR: number;
  sG: number;
  sB: number;
}

export const asLayer = ({ colourG, kR, kG, kB, sR, sG, sB, ...layer }: LayerRow): Layer =>
  colourG === 0 && kR === 0 && sR === 0
    ? layer
    : { ...layer, colour: { g: colourG, k: [kR, kG, kB], s: [sR, sG, sB] } };

export function asRow({ colour, ...layer }: Layer): Omit<Layer, 'colour'> | LayerRow {
  if (!colour) return layer;
  const [kR, kG, kB] = colour.k;
  const [sR, sG, sB] = colour.s;
  return { ...layer, colourG: colour.g, kR, kG, kB, sR, sG, sB };
}
