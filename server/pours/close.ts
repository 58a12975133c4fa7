import type * as v from 'valibot';
import type { Part } from '../../contract/blend.ts';
import { RACK_GRADES, type RackGrade } from '../../contract/orders.ts';
import type { closeBody, Pour, weighBody } from '../../contract/pours.ts';
import { atField, Failure } from '../../core/failure.ts';
import { binGrams, type Layer, partOf, returnedOf } from '../../core/plastisol/bin.ts';
import { cupGPerMl, plasticGPerMl } from '../../core/plastisol/density.ts';
import { cupState, gramsOf } from '../../core/plastisol/parts.ts';
import { balanceOf, lostG } from '../../core/yield/counts.ts';
import { countGrades } from '../../core/yield/grades.ts';
import { shareOutG } from '../../core/yield/shared.ts';
import { addToBin, binOfColourway, keptBin, putBack, returnedByPour, takeOutOfBin } from '../bins/store.ts';
import { clockStep } from '../clocks/store.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { first, insert, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addLotMove, drawMaterial } from '../materials/store.ts';
import { rackPoured } from '../stock/bags.ts';
import { cupColour } from './colour.ts';
import { countMarks, keepCounts, totalOf } from './counts.ts';
import { dosedIn } from './dosed.ts';
import { enteredByPour } from './entered.ts';
import { linkedCups } from './linked.ts';
import { getPour } from './read.ts';
import { aboutMold } from './shots.ts';
import { pourAgain, pouredInto, pourInto } from './transfers.ts';
import { openPour } from './write.ts';

type Weighed = v.InferOutput<typeof weighBody>;

/** Takes what a cup is made of out of its lots and bins: as weighed in, of the rest by its shares. */
function drawParts(db: Db, pour: Pour, cookedG: number, at: string): void {
  const { g: dosedG, rows } = dosedIn(db, pour.ledgerId);
  for (const { materialId, lotId, g } of rows) drawMaterial(db, materialId, g, { pourId: pour.id }, at, lotId);
  const grams = gramsOf(pour.parts, Math.max(0, cookedG - dosedG));
  pour.parts.forEach((part, i) => {
    drawMore(db, pour.id, part, grams[i] as number, at);
  });
}

function drawMore(db: Db, pourId: string, part: Part, grams: number, at: string): void {
  // What came out of another cup left no lot and no bin.
  if (grams <= 0 || part.fromPourId) return;
  if (part.binId) takeOutOfBin(db, part.binId, grams, { pourId, at });
  else drawMaterial(db, part.materialId as string, grams, { pourId }, at, part.lotId);
}

/** Grams of each part of a closed cup, of what was weighed of it in all. */
const partsIn = (db: Db, pour: Pour, cookedG: number): number[] =>
  gramsOf(pour.parts, Math.max(0, cookedG - dosedIn(db, pour.ledgerId).g));

/** More or less of its parts was cooked than was said: each by what it changes. */
function redraw(db: Db, pour: Pour, was: number[], is: number[], at: string, note: string): void {
  pour.parts.forEach((part, i) => {
    const more = (is[i] as number) - (was[i] as number);
    if (more > 0) drawMore(db, pour.id, part, more, at);
    else if (more < 0 && part.binId) putBack(db, part.binId, -more, { pourId: pour.id, note, at });
    else if (more < 0 && part.lotId)
      addLotMove(db, { lotId: part.lotId, kind: 'reversed', grams: -more, pourId: pour.id, note }, at);
  });
}

/** What was left of a cup was poured into another: that holds as much more of it, and once it is closed, as much less of all else. */
function leftAgain(db: Db, from: string, into: string, more: number, at: string, note: string): void {
  const before = getPour(db, into);
  const cookedG = before.balance?.cookedG;
  const plasticG = cookedG === undefined ? undefined : Math.max(0, cookedG - dosedIn(db, before.ledgerId).g);
  pourAgain(db, from, into, more, at, plasticG);
  if (cookedG !== undefined)
    redraw(db, before, partsIn(db, before, cookedG), partsIn(db, getPour(db, into), cookedG), at, note);
}

/** What comes back of a cup is once more cooked, and as salty as the cup. */
function leftOf(db: Db, pour: Pour, grams: number, cookedG: number): Layer[] {
  if (grams <= 0) return [];
  const { g: dosedG, saltG } = dosedIn(db, pour.ledgerId);
  const remelt = enteredByPour(db, pour.id);
  const plasticG = Math.max(0, cookedG - dosedG);
  const freshG = Math.max(0, plasticG - binGrams(remelt));
  const state = cupState({ cupG: cookedG, freshG, remelt, dosedSaltG: saltG });
  return returnedOf(grams, { ...state, colour: cupColour(db, pour, { freshG, remelt }) });
}

