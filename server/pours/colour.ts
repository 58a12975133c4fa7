import { colourOfCup } from '../../core/colour/cup.ts';
import { type Ingredient, meltOfIngredients } from '../../core/colour/foresee.ts';
import { ingredientsOf } from '../../core/colour/ingredients.ts';
import type { Optics } from '../../core/colour/light.ts';
import { tried } from '../../core/failure.ts';
import type { Layer } from '../../core/plastisol/bin.ts';
import { standingDoses } from '../../core/plastisol/cup.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { dosesOf } from '../ledgers/store.ts';
import { learntHere, stepsByMaterial } from '../materials/colour.ts';
import { ownUnits, workshop } from '../workshop/store.ts';

const NOTHING: Optics = { k: [0, 0, 0], s: [0, 0, 0] };

type Coloured = Pick<Ingredient, 'hex' | 'sizeMm' | 'cut' | 'turnsHex' | 'kind' | 'name'> & {
  id: string;
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
  dropsPerMl: number | null;
};

/** What was dosed into a ledger and stands, as it is seen: of the house strength, in a litre of its cup. */
export function ingredientsIn(db: Db, ledgerId: string): Ingredient[] {
  const doses = standingDoses(dosesOf(db, ledgerId));
  if (doses.length === 0) return [];
  const { batchMl } = first(db, 'SELECT batch_ml FROM ledger WHERE id = ?', [ledgerId]) as { batchMl: number };
  const ids = [...new Set(doses.map(({ materialId }) => materialId))];
  const materials = new Map(
    all<Coloured>(
      db,
      `SELECT id, name, kind, hex, size_mm, cut, turns_hex, bulk_g_per_ml, density_g_per_ml, drops_per_ml FROM material
       WHERE id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(ids)],
    ).map((row) => [row.id, row]),
  );
  const [steps, learnt] = [stepsByMaterial(db, ids), learntHere(db)];
  const [usualDrop, measures] = [workshop(db).dropsPerMl, ownUnits(db)];
  const each = doses.flatMap((dose) => {
    const { name, kind, dropsPerMl, ...material } = materials.get(dose.materialId) as Coloured;
    const line = {
      ...material,
      materialId: dose.materialId,
      materialName: name,
      materialKind: kind,
      amount: dose.amount,
      unit: dose.unit,
      dropsPerMl: dose.dropsPerMl ?? dropsPerMl ?? usualDrop,
      bottleStrength: dose.bottleStrength ?? 1,
      optics: steps.get(dose.materialId)?.optics ?? null,
      learnt: learnt.get(dose.materialId) ?? null,
    };
    // A measure that was given another name since cannot be understood any more; the others still count.
    return tried(() => ingredientsOf([line], batchMl, measures)).value ?? [];
  });
  const sums = new Map<string, Ingredient>();
  for (const one of each) {
    const before = sums.get(one.id);
    sums.set(one.id, before ? { ...before, mlPerL: before.mlPerL + one.mlPerL, gPerL: before.gPerL + one.gPerL } : one);
  }
  return [...sums.values()];
}

/** What a cup does to light, as far as that is known: of what comes back of it, flake left out. */
export const cupColour = (db: Db, { ledgerId }: { ledgerId: string }, plastic: { freshG: number; remelt: Layer[] }) =>
  colourOfCup(plastic, meltOfIngredients(ingredientsIn(db, ledgerId), NOTHING).optics);
