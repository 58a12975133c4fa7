import type { Hands } from '../../contract/pours.ts';
import { learntHands } from '../../core/plan/learntHands.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** Shots of a mold that are learnt from: a mold wears in, and hands get used to it. */
const MOST_SHOTS = 30;

/**
 * How long hands take at each mold, by when shots were drawn, looked at, and the next one drawn; of one maker where that is asked.
 * Only the newest shots are read, through the index of each mold by time.
 */
export function handsOf(db: Db, makerId: string | null): Hands[] {
  const rows = all<{
    moldId: string;
    cavities: number;
    drawnAt: string;
    lookedAt: string | null;
    nextAt: string | null;
  }>(
    db,
    `SELECT mold.id AS mold_id, mold.cavities, s.at AS drawn_at,
       (SELECT min(m.at) FROM cavity_mark m WHERE m.shot_id = s.id) AS looked_at,
       (SELECT min(n.at) FROM shot_live n WHERE n.pour_id = s.pour_id AND n.mold_id = s.mold_id AND n.seq > s.seq) AS next_at
     FROM mold JOIN shot_live s ON s.id IN (
       SELECT l.id FROM shot l JOIN pour ON pour.id = l.pour_id
       WHERE l.mold_id = mold.id AND ${standing('shot', 'l')} AND (@makerId IS NULL OR pour.maker_id = @makerId)
       ORDER BY l.at DESC LIMIT ${MOST_SHOTS})
     WHERE mold.retired_at IS NULL`,
    { makerId },
  );
  const by = new Map<string, typeof rows>();
  for (const row of rows) by.set(row.moldId, [...(by.get(row.moldId) ?? []), row]);
  const seconds = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 1000;
  return [...by].map(([moldId, of]) => ({
    moldId,
    ...learntHands(
      of[0]?.cavities ?? 1,
      of.flatMap(({ drawnAt, lookedAt, nextAt }) =>
        lookedAt && nextAt && lookedAt > drawnAt && nextAt > lookedAt
          ? [{ waitedS: seconds(drawnAt, lookedAt), handsS: seconds(lookedAt, nextAt) }]
          : [],
      ),
    ),
  }));
}
