import type * as v from 'valibot';
import type { Bag, Complaint, complaintBody, Order, Origin, remakeBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { lotsOfPour } from '../materials/store.ts';
import { addOrder } from '../orders/store.ts';
import { countComplaint } from '../pours/counts.ts';
import { cupFacts } from '../pours/origin.ts';

const SELECT = `SELECT q.id, bag.code AS bag_code, q.pour_id, pour.code AS pour_code, q.mold_id, mold.name AS mold_name,
    bait.name AS bait_name, pour.colourway_id, c.name AS colourway_name, q.baits, q.reason, q.note, customer.name AS customer, q.at
  FROM complaint q JOIN bag ON bag.id = q.bag_id JOIN pour ON pour.id = q.pour_id JOIN mold ON mold.id = q.mold_id
  JOIN bait ON bait.id = mold.bait_id JOIN colourway_called c ON c.id = pour.colourway_id
  LEFT JOIN order_line l ON l.id = bag.order_line_id LEFT JOIN customer_order o ON o.id = l.order_id
  LEFT JOIN customer ON customer.id = o.customer_id`;
const NEWEST = `AND ${standing('complaint', 'q')} ORDER BY q.seq DESC LIMIT 200`;

export const complaintsOfBag = (db: Db, bagId: string) =>
  all<Complaint>(db, `${SELECT} WHERE q.bag_id = ? ${NEWEST}`, [bagId]);
export const complaintsOfCustomer = (db: Db, customerId: string) =>
  all<Complaint>(db, `${SELECT} WHERE o.customer_id = ? ${NEWEST}`, [customerId]);
export const complaintsOfMold = (db: Db, moldId: string) =>
  all<Complaint>(db, `${SELECT} WHERE q.mold_id = ? ${NEWEST}`, [moldId]);
export const complaintsOfColour = (db: Db, colourwayId: string) =>
  all<Complaint>(db, `${SELECT} WHERE q.pour_id IN (SELECT id FROM pour WHERE colourway_id = ?) ${NEWEST}`, [
    colourwayId,
  ]);

/**
 * Notes against a cup and its mold what somebody found wrong with baits of a bag: they count as rejects from then on.
 * @throws Failure `no-such-record` where they cannot have come from there, `more-than-there`.
 */
export function complain(db: Db, bag: Bag, body: v.InferOutput<typeof complaintBody>, at: string): void {
  const { id, pourId, moldId, baits, reason, note } = body;
  const from = bag.pours.find((pour) => pour.id === pourId);
  if (!from) throw new Failure('no-such-record', `Nothing of that pour is in ${bag.code}.`, 'pourId');
  const mold = first<{ sell: number | null }>(
    db,
    `SELECT pm.sell FROM pour_mold pm JOIN mold ON mold.id = pm.mold_id
     WHERE pm.pour_id = @pourId AND pm.mold_id = @moldId
       AND mold.bait_id IN (SELECT bait_id FROM bag_content WHERE bag_id = @bagId)`,
    { pourId, moldId, bagId: bag.id },
  );
  if (!mold) throw new Failure('no-such-record', `That mold made nothing of what is in ${bag.code}.`, 'moldId');
  const told = complaintsOfBag(db, bag.id)
    .filter((row) => row.pourId === pourId)
    .reduce((sum, row) => sum + row.baits, 0);
  if (told + baits > from.baits)
    throw new Failure(
      'more-than-there',
      `Only ${from.baits} baits of ${from.code} are in ${bag.code}${told > 0 ? `, ${told} of them noted already` : ''}.`,
      'baits',
    );
  if ((mold.sell ?? 0) < baits)
    throw new Failure('more-than-there', `That mold gave ${mold.sell ?? 0} to sell in ${from.code}.`, 'baits');
  insert(db, 'complaint', { id: newId(id), bagId: bag.id, pourId, moldId, baits, reason, note, at });
  countComplaint(db, { pourId, moldId, reason }, baits);
}

/** Another bag in place of what was wrong, for the same customer, without a price. @returns the new order's id. */
export function remake(db: Db, bag: Bag, { dueOn, baits }: v.InferOutput<typeof remakeBody>, at: string): string {
  const [content] = bag.contents;
  const order =
    bag.order &&
    first<Pick<Order, 'customerId'>>(db, 'SELECT customer_id FROM customer_order WHERE id = ?', [bag.order.id]);
  if (!order || !content)
    throw new Failure('not-applicable', `${bag.code} was packed for nobody: pour for stock instead.`);
  const { baitId, colourwayId } = content;
  const notes = `In place of ${baits} from ${bag.code}.`;
  const line = { baitId, colourwayId, packs: 1, perPack: baits, priceMinor: 0 };
  return addOrder(db, { customerId: order.customerId, dueOn, notes, gift: false, lines: [line] }, at, {
    remakesBagId: bag.id,
  });
}

/** What is known of the cups of a bag: lots, hardness, molds with the cavities that gave something to sell, how it lay. */
export const originOf = (db: Db, bag: Bag): Origin[] =>
  bag.pours.map(({ id, code, baits }) => ({
    pourId: id,
    pourCode: code,
    baits,
    lots: lotsOfPour(db, id),
    ...cupFacts(
      db,
      id,
      bag.contents.map(({ baitId }) => baitId),
    ),
  }));
