import { GROUNDS, type GroundId, lightOver } from '../../../core/colour/grounds.ts';
import type { Part, Seams } from '../../../core/colour/layered.ts';
import { tintsOf } from '../../../core/colour/solidSeen.ts';
import type { Inward } from '../../../core/shape/inward.ts';

/** What each triangle shows over a ground, in that ground's own light. */
export function tintsIn(
  inward: Inward,
  { parts, seams }: { parts: Part[]; seams: Seams },
  ground: GroundId,
): Float32Array {
  const light = lightOver(ground);
  return tintsOf(inward, parts, seams, [...GROUNDS[ground].linear]).map((one, i) =>
    Math.min(1, one * (light[i % 3] as number)),
  );
}
