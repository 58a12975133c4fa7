import type * as v from 'valibot';
import type { addLineBody, backOrderBody, LineChange, lineChangeBody, setBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import { setOf } from '../../core/plan/sets.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, nextNumber, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { BAGS_PACKED } from '../stock/bags.ts';
import { addOrderLine } from './lines.ts';

interface Line {
  id: string;
  position: number;
  colourwayId: string;
  packs: number;
  perPack: number;
  setName: string | null;
  packed: number;
}

const linesOf = (db: Db, orderId: string) =>
  all<Line>(
    db,
    `SELECT l.id, l.position, l.colourway_id, l.packs, l.per_pack, l.set_name, ${BAGS_PACKED} AS packed FROM order_line l
     WHERE l.order_id = ? AND l.taken_at IS NULL ORDER BY l.position`,
    [orderId],
  );

/** @throws Failure `already-closed`. */
function mustBeOpen(db: Db, orderId: string) {
  const order = mustFind<{
    code: string;
    customerId: string;
    notes: string;
    sentAt: string | null;
    cancelledAt: string | null;
  }>(db, 'customer_order', orderId, 'order');
  if (order.sentAt || order.cancelledAt)
    throw new Failure(
      'already-closed',
      `${order.code} is ${order.sentAt ? 'sent' : 'cancelled'}; take it up again first.`,
    );
  return order;
}

type Change = Omit<LineChange, 'id' | 'at' | 'lineId' | 'line'> & { orderId: string; orderLineId: string };
const changed = (db: Db, row: Change, at: string) => insert(db, 'line_change', { id: newId(), ...row, at });

export const changesOf = (db: Db, orderId: string): LineChange[] =>
  all(
    db,
    `SELECT k.id, k.order_line_id AS line_id, bait.name || ' ' || c.name AS line, k.what, k.was, k.now, k.why, k.at
     FROM line_change k JOIN order_line l ON l.id = k.order_line_id JOIN bait ON bait.id = l.bait_id
     JOIN colourway_called c ON c.id = l.colourway_id WHERE k.order_id = ? ORDER BY k.seq LIMIT 200`,
    [orderId],
  );

/** Another number of packs or of baits to a pack, or another colour; what was packed stays as it is. */
export function changeLine(
  db: Db,
  orderId: string,
  lineId: string,
  { packs, perPack, colourwayId, why }: v.InferOutput<typeof lineChangeBody>,
  at: string,
): void {
  mustBeOpen(db, orderId);
  const line = linesOf(db, orderId).find(({ id }) => id === lineId);
  if (!line) throw new Failure('not-found', 'That line is not of this order.');
  const say = (what: Change['what'], was: string | number, now: string | number) =>
    changed(db, { orderId, orderLineId: lineId, what, was: String(was), now: String(now), why }, at);
  if (packs !== undefined && packs !== line.packs) {
    if (packs < line.packed)
      throw new Failure(
        'more-than-ordered',
        `${line.packed} packs of it are packed already; unpack some first.`,
        'packs',
      );
    // Each line of a set has as many packs as the others.
    for (const one of setOf(linesOf(db, orderId), line)) {
      run(db, 'UPDATE order_line SET packs = @packs WHERE id = @id', { packs, id: one.id });
      changed(db, { orderId, orderLineId: one.id, what: 'packs', was: String(one.packs), now: String(packs), why }, at);
    }
  }
  if (perPack !== undefined && perPack !== line.perPack) {
    run(db, 'UPDATE order_line SET per_pack = @perPack WHERE id = @lineId', { perPack, lineId });
    say('per-pack', line.perPack, perPack);
  }
  if (colourwayId !== undefined && colourwayId !== line.colourwayId) {
    if (line.packed > 0)
      throw new Failure(
        'already-started',
        'Some of it is packed in the colour it has; put the rest on a back-order instead.',
        'colourwayId',
      );
    const name = (id: string) =>
      first<{ name: string }>(db, 'SELECT name FROM colourway_called WHERE id = ?', [id])?.name;
    const now = name(colourwayId);
    if (now === undefined) throw new Failure('no-such-record', 'That colour is not here.', 'colourwayId');
    run(db, 'UPDATE order_line SET colourway_id = @colourwayId WHERE id = @lineId', { colourwayId, lineId });
    say('colour', name(line.colourwayId) ?? '', now);
  }
}

/**
 * Puts lines into one bag, or each into its own again.
 * @throws Failure `already-started` where some is packed, `invalid-input` where they do not fit together.
 */
export function packTogether(db: Db, orderId: string, { name, lineIds }: v.InferOutput<typeof setBody>): void {
  mustBeOpen(db, orderId);
  const lines = linesOf(db, orderId);
  const mine = lines.filter(({ id }) => lineIds.includes(id));
  if (mine.length < new Set(lineIds).size) throw new Failure('not-found', 'One of these lines is not of this order.');
  if (mine.some(({ packed }) => packed > 0))
    throw new Failure('already-started', 'Some of it is packed already; open those bags first.');
  const packs = new Set(mine.map((line) => line.packs));
  if (name !== '' && mine.length < 2) throw new Failure('invalid-input', 'A set is of two lines at least.', 'lineIds');
  if (name !== '' && packs.size > 1)
    throw new Failure('invalid-input', 'Lines of one bag want as many packs each: change those first.', 'lineIds');
  if (name !== '' && lines.some(({ setName, id }) => setName === name && !lineIds.includes(id)))
    throw new Failure('already-exists', `There is a set called ${name} in this order already.`, 'name');
  for (const { id } of mine)
    run(db, 'UPDATE order_line SET set_name = @name WHERE id = @id', { name: name || null, id });
}

/** A customer wants something more. */
export function addLine(
  db: Db,
  orderId: string,
  { why, ...line }: v.InferOutput<typeof addLineBody>,
  at: string,
): void {
  mustBeOpen(db, orderId);
  const id = addOrderLine(db, orderId, line);
  changed(db, { orderId, orderLineId: id, what: 'added', was: '0', now: String(line.packs), why }, at);
}

/**
 * A customer does not want a line any more: it stays, with what was poured for it, and nobody wants it.
 * @throws Failure `already-started` where some of it is packed, `nothing-left` where it is the only one.
 */
export function takeLine(db: Db, orderId: string, lineId: string, why: string, at: string): void {
  const order = mustBeOpen(db, orderId);
  const lines = linesOf(db, orderId);
  const line = lines.find(({ id }) => id === lineId);
  if (!line) throw new Failure('not-found', 'That line is not of this order.');
  if (line.packed > 0)
    throw new Failure(
      'already-started',
      `${line.packed} packs of it are packed; open them again, or want fewer packs.`,
    );
  if (lines.length === 1)
    throw new Failure('nothing-left', `It is the only line of ${order.code}: cancel the order instead.`);
  run(db, 'UPDATE order_line SET taken_at = @at WHERE id = @lineId', { at, lineId });
  changed(db, { orderId, orderLineId: lineId, what: 'taken', was: String(line.packs), now: '0', why }, at);
}

/**
 * Ships what is packed and puts the rest on an order of its own: nothing is renumbered, and each says where it went.
 * @returns the new order's id.
 */
export function backOrder(db: Db, orderId: string, { dueOn }: v.InferOutput<typeof backOrderBody>, at: string): string {
  const order = mustBeOpen(db, orderId);
  const lines = linesOf(db, orderId);
  if (!lines.some(({ packed }) => packed > 0))
    throw new Failure('not-packed', 'Nothing is packed yet that could be sent; move the due day instead.');
  const rest = lines.filter(({ packs, packed }) => packs > packed);
  if (rest.length === 0) throw new Failure('nothing-left', `All of ${order.code} is packed.`);
  const id = newId();
  const code = `N${nextNumber(db, 'order')}`;
  const notes = `The rest of ${order.code}.`;
  insert(db, 'customer_order', { id, code, customerId: order.customerId, dueOn, notes, createdAt: at });
  for (const line of rest) {
    const left = line.packs - line.packed;
    const say = (of: string, orderLineId: string, was: number, now: number, why: string) =>
      changed(db, { orderId: of, orderLineId, what: 'back-order', was: String(was), now: String(now), why }, at);
    if (line.packed === 0) {
      // None of it goes now: the line itself moves, with all that was poured for it.
      run(db, 'UPDATE order_line SET order_id = @id WHERE id = @lineId', { id, lineId: line.id });
      say(orderId, line.id, line.packs, 0, code);
      continue;
    }
    run(db, 'UPDATE order_line SET packs = packs - @left WHERE id = @lineId', { left, lineId: line.id });
    say(orderId, line.id, line.packs, line.packed, code);
    const moved = newId();
    run(
      db,
      `INSERT INTO order_line (id, order_id, position, bait_id, colourway_id, packs, per_pack, price_minor, set_name)
       SELECT @moved, @id, position, bait_id, colourway_id, @left, per_pack, price_minor, set_name FROM order_line WHERE id = @lineId`,
      { moved, id, left, lineId: line.id },
    );
    say(id, moved, 0, left, order.code);
  }
  return id;
}
