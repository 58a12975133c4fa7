import type * as v from 'valibot';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { Customer, Order, OrderLine, OrderQuery, OrderRow, orderBody, packBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import type { PriceList } from '../../core/plan/prices.ts';
import { setOf } from '../../core/plan/sets.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, nextNumber, run } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import { bagsInStore } from '../materials/store.ts';
import { unknownIn } from '../pours/unknown.ts';
import { BAGS_PACKED, poursOfBags } from '../stock/bags.ts';
import { bagsOfOrder, fillBag } from '../stock/store.ts';
import { changesOf } from './changes.ts';
import { addOrderLine } from './lines.ts';
import { allNeeds, cups, type PlacedNeed } from './need.ts';

const CUSTOMERS = {
  select:
    'SELECT /*sort*/ customer.*, (SELECT count(*) FROM customer_order o WHERE o.customer_id = customer.id) AS orders FROM customer',
  sorts: { name: 'name', created: 'created_at' },
  order: 'name',
  search: 'name LIKE @q',
  idColumn: 'customer.id',
};
export const listCustomers = (db: Db, query: ListQuery): Page<Customer> => page<Customer>(db, CUSTOMERS, query);

type NewCustomer = { name: string; contact: string; notes?: string; priceList?: PriceList };

export function addCustomer(db: Db, { notes = '', ...body }: NewCustomer, at: string): string {
  const id = newId();
  insert(db, 'customer', { id, ...body, notes, createdAt: at });
  return id;
}

/** Lines of many orders at once, by order. */
function linesByOrder(db: Db, orderIds: string[]): Map<string, OrderLine[]> {
  const lines = new Map<string, OrderLine[]>(orderIds.map((id) => [id, []]));
  for (const { orderId, ...line } of all<OrderLine & { orderId: string }>(
    db,
    `SELECT l.order_id, l.id, l.bait_id, bait.name AS bait_name, bait.shape, l.colourway_id, c.name AS colourway_name, c.hex, l.packs, l.per_pack,
      l.price_minor, l.set_name, ${BAGS_PACKED} AS packed
     FROM order_line l JOIN bait ON bait.id = l.bait_id JOIN colourway_called c ON c.id = l.colourway_id
     WHERE l.order_id IN (SELECT value FROM json_each(?)) AND l.taken_at IS NULL ORDER BY l.order_id, l.position`,
    [JSON.stringify(orderIds)],
  ))
    lines.get(orderId)?.push(line);
  return lines;
}
export const linesOf = (db: Db, orderId: string) => linesByOrder(db, [orderId]).get(orderId) ?? [];

const LISTING = {
  select: `SELECT /*sort*/ o.*, customer.name AS customer,
    (SELECT count(*) FROM taste_wish t WHERE t.order_id = o.id AND t.order_line_id IS NULL AND t.away_at IS NULL) AS undecided FROM customer_order o JOIN customer ON customer.id = o.customer_id`,
  sorts: { due: 'o.due_on', created: 'o.created_at', code: 'o.code' },
  order: '-due',
  search: 'o.code LIKE @q OR o.customer_id IN (SELECT id FROM customer WHERE name LIKE @q)',
  idColumn: 'o.id',
};

type Bare = Omit<OrderRow, 'lines' | 'state' | 'shortBaits'>;

function stateOf(order: Bare, lines: OrderLine[], needs: PlacedNeed[]): Pick<OrderRow, 'state' | 'shortBaits'> {
  const shortBaits = needs.reduce((sum, need) => sum + need.short, 0);
  if (order.cancelledAt) return { state: 'cancelled', shortBaits: 0 };
  if (order.sentAt) return { state: 'sent', shortBaits: 0 };
  if (lines.every((line) => line.packed >= line.packs))
    return { state: order.undecided > 0 ? 'asked' : 'ready', shortBaits };
  if (shortBaits > 0) return { state: 'short', shortBaits };
  if (needs.some((need) => need.fromPour > 0)) return { state: 'in-pour', shortBaits };
  return { state: needs.some((need) => need.fromCuring > 0) ? 'curing' : 'good', shortBaits };
}

function complete(db: Db, orders: Bare[], needs: PlacedNeed[]): OrderRow[] {
  const lines = linesByOrder(
    db,
    orders.map((order) => order.id),
  );
  return orders.map((order) => {
    const own = lines.get(order.id) ?? [];
    const mine = needs.filter((need) => need.orderId === order.id);
    return { ...order, lines: own, ...stateOf(order, own, mine) };
  });
}

const OPEN = 'o.sent_at IS NULL AND o.cancelled_at IS NULL';

export function listOrders(db: Db, { only, ...query }: OrderQuery, at: string): Page<OrderRow> {
  const where = only === 'open' ? OPEN : only === 'gone' ? `NOT (${OPEN})` : '1';
  const found = page<Bare>(db, { ...LISTING, where }, query);
  const needs = allNeeds(db, at);
  return { ...found, items: complete(db, found.items, needs) };
}

/** Orders that are still to be sent, earliest due first. */
export function openOrders(db: Db, needs: PlacedNeed[]): OrderRow[] {
  const open = all<Bare>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE ${OPEN} ORDER BY o.due_on, o.created_at`);
  return complete(db, open, needs);
}

/** The newest orders of one customer. */
export function ordersOfCustomer(db: Db, customerId: string, at: string): OrderRow[] {
  const mine = all<Bare>(
    db,
    `${LISTING.select.replace('/*sort*/', '')} WHERE o.customer_id = ? ORDER BY o.due_on DESC LIMIT 100`,
    [customerId],
  );
  return complete(db, mine, allNeeds(db, at));
}

function poursOf(db: Db, id: string): Order['pours'] {
  const pours = all<Omit<Order['pours'][number], 'unknown'>>(
    db,
    `SELECT pour.id, pour.code, c.name AS colourway_name, c.hex, pour.closed_at FROM pour
     JOIN colourway_called c ON c.id = pour.colourway_id
     WHERE pour.discarded_at IS NULL AND pour.id IN (
       SELECT pl.pour_id FROM order_line l JOIN pour_order_line pl ON pl.order_line_id = l.id WHERE l.order_id = @id
       UNION ${poursOfBags('@id')}
     ) ORDER BY pour.laid_out_at DESC`,
    { id },
  );
  const unknown = unknownIn(
    db,
    pours.map((pour) => pour.id),
  );
  return pours.map((pour) => ({ ...pour, unknown: unknown.get(pour.id) ?? [] }));
}

export function getOrder(db: Db, id: string, at: string): Order {
  mustFind(db, 'customer_order', id, 'order');
  const row = first<Bare>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE o.id = ?`, [id]) as Bare;
  const needs = allNeeds(db, at);
  const mine = needs.filter((need) => need.orderId === id);
  return {
    ...(complete(db, [row], needs)[0] as OrderRow),
    need: { lines: mine.map(({ orderId: _, ...need }) => need), cups: cups(db, mine, at) },
    pours: poursOf(db, id),
    bags: bagsOfOrder(db, id),
    changes: changesOf(db, id),
    bagKinds: bagsInStore(db),
  };
}

