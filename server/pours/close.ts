import type * as v from 'valibot';
import { RACK_GRADES, type RackGrade } from '../../contract/orders.ts';
import type { closeBody, Pour } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { balance } from '../../core/yield/counts.ts';
import { countGrades } from '../../core/yield/grades.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { insert, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addLotMove, drawMaterial } from '../materials/store.ts';
import { rackPoured } from '../stock/bags.ts';
import { countMarks, keepCounts, totalOf } from './counts.ts';
import { dosedIn } from './dosed.ts';
import { getPour } from './read.ts';
import { aboutMold, type OpenPour, openPour } from './write.ts';

type Weighed = v.InferOutput<typeof closeBody>;

function drawFromLots(db: Db, pour: OpenPour, cookedG: number, at: string): void {
  const { g: dosedG, rows } = dosedIn(db, pour.ledgerId);
  for (const { materialId, g } of rows) drawMaterial(db, materialId, g, { pourId: pour.id }, at);
  const plastisolG = Math.max(0, cookedG - dosedG);
  if (pour.plastisolId) drawMaterial(db, pour.plastisolId, plastisolG, { pourId: pour.id }, at, pour.plastisolLotId);
}

/** What of each bait is kept, by grade: to sell, and for own water. */
function keptByBait(pour: Pour): Map<string, Record<RackGrade, number>> {
  const kept = new Map<string, Record<RackGrade, number>>();
  let unmarked = 0;
  for (const shot of pour.shots) {
    const mold = pour.molds.find((row) => row.moldId === shot.moldId);
    if (!mold) continue;
    const { sell, own, remelt } = countGrades(shot.marks);
    unmarked += mold.cavities - sell - own - remelt;
    const before = kept.get(mold.baitId) ?? { sell: 0, own: 0 };
    kept.set(mold.baitId, { sell: before.sell + sell, own: before.own + own });
  }
  if (unmarked > 0) {
    throw new Failure(
      'cavities-unmarked',
      `${unmarked} baits are not looked at yet; tap them, or "rest good" on the shot.`,
    );
  }
  return kept;
}

function checkWeights(body: Weighed, baits: number): void {
  balance(body);
  if (baits > 0 && body.goodG === 0)
    throw new Failure('invalid-input', `${baits} baits that are kept weigh something; weigh them.`, 'goodG');
  if (baits === 0 && body.goodG > 0) {
    throw new Failure('invalid-input', 'No bait was kept, so none can be weighed as good.', 'goodG');
  }
}

/** Closes a cup: the balance, what it used, what lies on the rack and in the remelt bin now, and the cure clock. */
export function closePour(db: Db, id: string, body: Weighed, now: Date): void {
  const at = now.toISOString();
  const open = openPour(db, id);
  const pour = getPour(db, id);
  const kept = keptByBait(pour);
  const baits = [...kept.values()].reduce((sum, { sell, own }) => sum + sell + own, 0);
  checkWeights(body, baits);
  insert(db, 'balance', { id: newId(), pourId: id, ...body, at });
  drawFromLots(db, open, body.cookedG, at);
  for (const [baitId, counts] of kept)
    for (const grade of RACK_GRADES)
      if (counts[grade] > 0)
        rackPoured(db, { baitId, recipeId: pour.recipeId, pourId: id, grade, baits: counts[grade], at });
  const remeltG = body.rejectG + body.returnedG;
  if (remeltG > 0) insert(db, 'remelt_move', { id: newId(), recipeId: pour.recipeId, grams: remeltG, pourId: id, at });
  keepCounts(db, id);
  run(
    db,
    'UPDATE pour SET closed_at = @at, started_at = coalesce(started_at, @at), version = version + 1 WHERE id = @id',
    { at, id },
  );
  for (const mold of pour.molds) clockStep(db, 'cupDone', aboutMold(id, mold.moldId), now);
  if (baits > 0 && pour.curedAt) {
    const label = `Cured: ${baits} ${pour.recipeName}`;
    clockStep(db, 'cureBegins', { type: 'pour', id }, now, { cure: { label, dueAt: new Date(pour.curedAt) } });
  }
}

/** Weighs a closed cup again: a row of its own, and what it changes of remelt and lots as reversing rows. */
export function weighAgain(db: Db, id: string, body: Weighed, at: string): void {
  const pour = getPour(db, id);
  if (!pour.balance) throw new Failure('invalid-input', `${pour.code} is not closed yet; close it with these weights.`);
  const marks = countMarks(db, id);
  checkWeights(body, totalOf(marks, 'sell') + totalOf(marks, 'own'));
  insert(db, 'balance', { id: newId(), pourId: id, ...body, at });
  const remeltG = body.rejectG + body.returnedG - (pour.balance.rejectG + pour.balance.returnedG);
  const note = 'weighed again';
  if (remeltG !== 0)
    insert(db, 'remelt_move', { id: newId(), recipeId: pour.recipeId, grams: remeltG, pourId: id, note, at });
  const cookedG = body.cookedG - pour.balance.cookedG;
  if (!pour.plastisol || cookedG === 0) return;
  if (cookedG > 0) drawMaterial(db, pour.plastisol.id, cookedG, { pourId: id }, at, pour.plastisol.lotId);
  else addLotMove(db, { lotId: pour.plastisol.lotId, kind: 'reversed', grams: -cookedG, pourId: id, note }, at);
}
