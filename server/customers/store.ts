import type { Customer, CustomerWith } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, mustFind, run, update } from '../db/rows.ts';
import { ordersOfCustomer } from '../orders/store.ts';
import { complaintsOfCustomer } from '../stock/complaints.ts';

/** What a customer took, the latest first: packs that were wanted of orders that were not cancelled. */
const TOOK = `SELECT l.bait_id, bait.name AS bait_name, l.colourway_id, c.name AS colourway_name, c.hex, sum(l.packs) AS packs,
    sum(l.packs * l.per_pack) AS baits, max(o.due_on) AS last_on
  FROM customer_order o JOIN order_line l ON l.order_id = o.id JOIN bait ON bait.id = l.bait_id
  JOIN colourway_called c ON c.id = l.colourway_id
  WHERE o.customer_id = ? AND o.cancelled_at IS NULL AND l.taken_at IS NULL GROUP BY l.bait_id, l.colourway_id ORDER BY last_on DESC, packs DESC LIMIT 60`;

export const tookOf = (db: Db, customerId: string) => all<CustomerWith['took'][number]>(db, TOOK, [customerId]);

export function getCustomer(db: Db, id: string, at: string): CustomerWith {
  const customer = mustFind<Customer>(db, 'customer', id, 'customer');
  const count = first<{ n: number }>(db, 'SELECT count(*) AS n FROM customer_order WHERE customer_id = ?', [id]);
  return {
    ...customer,
    orders: count?.n ?? 0,
    ordered: ordersOfCustomer(db, id, at),
    took: tookOf(db, id),
    complaints: complaintsOfCustomer(db, id),
  };
}

/**
 * All that is of one customer goes to another; its own record is put away and says where it went.
 * @throws Failure `not-applicable` of itself, or of one that was merged already.
 */
export function mergeCustomers(db: Db, id: string, intoId: string, version: number, at: string): void {
  const one = mustFind<Customer>(db, 'customer', id, 'customer');
  const into = mustFind<Customer>(db, 'customer', intoId, 'customer');
  if (id === intoId) throw new Failure('not-applicable', 'That is the same customer.', 'intoId');
  if (one.mergedIntoId || into.mergedIntoId)
    throw new Failure('not-applicable', `${one.mergedIntoId ? one.name : into.name} was merged already.`, 'intoId');
  run(db, 'UPDATE customer_order SET customer_id = @intoId, version = version + 1 WHERE customer_id = @id', {
    id,
    intoId,
  });
  update(db, 'customer', id, version, { mergedIntoId: intoId, awayAt: at }, 'customer');
  const notes = [into.notes, one.contact && `${one.name}: ${one.contact}`, one.notes]
    .filter(Boolean)
    .join('\n')
    .slice(0, 2000);
  update(db, 'customer', intoId, into.version, { notes }, 'customer');
}
