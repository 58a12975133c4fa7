import type { Clock } from '../../contract/workshop.ts';
import { Failure } from '../../core/failure.ts';
import { CLOCKS_AT, type ClockStep, type ProcessClock } from '../../core/process/clocks.ts';
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

interface About {
  type: 'master' | 'mold' | 'pour' | 'pour-mold';
  id: string;
}

/** A step of the work: ends and starts the clocks that it is about, as the core's list says. */
export function clockStep(
  db: Db,
  step: ClockStep,
  about: About,
  now: Date,
  starting: Partial<Record<ProcessClock, { label: string; dueAt: Date }>> = {},
): void {
  const { ends, starts } = CLOCKS_AT[step];
  for (const kind of ends) endClocks(db, kind, about.type, about.id, now.toISOString());
  for (const kind of starts) {
    const clock = starting[kind];
    if (!clock) throw new Error(`The step ${step} starts a clock (${kind}) that was not told of.`);
    startClock(db, { kind, ...clock, aboutType: about.type, aboutId: about.id }, now);
  }
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
export function refuseRunning(db: Db, kind: Clock['kind'], label: string, now: Date): void {
  const running = first<{ dueAt: string }>(
    db,
    `SELECT due_at FROM clock WHERE kind = ? AND label = ? AND ended_at IS NULL AND due_at > ? ORDER BY due_at DESC`,
    [kind, label, now.toISOString()],
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
function endClocks(db: Db, kind: Clock['kind'], aboutType: string, aboutId: string, at: string): void {
  run(
    db,
    `UPDATE clock SET ended_at = @at, version = version + 1
     WHERE kind = @kind AND about_type = @aboutType AND about_id = @aboutId AND ended_at IS NULL`,
    { at, kind, aboutType, aboutId },
  );
}

export const runningClocks = (db: Db) =>
  all<Clock>(db, 'SELECT * FROM clock WHERE ended_at IS NULL ORDER BY due_at LIMIT 200');
