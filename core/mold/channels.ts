import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { boundsOf, type Mesh, type Vec3 } from '../shape/mesh.ts';
import { Rays } from '../shape/rays.ts';
import { most, SPRUE_CONE_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import type { Pose, Shop } from './shop.ts';

const BITE_MM = 0.6;

/** The middle of what lies at the nose's end (−1) or the tail's (1): a flat end has no tip. */
export function endOf({ positions: p }: Mesh, way: 1 | -1): Vec3 {
  let x = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < p.length; i += 3) x = most(x, way * (p[i] as number));
  const near = (i: number) => way * (p[i] as number) > x - 0.3;
  const middle = (k: 1 | 2) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < p.length; i += 3) {
      if (!near(i)) continue;
      low = Math.min(low, p[i + k] as number);
      high = most(high, p[i + k] as number);
    }
    return (low + high) / 2;
  };
  return [way * x, middle(1), middle(2)];
}

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

/** One cavity's gate in its own axes, and the sprue with its runner; all in the parting plane at the nose. */
export function channelsOf(
  shop: Shop,
  plan: Arranged,
  wish: MoldWish,
  gate: Gate,
): { gate: Manifold; trunk: Manifold[] } {
  const { low, places, runnerTo } = plan;
  const long = gate.to - gate.from + most(3, 1.5 * wish.gateMm) + (wish.count > 1 ? wish.runnerMm / 2 : 1);
  const own = shop.rod('x', [gate.to - long, gate.y, 0], long, wish.gateMm / 2);
  if (wish.count === 1) {
    const y = gate.y + (places[0] as Pose).y;
    return { gate: own, trunk: [shop.rod('x', [low[0] - 1, y, 0], -low[0] + 1, wish.sprueMm / 2, wish.gateMm / 2)] };
  }
  const edge = low[1];
  return {
    gate: own,
    trunk: [
      shop.rod('y', [0, edge, 0], runnerTo - edge, wish.runnerMm / 2),
      shop.ball([0, runnerTo, 0], wish.runnerMm / 2),
      shop.rod('y', [0, edge - 1, 0], SPRUE_CONE_MM + 1, wish.sprueMm / 2, wish.runnerMm / 2),
    ],
  };
}
