import type { Dose, Ledger } from '../../contract/recipes.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';

export const dosesOf = (db: Db, ledgerId: string) =>
  all<Dose>(
    db,
    `SELECT dose.seq, dose.id, material_id, material.name AS material_name, amount, unit, reverses, at
     FROM dose JOIN material ON material.id = material_id WHERE ledger_id = ? ORDER BY seq`,
    [ledgerId],
  );

export function getLedger(db: Db, id: string): Ledger {
  const { ofPour: _, ...ledger } = mustFind<Ledger & { ofPour: number }>(db, 'ledger', id, 'dosing ledger');
  return { ...ledger, doses: dosesOf(db, id) };
}

/** @param ofPour whether it is a cup's own, which is not listed beside those of somebody looking for a colour. */
export function addLedger(db: Db, title: string, batchMl: number, at: string, ofPour = false): string {
  const id = newId();
  insert(db, 'ledger', { id, title, batchMl, ofPour, createdAt: at });
  return id;
}

/** Doses of a cup that was weighed and closed stand as they were. */
export function refuseClosed(db: Db, ledgerId: string): void {
  if (first(db, 'SELECT 1 FROM pour WHERE ledger_id = ? AND closed_at IS NOT NULL', [ledgerId])) {
    throw new Failure('pour-closed', 'That cup is closed; its doses stand as they were.');
  }
}

export function addDose(
  db: Db,
  ledgerId: string,
  dose: { id?: string | undefined; materialId: string; amount: number; unit: string },
  at: string,
): void {
  refuseClosed(db, ledgerId);
  mustFind(db, 'material', dose.materialId, 'material');
  insert(db, 'dose', {
    id: newId(dose.id),
    ledgerId,
    materialId: dose.materialId,
    amount: dose.amount,
    unit: dose.unit,
    at,
  });
}
