import { COUNTED } from '../../core/units/counted.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** Minor units a kg, or a thousand pieces: what the lot was bought for, else what the material costs. */
const PRICE = 'coalesce(lot.price_per_kg_minor, material.price_per_kg_minor)';
const OF_LOT = 'JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id';

/** What a gram of each set of cups cost, at the prices of the lots that went in; remelt was paid for before. */
export function costPerGram(db: Db, pourIds: string[]): Map<string, number> {
  const rows = all<{ pourId: string; grams: number; costMinor: number }>(
    db,
    `SELECT lead.value AS pour_id, -sum(m.grams) AS grams, -sum(m.grams * coalesce(${PRICE}, 0)) / 1000 AS cost_minor
     FROM json_each(@ids) lead JOIN pour ON pour.id = lead.value OR pour.lead_id = lead.value
     JOIN lot_move m ON m.pour_id = pour.id ${OF_LOT}
     WHERE material.kind NOT IN (SELECT value FROM json_each(@counted)) GROUP BY lead.value`,
    { ids: JSON.stringify(pourIds), counted: JSON.stringify(COUNTED) },
  );
  return new Map(rows.map(({ pourId, grams, costMinor }) => [pourId, grams > 0 ? costMinor / grams : 0]));
}

/** What the empty bag, label and oil of each bag cost. */
export function costOfBags(db: Db, bagIds: string[]): Map<string, number> {
  const rows = all<{ bagId: string; costMinor: number }>(
    db,
    `SELECT m.bag_id, -sum(m.grams * coalesce(${PRICE}, 0)) / 1000 AS cost_minor
     FROM json_each(@ids) one JOIN lot_move m ON m.bag_id = one.value ${OF_LOT} GROUP BY m.bag_id`,
    { ids: JSON.stringify(bagIds) },
  );
  return new Map(rows.map(({ bagId, costMinor }) => [bagId, costMinor]));
}

/** What went into these cups and bags and has no price. */
export function unpricedIn(db: Db, pourIds: string[], bagIds: string[]): string[] {
  const of = (column: 'pour_id' | 'bag_id', ids: string[]) =>
    all<{ name: string }>(
      db,
      `SELECT DISTINCT material.name FROM json_each(@ids) one JOIN lot_move m ON m.${column} = one.value ${OF_LOT}
       WHERE ${PRICE} IS NULL`,
      { ids: JSON.stringify(ids) },
    ).map(({ name }) => name);
  return [...new Set([...of('pour_id', pourIds), ...of('bag_id', bagIds)])].sort();
}