/** The same once it was weighed again: what is more or less, of everything that came back alike. */
function returnAgain(db: Db, pour: Pour, more: number, cookedG: number, at: string, note: string): void {
  const back = returnedByPour(db, pour.id);
  const sum = binGrams(back);
  if (sum <= 0) {
    const into = binOfColourway(db, pour.colourwayId, at);
    addToBin(db, into, leftOf(db, pour, more, cookedG), { kind: 'cup', pourId: pour.id, at });
    return;
  }
  for (const { binId, ...layer } of back)
    addToBin(db, binId, [partOf(layer, more / sum)], { kind: 'cup', pourId: pour.id, note, at });
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
      `${unmarked} baits of ${pour.code} are not looked at yet; tap them, or "rest good" on the shot.`,
    );
  }
  return kept;
}

const countKept = (kept: Map<string, Record<RackGrade, number>>) =>
  [...kept.values()].reduce((sum, { sell, own }) => sum + sell + own, 0);

function checkWeights(goodG: number, baits: number): void {
  if (baits > 0 && goodG === 0)
    throw new Failure('invalid-input', `${baits} baits that are kept weigh something; weigh them.`, 'goodG');
  if (baits === 0 && goodG > 0) {
    throw new Failure('invalid-input', 'No bait was kept, so none can be weighed as good.', 'goodG');
  }
}

type Closing = v.InferOutput<typeof closeBody>;
interface Own {
  pour: Pour;
  cookedG: number;
  returnedG: number;
  residueG: number | null;
  degassedG: number | null;
}

/** What was weighed of each cup alone; every cup that the same shots were drawn from has to be there. */
function ownWeights(db: Db, id: string, body: Closing): Own[] {
  const linked = linkedCups(db, id);
  const others = new Map(body.others.map((row) => [row.pourId, row]));
  const missing = linked.filter((cup) => cup.id !== id && !others.has(cup.id));
  if (missing.length > 0)
    throw new Failure(
      'cups-missing',
      `The same baits were drawn from ${missing.map((cup) => cup.code).join(', ')}; weigh what is left of it too.`,
      'others',
    );
  body.others.forEach((row, index) => {
    if (!linked.some((cup) => cup.id === row.pourId) || row.pourId === id)
      throw new Failure('invalid-input', 'None of these shots was drawn from that cup.', `others.${index}.pourId`);
  });
  return linked.map((cup) => ({
    pour: getPour(db, openPour(db, cup.id).id),
    ...(cup.id === id ? body : (others.get(cup.id) as Closing['others'][number])),
  }));
}

/** Grams that were drawn of a cup, by the volume of its parts; what was lifted out again with them. */
function drawnG(db: Db, { pour, cookedG }: Own): number {
  const { ml } = first(
    db,
    `SELECT coalesce((SELECT sum(p.ml) FROM shot_part p JOIN shot_live s ON s.id = p.shot_id WHERE p.pour_id = @id), 0)
      + coalesce((SELECT sum(r.ml) FROM layer_redo r WHERE r.pour_id = @id AND ${standing('layer_redo', 'r')}), 0) AS ml`,
    { id: pour.id },
  ) as { ml: number };
  const { g: dosedG, saltG } = dosedIn(db, pour.ledgerId);
  const plasticG = Math.max(0, cookedG - dosedG);
  const grams = gramsOf(pour.parts, plasticG);
  const ofParts = plasticGPerMl(pour.parts.map(({ gPerMl }, i) => ({ share: grams[i] as number, gPerMl })));
  return ml * cupGPerMl({ plasticG, plasticGPerMl: ofParts, dosedG, saltG });
}

/** Each cup's balance: its own weights, and of what was weighed once for all of them its share. */
function balances(db: Db, cups: Own[], body: Closing): Weighed[] {
  const shares = shareOutG(
    body.goodG + body.rejectG,
    cups.map((cup) => ({ drawnG: drawnG(db, cup), mostG: cup.cookedG - cup.returnedG - lostG(cup) })),
  );
  const good = body.goodG + body.rejectG > 0 ? body.goodG / (body.goodG + body.rejectG) : 0;
  return cups.map(({ cookedG, returnedG, residueG, degassedG }, i) => {
    const whole = shares[i] as number;
    const alone = cups.length === 1;
    return {
      cookedG,
      goodG: alone ? body.goodG : whole * good,
      rejectG: alone ? body.rejectG : whole * (1 - good),
      returnedG,
      residueG,
      degassedG,
    };
  });
}

type Where = Pick<Closing, 'binId' | 'leftTo'>;

