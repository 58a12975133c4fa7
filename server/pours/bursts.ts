import type * as v from 'valibot';
import type { Oven } from '../../contract/pours.ts';
import type { burstBody } from '../../contract/taps.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import { ovenEfficiency } from '../../core/heat/microwave.ts';
import { leftG } from '../../core/plastisol/cup.ts';
import { clockStep } from '../clocks/store.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { workshop } from '../workshop/store.ts';
import { dosedIn } from './dosed.ts';
import { drawnMl } from './drawn.ts';
import { markStarted, type OpenPour } from './write.ts';

/** The oven is started: its clock runs, and the burst is remembered with what stood in it. */
export function addBurst(db: Db, pour: OpenPour, body: v.InferOutput<typeof burstBody>, now: Date): void {
  const { level, seconds } = body;
  const at = now.toISOString();
  const { cookMl } = mustFind<{ cookMl: number }>(db, 'pour', pour.id, 'pour');
  const massG = leftG({ massG: pour.plan.cookG + dosedIn(db, pour.ledgerId).g, cookMl }, drawnMl(db, pour.id));
  if (!(massG > 0)) throw new Failure('nothing-left', `All of ${pour.code} was drawn: nothing is left to cook.`);
  insert(db, 'burst', {
    id: newId(body.id),
    pourId: pour.id,
    watts: workshop(db).ovenWatts,
    level,
    seconds,
    massG,
    at,
  });
  markStarted(db, pour.id, at);
  clockStep(db, 'burstBegins', { type: 'pour', id: pour.id }, now, {
    burst: { label: `${pour.code} in the oven: stir and scrape`, dueAt: new Date(now.getTime() + 1000 * seconds) },
  });
}

/** Bursts that are learnt from: an oven ages, and one is bought anew. */
const MOST_BURSTS = 60;

interface Read {
  watts: number;
  level: number;
  seconds: number;
  massG: number;
  beforeC: number;
  afterC: number;
}

/**
 * What bursts that were read before and after teach of the oven; those of its present power, the newest.
 * A reading tells of a burst only where it is near: later the cup has cooled, or was heated again.
 */
export function ovenOf(db: Db): Oven {
  const { ovenWatts: watts, cookSchool: school } = workshop(db);
  const log = all<Read>(
    db,
    `SELECT * FROM (
       SELECT b.seq, b.watts, b.level, b.seconds, b.mass_g,
         (SELECT h.c FROM heat h WHERE h.pour_id = b.pour_id AND ${standing('heat', 'h')} AND h.at <= b.at
            AND unixepoch(b.at, 'subsec') - unixepoch(h.at, 'subsec') <= @besideS
            AND NOT EXISTS (SELECT 1 FROM burst o WHERE o.pour_id = b.pour_id AND ${standing('burst', 'o')} AND o.at > h.at AND o.at < b.at)
          ORDER BY h.seq DESC LIMIT 1) AS before_c,
         (SELECT h.c FROM heat h WHERE h.pour_id = b.pour_id AND ${standing('heat', 'h')}
            AND unixepoch(h.at, 'subsec') - unixepoch(b.at, 'subsec') BETWEEN b.seconds * 0.8 AND b.seconds + @besideS
            AND NOT EXISTS (SELECT 1 FROM burst o WHERE o.pour_id = b.pour_id AND ${standing('burst', 'o')} AND o.at > b.at AND o.at < h.at)
          ORDER BY h.seq LIMIT 1) AS after_c
       FROM burst b WHERE ${standing('burst', 'b')} AND b.watts = @watts ORDER BY b.seq DESC LIMIT ${4 * MOST_BURSTS})
     WHERE before_c IS NOT NULL AND after_c > before_c ORDER BY seq DESC LIMIT ${MOST_BURSTS}`,
    { watts, besideS: usual('readBesideS') },
  );
  if (log.length === 0) return { watts, school, efficiency: usual('ovenEfficiency'), bursts: 0 };
  const { efficiency, n } = ovenEfficiency({ log, cpJPerGK: usual('plastisolCpJPerGK') });
  return { watts, school, efficiency: Math.min(1, efficiency), bursts: n };
}
