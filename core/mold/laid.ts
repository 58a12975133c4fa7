import type { Vec3 } from '../shape/mesh.ts';
import type { Place } from './shop.ts';

/** Where everything lies in the mold's own axes; the runner along y at x = 0. */
export interface LayOut {
  low: Vec3;
  high: Vec3;
  places: Place[];
  /** Where along y the runner ends. */
  runnerTo: number;
  /** Bounds of one cavity in its own axes. */
  min: Vec3;
  max: Vec3;
}
