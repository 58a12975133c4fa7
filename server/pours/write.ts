import { addSeconds } from 'date-fns/addSeconds';
import type * as v from 'valibot';
import type { BlendWish } from '../../contract/blend.ts';
import type { MoldRow } from '../../contract/molds.ts';
import type { marksBody, Pour, pourBody } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { type CupWish, planCup } from '../../core/plan/cup.ts';
import { type Waits, waitOf } from '../../core/process/waits.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { first, insert, mustFind, nextNumber, run, update } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addLedger, lastDose } from '../ledgers/store.ts';
import { openLot } from '../materials/store.ts';
import { usableMolds } from '../molds/store.ts';
import { itemsOf, latestRevision } from '../recipes/store.ts';
import { ownUnits, workshop } from '../workshop/store.ts';
import { changeParts, writeParts } from './parts.ts';
import { getPour, moldsOf } from './read.ts';

type NewPour = v.InferOutput<typeof pourBody>;

function chosenMolds(db: Db, body: NewPour): { mold: MoldRow; shots: number }[] {
  const usable = usableMolds(db);
  return body.molds.map(({ moldId, shots }, index) => {
    const mold = usable.find((row) => row.id === moldId);
    if (!mold) throw new Failure('invalid-input', 'That mold is not here, or it is retired.', `molds.${index}.moldId`);
    return { mold, shots };
  });
}

function linkOrderLines(db: Db, pourId: string, body: NewPour, baitIds: Set<string>): void {
  body.orderLines.forEach((line, index) => {
    const row = first<{ recipeId: string; baitId: string }>(
      db,
      'SELECT recipe_id, bait_id FROM order_line WHERE id = ?',
      [line.orderLineId],
    );
    if (!row) throw new Failure('invalid-input', 'That order line is not here.', `orderLines.${index}.orderLineId`);
    if (row.recipeId !== body.recipeId || !baitIds.has(row.baitId)) {
      throw new Failure(
        'invalid-input',
        'That order line wants another colour or bait than this cup makes.',
        `orderLines.${index}.orderLineId`,
      );
    }
    insert(db, 'pour_order_line', { pourId, orderLineId: line.orderLineId, baits: line.baits });
  });
}

interface Gathered extends CupWish {
  molds: MoldRow[];
  revisionId: string;
  bait: { wantedScale: 'A' | '00' | null; wantedHardness: number | null };
}

/** Everything that a cup is laid out from, as the workshop stands. @param opens waits by mold, in their order. */
function gather(db: Db, body: NewPour, opens: (Waits | undefined)[]): Gathered {
  mustFind(db, 'recipe', body.recipeId, 'recipe');
  const chosen = chosenMolds(db, body);
  const { id, basisMl } = latestRevision(db, body.recipeId);
  return {
    molds: chosen.map(({ mold }) => mold),
    drawn: chosen.map(({ mold, shots }, index) => ({ mold, shots, opens: opens[index] })),
    revisionId: id,
    recipe: {
      basisMl,
      lines: itemsOf(db, id).map((item) => ({ ...item, lotCode: openLot(db, item.materialId)?.code ?? null })),
    },
    glassMl: workshop(db).glassMl,
    measures: ownUnits(db),
    bait: mustFind(db, 'bait', chosen[0]?.mold.baitId as string, 'bait'),
  };
}

/** Lays out one cup: gathered here, computed in the core, written with its ledger, its molds and the lines it is for. */
export function layOutPour(db: Db, body: NewPour, at: string, opens: (Waits | undefined)[] = []): string {
  const gathered = gather(db, body, opens);
  const plan = planCup(gathered);
  const { bait } = gathered;
  const id = newId();
  const code = `P${nextNumber(db, 'pour')}`;
  insert(db, 'pour', {
    id,
    code,
    recipeId: body.recipeId,
    recipeRevisionId: gathered.revisionId,
    ledgerId: addLedger(db, code, plan.cookMl, at, true),
    makerId: body.makerId,
    cookMl: plan.cookMl,
    plan,
    wantedScale: body.wanted?.scale ?? bait.wantedScale,
    wantedHardness: body.wanted?.value ?? bait.wantedHardness,
    laidOutAt: at,
    createdAt: at,
  });
  plan.molds.forEach(({ moldId, shots }, position) => {
    insert(db, 'pour_mold', { pourId: id, moldId, position, shots });
  });
  writeParts(db, id, body.blend);
  linkOrderLines(db, id, body, new Set(gathered.molds.map((mold) => mold.baitId)));
  return id;
}

