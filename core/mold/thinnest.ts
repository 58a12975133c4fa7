import type { Rays } from '../shape/rays.ts';
import { type Corner, PIN_EDGE_MM, PIN_OFF_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';

/** The thinnest wall of a planned mold and between what it stands, mm. */
export function thinnestOf(
  plan: Arranged,
  wish: MoldWish,
  rays: Rays,
  corners: Corner[],
): { mm: number; where: string } {
  const walls: { mm: number; where: string }[] = [{ mm: wish.wallMm, where: 'round the cavities' }];
  if (wish.count > 1) walls.push({ mm: wish.gapMm, where: 'between cavities' });
  if (wish.kind !== 'silicone-box') {
    const radius = wish.pins.diameterMm / 2 + wish.pins.clearanceMm;
    walls.push({ mm: PIN_EDGE_MM - PIN_OFF_MM - wish.pins.clearanceMm, where: 'outside a pin' });
    for (const [x, y] of corners)
      for (const place of plan.places) {
        const way = place.turned ? -1 : 1;
        const near = rays.nearest([way * (x - place.x), way * (y - place.y), 0]);
        if (near) walls.push({ mm: near.distance - radius, where: 'between a pin and a cavity' });
      }
  }
  return walls.reduce((a, b) => (b.mm < a.mm ? b : a));
}
