import type { MaterialKind } from '../../../contract/materials.ts';
import { isCounted, piecesText } from '../../../core/units/counted.ts';
import type { Taste } from '../../parts/taste.tsx';

export const KIND_TITLES: Record<MaterialKind, string> = {
  plastisol: 'Plastisol',
  softener: 'Softener',
  hardener: 'Hardener',
  stabilizer: 'Heat stabilizer',
  colourant: 'Colourants',
  powder: 'Powders and pearls',
  flake: 'Flake',
  salt: 'Salt',
  silicone: 'Mold rubber',
  oil: 'Oil and scent',
  eyes: 'Eyes',
  bags: 'Bags',
  labels: 'Labels',
};

/** What is left of a material: a mass, or pieces of what is counted. */
export const held = (kind: MaterialKind, amount: number, text: Taste['text']) =>
  isCounted(kind) ? piecesText(amount) : text(amount, 'mass');
