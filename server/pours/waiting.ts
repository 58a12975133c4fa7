import type { Waiting } from '../../contract/pours.ts';
import { usual } from '../../core/defaults.ts';
import { fillingS } from '../../core/plan/hours.ts';
import { MOST_MOLDS } from '../../core/plastisol/rescue.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { usableMolds } from '../molds/store.ts';
import { allNeeds } from '../orders/need.ts';
import { drawnMl } from './drawn.ts';
import { openPour } from './write.ts';

/** Molds that are full: a shot is in them that nobody has looked at. */
const fullMolds = (db: Db): Set<string> =>
  new Set(
    all<{ moldId: string }>(
      db,
      `SELECT DISTINCT s.mold_id FROM shot_live s JOIN pour ON pour.id = s.pour_id JOIN mold ON mold.id = s.mold_id
       WHERE pour.closed_at IS NULL
         AND (SELECT count(*) FROM mark_now n WHERE n.shot_id = s.id AND n.grade <> 'unmarked') < mold.cavities`,
    ).map(({ moldId }) => moldId),
  );

/** What is left of an open cup, and which molds stand empty for it, with how many baits of its colour somebody waits for. */
export function waitingFor(db: Db, id: string, at: string): Waiting {
  openPour(db, id);
  const { cookMl, recipeId } = first(db, 'SELECT cook_ml, recipe_id FROM pour WHERE id = ?', [id]) as {
    cookMl: number;
    recipeId: string;
  };
  const full = fullMolds(db);
  const wanted = new Map<string, number>();
  // A melt's own colour has its id: a cup of a layered colour can still be whole baits of its melt.
  for (const need of allNeeds(db, at))
    if (need.colourwayId === recipeId) wanted.set(need.baitId, (wanted.get(need.baitId) ?? 0) + need.short);
  const molds = usableMolds(db)
    .filter((mold) => mold.kind !== 'dip-rods' && !full.has(mold.id) && !(mold.readyAt !== null && mold.readyAt > at))
    .map(({ id: moldId, name, cavities, cavityMl, sprueMl, runnerMl, baitId }) => ({
      id: moldId,
      name,
      cavities,
      cavityMl,
      sprueMl,
      runnerMl,
      secondsPerShot: fillingS(cavities),
      // Filled once, it has to cool before it is filled again.
      mostShots: 1,
      wanted: wanted.get(baitId) ?? 0,
    }))
    .sort((a, b) => b.wanted - a.wanted)
    // Those that somebody waits for first.
    .slice(0, MOST_MOLDS);
  return { availableMl: Math.max(0, cookMl - drawnMl(db, id) - usual('cupFilmMl')), molds };
}
