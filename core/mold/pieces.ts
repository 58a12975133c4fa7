import type { Mesh } from '../shape/mesh.ts';

/** One piece of a mold, in the mold's own axes: z along the pull, the parting plane at 0. */
export interface MoldPart {
  name:
    | 'lower half'
    | 'upper half'
    | 'lower left'
    | 'lower right'
    | 'upper left'
    | 'upper right'
    | 'lower box'
    | 'upper box'
    | 'core rod'
    | 'slot insert'
    | 'lower electrode'
    | 'upper electrode';
  mesh: Mesh;
  volumeMl: number;
  areaMm2: number;
  /** How many of it the mold takes. */
  count?: number;
}
