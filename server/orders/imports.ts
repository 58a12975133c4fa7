import type * as v from 'valibot';
import type { importBody, OrderImport } from '../../contract/imports.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { EVER_PACKED } from '../stock/bags.ts';
import { addCustomer, addOrder } from './store.ts';

type Bare = Omit<OrderImport, 'orders'>;

const ordersOf = (db: Db, importId: string) =>
  all<OrderImport['orders'][number]>(
    db,
    'SELECT id, code FROM customer_order WHERE import_id = ? ORDER BY created_at, length(code), code',
    [importId],
  );

/** The files that were read in last. */
export const orderImports = (db: Db): OrderImport[] =>
  all<Bare>(db, 'SELECT id, name, at, taken_back_at, left_over FROM order_import ORDER BY id DESC LIMIT 10').map(
    (row) => ({
      ...row,
      orders: ordersOf(db, row.id),
    }),
  );

/** All orders of a file in one stroke; somebody whom two of them name for the first time is one new customer. @returns its id. */
export function importOrders(db: Db, body: v.InferOutput<typeof importBody>, at: string): string {
  const id = newId(body.id);
  insert(db, 'order_import', { id, name: body.name, leftOver: body.leftOver, at });
  const made = new Map<string, string>();
  const customerOf = ({ customerId, newCustomer }: (typeof body.orders)[number], path: string) => {
    if (customerId) return customerId;
    if (!newCustomer) throw new Failure('invalid-input', 'Name the customer.', path);
    const key = newCustomer.toLowerCase();
    const known =
      made.get(key) ??
      first<{ id: string }>(db, 'SELECT id FROM customer WHERE name = ? COLLATE NOCASE', [newCustomer])?.id;
    const customer = known ?? addCustomer(db, { name: newCustomer, contact: '' }, at);
    made.set(key, customer);
    return customer;
  };
  body.orders.forEach((order, i) => {
    const lines = order.lines.map(([bait, colour, packs, perPack, priceMinor], n) => {
      const [baitId, colourwayId] = [body.baitIds[bait], body.colourwayIds[colour]];
      if (!baitId || !colourwayId)
        throw new Failure(
          'invalid-input',
          'A line names a bait or a colour that is not in the lists.',
          `orders.${i}.lines.${n}`,
        );
      return { baitId, colourwayId, packs, perPack, priceMinor };
    });
    const { dueOn, notes } = order;
    addOrder(db, { customerId: customerOf(order, `orders.${i}`), dueOn, notes, gift: false, lines }, at, {
      importId: id,
    });
  });
  return id;
}

/**
 * Takes a whole file back: its orders are gone, and customers that only it named.
 * @throws Failure `in-use` where something was done for one of them already.
 */
export function takeImportBack(db: Db, id: string, at: string): void {
  const { takenBackAt } = mustFind<Bare>(db, 'order_import', id, 'file of orders');
  if (takenBackAt) throw new Failure('already-reversed', 'That file was taken back already.');
  const begun = all<{ code: string }>(
    db,
    `SELECT DISTINCT o.code FROM customer_order o JOIN order_line l ON l.order_id = o.id WHERE o.import_id = @id AND (
       o.sent_at IS NOT NULL OR ${EVER_PACKED}
       OR EXISTS (SELECT 1 FROM pour_order_line p WHERE p.order_line_id = l.id)
       OR EXISTS (SELECT 1 FROM line_change c WHERE c.order_id = o.id OR c.order_line_id = l.id))
     UNION SELECT o.code FROM customer_order o JOIN taste_wish t ON t.order_id = o.id WHERE o.import_id = @id LIMIT 6`,
    { id },
  ).map(({ code }) => code);
  if (begun.length > 0)
    throw new Failure(
      'in-use',
      `Something was done for ${begun.slice(0, 5).join(', ')} already: cancel the others one by one.`,
    );
  const customers = all<{ id: string }>(
    db,
    'SELECT DISTINCT customer_id AS id FROM customer_order WHERE import_id = ?',
    [id],
  );
  run(db, 'DELETE FROM order_line WHERE order_id IN (SELECT id FROM customer_order WHERE import_id = ?)', [id]);
  run(db, 'DELETE FROM customer_order WHERE import_id = ?', [id]);
  const { at: cameAt } = mustFind<Bare>(db, 'order_import', id, 'file of orders');
  for (const customer of customers)
    run(
      db,
      `DELETE FROM customer WHERE id = @id AND created_at = @cameAt AND NOT EXISTS (SELECT 1 FROM customer_order WHERE customer_id = @id)`,
      { id: customer.id, cameAt },
    );
  run(db, 'UPDATE order_import SET taken_back_at = @at WHERE id = @id', { id, at });
}
