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

/** Doses that are in a cup after the row `upTo` (all rows by default), without those taken back by then. */
export function standingDoses<D extends DoseRow>(rows: D[], upTo = Number.POSITIVE_INFINITY): D[] {
  const seen = rows.filter((row) => row.seq <= upTo);
  const reversed = new Set(seen.map((row) => row.reverses));
  return seen.filter(({ id, reverses }) => reverses === null && !reversed.has(id));
}

/** What is in a cup after the row `upTo`: the sum of its doses per material and unit, in the order first dosed. */
export function cupTotals(rows: DoseRow[], upTo = Number.POSITIVE_INFINITY): DoseTotal[] {
  const totals = new Map<string, DoseTotal>();
  for (const { materialId, unit, amount } of standingDoses(rows, upTo)) {
    const key = `${materialId} ${unit}`;
    const total = totals.get(key);
    if (total) total.amount += amount;
    else totals.set(key, { materialId, unit, amount });
  }
  return [...totals.values()];
}

/**
 * What a cup was dosed with, at the house strength and in drops of the bottles in use: as a recipe is written.
 * @param rows each with what a drop of its bottle was, drops/mL, and how strong it was; null where that was not kept.
 * @param bottleOf how a material's bottle in use drips, and how strong it is.
 */
export function asWritten(
  rows: (DoseRow & { dropsPerMl: number | null; bottleStrength: number | null })[],
  bottleOf: (materialId: string) => { dropsPerMl: number; bottleStrength: number },
): DoseTotal[] {
  return cupTotals(
    standingDoses(rows).map((dose) => {
      const { dropsPerMl, bottleStrength } = bottleOf(dose.materialId);
      const drip = dose.unit === 'drop' ? dropsPerMl / (dose.dropsPerMl ?? dropsPerMl) : 1;
      return { ...dose, amount: dose.amount * drip * (dose.bottleStrength ?? bottleStrength) };
    }),
  );
}

/** What still stands in a cup after so much of it was drawn, g: that is cooked again, and no more. */
export const leftG = ({ massG, cookMl }: { massG: number; cookMl: number }, drawnMl: number): number =>
  massG * Math.max(0, 1 - drawnMl / cookMl);
