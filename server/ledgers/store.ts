import type { MaterialKind } from '../../contract/materials.ts';
import type { Dose, Ledger } from '../../contract/recipes.ts';
import { Failure } from '../../core/failure.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { bottleInUse } from '../materials/store.ts';

export const dosesOf = (db: Db, ledgerId: string) =>
  all<Dose>(
    db,
    `SELECT dose.seq, dose.id, dose.material_id, material.name AS material_name, amount, unit, reverses, dose.drops_per_ml, dose.lot_id,
       lot.bottle_strength, at
     FROM dose JOIN material ON material.id = dose.material_id LEFT JOIN lot ON lot.id = dose.lot_id WHERE ledger_id = ? ORDER BY seq`,
    [ledgerId],
  );

/** SQL: the materials that were dosed into a ledger and not taken back. @param ledger its id in the query around it. */
export const dosedInto = (ledger: string) =>
  `SELECT material_id FROM dose d WHERE d.ledger_id = ${ledger} AND ${standing('dose', 'd')}`;

/** SQL: whether anything of these kinds was dosed into it. @param ledger its id in the query around it. */
export const hasDosed = (ledger: string, kinds: MaterialKind[]) =>
  `EXISTS (SELECT 1 FROM dose d JOIN material ON material.id = d.material_id WHERE d.ledger_id = ${ledger}
    AND material.kind IN (${kinds.map((kind) => `'${kind}'`).join(', ')}) AND ${standing('dose', 'd')})`;

/** The number of the newest row of a ledger, taken back or not; 0 before the first. */
export const lastDose = (db: Db, ledgerId: string): number =>
  first<{ seq: number | null }>(db, 'SELECT max(seq) AS seq FROM dose WHERE ledger_id = ?', [ledgerId])?.seq ?? 0;

/** The number of a row of a ledger, by its id; 0 for what is in it before the first. */
export const doseSeqOf = (db: Db, ledgerId: string, id: string | null): number | undefined =>
  id === null
    ? 0
    : first<{ seq: number }>(db, 'SELECT seq FROM dose WHERE id = ? AND ledger_id = ?', [id, ledgerId])?.seq;

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
  const bottle = bottleInUse(db, dose.materialId);
  insert(db, 'dose', {
    id: newId(dose.id),
    ledgerId,
    materialId: dose.materialId,
    amount: dose.amount,
    unit: dose.unit,
    lotId: bottle.lotId,
    ...(dose.unit === 'drop' ? { dropsPerMl: bottle.dropsPerMl } : {}),
    at,
  });
}
