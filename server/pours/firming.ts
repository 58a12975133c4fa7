import { firms, type Slopes, startingSlopes } from '../../core/water/tomorrow.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { workshop } from '../workshop/store.ts';

/** Cups that are learnt from, the newest. */
const MOST_CUPS = 120;
/** They are looked for among so many readings: what grows is not scanned. */
const MOST_READINGS = 800;

/** How baits firm by age and by cold here: cups that were read twice or more on the scale 00; where nobody said, at the room's. */
export function firmingOf(db: Db): Slopes {
  const rows = all<{ pourId: string; value: number; c: number | null; at: string; shotAt: string }>(
    db,
    `SELECT h.pour_id, h.value, h.c, h.at, (SELECT max(s.at) FROM shot_live s WHERE s.pour_id = h.pour_id) AS shot_at
     FROM hardness_reading h WHERE h.scale = '00' AND ${standing('hardness_reading', 'h')} AND h.pour_id IN (
       SELECT pour_id FROM (SELECT o.pour_id, max(o.seq) AS newest
         FROM (SELECT * FROM hardness_reading ORDER BY seq DESC LIMIT ${MOST_READINGS}) o
         WHERE o.scale = '00' AND ${standing('hardness_reading', 'o')} GROUP BY o.pour_id HAVING count(*) > 1
         ORDER BY newest DESC LIMIT ${MOST_CUPS}))
     ORDER BY h.seq`,
  ).filter(({ shotAt }) => shotAt !== null);
  if (rows.length === 0) return startingSlopes();
  const { roomC } = workshop(db);
  return firms({
    readings: rows.map(({ pourId, value, c, at, shotAt }) => ({
      cup: pourId,
      value,
      c: c ?? roomC,
      hours: Math.max(0, (Date.parse(at) - Date.parse(shotAt)) / 3_600_000),
    })),
  });
}
