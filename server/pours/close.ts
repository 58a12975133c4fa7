import type * as v from 'valibot';
import type { Part } from '../../contract/blend.ts';
import { RACK_GRADES, type RackGrade } from '../../contract/orders.ts';
import type { closeBody, Pour, weighBody } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { binGrams, returnedOf } from '../../core/plastisol/bin.ts';
import { cupState, gramsOf } from '../../core/plastisol/parts.ts';
import { balance } from '../../core/yield/counts.ts';
import { countGrades } from '../../core/yield/grades.ts';
import { addToBin, binOfRecipe, putBack, returnedByPour, takeOutOfBin, usedByPour } from '../bins/store.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { first, insert, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addLotMove, drawMaterial } from '../materials/store.ts';
import { rackPoured } from '../stock/bags.ts';
import { countMarks, keepCounts, totalOf } from './counts.ts';
import { dosedIn } from './dosed.ts';
import { getPour } from './read.ts';
import { aboutMold, openPour } from './write.ts';

type Weighed = v.InferOutput<typeof weighBody>;

/** Takes what a cup is made of out of its lots and bins: as weighed in, of the rest by its shares. */
function drawParts(db: Db, pour: Pour, cookedG: number, at: string): void {
  const { g: dosedG, rows } = dosedIn(db, pour.ledgerId);
  for (const { materialId, g } of rows) drawMaterial(db, materialId, g, { pourId: pour.id }, at);
  const grams = gramsOf(pour.parts, Math.max(0, cookedG - dosedG));
  pour.parts.forEach((part, i) => {
    drawMore(db, pour.id, part, grams[i] as number, at);
  });
}

function drawMore(db: Db, pourId: string, part: Part, grams: number, at: string): void {
  if (grams <= 0) return;
  if (part.binId) takeOutOfBin(db, part.binId, grams, { pourId, at });
  else drawMaterial(db, part.materialId as string, grams, { pourId }, at, part.lotId);
}

/** More or less was cooked than was said: each part by what it changes. */
function redraw(db: Db, pour: Pour, before: number, now: number, at: string, note: string): void {
  const { g: dosedG } = dosedIn(db, pour.ledgerId);
  const [was, is] = [before, now].map((cookedG) => gramsOf(pour.parts, Math.max(0, cookedG - dosedG))) as [
    number[],
    number[],
  ];
  pour.parts.forEach((part, i) => {
    const more = (is[i] as number) - (was[i] as number);
    if (more > 0) drawMore(db, pour.id, part, more, at);
    else if (more < 0 && part.binId) putBack(db, part.binId, -more, { pourId: pour.id, note, at });
    else if (more < 0)
      addLotMove(db, { lotId: part.lotId as string, kind: 'reversed', grams: -more, pourId: pour.id, note }, at);
  });
}

/** What comes back of a cup is once more cooked, and as salty as the cup. */
function returnToBin(db: Db, pour: Pour, grams: number, cookedG: number, binId: string | undefined, at: string): void {
  if (grams <= 0) return;
  const { g: dosedG, saltG } = dosedIn(db, pour.ledgerId);
  const remelt = usedByPour(db, pour.id);
  const plasticG = Math.max(0, cookedG - dosedG);
  const freshG = Math.max(0, plasticG - binGrams(remelt));
  const state = cupState({ cupG: cookedG, freshG, remelt, dosedSaltG: saltG });
  const into = binId ?? binOfRecipe(db, pour.recipeId, at);
  addToBin(db, into, returnedOf(grams, state), { kind: 'cup', pourId: pour.id, at });
}

/** The same once it was weighed again: what is more or less, of everything that came back alike. */
function returnAgain(db: Db, pour: Pour, more: number, cookedG: number, at: string, note: string): void {
  const back = returnedByPour(db, pour.id);
  const sum = binGrams(back);
  if (sum <= 0) {
    returnToBin(db, pour, more, cookedG, undefined, at);
    return;
  }
  for (const { binId, heats, grams, saltG, saltUnknownG } of back) {
    const share = more / sum;
    const layer = { heats, grams: grams * share, saltG: saltG * share, saltUnknownG: saltUnknownG * share };
    addToBin(db, binId, [layer], { kind: 'cup', pourId: pour.id, note, at });
  }
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
export function closePour(db: Db, id: string, body: v.InferOutput<typeof closeBody>, now: Date): void {
  const at = now.toISOString();
  openPour(db, id);
  const pour = getPour(db, id);
  const kept = keptByBait(pour);
  const baits = [...kept.values()].reduce((sum, { sell, own }) => sum + sell + own, 0);
  checkWeights(body, baits);
  const { binId, ...weighed } = body;
  if (binId !== undefined && !first(db, 'SELECT 1 FROM bin WHERE id = ?', [binId]))
    throw new Failure('invalid-input', 'That bin is not here.', 'binId');
  insert(db, 'balance', { id: newId(), pourId: id, ...weighed, at });
  drawParts(db, pour, body.cookedG, at);
  for (const [baitId, counts] of kept)
    for (const grade of RACK_GRADES)
      if (counts[grade] > 0)
        rackPoured(db, { baitId, recipeId: pour.recipeId, pourId: id, grade, baits: counts[grade], at });
  returnToBin(db, pour, body.rejectG + body.returnedG, body.cookedG, binId, at);
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
  const note = 'weighed again';
  redraw(db, pour, pour.balance.cookedG, body.cookedG, at, note);
  const more = body.rejectG + body.returnedG - (pour.balance.rejectG + pour.balance.returnedG);
  if (more !== 0) returnAgain(db, pour, more, body.cookedG, at, note);
}
