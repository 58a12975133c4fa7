import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { airTraps, terrainOf } from '../shape/airTraps.ts';
import type { Mesh, Vec3 } from '../shape/mesh.ts';
import type { Rays } from '../shape/rays.ts';
import { mm, say } from '../units/say.ts';
import { type Corner, PIN_CLEAR_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { endOf } from './ends.ts';
import type { Pose, Shop } from './shop.ts';
import type { Split } from './split.ts';

/** Depth of a vent scratched into the parting face: air leaves, plastisol sets in it. */
export const GROOVE_MM = 0.2;
const MOST_HOLES = 24;
/** The least metal or print that stays between a vent and anything else that is cut. */
const VENT_CLEAR_MM = 1;

export interface Vent {
  atMm: Vec3;
  kind: 'groove' | 'hole';
  /** A hole over the tip of a blind end: it is bored into it from behind, towards the nose. */
  back?: boolean;
  /** A hole set by hand: just there. */
  here?: boolean;
}

/** A tip this near to where the seam leaves the bait is vented along it, mm. */
const AT_SEAM_MM = 2;

/**
 * Where one cavity is vented, in its own axes: a scratch along the seam from each blind end that the seam reaches, tail, claw or
 * limb, and a hole up or down from every other one and from wherever else air stays with the nose up.
 */
export function ventsOf(
  cavity: Mesh,
  rays: Rays,
  { max }: Arranged,
  split: Split,
  notes: string[],
  rod: { y: number; radiusMm: number } | null,
): Vent[] {
  const terrain = terrainOf(cavity);
  const groove = (y: number): Vent | null => {
    const level = split.at(max[0]);
    const end = rays.first([max[0] + 5, y + 1e-4, level + 1e-4], [-1, 0, 0], false);
    return end ? { atMm: [max[0] + 5 - end.distance, y, level], kind: 'groove' } : null;
  };
  const grooves: Vent[] = [];
  const holes: Vent[] = [];
  const y = rod ? besideRod(rays, max, split.at(max[0]), rod) : endOf(cavity, 1)[1];
  const tail = y === null ? null : groove(y);
  if (tail) grooves.push(tail);
  // With the tail up air would stand in every blind end.
  const tips = rod ? [] : airTraps(terrain, [1, 0, 0]);
  for (const { pointMm } of tips) {
    const own = groove(pointMm[1]);
    const reached = own !== null && Math.abs(own.atMm[0] - pointMm[0]) < AT_SEAM_MM;
    if (reached && grooves.some((other) => Math.abs(other.atMm[1] - pointMm[1]) < 1)) continue;
    // The seam met something else there, or nothing: a claw's gap is no end of the tail.
    if (reached) grooves.push(own);
    else if (Math.abs(pointMm[0] - max[0]) > AT_SEAM_MM || grooves.length === 0)
      holes.push({ atMm: pointMm, kind: 'hole', back: true });
  }
  const ends = grooves.filter(
    ({ atMm }) => tips.length === 0 || tips.some((tip) => Math.abs(tip.pointMm[0] - atMm[0]) < AT_SEAM_MM),
  );
  const kept = ends.length > 0 ? ends : grooves;
  if (kept.length === 0 && holes.length === 0)
    notes.push('The tail’s tip lies off the parting plane: it has no vent of its own.');
  for (const { pointMm, pour } of airTraps(terrain, [-1, 0, 0])) if (!pour) holes.push({ atMm: pointMm, kind: 'hole' });
  if (holes.length > MOST_HOLES)
    notes.push(`${holes.length} places keep air: only the ${MOST_HOLES} largest are vented.`);
  return [...kept, ...holes.slice(0, MOST_HOLES)];
}

/** As near as a vent by hand has to be to the cavity: thin tips are easily missed, mm. */
const NEAR_MM = 2;

/**
 * Vents where a maker wants them. A groove runs along the seam from where the bait ends on that line, a hole up or down from
 * whichever half's surface lies there.
 * @throws Failure `does-not-fit` for one that meets no cavity.
 */
export function ventsByHand(
  wanted: NonNullable<MoldWish['ventsAt']>,
  rays: Rays,
  { min, max }: Arranged,
  split: Split,
  gateY: number,
): Vent[] {
  return wanted.map(({ kind, fromNoseMm, asideMm }, i): Vent => {
    const [x, y] = [min[0] + fromNoseMm, gateY + asideMm];
    const tries = [0, 0.5, -0.5, 1, -1, 1.5, -1.5, NEAR_MM, -NEAR_MM];
    for (const off of tries) {
      if (kind === 'groove') {
        const level = split.at(max[0]);
        const end = rays.first([max[0] + 5, y + off + 1e-4, level + 1e-4], [-1, 0, 0], false);
        if (end) return { atMm: [max[0] + 5 - end.distance, y + off, level], kind };
        continue;
      }
      for (const along of tries) {
        const [px, py] = [x + along + 1e-4, y + off + 1e-4];
        const top = rays.first([px, py, max[2] + 5], [0, 0, -1], false);
        const under = rays.first([px, py, min[2] - 5], [0, 0, 1], false);
        if (!top || !under) continue;
        const [high, low] = [max[2] + 5 - top.distance, min[2] - 5 + under.distance];
        // Out of the half that has more of the bait there.
        return { atMm: [px, py, high - split.at(px) >= split.at(px) - low ? high : low], kind, here: true };
      }
    }
    throw new Failure(
      'does-not-fit',
      say`No cavity lies where vent ${i + 1} is set, ${mm(fromNoseMm)} from the nose; move it onto the bait.`,
      `ventsAt.${i}`,
    );
  });
}

/** The middle of what stands beside a rod at the tail: a vent over the rod itself would let out nothing. */
function besideRod(rays: Rays, max: Vec3, level: number, rod: { y: number; radiusMm: number }): number | null {
  const skin = rays.first([max[0] - 0.3, max[1] + 5, level + 1e-4], [0, -1, 0], false);
  const outer = skin && max[1] + 5 - skin.distance;
  return outer !== null && outer !== undefined && outer > rod.y + rod.radiusMm
    ? (rod.y + rod.radiusMm + outer) / 2
    : null;
}

const placed = ([x, y]: readonly number[], place: Pose): [number, number] =>
  place.turned
    ? [place.x - (x as number), place.y - (y as number)]
    : [place.x + (x as number), place.y + (y as number)];

/** A vent that would open into a pin, or a hole into the next cavity, is said before it is cut. */
export function ventsMustHold(vents: Vent[], plan: Arranged, wish: MoldWish, corners: Corner[]): void {
  const radius = wish.ventMm / 2;
  const pin = wish.pins.diameterMm / 2 + wish.pins.clearanceMm + PIN_CLEAR_MM;
  for (const place of plan.places)
    for (const { atMm, kind } of vents) {
      const [x, y] = placed(atMm, place);
      const toPin = least(
        corners.map(([cx, cy]) => {
          const on = kind === 'groove' && (place.turned ? cx <= x : cx >= x);
          return Math.hypot(on ? 0 : cx - x, cy - y);
        }),
      );
      if (toPin < radius + pin)
        throw new Failure(
          'breaks-through',
          say`A vent of ${mm(wish.ventMm)} would break through into a pin; ${room(toPin - pin)} or a thinner pin mends it.`,
          'ventMm',
        );
      if (kind === 'groove') continue;
      for (const other of plan.places) {
        if (other === place) continue;
        const gap = Math.abs(y - (placed([0, (plan.min[1] + plan.max[1]) / 2], other)[1] as number));
        const clear = gap - (plan.max[1] - plan.min[1]) / 2;
        if (other.turned === place.turned && clear < radius + VENT_CLEAR_MM)
          throw new Failure(
            'breaks-through',
            say`A vent of ${mm(wish.ventMm)} would break through into the next cavity; ${room(clear - VENT_CLEAR_MM)} or a wider gap mends it.`,
            'ventMm',
          );
      }
    }
}

const least = (values: number[]) => Math.min(...values);
const room = (radiusMm: number) =>
  radiusMm > 0.1 ? say`${mm(Math.floor(20 * radiusMm + 1e-6) / 10)} at most` : say`no vent there`;

/** The vents of one cavity, long enough to leave the block wherever the cavity lies. */
export function ventSolids(
  shop: Shop,
  vents: Vent[],
  { low, high, max }: Arranged,
  wish: MoldWish,
  split: Split,
): Manifold[] {
  const radius = wish.ventMm / 2;
  const reach = high[0] - low[0];
  return vents.map(({ atMm: [x, y, z], kind, back, here }) => {
    if (kind === 'groove') return shop.box([x - 0.5, y - radius, z], [max[0] + reach, y + radius, z + GROOVE_MM]);
    const up = z >= split.at(x);
    const from: Vec3 = [here ? x : back ? x - radius : x + radius, y, up ? z - 0.3 : low[2] - 1];
    return shop.rod('z', from, up ? high[2] - from[2] + 1 : z + 0.3 - from[2], radius);
  });
}