/** Where an order came from, if nobody typed it. */
interface OrderOf {
  remakesBagId?: string;
  importId?: string;
}

export function addOrder(
  db: Db,
  body: Omit<v.InferOutput<typeof orderBody>, 'tastes'>,
  at: string,
  of: OrderOf = {},
): string {
  const customerId = body.newCustomer ? addCustomer(db, body.newCustomer, at) : (body.customerId as string);
  mustFind(db, 'customer', customerId, 'customer');
  const id = newId();
  insert(db, 'customer_order', {
    id,
    code: `N${nextNumber(db, 'order')}`,
    customerId,
    dueOn: body.dueOn,
    notes: body.notes,
    gift: body.gift,
    ...of,
    createdAt: at,
  });
  body.lines.forEach((line, position) => {
    addOrderLine(db, id, line, `lines.${position}.`);
  });
  return id;
}

/** Another price for the packs of a line. */
export function priceLine(
  db: Db,
  orderId: string,
  line: { id: string; priceMinor: number | null },
  path: string,
): void {
  const sql = 'UPDATE order_line SET price_minor = @priceMinor WHERE id = @id AND order_id = @orderId';
  if (run(db, sql, { ...line, orderId }) === 0)
    throw new Failure('invalid-input', 'That line is not of this order.', path);
}

/** Packs n bags of a line from cured stock, never more than were ordered. */
export function pack(
  db: Db,
  orderId: string,
  { lineId, bags, bagsId, grams, instrumentId }: v.InferOutput<typeof packBody>,
  at: string,
): void {
  const order = mustFind<Bare>(db, 'customer_order', orderId, 'order');
  if (order.sentAt || order.cancelledAt)
    throw new Failure('already-closed', `${order.code} is ${order.sentAt ? 'sent' : 'cancelled'}.`);
  const line = linesOf(db, orderId).find((row) => row.id === lineId);
  if (!line) throw new Failure('invalid-input', 'That line is not of this order.', 'lineId');
  const set = setOf(linesOf(db, orderId), line);
  const left = Math.min(...set.map(({ packs, packed }) => packs - packed));
  if (bags > left) {
    throw new Failure(
      'more-than-ordered',
      `${left} of ${line.packs} packs are still wanted on this line, not ${bags}.`,
      'bags',
    );
  }
  for (let n = 0; n < bags; n++) {
    const bagId = fillBag(db, set, bagsId, at);
    const { baitId, colourwayId, perPack: baits } = line;
    // What a set weighs says nothing of one bait.
    if (grams !== undefined && set.length === 1)
      insert(db, 'bag_weighing', { bagId, baitId, colourwayId, baits, grams, instrumentId: instrumentId ?? null, at });
  }
}
