import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

interface Linked {
  id: string;
  code: string;
  /** Whether anything was drawn of it or poured into it, or it is weighed. */
  drawnOf: boolean;
}

// Cups hang together that were laid out for the same shots, and those that one shot drew from.
const NEIGHBOURS = `
  WITH asked AS (SELECT value AS id FROM json_each(@ids))
  SELECT pour.id, pour.code,
    EXISTS (SELECT 1 FROM balance b WHERE b.pour_id = pour.id)
      OR EXISTS (SELECT 1 FROM cup_transfer t WHERE t.pour_id = pour.id)
      OR EXISTS (SELECT 1 FROM shot_part p JOIN shot_live s ON s.id = p.shot_id WHERE p.pour_id = pour.id) AS drawn_of
  FROM pour WHERE (discarded_at IS NULL OR id IN (SELECT id FROM asked)) AND pour.id IN (
    SELECT id FROM asked
    UNION SELECT lead_id FROM pour WHERE id IN (SELECT id FROM asked)
    UNION SELECT id FROM pour WHERE lead_id IN (SELECT id FROM asked)
    UNION SELECT p.pour_id FROM shot s CROSS JOIN shot_part p ON p.shot_id = s.id
      WHERE s.pour_id IN (SELECT id FROM asked) AND ${standing('shot', 's')}
    UNION SELECT s.pour_id FROM shot_part p CROSS JOIN shot s ON s.id = p.shot_id
      WHERE p.pour_id IN (SELECT id FROM asked) AND ${standing('shot', 's')}
    UNION SELECT r.pour_id FROM shot s CROSS JOIN layer_redo r ON r.shot_id = s.id WHERE s.pour_id IN (SELECT id FROM asked)
    UNION SELECT s.pour_id FROM layer_redo r CROSS JOIN shot s ON s.id = r.shot_id WHERE r.pour_id IN (SELECT id FROM asked)
  ) ORDER BY pour.place, pour.code`;

/** Which of these cups gave only a part of their baits, so that no reading of those speaks of one cup. */
export const sharedCups = (db: Db, pourIds: string[]): string[] =>
  all<{ id: string }>(
    db,
    `SELECT pour.id FROM pour WHERE pour.id IN (SELECT value FROM json_each(?)) AND (lead_id IS NOT NULL
       OR EXISTS (SELECT 1 FROM pour other WHERE other.lead_id = pour.id)
       OR EXISTS (SELECT 1 FROM shot s CROSS JOIN shot_part p ON p.shot_id = s.id WHERE s.pour_id = pour.id AND p.pour_id <> pour.id))`,
    [JSON.stringify(pourIds)],
  ).map((row) => row.id);

/** All cups that have to be weighed together with this one, it among them. */
export function linkedCups(db: Db, id: string): Linked[] {
  let ids = [id];
  // Each round goes one neighbour further, until none is new: a chain of cups hangs together as a whole.
  for (;;) {
    const found = all<Linked>(db, NEIGHBOURS, { ids: JSON.stringify(ids) });
    const more = [...new Set([...ids, ...found.map((cup) => cup.id)])];
    if (more.length === ids.length) return found;
    ids = more;
  }
}
