import type { Manifold } from 'manifold-3d';
import { most } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { partOf } from './parts.ts';
import type { MoldPart } from './pieces.ts';
import { ml, type Shop } from './shop.ts';

/** A cast box: floor and sides. */
const BOX_MM = 3;
/** Most radius of the humps that register two rubber halves; less than the floor that their dents are cut into. */
const KEY_MM = 2.4;
/** How deep what stands in a box reaches into its floor. */
const ROOTED_MM = 1;
/** Rubber that stays between a hump and what is cast, and between it and the edge. */
const KEY_CLEAR_MM = 0.8;

/** Boxes with a floor at the parting plane and half of everything standing on it, to pour silicone into. */
export function boxes(shop: Shop, plan: Arranged, wish: MoldWish, voids: Manifold) {
  const { low, high, min, max } = plan;
  // Humps stand in the middle of the wall; where it is too thin for any, the rubber halves are set by their edges.
  const radius = Math.min(KEY_MM, wish.wallMm / 2 - KEY_CLEAR_MM);
  const inset = wish.wallMm / 2;
  const keyed: [number, number][] =
    radius > 0.3
      ? [
          [low[0] + inset, low[1] + inset],
          [high[0] - inset, high[1] - inset],
        ]
      : [];
  /** @param over the half that is cast lying on its back: all of it mirrored, so that the two halves meet as they were. */
  const made = (name: MoldPart['name'], standing: Manifold, deep: number, over: boolean) => {
    const way = (y: number) => (over ? -y : y);
    const [y0, y1] = [Math.min(way(low[1]), way(high[1])), Math.max(way(low[1]), way(high[1]))];
    const tall = deep + wish.wallMm;
    const outer = shop.box([low[0] - BOX_MM, y0 - BOX_MM, -BOX_MM], [high[0] + BOX_MM, y1 + BOX_MM, tall]);
    const room = shop.box([low[0], y0, 0], [high[0], y1, tall + 1]);
    const balls = keyed.map(([x, y]) => shop.ball([x, way(y), 0], radius));
    const tray = shop.less(outer, [room]);
    // Humps in one box make dents in its rubber; the other box has dents, whose rubber fills them.
    const whole = over ? shop.less(shop.all([tray, standing]), balls) : shop.all([tray, standing, ...balls]);
    const clipped = shop.both([whole, outer]);
    const filled = shop.box([low[0], y0, 0], [high[0], y1, tall]);
    // What fills the dents is rubber too.
    const rubber = shop.less(over ? shop.all([filled, ...balls]) : filled, [clipped]);
    return { part: partOf(name, clipped), rubberMl: ml(rubber) };
  };
  // Rooted in the floor, so that no two faces of a union fall together.
  const above = shop.beyond(voids, [0, 0, 1], -ROOTED_MM);
  const flipped = shop.keep(voids.rotate([180, 0, 0]));
  const parts = [made('upper box', above, most(max[2], 0), false)];
  // A flat back needs no second box: the rubber is poured over it.
  if (min[2] < -0.3) parts.push(made('lower box', shop.beyond(flipped, [0, 0, 1], -ROOTED_MM), -min[2], true));
  return { parts: parts.map((one) => one.part), rubberMl: parts.reduce((sum, one) => sum + one.rubberMl, 0) };
}
