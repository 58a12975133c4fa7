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
    | 'dowel'
    | 'lower electrode'
    | 'upper electrode'
    | 'lower roughing electrode'
    | 'upper roughing electrode';
  mesh: Mesh;
  volumeMl: number;
  areaMm2: number;
  /** How many of it the mold takes. */
  count?: number;
}

/** Whether a part is a piece of the mold itself, printed or cut, and not steel or graphite that goes with it. */
export const isPiece = (name: MoldPart['name']): boolean => !/rod|insert|electrode|dowel/.test(name);
