import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

export interface MoldCount {
  moldId: string;
  drawn: number;
  good: number;
  bad: number;
}

// CROSS JOIN keeps the order of the loops: a pour's few shots first, then their marks.
const LIVE = `
  SELECT s.mold_id, count(DISTINCT s.id) AS drawn, coalesce(sum(n.result = 'good'), 0) AS good, coalesce(sum(n.result = 'bad'), 0) AS bad
  FROM shot_live s LEFT JOIN (
    SELECT m.shot_id, m.result, max(m.seq) FROM shot t CROSS JOIN cavity_mark m ON m.shot_id = t.id
    WHERE t.pour_id = @pourId GROUP BY m.shot_id, m.cavity
  ) n ON n.shot_id = s.id
  WHERE s.pour_id = @pourId GROUP BY s.mold_id`;

/** Shots, good and bad of each mold of a pour, from the marks as they stand now. */
export const countMarks = (db: Db, pourId: string) => all<MoldCount>(db, LIVE, { pourId });

/** The same for a pour of any age: the sums kept at its close, or the marks of one still open. */
export function countsOf(db: Db, pourId: string): MoldCount[] {
  const kept = all<MoldCount>(
    db,
    'SELECT mold_id, drawn, good, bad FROM pour_mold WHERE pour_id = ? AND drawn IS NOT NULL',
    [pourId],
  );
  return kept.length > 0 ? kept : countMarks(db, pourId);
}

/** All that every mold has made so far: sums of closed cups, and the marks of the open ones. */
export function countsByMold(db: Db): Map<string, MoldCount> {
  const closed = all<MoldCount>(
    db,
    'SELECT mold_id, sum(drawn) AS drawn, sum(good) AS good, sum(bad) AS bad FROM pour_mold WHERE drawn IS NOT NULL GROUP BY mold_id',
  );
  const counts = new Map(closed.map((row) => [row.moldId, row]));
  for (const { id } of all<{ id: string }>(db, 'SELECT id FROM pour WHERE closed_at IS NULL')) {
    for (const row of countMarks(db, id)) {
      const sum = counts.get(row.moldId) ?? { moldId: row.moldId, drawn: 0, good: 0, bad: 0 };
      counts.set(row.moldId, {
        ...sum,
        drawn: sum.drawn + row.drawn,
        good: sum.good + row.good,
        bad: sum.bad + row.bad,
      });
    }
  }
  return counts;
}

export const totalOf = (counts: MoldCount[], of: 'drawn' | 'good' | 'bad') =>
  counts.reduce((sum, row) => sum + row[of], 0);
