import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { first } from '../db/rows.ts';

// What other rooms ask of the logs of a cup, as SQL that goes by the pour of the query around it.

const counted = (h: string) =>
  `FROM hardness_reading ${h} WHERE ${h}.pour_id = pour.id AND ${h}.early = 0 AND ${standing('hardness_reading', h)}`;

/** Whether its hardness was read once it was cured. */
export const WAS_READ = `EXISTS (SELECT 1 ${counted('h')})`;
/** The newest reading that counts, as "00 34". */
export const LAST_READING = `(SELECT h.scale || ' ' || h.value ${counted('h')} ORDER BY h.seq DESC LIMIT 1)`;
/** The mean of those in the scale that was wanted. */
export const MEAN_READING = `(SELECT avg(h.value) ${counted('h')} AND h.scale = coalesce(pour.wanted_scale, '00'))`;
/** As `b`: what its closing weighed, by the newest weighing. */
export const WITH_BALANCE = 'JOIN balance b ON b.seq = (SELECT max(seq) FROM balance WHERE pour_id = pour.id)';
export const LAST_SHOT_AT = '(SELECT max(s.at) FROM shot_live s WHERE s.pour_id = pour.id)';
export const SHOTS_DRAWN = '(SELECT count(*) FROM shot_live s WHERE s.pour_id = pour.id)';

/** Shots drawn in one mold of a pour. */
export const DRAWN_IN = '(SELECT count(*) FROM shot_live s WHERE s.pour_id = pm.pour_id AND s.mold_id = pm.mold_id)';

// Shots less those taken back: two runs over one index, instead of a look for each shot.
const SINCE = `
  SELECT (SELECT count(*) FROM shot WHERE mold_id = @moldId AND at > @at AND +reverses IS NULL)
    - (SELECT count(*) FROM shot u JOIN shot s ON s.id = u.reverses
       WHERE u.mold_id = @moldId AND u.at > @at AND +u.reverses IS NOT NULL AND s.at > @at) AS n`;

/** How many shots a mold gave since that moment; all of them since ''. */
export const shotsSince = (db: Db, moldId: string, at: string): number =>
  first<{ n: number }>(db, SINCE, { moldId, at })?.n ?? 0;
