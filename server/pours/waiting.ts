import type { Waiting } from '../../contract/pours.ts';
import { usual } from '../../core/defaults.ts';
import { fillingS } from '../../core/plan/hours.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { usableMolds } from '../molds/store.ts';
import { allNeeds } from '../orders/need.ts';
import { openPour } from './write.ts';

/** As many molds as a rescue looks through: those that somebody waits for first. */
const MOST_MOLDS = 12;

/** What was drawn of a cup so far, feed included; what was lifted out again with it. */
function drawnMl(db: Db, pourId: string): number {
  const { ml } = first(
    db,
    `SELECT coalesce((SELECT sum(p.ml) FROM shot_part p JOIN shot_live s ON s.id = p.shot_id WHERE p.pour_id = @pourId), 0)
      + coalesce((SELECT sum(r.ml) FROM layer_redo r WHERE r.pour_id = @pourId AND ${standing('layer_redo', 'r')}), 0) AS ml`,
    { pourId },
  ) as { ml: number };
  return ml * (1 + usual('feedFraction'));
}

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
  const { cookMl, colourwayId, recipeId } = first(
    db,
    'SELECT cook_ml, colourway_id, recipe_id FROM pour WHERE id = ?',
    [id],
  ) as { cookMl: number; colourwayId: string; recipeId: string };
  const full = fullMolds(db);
  // A cup of a layered colour can still be whole baits of its own melt.
  const colours = new Set([recipeId, ...(colourwayId === recipeId ? [colourwayId] : [])]);
  const wanted = new Map<string, number>();
  for (const need of allNeeds(db, at))
    if (colours.has(need.colourwayId)) wanted.set(need.baitId, (wanted.get(need.baitId) ?? 0) + need.short);
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
    .slice(0, MOST_MOLDS);
  return { availableMl: Math.max(0, cookMl - drawnMl(db, id) - usual('cupFilmMl')), molds };
}
