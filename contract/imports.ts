import * as v from 'valibot';
import { LINE_MOST, LINES_MOST } from '../core/plan/orderBounds.ts';
import { called, count, day, money, name, note, ownId, rowId } from './fields.ts';
import { MORE_THAN_A_LINE } from './orders.ts';

const at = v.pipe(v.number(), v.integer(), v.minValue(0));
/** Of a table with thousands of lines: bait and colour by their place in the lists, packs, baits to a pack, price. */
const line = v.pipe(
  v.tuple([at, at, count(1, LINE_MOST.packs), count(1, LINE_MOST.perPack), v.nullable(money)]),
  v.check(([, , packs, perPack]) => packs * perPack <= LINE_MOST.baits, MORE_THAN_A_LINE),
);

/** A file of orders as it was matched; all of it comes in, or nothing does. */
export const importBody = v.strictObject({
  id: ownId,
  name: called(name, 'File'),
  baitIds: v.pipe(v.array(rowId), v.maxLength(2000)),
  colourwayIds: v.pipe(v.array(rowId), v.maxLength(2000)),
  orders: v.pipe(
    v.array(
      v.strictObject({
        customerId: v.nullable(rowId),
        newCustomer: v.nullable(name),
        dueOn: day,
        notes: note,
        lines: v.pipe(v.array(line), v.minLength(1), v.maxLength(LINES_MOST)),
      }),
    ),
    v.minLength(1, 'holds no order that could be matched'),
    v.maxLength(10_000),
  ),
  /** Rows that nobody could match: kept with the file, word for word. */
  leftOver: v.pipe(
    v.array(
      v.strictObject({
        row: count(1, 1e7),
        cells: v.pipe(v.array(v.pipe(v.string(), v.maxLength(500))), v.maxLength(100)),
        why: v.pipe(v.string(), v.maxLength(500)),
      }),
    ),
    v.maxLength(10_000),
  ),
});
export type ImportBody = v.InferInput<typeof importBody>;

export interface OrderImport {
  id: string;
  name: string;
  at: string;
  takenBackAt: string | null;
  /** Orders that came of it. */
  orders: { id: string; code: string }[];
  leftOver: { row: number; cells: string[]; why: string }[];
}
