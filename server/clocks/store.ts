import type { Clock } from '../../contract/workshop.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, run } from '../db/rows.ts';
import { newId } from '../ids.ts';

interface NewClock {
  kind: Clock['kind'];
  label: string;
  dueAt: Date;
  aboutType?: string;
  aboutId?: string;
}

/** A cure that nobody looked at is over after this; its clock would be in the way of those that run. */
const FORGOTTEN_MS = 14 * 86_400_000;

export function startClock(db: Db, { dueAt, ...clock }: NewClock, now: Date): string {
  run(db, `UPDATE clock SET ended_at = due_at WHERE ended_at IS NULL AND kind = 'cure' AND due_at < ?`, [
    new Date(now.getTime() - FORGOTTEN_MS).toISOString(),
  ]);
  const id = newId();
  insert(db, 'clock', { id, ...clock, startedAt: now.toISOString(), dueAt: dueAt.toISOString() });
  return id;
}

/** @throws Failure `already-started` when the same clock runs already: a second tap starts no second one. */
export function refuseRunning(db: Db, label: string, now: Date): void {
  const running = first<{ dueAt: string }>(
    db,
    `SELECT due_at FROM clock WHERE kind = 'own' AND label = ? AND ended_at IS NULL AND due_at > ? ORDER BY due_at DESC`,
    [label, now.toISOString()],
  );
  if (!running) return;
  const minutes = Math.ceil((Date.parse(running.dueAt) - now.getTime()) / 60_000);
  throw new Failure(
    'already-started',
    `“${label}” runs already, ${minutes} min left. Add minutes to it, or end it first.`,
    'label',
  );
}

/** Ends what still runs about a thing: a mold that was opened needs no alarm. */
export function endClocks(db: Db, kind: Clock['kind'], aboutType: string, aboutId: string, at: string): void {
  run(
    db,
    `UPDATE clock SET ended_at = @at, version = version + 1
     WHERE kind = @kind AND about_type = @aboutType AND about_id = @aboutId AND ended_at IS NULL`,
    { at, kind, aboutType, aboutId },
  );
}

export const runningClocks = (db: Db) =>
  all<Clock>(db, 'SELECT * FROM clock WHERE ended_at IS NULL ORDER BY due_at LIMIT 200');
