import type { SoldRow } from '../../core/plan/margins.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';

/** Baits in bags of an order that was sent, by line and cup. */
export type Sold = Omit<SoldRow, 'revenueMinor' | 'materialMinor' | 'minutes' | 'evening'> & {
  lineId: string;
  packs: number;
  priceMinor: number | null;
  pourId: string;
  bagIds: string[];
  pouredAt: string;
};

/** A set costs what its lines cost together. */
const PRICE = `iif(l.set_name IS NULL, l.price_minor,
  (SELECT sum(s.price_minor) FROM order_line s WHERE s.order_id = l.order_id AND s.set_name = l.set_name AND s.taken_at IS NULL))`;

const SOLD = `SELECT o.id AS order_id, o.code, o.customer_id, customer.name AS customer, o.gift, l.id AS line_id, l.packs, ${PRICE} AS price_minor,
    k.bait_id, bait.name AS bait, k.colourway_id, c.name AS colour, c.hex, k.pour_id, -sum(k.baits) AS baits,
    json_group_array(DISTINCT k.bag_id) AS bags, coalesce(pour.started_at, pour.laid_out_at) AS poured_at
  FROM customer_order o JOIN customer ON customer.id = o.customer_id JOIN order_line l ON l.order_id = o.id
  JOIN bag ON bag.order_line_id = l.id JOIN stock_move k ON k.bag_id = bag.id JOIN pour ON pour.id = k.pour_id
  JOIN bait ON bait.id = k.bait_id JOIN colourway_called c ON c.id = k.colourway_id
  WHERE o.due_on BETWEEN @from AND @to AND o.sent_at IS NOT NULL
    AND NOT EXISTS (SELECT 1 FROM stock_move u WHERE u.bag_id = bag.id AND u.kind = 'unpacked')
  GROUP BY l.id, k.pour_id, k.bait_id, k.colourway_id ORDER BY o.due_on, l.position`;

/** What was sent of the orders that were due within these days. */
export const soldIn = (db: Db, from: string, to: string): Sold[] =>
  all<Omit<Sold, 'bagIds'> & { bags: string }>(db, SOLD, { from, to }).map(({ bags, ...row }) => ({
    ...row,
    bagIds: JSON.parse(bags) as string[],
  }));
