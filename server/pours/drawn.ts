import { usual } from '../../core/defaults.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { first } from '../db/rows.ts';

/** What was drawn of a cup so far, mL: feed included, and what was lifted out again with it. */
export function drawnMl(db: Db, pourId: string): number {
  const { ml } = first(
    db,
    `SELECT coalesce((SELECT sum(p.ml) FROM shot_part p JOIN shot_live s ON s.id = p.shot_id WHERE p.pour_id = @pourId), 0)
      + coalesce((SELECT sum(r.ml) FROM layer_redo r WHERE r.pour_id = @pourId AND ${standing('layer_redo', 'r')}), 0) AS ml`,
    { pourId },
  ) as { ml: number };
  return ml * (1 + usual('feedFraction'));
}