/** What comes back of a cup: rejects of layered baits are of several melts, what is left in the cup is of its own. */
function comesBack(db: Db, pour: Pour, weighed: Weighed, { binId, leftTo }: Where, at: string): void {
  const { cookedG, rejectG, returnedG } = weighed;
  const apart = leftTo !== undefined || pour.layers.length > 1;
  const rejects = leftOf(db, pour, apart ? rejectG : rejectG + returnedG, cookedG);
  // Else the colour's own bin, which is made when something first lies in it.
  if (rejects.length > 0)
    addToBin(db, binId ?? binOfColourway(db, pour.colourwayId, at), rejects, { kind: 'cup', pourId: pour.id, at });
  const left = apart ? leftOf(db, pour, returnedG, cookedG) : [];
  if (left.length === 0) return;
  if (leftTo !== undefined && leftTo !== 'kept') pourInto(db, pour.id, leftTo, left, at);
  else {
    const into = leftTo === 'kept' ? keptBin(db, pour, at) : binOfColourway(db, pour.recipeId, at);
    addToBin(db, into, left, { kind: 'cup', pourId: pour.id, at });
  }
}

function closeOne(db: Db, pour: Pour, weighed: Weighed, where: Where, now: Date): void {
  const at = now.toISOString();
  const { id } = pour;
  const kept = keptByBait(pour);
  insert(db, 'balance', { id: newId(), pourId: id, ...weighed, at });
  drawParts(db, pour, weighed.cookedG, at);
  for (const [baitId, counts] of kept)
    for (const grade of RACK_GRADES)
      if (counts[grade] > 0)
        rackPoured(db, { baitId, colourwayId: pour.colourwayId, pourId: id, grade, baits: counts[grade], at });
  comesBack(db, pour, weighed, where, at);
  keepCounts(db, id);
  run(
    db,
    'UPDATE pour SET closed_at = @at, started_at = coalesce(started_at, @at), version = version + 1 WHERE id = @id',
    { at, id },
  );
  for (const mold of pour.molds) clockStep(db, 'cupDone', aboutMold(id, mold.moldId), now);
  clockStep(db, 'cupOver', { type: 'pour', id }, now);
  const baits = countKept(kept);
  if (baits > 0 && pour.curedAt) {
    const label = `Cured: ${baits} ${pour.colourwayName}`;
    clockStep(db, 'cureBegins', { type: 'pour', id }, now, { cure: { label, dueAt: new Date(pour.curedAt) } });
  }
}

/** What is left is poured into a cup that is still open and not weighed with this one. */
function refuseTarget(db: Db, into: string, cups: Own[]): void {
  if (cups.some(({ pour }) => pour.id === into))
    throw new Failure('invalid-input', 'That cup is weighed with this one; pour what is left into another.', 'leftTo');
  atField('leftTo', () => openPour(db, into));
}

/**
 * Closes a cup and all that the same shots were drawn from: the balances, what they used, what lies on the rack and in the
 * remelt bins now, and the cure clocks.
 */
export function closePour(db: Db, id: string, body: Closing, now: Date): void {
  openPour(db, id);
  if (body.binId !== undefined && !first(db, 'SELECT 1 FROM bin WHERE id = ?', [body.binId]))
    throw new Failure('invalid-input', 'That bin is not here.', 'binId');
  const cups = ownWeights(db, id, body);
  if (body.leftTo !== undefined && body.leftTo !== 'kept') refuseTarget(db, body.leftTo, cups);
  const { goodG } = body;
  balanceOf(body, cups);
  checkWeights(
    goodG,
    cups.reduce((total, { pour }) => total + countKept(keptByBait(pour)), 0),
  );
  const weighed = balances(db, cups, body);
  weighed.forEach((one, i) => {
    const other = body.others.findIndex((row) => row.pourId === cups[i]?.pour.id);
    atField(other < 0 ? 'cookedG' : `others.${other}.cookedG`, () => balanceOf(one, [one]));
  });
  cups.forEach(({ pour }, i) => {
    // What the others leave goes to the bins of their melts.
    closeOne(
      db,
      pour,
      weighed[i] as Weighed,
      { binId: body.binId, leftTo: pour.id === id ? body.leftTo : undefined },
      now,
    );
  });
}

/** Weighs a closed cup again: a row of its own, and what it changes of remelt and lots as reversing rows. */
export function weighAgain(db: Db, id: string, body: Weighed, at: string): void {
  const pour = getPour(db, id);
  if (!pour.balance) throw new Failure('invalid-input', `${pour.code} is not closed yet; close it with these weights.`);
  balanceOf(body, [body]);
  const marks = linkedCups(db, id).flatMap((cup) => countMarks(db, cup.id));
  checkWeights(body.goodG, totalOf(marks, 'sell') + totalOf(marks, 'own'));
  insert(db, 'balance', { id: newId(), pourId: id, ...body, at });
  const note = 'weighed again';
  redraw(db, pour, partsIn(db, pour, pour.balance.cookedG), partsIn(db, pour, body.cookedG), at, note);
  const [rejects, left] = [body.rejectG - pour.balance.rejectG, body.returnedG - pour.balance.returnedG];
  const into = pouredInto(db, id);
  if (into !== undefined && left !== 0) atField('returnedG', () => leftAgain(db, id, into, left, at, note));
  const more = into === undefined ? rejects + left : rejects;
  if (more !== 0) returnAgain(db, pour, more, body.cookedG, at, note);
}
