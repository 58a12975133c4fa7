import type { Money } from '../../contract/money.ts';
import { usual } from '../../core/defaults.ts';
import { shareExactly } from '../../core/plan/cost.ts';
import { handsS } from '../../core/plan/hours.ts';
import type { SoldRow } from '../../core/plan/margins.ts';
import { COUNTED } from '../../core/units/counted.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { packTime } from '../orders/packing.ts';
import { handsOf } from '../pours/hands.ts';

type Packed = Omit<SoldRow, 'revenueMinor' | 'materialMinor' | 'minutes' | 'evening'> & {
  lineId: string;
  packs: number;
  priceMinor: number | null;
  pourId: string;
  bags: number;
  pouredAt: string;
};

/** Baits in bags of orders that were sent, by line and cup. */
const SOLD = `SELECT o.id AS order_id, o.code, o.customer_id, customer.name AS customer, o.gift, l.id AS line_id, l.packs, l.price_minor,
    l.bait_id, bait.name AS bait, l.colourway_id, c.name AS colour, c.hex, k.pour_id, -sum(k.baits) AS baits,
    count(DISTINCT k.bag_id) AS bags, coalesce(pour.started_at, pour.laid_out_at) AS poured_at
  FROM customer_order o JOIN customer ON customer.id = o.customer_id JOIN order_line l ON l.order_id = o.id
  JOIN bait ON bait.id = l.bait_id JOIN colourway_called c ON c.id = l.colourway_id
  JOIN bag ON bag.order_line_id = l.id JOIN stock_move k ON k.bag_id = bag.id JOIN pour ON pour.id = k.pour_id
  WHERE o.due_on BETWEEN @from AND @to AND o.sent_at IS NOT NULL
  GROUP BY l.id, k.pour_id HAVING sum(k.baits) < 0 ORDER BY o.due_on, l.position`;

interface PerGram {
  pourId: string;
  grams: number;
  costMinor: number;
}

const PRICE = 'coalesce(lot.price_per_kg_minor, material.price_per_kg_minor)';

/** What a gram of each set of cups cost, at the prices of the lots that went in; remelt was paid for before. */
function perGram(db: Db, pourIds: string[]): Map<string, number> {
  const rows = all<PerGram>(
    db,
    `SELECT lead.value AS pour_id, -sum(m.grams) AS grams, -sum(m.grams * coalesce(${PRICE}, 0)) / 1000 AS cost_minor
     FROM json_each(@ids) lead JOIN pour ON pour.id = lead.value OR pour.lead_id = lead.value
     JOIN lot_move m ON m.pour_id = pour.id JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id
     WHERE material.kind NOT IN (SELECT value FROM json_each(@counted)) GROUP BY lead.value`,
    { ids: JSON.stringify(pourIds), counted: JSON.stringify(COUNTED) },
  );
  return new Map(rows.map(({ pourId, grams, costMinor }) => [pourId, grams > 0 ? costMinor / grams : 0]));
}

/** What bags, labels and oil of a line's bags cost. */
function beside(db: Db, lineIds: string[]): Map<string, number> {
  const rows = all<{ lineId: string; costMinor: number }>(
    db,
    `SELECT bag.order_line_id AS line_id, -sum(m.grams * coalesce(${PRICE}, 0)) / 1000 AS cost_minor
     FROM json_each(@ids) one JOIN bag ON bag.order_line_id = one.value JOIN lot_move m ON m.bag_id = bag.id
     JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id GROUP BY bag.order_line_id`,
    { ids: JSON.stringify(lineIds) },
  );
  return new Map(rows.map(({ lineId, costMinor }) => [lineId, costMinor]));
}

const unpricedIn = (db: Db, pourIds: string[], lineIds: string[]) =>
  all<{ name: string }>(
    db,
    `SELECT DISTINCT material.name FROM lot_move m JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id
     WHERE ${PRICE} IS NULL AND (m.pour_id IN (SELECT value FROM json_each(@pours))
       OR m.bag_id IN (SELECT id FROM bag WHERE order_line_id IN (SELECT value FROM json_each(@lines)))) ORDER BY 1`,
    { pours: JSON.stringify(pourIds), lines: JSON.stringify(lineIds) },
  ).map(({ name }) => name);

interface Made {
  pourId: string;
  baitId: string;
  moldId: string;
  cavities: number;
  cavityMl: number;
  sell: number;
  made: number;
}

/** Molds of each cup that made the bait, with what they gave. */
const madeIn = (db: Db, pourIds: string[]) =>
  all<Made>(
    db,
    `SELECT pm.pour_id, mold.bait_id, pm.mold_id, mold.cavities, mold.cavity_ml, coalesce(pm.sell, 0) AS sell,
       coalesce(pm.sell + pm.own + pm.remelt, 0) AS made
     FROM json_each(?) one JOIN pour_mold pm ON pm.pour_id = one.value JOIN mold ON mold.id = pm.mold_id`,
    [JSON.stringify(pourIds)],
  );

/** Orders that were sent and due within these days, with what they cost here. */
export function moneyOf(db: Db, from: string, to: string): Money {
  const sold = all<Packed>(db, SOLD, { from, to });
  const pourIds = [...new Set(sold.map(({ pourId }) => pourId))];
  const lineIds = [...new Set(sold.map(({ lineId }) => lineId))];
  const [gram, besides, made] = [perGram(db, pourIds), beside(db, lineIds), madeIn(db, pourIds)];
  const hands = new Map(handsOf(db, null).map((one) => [one.moldId, one.handsS]));
  const { packS } = packTime(db);
  const ofLine = new Map<string, Packed[]>();
  for (const row of sold) ofLine.set(row.lineId, [...(ofLine.get(row.lineId) ?? []), row]);
  const rows = [...ofLine.values()].flatMap((parts): SoldRow[] => {
    const [one] = parts as [Packed];
    const all = parts.reduce((sum, { baits }) => sum + baits, 0);
    const paid = one.priceMinor === null ? null : one.gift ? 0 : one.packs * one.priceMinor;
    const shares =
      paid === null
        ? []
        : shareExactly(
            parts.map(({ baits }) => (paid * baits) / all),
            paid,
          );
    return parts.map(({ lineId, packs: _, priceMinor: _price, pourId, pouredAt, bags, ...row }, i) => {
      const molds = made.filter((mold) => mold.pourId === pourId && mold.baitId === row.baitId);
      const sell = Math.max(
        1,
        molds.reduce((sum, mold) => sum + mold.sell, 0),
      );
      // Each bait of a mold takes its share of a shot's hands, those of the rejects too.
      const shotS = molds.reduce(
        (sum, { moldId, cavities, made: n }) => sum + ((hands.get(moldId) ?? handsS(cavities)) * n) / cavities,
        0,
      );
      const ml = molds.reduce((sum, mold) => sum + mold.cavityMl * mold.sell, 0) / sell || (molds[0]?.cavityMl ?? 0);
      return {
        ...row,
        evening: pouredAt.slice(0, 10),
        revenueMinor: shares[i] ?? null,
        materialMinor:
          row.baits * ml * usual('plastisolGPerMl') * (gram.get(pourId) ?? 0) +
          ((besides.get(lineId) ?? 0) * row.baits) / all,
        minutes: (row.baits * (shotS / sell) + bags * packS) / 60,
      };
    });
  });
  return { rows, unpriced: unpricedIn(db, pourIds, lineIds) };
}
