import * as v from 'valibot';
import { LINE_MOST } from '../core/plan/orderBounds.ts';
import { called, count, hex, name, rowId, type Versioned } from './fields.ts';

/** Ordered by a theme and no colour: it is proposed, shown and approved before it is poured. */
export const tasteBody = v.strictObject({
  baitId: rowId,
  theme: called(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(300)), 'What it is to be like'),
  packs: count(1, LINE_MOST.packs),
  perPack: called(count(1, LINE_MOST.perPack), 'To a pack'),
});

const proposal = v.variant('from', [
  v.strictObject({ from: v.literal('book'), recipeId: rowId }),
  v.strictObject({
    from: v.literal('store'),
    hex,
    basisMl: v.pipe(v.number(), v.gtValue(0), v.maxValue(20000)),
    items: v.pipe(
      v.array(
        v.strictObject({
          materialId: rowId,
          amount: v.pipe(v.number(), v.gtValue(0), v.maxValue(100000)),
          unit: v.pipe(v.string(), v.minLength(1), v.maxLength(40)),
        }),
      ),
      v.minLength(1),
      v.maxLength(10),
    ),
  }),
]);
export const proposalsBody = v.strictObject({ proposals: v.pipe(v.array(proposal), v.minLength(1), v.maxLength(3)) });
export type Proposal = v.InferOutput<typeof proposal>;

export const approveBody = v.strictObject({
  proposal: count(0, 2),
  /** What the new colour is called; of one of the book its own name stays. */
  name: v.optional(called(name, 'Name of the new colour')),
});
export const tastePatch = v.strictObject({ away: v.boolean() });

export interface TasteWish extends Versioned {
  orderId: string;
  baitId: string;
  baitName: string;
  theme: string;
  packs: number;
  perPack: number;
  /** None yet: it was not proposed. */
  proposals: Proposal[];
  /** Approved: the line that came of it. */
  orderLineId: string | null;
  awayAt: string | null;
  photos: number;
}
