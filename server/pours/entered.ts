import { Failure } from '../../core/failure.ts';
import type { Layer } from '../../core/plastisol/bin.ts';
import { asLayer, type LayerRow, SUMS } from '../bins/layers.ts';
import { usedByPour } from '../bins/store.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';

/** What came into a cup that was cooked before: out of bins, and left of other cups. */
export const enteredByPour = (db: Db, pourId: string): Layer[] => [
  ...usedByPour(db, pourId).map(({ binId: _, ...layer }) => layer),
  ...transferredInto(db, pourId),
];

export const transferredInto = (db: Db, pourId: string): Layer[] =>
  all<LayerRow>(db, `SELECT heats, ${SUMS} FROM cup_transfer WHERE pour_id = ? GROUP BY heats`, [pourId]).map(asLayer);

/** A part that came out of another cup stays: it was poured in. */
export function refusePouredIn(db: Db, partId: string): void {
  if (first(db, 'SELECT 1 FROM cup_part WHERE id = ? AND from_pour_id IS NOT NULL', [partId]))
    throw new Failure('already-started', 'That was poured in from another cup; it cannot be taken out again.');
}
