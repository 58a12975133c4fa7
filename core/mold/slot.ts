import type { Manifold } from 'manifold-3d';
import { Failure } from '../failure.ts';
import { mm, say } from '../units/say.ts';
import type { Arranged } from './arranged.ts';
import type { MoldWish } from './buildWish.ts';
import { ml, type Shop } from './shop.ts';

type Slot = NonNullable<MoldWish['hookSlot']>;

/** What stands round the blade in the insert's body, along and across. */
const ROUND_MM = 4;
/** What the hole is wider than the insert, a side: it slides in by hand. */
export const SLOT_FIT_MM = 0.05;
const LEAST_BODY_MM = 4;
/** Of a new slot's room, so much is bait; less, and there is a slot already. */
const LEAST_FILLED = 0.5;
/** An M3 grub screw: core hole to be tapped, how long it holds, and the hole to reach it through. */
export const SCREW_MM = { core: 2.5, long: 8, access: 4 } as const;
/** What stays between its way and the outside, and between it and the bait. */
const SCREW_EDGE_MM = 3.5;
const SCREW_UNDER_MM = 1.2;

/** An insert that makes the hook slot, or none when it is turned over; all in one cavity's own axes. */
export interface SlotInsert {
  insert: Manifold;
  /** What is cut out of the lower half for it, from the outside to the cavity. */
  hole: Manifold;
  blade: Manifold;
  /** A way for a grub screw from the tail's end of the block, wide to get at it, narrow where it holds. */
  screw: Manifold;
}

/**
 * Its upper end carries the bait's own skin and the blade, its lower end the same skin without one: turned over about its
 * length, the mold casts no slot. The blade then lies in the room that the hole leaves under it.
 * A grub screw on its flank holds it either way up.
 * @throws Failure `does-not-fit` when the slot lies off the bait or where one is already, or the half is too thin to hold the insert.
 */
export function slotInsert(shop: Shop, cavity: Manifold, plan: Arranged, slot: Slot, yMm: number): SlotInsert {
  const { min, max, low, high } = plan;
  const [x0, x1] = [min[0] + slot.fromNoseMm, min[0] + slot.fromNoseMm + slot.lengthMm];
  if (x1 > max[0])
    throw new Failure(
      'does-not-fit',
      'The hook slot runs past the tail; make it shorter or begin it nearer the nose.',
      'hookSlot',
    );
  const half = slot.widthMm / 2 + ROUND_MM / 2;
  const column = (more: number, toZ: number) =>
    shop.box([x0 - ROUND_MM / 2 - more, yMm - half - more, low[2]], [x1 + ROUND_MM / 2 + more, yMm + half + more, toZ]);
  // The skin over the insert: from its lowest to its highest place.
  const skin = shop.both([column(0, max[2]), cavity]);
  if (skin.isEmpty()) throw new Failure('does-not-fit', 'The hook slot lies beside the bait.', 'hookSlot');
  const lowest = skin.boundingBox().min[2];
  const edge = shop.both([shop.less(column(0, 0), [cavity]), column(0, 0)]);
  const highest = Math.min(0, edge.boundingBox().max[2]);
  const bottom = low[2] + slot.depthMm + 1;
  if (lowest - bottom < LEAST_BODY_MM)
    throw new Failure(
      'does-not-fit',
      say`The half under the slot is too thin for its insert; a wall of ${mm(Math.ceil(LEAST_BODY_MM + slot.depthMm + 1))} or a shallower slot mends it.`,
      'wallMm',
    );
  if (lowest + slot.depthMm > max[2] - 0.5)
    throw new Failure('does-not-fit', 'The hook slot would cut the bait in two; make it shallower.', 'hookSlot');
  const inBait = shop.box([x0, yMm - slot.widthMm / 2, lowest], [x1, yMm + slot.widthMm / 2, lowest + slot.depthMm]);
  if (ml(shop.both([inBait, cavity])) < LEAST_FILLED * ml(inBait))
    throw new Failure('does-not-fit', 'The bait has a slot there already: leave its own out, or this one.', 'hookSlot');
  const screwAt = Math.max(low[2] + SCREW_EDGE_MM, bottom + SCREW_MM.access / 2);
  if (lowest - screwAt < SCREW_MM.access / 2 + SCREW_UNDER_MM)
    throw new Failure(
      'does-not-fit',
      say`The half under the bait is too thin for the insert’s screw; a wall of ${mm(Math.ceil(screwAt - low[2] + SCREW_MM.access / 2 + SCREW_UNDER_MM + 1))} or a shallower slot mends it.`,
      'wallMm',
    );
  const body = shop.less(column(0, highest), [cavity]);
  // Turned over about its length, so that the same skin comes to lie at the other end.
  const middle = (bottom + highest) / 2;
  const over = shop.moved(shop.keep(shop.moved(body, [0, -yMm, -middle]).rotate([180, 0, 0])), [0, yMm, middle]);
  const blade = shop.box(
    [x0, yMm - slot.widthMm / 2, lowest - 1.5],
    [x1, yMm + slot.widthMm / 2, lowest + slot.depthMm],
  );
  return {
    insert: shop.all([shop.both([body, over]), blade]),
    hole: column(SLOT_FIT_MM, highest + SLOT_FIT_MM),
    blade,
    screw: shop.all([
      shop.rod('x', [x1, yMm, screwAt], SCREW_MM.long + ROUND_MM + 0.5, SCREW_MM.core / 2),
      shop.rod('x', [x1 + ROUND_MM / 2 + SCREW_MM.long, yMm, screwAt], high[0] - low[0], SCREW_MM.access / 2),
    ]),
  };
}
