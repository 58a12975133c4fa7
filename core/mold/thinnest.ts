import type { Rays } from '../shape/rays.ts';
import { type Corner, PIN_EDGE_MM, PIN_OFF_MM } from './arrange.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { trunkOf } from './channels.ts';

/** The thinnest wall of a planned mold and between what it stands, mm. */
export function thinnestOf(
  plan: Arranged,
  wish: MoldWish,
  rays: Rays,
  corners: Corner[],
  gateY: number,
): { mm: number; where: string } {
  const walls: { mm: number; where: string }[] = [{ mm: wish.wallMm, where: 'round the cavities' }];
  if (wish.count > 1) walls.push({ mm: wish.gapMm, where: 'between cavities' });
  if (wish.kind !== 'silicone-box') {
    const radius = wish.pins.diameterMm / 2 + wish.pins.clearanceMm;
    const deep = Math.min(-plan.low[2], plan.high[2]);
    const widest = Math.max(wish.sprueMm, wish.count > 1 ? wish.runnerMm : 0) / 2;
    walls.push({ mm: deep - widest, where: 'over the sprue or runner' });
    walls.push({ mm: PIN_EDGE_MM - PIN_OFF_MM - wish.pins.clearanceMm, where: 'outside a pin' });
    for (const [x, y] of corners) {
      for (const { from, to, r0, r1 } of trunkOf(plan, wish, gateY)) {
        // A pin stands up, a channel lies: the narrowest place between them is level with the channel's middle.
        const [long, along] = [to[0] - from[0] || to[1] - from[1], from[0] === to[0] ? y - from[1] : x - from[0]];
        const share = along / long;
        if (share < 0 || share > 1) continue;
        const aside = from[0] === to[0] ? Math.abs(x - from[0]) : Math.abs(y - from[1]);
        const slope = Math.cos(Math.atan((r1 - r0) / long));
        walls.push({
          mm: (aside - r0 - (r1 - r0) * share) * slope - radius,
          where: 'between a pin and the sprue or runner',
        });
      }
      for (const place of plan.places) {
        const way = place.turned ? -1 : 1;
        const near = rays.nearest([way * (x - place.x), way * (y - place.y), 0]);
        if (near) walls.push({ mm: near.distance - radius, where: 'between a pin and a cavity' });
      }
    }
  }
  return walls.reduce((a, b) => (b.mm < a.mm ? b : a));
}
