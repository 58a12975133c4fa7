import type { RackGrade } from '../../contract/orders.ts';
import type { Pour } from '../../contract/pours.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';

// What other rooms ask of the rack and its bags, as SQL that goes by the order line `l` of the query around it.

/** Bags of a line that were not opened again. */
export const BAGS_PACKED = `((SELECT count(*) FROM bag WHERE bag.order_line_id = l.id AND NOT EXISTS
    (SELECT 1 FROM stock_move u WHERE u.bag_id = bag.id AND u.kind = 'unpacked'))
  + (SELECT count(*) FROM bag_line b WHERE b.order_line_id = l.id AND NOT EXISTS
    (SELECT 1 FROM stock_move u WHERE u.bag_id = b.bag_id AND u.kind = 'unpacked')))`;
/** Whether a bag was ever filled for a line. */
export const EVER_PACKED =
  '(EXISTS (SELECT 1 FROM bag WHERE bag.order_line_id = l.id) OR EXISTS (SELECT 1 FROM bag_line b WHERE b.order_line_id = l.id))';

/** When the newest bags were packed, and for which order; the oldest of them first. */
export const bagTimes = (db: Db, most: number) =>
  all<{ orderId: string; at: string }>(
    db,
    'SELECT l.order_id, bag.at FROM bag JOIN order_line l ON l.id = bag.order_line_id ORDER BY bag.id DESC LIMIT ?',
    [most],
  ).reverse();

/** The pours that a bag of an order was filled from. @param order the order's id in the query around it. */
export const poursOfBags = (order: string) =>
  `SELECT k.pour_id FROM order_line l JOIN bag ON bag.order_line_id = l.id JOIN stock_move k ON k.bag_id = bag.id
   WHERE l.order_id = ${order}`;
/** Bags for the search. */
export const BAGS_FOUND = `SELECT 'bag' AS kind, code AS id, code AS title, 'bag of ' || (SELECT sum(baits) FROM bag_content WHERE bag_id = bag.id) AS about FROM bag`;

/** Which bags the baits of a pour lie in, and whose they are. */
export const bagsOfPour = (db: Db, pourId: string): Pour['bags'] =>
  all(
    db,
    `SELECT bag.code, -sum(k.baits) AS baits, bag.at, customer.name AS customer FROM stock_move k JOIN bag ON bag.id = k.bag_id
     LEFT JOIN order_line l ON l.id = bag.order_line_id LEFT JOIN customer_order o ON o.id = l.order_id
     LEFT JOIN customer ON customer.id = o.customer_id WHERE k.pour_id = ? GROUP BY bag.id HAVING sum(k.baits) < 0 ORDER BY bag.at, bag.code`,
    [pourId],
  );

type OfGrade = { baitId: string; colourwayId: string; pourId: string; grade: RackGrade };

/** How many of a cup lie on the rack in a grade. */
export const lyingOf = (db: Db, what: OfGrade): number =>
  first<{ baits: number }>(
    db,
    'SELECT baits FROM rack_level WHERE pour_id = @pourId AND bait_id = @baitId AND colourway_id = @colourwayId AND grade = @grade',
    { ...what },
  )?.baits ?? 0;

/** A bait that was looked at again leaves one grade, or comes into one. */
export function addRegraded(db: Db, row: OfGrade & { baits: number; at: string }): void {
  insert(db, 'stock_move', { id: newId(), kind: 'regraded', ...row });
}

/** What is kept of a cup comes onto the rack. */
export function rackPoured(
  db: Db,
  row: { baitId: string; colourwayId: string; pourId: string; grade: RackGrade; baits: number; at: string },
): void {
  insert(db, 'stock_move', { id: newId(), kind: 'poured', ...row });
}
