import type { Manifold } from 'manifold-3d';
import { meshOf } from '../shape/solids.ts';
import type { MoldPart } from './pieces.ts';
import { ml } from './shop.ts';

/** A finished solid as a part of its mold. */
export const partOf = (name: MoldPart['name'], solid: Manifold): MoldPart => ({
  name,
  mesh: meshOf(solid),
  volumeMl: ml(solid),
  areaMm2: solid.surfaceArea(),
});