export interface OpenPour {
  id: string;
  code: string;
  ledgerId: string;
  recipeId: string;
  plan: Pour['plan'];
  closedAt: string | null;
}

export function openPour(db: Db, id: string): OpenPour {
  const pour = mustFind<OpenPour>(db, 'pour', id, 'pour');
  if (pour.closedAt)
    throw new Failure('pour-closed', `${pour.code} is closed and its baits are on the rack; it stands as it was.`);
  return pour;
}

function markStarted(db: Db, id: string, at: string): void {
  run(db, 'UPDATE pour SET started_at = ?, version = version + 1 WHERE id = ? AND started_at IS NULL', [at, id]);
}

export function addHeat(
  db: Db,
  pour: OpenPour,
  heat: { id?: string | undefined; kind: string; c: number },
  at: string,
): void {
  insert(db, 'heat', { id: newId(heat.id), pourId: pour.id, kind: heat.kind, c: heat.c, at });
  markStarted(db, pour.id, at);
}

const lastHeat = (db: Db, pourId: string) =>
  first<{ seq: number | null }>(db, 'SELECT max(seq) AS seq FROM heat WHERE pour_id = ?', [pourId])?.seq ?? 0;

/** What the clock of a mold in this cup is about. */
export const aboutMold = (pourId: string, moldId: string) => ({
  type: 'pour-mold' as const,
  id: `${pourId} ${moldId}`,
});

/** A shot is pinned to the doses and heats of its cup at this moment. */
export function addShot(db: Db, pour: OpenPour, own: string | undefined, moldId: string, now: Date): void {
  const at = now.toISOString();
  const mold = moldsOf(db, pour.id, pour.plan).find((row) => row.moldId === moldId);
  if (!mold) throw new Failure('invalid-input', 'That mold is not part of this pour.', 'moldId');
  insert(db, 'shot', {
    id: newId(own),
    pourId: pour.id,
    moldId,
    doseSeq: lastDose(db, pour.ledgerId),
    heatSeq: lastHeat(db, pour.id),
    at,
  });
  markStarted(db, pour.id, at);
  const drawn = first<{ n: number }>(db, 'SELECT count(*) AS n FROM shot_live WHERE pour_id = ? AND mold_id = ?', [
    pour.id,
    moldId,
  ]) as { n: number };
  clockStep(db, 'shot', aboutMold(pour.id, moldId), now, {
    open: { label: `Open ${mold.name}`, dueAt: addSeconds(now, waitOf(mold.opens, drawn.n - 1)) },
  });
}

export function addMarks(
  db: Db,
  pour: OpenPour,
  shotId: string,
  marks: v.InferOutput<typeof marksBody>['marks'],
  now: Date,
): void {
  const at = now.toISOString();
  const shot = first<{ moldId: string; cavities: number }>(
    db,
    'SELECT s.mold_id, mold.cavities FROM shot_live s JOIN mold ON mold.id = s.mold_id WHERE s.id = ? AND s.pour_id = ?',
    [shotId, pour.id],
  );
  if (!shot) throw new Failure('not-found', 'There is no such shot in this pour, or it was taken back.');
  marks.forEach((mark, index) => {
    if (mark.cavity > shot.cavities) {
      throw new Failure(
        'invalid-input',
        `This mold has ${shot.cavities} cavities; there is no number ${mark.cavity}.`,
        `marks.${index}.cavity`,
      );
    }
    insert(db, 'cavity_mark', {
      id: newId(mark.id),
      shotId,
      cavity: mark.cavity,
      grade: mark.grade,
      reason: mark.reason,
      at,
    });
  });
  clockStep(db, 'lookedAt', aboutMold(pour.id, shot.moldId), now);
}

/** Puts a pour away that was laid out by mistake, or takes it up again; one that was drawn from is closed by weighing. */
export function discard(db: Db, id: string, version: number, discarded: boolean, at: string): void {
  const pour = getPour(db, id);
  if (pour.shots.length > 0 || pour.balance) {
    throw new Failure('already-started', `${pour.code} was drawn from; weigh what came out and close it.`);
  }
  if (discarded === (pour.discardedAt !== null)) return;
  const stamp = discarded ? at : null;
  update(db, 'pour', id, version, { discardedAt: stamp, closedAt: stamp }, 'pour');
}

/** Another blend for a cup into which nothing is weighed yet. */
export function chooseBlend(db: Db, id: string, version: number, blend: BlendWish): void {
  openPour(db, id);
  update(db, 'pour', id, version, {}, 'pour');
  changeParts(db, id, blend);
}
