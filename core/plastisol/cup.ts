/** One row of a dosing ledger; `reverses` names the row it takes back. */
export interface DoseRow {
  seq: number;
  id: string;
  materialId: string;
  amount: number;
  unit: string;
  reverses: string | null;
}

export interface DoseTotal {
  materialId: string;
  unit: string;
  amount: number;
}

/**
 * What is in a cup after the row `upTo` (all rows by default): the sum of doses per material and unit, in the order
 * first dosed, without those taken back by then.
 */
export function cupTotals(rows: DoseRow[], upTo = Number.POSITIVE_INFINITY): DoseTotal[] {
  const seen = rows.filter((row) => row.seq <= upTo);
  const reversed = new Set(seen.map((row) => row.reverses));
  const totals = new Map<string, DoseTotal>();
  for (const { id, materialId, unit, amount, reverses } of seen) {
    if (reverses !== null || reversed.has(id)) continue;
    const key = `${materialId} ${unit}`;
    const total = totals.get(key);
    if (total) total.amount += amount;
    else totals.set(key, { materialId, unit, amount });
  }
  return [...totals.values()];
}
