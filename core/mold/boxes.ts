import type { Manifold } from 'manifold-3d';
import { most } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { partOf } from './parts.ts';
import type { MoldPart } from './pieces.ts';
import { ml, type Shop } from './shop.ts';

/** A cast box: floor and sides. */
const BOX_MM = 3;
/** Radius of the humps that register two rubber halves; less than the floor that their dents are cut into. */
const KEY_MM = 2.4;

/** Boxes with a floor at the parting plane and half of everything standing on it, to pour silicone into. */
export function boxes(shop: Shop, plan: Arranged, wish: MoldWish, voids: Manifold) {
  const { low, high, min, max } = plan;
  const outer = (tall: number) =>
    shop.box([low[0] - BOX_MM, low[1] - BOX_MM, -BOX_MM], [high[0] + BOX_MM, high[1] + BOX_MM, tall]);
  const made = (name: MoldPart['name'], standing: Manifold, deep: number, keys: 'up' | 'down') => {
    const tall = deep + wish.wallMm;
    const room = shop.box([low[0], low[1], 0], [high[0], high[1], tall + 1]);
    const inset = BOX_MM + 4;
    const places: [number, number][] = [
      [low[0] + inset, low[1] + inset],
      [high[0] - inset, high[1] - inset],
    ];
    const balls = places.map(([x, y]) => shop.ball([x, keys === 'down' ? y : low[1] + high[1] - y, 0], KEY_MM));
    const tray = shop.less(outer(tall), [room]);
    // Humps in one box make dents in its rubber; the other box has dents, whose rubber fills them.
    const whole = keys === 'up' ? shop.all([tray, standing, ...balls]) : shop.less(shop.all([tray, standing]), balls);
    const clipped = shop.both([whole, outer(tall)]);
    const filled = shop.box([low[0], low[1], 0], [high[0], high[1], tall]);
    // What fills the dents is rubber too.
    const rubber = shop.less(keys === 'down' ? shop.all([filled, ...balls]) : filled, [clipped]);
    return { part: partOf(name, clipped), rubberMl: ml(rubber) };
  };
  const above = shop.beyond(voids, [0, 0, 1], 0);
  const flipped = shop.keep(voids.rotate([180, 0, 0]));
  const parts = [made('upper box', above, most(max[2], 0), 'up')];
  // A flat back needs no second box: the rubber is poured over it.
  if (min[2] < -0.3) parts.push(made('lower box', shop.beyond(flipped, [0, 0, 1], 0), -min[2], 'down'));
  return { parts: parts.map((one) => one.part), rubberMl: parts.reduce((sum, one) => sum + one.rubberMl, 0) };
}
