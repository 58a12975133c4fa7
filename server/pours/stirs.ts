import type { Pour } from '../../contract/pours.ts';
import { stirOf } from '../../core/colour/stir.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { ingredientsIn } from './colour.ts';

/** The cup that a ledger is of; nothing for one that looks for a colour. */
export const pourOfLedger = (db: Db, ledgerId: string): string | undefined =>
  first<{ id: string }>(db, 'SELECT id FROM pour WHERE ledger_id = ?', [ledgerId])?.id;

/** What sinks first in a cup, and until when the last stir lasts. */
export function stirOfPour(db: Db, { id, ledgerId }: { id: string; ledgerId: string }): Pour['stir'] {
  const stir = stirOf(ingredientsIn(db, ledgerId));
  if (!stir) return null;
  const clock = first<{ dueAt: string }>(
    db,
    `SELECT due_at FROM clock WHERE kind = 'stir' AND about_type = 'pour' AND about_id = ? AND ended_at IS NULL`,
    [id],
  );
  return { name: stir.name, everyS: stir.everyS, dueAt: clock?.dueAt ?? null };
}

/** The cup was stirred just now: its clock runs anew, for as long as a stir lasts in it. */
export function stirs(db: Db, id: string, now: Date): void {
  const { ledgerId, code } = mustFind<{ ledgerId: string; code: string }>(db, 'pour', id, 'pour');
  const stir = stirOf(ingredientsIn(db, ledgerId));
  if (!stir) {
    clockStep(db, 'stirOver', { type: 'pour', id }, now);
    return;
  }
  clockStep(db, 'stirred', { type: 'pour', id }, now, {
    stir: { label: `Stir ${code}: ${stir.name} sinks`, dueAt: new Date(now.getTime() + 1000 * stir.everyS) },
  });
}

export function addStir(db: Db, pourId: string, body: { id?: string | undefined }, now: Date): void {
  insert(db, 'stir', { id: newId(body.id), pourId, at: now.toISOString() });
  stirs(db, pourId, now);
}
