import type { Vec3 } from '../shape/mesh.ts';
import type { Pose } from './shop.ts';

/** Where everything lies in the mold's own axes; the runner along y at x = 0. */
export interface Arranged {
  low: Vec3;
  high: Vec3;
  places: Pose[];
  /** Where along y the runner ends. */
  runnerTo: number;
  /** Bounds of one cavity in its own axes. */
  min: Vec3;
  max: Vec3;
}
