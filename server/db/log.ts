import { Failure } from '../../core/failure.ts';
import { newId } from '../ids.ts';
import type { Db } from './open.ts';
import { insert, mustFind, type Row } from './rows.ts';

/** Tables whose rows are only added; a mistake is taken back by a row that names it. */
export type Log =
  | 'dose'
  | 'heat'
  | 'shot'
  | 'layer_redo'
  | 'hardness_reading'
  | 'mold_weighing'
  | 'dip_reading'
  | 'spark_run'
  | 'water_test'
  | 'ladder_trial'
  | 'stock_move'
  | 'bin_move'
  | 'part_weighing'
  | 'colour_step'
  | 'colour_look'
  | 'bin_puck'
  | 'stir'
  | 'burst'
  | 'bench_tick'
  | 'bait_weighing'
  | 'complaint';

/**
 * SQL for the rows of a log that count: no reversals, nothing taken back. Its one home.
 * The unary plus keeps the planner off the index on `reverses`, which would list every row that reverses nothing.
 * @param alias what the query calls the log.
 */
export const standing = (log: Log, alias: string) =>
  `(+${alias}.reverses IS NULL AND NOT EXISTS (SELECT 1 FROM ${log} back WHERE back.reverses = ${alias}.id))`;

interface TakeBack {
  /** The row that was a mistake. */
  id: string;
  /** The id of the reversing row, where the screen chose it. */
  own?: string | undefined;
  at: string;
  /** What the reversing row says otherwise. */
  change?: ((row: Row) => Row) | undefined;
}

/**
 * Takes a row of a log back by a row of its own, the one way to undo; what counted it then still tells of it.
 * @returns the row that was taken back.
 * @throws Failure `not-found`, `invalid-input` for a row that takes another back; `already-reversed` comes of the second.
 */
export function takeBack(db: Db, log: Log, { id, own, at, change }: TakeBack): Row {
  const row = mustFind<Row>(db, log, id, 'row to take back');
  if (row.reverses) throw new Failure('invalid-input', 'That row takes another back; write it anew instead.', 'rowId');
  const { seq: _, ...same } = row;
  insert(db, log, { ...same, ...change?.(row), id: newId(own), reverses: id, at });
  return row;
}
