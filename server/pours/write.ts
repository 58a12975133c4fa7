import type { BlendWish } from '../../contract/blend.ts';
import type { Pour } from '../../contract/pours.ts';
import { Failure } from '../../core/failure.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { insert, mustFind, run, update } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { linkedCups } from './linked.ts';
import { changeParts } from './parts.ts';
import { getPour } from './read.ts';

export interface OpenPour {
  id: string;
  code: string;
  ledgerId: string;
  recipeId: string;
  colourwayId: string;
  colourwayRevisionId: string;
  leadId: string | null;
  plan: Pour['plan'];
  closedAt: string | null;
}

export function openPour(db: Db, id: string): OpenPour {
  const pour = mustFind<OpenPour>(db, 'pour', id, 'pour');
  if (pour.closedAt)
    throw new Failure('pour-closed', `${pour.code} is closed and its baits are on the rack; it stands as it was.`);
  return pour;
}

export function markStarted(db: Db, id: string, at: string): void {
  run(db, 'UPDATE pour SET started_at = ?, version = version + 1 WHERE id = ? AND started_at IS NULL', [at, id]);
}

export function addHeat(
  db: Db,
  pour: OpenPour,
  heat: { id?: string | undefined; kind: string; c: number; instrumentId?: string | null },
  at: string,
): void {
  insert(db, 'heat', {
    id: newId(heat.id),
    pourId: pour.id,
    kind: heat.kind,
    c: heat.c,
    instrumentId: heat.instrumentId ?? null,
    at,
  });
  markStarted(db, pour.id, at);
}

/** Puts a pour away that was laid out by mistake, or takes it up again; one that was drawn from is closed by weighing. */
export function discard(db: Db, id: string, version: number, discarded: boolean, at: string): void {
  const pour = getPour(db, id);
  if (linkedCups(db, id).some((cup) => cup.drawnOf)) {
    throw new Failure(
      'already-started',
      `${pour.code} was drawn from or poured into; weigh what is there and close it.`,
    );
  }
  if (discarded === (pour.discardedAt !== null)) return;
  const stamp = discarded ? at : null;
  update(db, 'pour', id, version, { discardedAt: stamp, closedAt: stamp }, 'pour');
  if (discarded) for (const cup of pour.cups) clockStep(db, 'cupOver', { type: 'pour', id: cup.id }, new Date(at));
  // Cups that were laid out for the same shots go with it.
  for (const cup of pour.cups)
    if (cup.id !== id)
      run(db, 'UPDATE pour SET discarded_at = @stamp, closed_at = @stamp, version = version + 1 WHERE id = @id', {
        stamp,
        id: cup.id,
      });
}

/** Another blend for a cup into which nothing is weighed yet. */
export function chooseBlend(db: Db, id: string, version: number, blend: BlendWish): void {
  openPour(db, id);
  update(db, 'pour', id, version, {}, 'pour');
  changeParts(db, id, blend);
}
