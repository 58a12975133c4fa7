import type { Origin } from '../../contract/orders.ts';
import { TICKS } from '../../core/process/evidence.ts';
import type { Reason } from '../../core/yield/grades.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';

type Facts = Pick<Origin, 'colourwayName' | 'pouredAt' | 'hardness' | 'molds'>;

interface Mark {
  moldId: string;
  cavity: number;
  grade: string;
  reason: string | null;
  n: number;
}

const LAY: Record<string, string> = TICKS.lie.says;

/** Why baits of a mold were not sold, and how many. */
function rejectsIn(marks: Mark[]): Origin['molds'][number]['rejects'] {
  const by = new Map<Reason, number>();
  for (const { grade, reason, n } of marks) {
    if (grade !== 'remelt' && grade !== 'own') continue;
    const why = (reason ?? 'other') as Reason;
    by.set(why, (by.get(why) ?? 0) + n);
  }
  return [...by].map(([reason, count]) => ({ reason, count }));
}

/** What is known of a closed cup, as far as it made these baits: hardness, shots by mold, cavities, how they lay. */
export function cupFacts(db: Db, pourId: string, baitIds: string[]): Facts {
  const pour = first<{ colourwayName: string; closedAt: string | null }>(
    db,
    'SELECT c.name AS colourway_name, pour.closed_at FROM pour JOIN colourway_called c ON c.id = pour.colourway_id WHERE pour.id = ?',
    [pourId],
  );
  const hardness = first<NonNullable<Origin['hardness']>>(
    db,
    `SELECT h.scale, avg(h.value) AS mean, count(*) AS readings FROM hardness_reading h
     WHERE h.pour_id = ? AND h.early = 0 AND ${standing('hardness_reading', 'h')} GROUP BY h.scale ORDER BY count(*) DESC LIMIT 1`,
    [pourId],
  );
  const molds = all<{ moldId: string; moldName: string; shots: number }>(
    db,
    `SELECT s.mold_id, mold.name AS mold_name, count(*) AS shots FROM shot_live s JOIN mold ON mold.id = s.mold_id
     WHERE s.pour_id = @pourId AND mold.bait_id IN (SELECT value FROM json_each(@baits)) GROUP BY s.mold_id ORDER BY mold.name`,
    { pourId, baits: JSON.stringify(baitIds) },
  );
  const marks = all<Mark>(
    db,
    'SELECT mold_id, cavity, grade, reason, count(*) AS n FROM mark_now WHERE pour_id = ? GROUP BY mold_id, cavity, grade, reason',
    [pourId],
  );
  const lay = all<{ moldId: string; said: string }>(
    db,
    `SELECT DISTINCT t.mold_id, t.said FROM bench_tick t WHERE t.pour_id = ? AND t.what = 'lie' AND ${standing('bench_tick', 't')}`,
    [pourId],
  );
  return {
    colourwayName: pour?.colourwayName ?? '',
    pouredAt: pour?.closedAt ?? null,
    hardness: hardness ?? null,
    molds: molds.map((mold) => {
      const mine = marks.filter(({ moldId }) => moldId === mold.moldId);
      const sold = mine.flatMap(({ grade, cavity }) => (grade === 'sell' ? [cavity] : []));
      return {
        ...mold,
        cavities: [...new Set(sold)].sort((a, b) => a - b),
        lay: lay.flatMap(({ moldId, said }) => (moldId === mold.moldId ? [LAY[said] ?? said] : [])),
        rejects: rejectsIn(mine),
      };
    }),
  };
}
