import type * as v from 'valibot';
import type { Pour } from '../../contract/pours.ts';
import type { tickBody } from '../../contract/taps.ts';
import { Failure } from '../../core/failure.ts';
import { TICK_IDS, TICKS } from '../../core/process/evidence.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';

export function addTick(db: Db, pour: { id: string }, body: v.InferOutput<typeof tickBody>, at: string): void {
  const { id, what, said, moldId = null, nth = null, layer = null, note } = body;
  if (moldId && !first(db, 'SELECT 1 FROM pour_mold WHERE pour_id = ? AND mold_id = ?', [pour.id, moldId]))
    throw new Failure('invalid-input', 'That mold is not part of this pour.', 'moldId');
  insert(db, 'bench_tick', { id: newId(id), pourId: pour.id, moldId, nth, layer, what, said, note, at });
}

const OF_EVENING = JSON.stringify(TICK_IDS.filter((what) => TICKS[what].about === 'evening'));

/** What was said of a cup and its shots, and of its whole evening by whichever cup stood there. */
export const ticksOf = (db: Db, { id, eveningId }: { id: string; eveningId: string | null }): Pour['ticks'] =>
  all<Pour['ticks'][number]>(
    db,
    `SELECT t.id, t.what, t.said, t.mold_id, t.nth, t.layer, t.note, t.at FROM bench_tick t
     WHERE (t.pour_id = @id OR (t.what IN (SELECT value FROM json_each(@ofEvening))
       AND t.pour_id IN (SELECT id FROM pour WHERE evening_id = @eveningId)))
       AND ${standing('bench_tick', 't')} ORDER BY t.seq`,
    { id, eveningId, ofEvening: OF_EVENING },
  );
