import { CURE_MS } from '../../core/process/cure.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** What lies on the rack, by the pour it came from, with the moment it is cured; a closed cup's last shot never changes. */
export const RACK = `(SELECT bait_id, colourway_id, pour_id, grade, baits,
  strftime('%Y-%m-%dT%H:%M:%fZ', last_shot_at, '+${CURE_MS / 1000} seconds') AS cured_at
  FROM rack_level WHERE baits <> 0) AS rack`;

/** Baits that still cure, of whatever grade, and until when. */
export const curing = (db: Db, at: string) =>
  all<{ baits: number; curedAt: string }>(
    db,
    `SELECT sum(baits) AS baits, cured_at FROM ${RACK} WHERE cured_at > @at GROUP BY cured_at`,
    { at },
  );
