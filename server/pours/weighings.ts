import type { BaitWeighing } from '../../contract/pours.ts';
import { usual } from '../../core/defaults.ts';
import { tooLight } from '../../core/instruments/witness.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** Earlier baits of a cavity that tell what the next one weighs. */
const MOST_EARLIER = 20;

/** The last ones of the same cavity, by its index. */
const EARLIER = `SELECT e.grams FROM bait_weighing e WHERE e.mold_id = w.mold_id AND e.cavity = w.cavity AND e.seq < w.seq
  AND e.shot_id <> w.shot_id AND ${standing('bait_weighing', 'e')} ORDER BY e.seq DESC LIMIT ${MOST_EARLIER}`;

interface Row {
  shotId: string;
  id: string;
  cavity: number;
  grams: number;
  cavityMl: number;
  /** Mean of earlier ones of its cavity, and how many they were. */
  meanG: number | null;
  of: number;
}

/** Baits of a cup's shots as they lay on the scale; of a cavity weighed twice, the newest. */
export function weighingsOf(db: Db, pourId: string): (BaitWeighing & { shotId: string })[] {
  const rows = all<Row>(
    db,
    `SELECT w.shot_id, w.id, w.cavity, w.grams, mold.cavity_ml,
       (SELECT avg(grams) FROM (${EARLIER})) AS mean_g, (SELECT count(*) FROM (${EARLIER})) AS of
     FROM shot_live s CROSS JOIN bait_weighing w ON w.shot_id = s.id JOIN mold ON mold.id = s.mold_id
     WHERE s.pour_id = ? AND ${standing('bait_weighing', 'w')}
       AND NOT EXISTS (SELECT 1 FROM bait_weighing n WHERE n.shot_id = w.shot_id AND n.cavity = w.cavity AND n.seq > w.seq
         AND ${standing('bait_weighing', 'n')})
     ORDER BY w.seq`,
    [pourId],
  );
  return rows.map(({ shotId, id, cavity, grams, cavityMl, meanG, of }) => {
    const known = meanG !== null && of >= usual('enoughWeighings');
    const usualG = known ? meanG : cavityMl * usual('plastisolGPerMl');
    return { shotId, id, cavity, grams, usualG, of: known ? of : 0, missing: tooLight(grams, usualG, known ? of : 0) };
  });
}
