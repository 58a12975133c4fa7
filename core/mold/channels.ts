import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { boundsOf, type Mesh, type Vec3 } from '../shape/mesh.ts';
import { Rays } from '../shape/rays.ts';
import { most, SPRUE_CONE_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { endOf } from './ends.ts';
import { type Pose, ROUND, type Shop } from './shop.ts';

const BITE_MM = 0.6;

export interface Gate {
  y: number;
  from: number;
  to: number;
}

/** Where the gate meets the bait: along its nose's own line at the parting plane. */
export function gateAt(cavity: Mesh, min: Vec3, rays: Rays): Gate {
  const nose = endOf(cavity, -1);
  const hit = rays.first([min[0] - 5, nose[1] + 1e-4, 1e-4], [1, 0, 0], false);
  if (!hit)
    throw new Failure(
      'gate-misses',
      'At the parting plane there is no bait behind its nose to fill; choose another pull or plane.',
      'planeMm',
    );
  return { y: nose[1], from: min[0], to: min[0] - 5 + hit.distance + BITE_MM };
}

/** The bore along the bait, seen from the tail: its bottom, its middle and its width, in the bait's axes. */
export function boreOf(mesh: Mesh): { bottom: Vec3; radius: number; end: number } {
  const rays = new Rays(mesh);
  const { min, max } = boundsOf(mesh.positions);
  const [y, z] = [(min[1] + max[1]) / 2 + 1e-4, (min[2] + max[2]) / 2 + 1e-4];
  const hit = rays.first([max[0] + 5, y, z], [-1, 0, 0], false);
  const bottom = max[0] + 5 - (hit?.distance ?? 0);
  const wall = rays.first([max[0] - 1, y, z], [0, 1, 0], false);
  if (!hit || bottom > max[0] - 2 || !wall)
    throw new Failure('no-bore', 'A core rod needs a bait with a bore that is open at the tail.', 'coreRodMm');
  return { bottom: [bottom, y, z], radius: wall.distance, end: max[0] };
}

/** How far a plug reaches past the bottom of a bore, into the bait. */
const INTO_MM = 0.05;

/** A round plug that fills a bore whatever facets either has: it stands a little into the bait's wall and bottom. */
export function plugOf({ bottom: [x, y, z], end, radius }: ReturnType<typeof boreOf>): [Vec3, number, number] {
  const round = Math.cos(Math.PI / LEAST_FACETS) * Math.cos(Math.PI / ROUND);
  return [[x - INTO_MM, y, z], end - x + INTO_MM, radius / round + 0.02];
}

/** A bore of fewer facets than this is none that a rod goes into. */
const LEAST_FACETS = 12;

/** A round channel in the parting plane, along x or y, its radius growing or shrinking from one end to the other, mm. */
interface Channel {
  from: [x: number, y: number];
  to: [x: number, y: number];
  r0: number;
  r1: number;
}

/** Sprue and runner: from the edge to the head of one cavity, or along the heads of several. */
export function trunkOf({ low, places, runnerTo }: Arranged, wish: MoldWish, gateY: number): Channel[] {
  if (wish.count === 1) {
    const y = gateY + (places[0] as Pose).y;
    return [{ from: [low[0] - 1, y], to: [0, y], r0: wish.sprueMm / 2, r1: wish.gateMm / 2 }];
  }
  const edge = low[1];
  return [
    { from: [0, edge], to: [0, runnerTo], r0: wish.runnerMm / 2, r1: wish.runnerMm / 2 },
    { from: [0, edge - 1], to: [0, edge + SPRUE_CONE_MM], r0: wish.sprueMm / 2, r1: wish.runnerMm / 2 },
  ];
}

/** One cavity's gate in its own axes, and the sprue with its runner; all in the parting plane at the nose. */
export function channelsOf(
  shop: Shop,
  plan: Arranged,
  wish: MoldWish,
  gate: Gate,
): { gate: Manifold; trunk: Manifold[] } {
  const long = gate.to - gate.from + most(3, 1.5 * wish.gateMm) + (wish.count > 1 ? wish.runnerMm / 2 : 1);
  const own = shop.rod('x', [gate.to - long, gate.y, 0], long, wish.gateMm / 2);
  const trunk = trunkOf(plan, wish, gate.y).map(({ from, to, r0, r1 }) =>
    from[0] === to[0]
      ? shop.rod('y', [from[0], from[1], 0], to[1] - from[1], r0, r1)
      : shop.rod('x', [from[0], from[1], 0], to[0] - from[0], r0, r1),
  );
  return { gate: own, trunk: wish.count > 1 ? [...trunk, shop.ball([0, plan.runnerTo, 0], wish.runnerMm / 2)] : trunk };
}
