import { standingDoses } from '../../core/plastisol/cup.ts';
import { type Doseable, doseGrams } from '../../core/plastisol/weigh.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { dosesOf } from '../ledgers/store.ts';
import { ownUnits, workshop } from '../workshop/store.ts';

interface Dosed {
  g: number;
  /** Of it salt. */
  saltG: number;
  /** Names of materials whose weight is only usual of their kind. */
  byDefault: string[];
  rows: { materialId: string; lotId: string | null; g: number }[];
}

/** What the doses of a ledger weigh, taken-back ones left out. */
export function dosedIn(db: Db, ledgerId: string): Dosed {
  const doses = standingDoses(dosesOf(db, ledgerId));
  if (doses.length === 0) return { g: 0, saltG: 0, byDefault: [], rows: [] };
  const materials = new Map(
    all<Doseable & { id: string; name: string }>(
      db,
      `SELECT id, name, kind, bulk_g_per_ml, density_g_per_ml, drops_per_ml FROM material
       WHERE id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(doses.map(({ materialId }) => materialId))],
    ).map((row) => [row.id, row]),
  );
  const own = {
    dropsPerMl: workshop(db).dropsPerMl,
    measures: ownUnits(db),
  };
  const rows = new Map<string, Dosed['rows'][number]>();
  const weighed = doses.map((dose) => {
    const material = materials.get(dose.materialId) as Doseable & { name: string };
    return {
      materialId: dose.materialId,
      lotId: dose.lotId,
      name: material.name,
      kind: material.kind,
      ...doseGrams(dose, material, own),
    };
  });
  for (const { materialId, lotId, g } of weighed) {
    const key = `${materialId} ${lotId}`;
    rows.set(key, { materialId, lotId, g: (rows.get(key)?.g ?? 0) + g });
  }
  return {
    g: weighed.reduce((sum, row) => sum + row.g, 0),
    saltG: weighed.reduce((sum, row) => sum + (row.kind === 'salt' ? row.g : 0), 0),
    byDefault: [...new Set(weighed.filter((row) => row.byDefault).map((row) => row.name))],
    rows: [...rows.values()],
  };
}
