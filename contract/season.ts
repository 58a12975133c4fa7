import * as v from 'valibot';
import { LINE_MOST } from '../core/plan/orderBounds.ts';
import { type BaitInColour, called, count, day, ownId, rowId } from './fields.ts';

export const seasonQuery = v.strictObject({ weeks: v.optional(v.pipe(v.string(), v.regex(/^\d{1,2}$/)), '12') });

/** So many are to lie on the rack by that day, beyond what is ordered. */
export const wishBody = v.strictObject({
  id: ownId,
  baitId: rowId,
  colourwayId: rowId,
  baits: count(1, LINE_MOST.baits),
  dueOn: called(day, 'By'),
});

export interface StockWish extends BaitInColour {
  id: string;
  baits: number;
  dueOn: string;
}

export interface SeasonRow extends BaitInColour {
  shape: string;
  /** Baits that were ordered in these weeks of each earlier year on record, the latest first. */
  sold: number[];
  /** Ordered for these weeks already. */
  ordered: number;
  /** On the rack, beyond all that is ordered. */
  free: number;
  wished: number;
}

export interface Season {
  from: string;
  to: string;
  rows: SeasonRow[];
  /** On the rack, and nobody ordered it for a year. */
  dead: (BaitInColour & { baits: number; lastOn: string | null })[];
  wishes: StockWish[];
}
