import { USUAL_SHORE } from '../plastisol/hardness.ts';
import type { Vec3 } from '../shape/mesh.ts';

/** Which end of the bait is up while it is poured. */
export const WAYS_UP = {
  back: [0, 0, 1],
  belly: [0, 0, -1],
  nose: [-1, 0, 0],
  tail: [1, 0, 0],
  side: [0, 1, 0],
} satisfies Record<string, Vec3>;
export type WayUp = keyof typeof WAYS_UP;

export interface DrawnHook {
  eyeXMm: number;
  shankZMm: number;
  shankMm: number;
  gapMm: number;
  eyeMm: number;
  wireMm: number;
  pointShare: number;
}

/** Seen from above a bait covers about this much of its length × width, and hangs about that far behind its nose. */
const PLAN_SHARE = 0.7;
const MIDDLE_SHARE = 0.45;

/** A bait in water as far as its record tells: from its mesh, its size, or only the plastic it takes. Lengths mm. */
export function roughBait(
  size: { lengthMm: number; widthMm: number; mesh?: { centroidMm: readonly number[] | null } | null } | undefined,
  wholeMl: number,
): { centroidMm: Vec3 | null; planAreaMm2: number } {
  // A ball's shadow, twice over: a bait is longer than it is thick.
  if (!size) return { centroidMm: null, planAreaMm2: 200 * wholeMl ** (2 / 3) };
  const [x, y = 0, z = 0] = size.mesh?.centroidMm ?? [MIDDLE_SHARE * size.lengthMm];
  return { centroidMm: [x as number, y, z], planAreaMm2: size.lengthMm * size.widthMm * PLAN_SHARE };
}

/** How far a mold is propped at most, degrees. */
export const CONE_DEG = 30;

/** What the judging assumes besides the shape: all of it can be changed beside it. */
export interface Assumed {
  scale: '00' | 'A';
  hardness: number;
  saltGPerCup: number;
  sea: boolean;
  hookMassG: number;
  hook: Omit<DrawnHook, 'pointShare'>;
  withHook: boolean;
  wantedMmPerS: number;
  ballMm: number;
  baitsWanted: number;
  /** Null: as computed for an open face. */
  waitMin: number | null;
  wayUp: WayUp;
}

export const ASSUMED: Assumed = {
  scale: '00',
  hardness: USUAL_SHORE['00'],
  saltGPerCup: 0,
  sea: true,
  hookMassG: 2.1,
  hook: { eyeXMm: 2, shankZMm: 0, shankMm: 44, gapMm: 12, eyeMm: 3.2, wireMm: 1.1 },
  withHook: false,
  wantedMmPerS: 60,
  ballMm: 3,
  baitsWanted: 40,
  waitMin: null,
  wayUp: 'back',
};

/** How far a hook's point lies behind its bend, as a share of the shank: workshop practice, to be measured. */
export const POINT_SHARE = 0.4;
