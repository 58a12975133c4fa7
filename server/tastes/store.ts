import type * as v from 'valibot';
import type { approveBody, Proposal, TasteWish, tasteBody } from '../../contract/tastes.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, update } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { addOrderLine } from '../orders/lines.ts';
import { addRecipe } from '../recipes/store.ts';

export const tastesOf = (db: Db, orderId: string): TasteWish[] =>
  all<TasteWish>(
    db,
    `SELECT t.id, t.version, t.order_id, t.bait_id, bait.name AS bait_name, t.theme, t.packs, t.per_pack, t.proposals, t.order_line_id,
       t.away_at, (SELECT count(*) FROM photo WHERE about_type = 'taste_wish' AND about_id = t.id) AS photos
     FROM taste_wish t JOIN bait ON bait.id = t.bait_id WHERE t.order_id = ? ORDER BY t.created_at, t.id`,
    [orderId],
  );

interface OrderMarks {
  code: string;
  sentAt: string | null;
  cancelledAt: string | null;
}

function openOrder(db: Db, id: string): OrderMarks {
  const order = mustFind<OrderMarks>(db, 'customer_order', id, 'order');
  if (order.sentAt || order.cancelledAt)
    throw new Failure('already-closed', `${order.code} is ${order.sentAt ? 'sent' : 'cancelled'}.`);
  return order;
}

export function addTaste(db: Db, orderId: string, body: v.InferOutput<typeof tasteBody>, at: string): void {
  openOrder(db, orderId);
  if (!first(db, 'SELECT 1 FROM bait WHERE id = ?', [body.baitId]))
    throw new Failure('invalid-input', 'That bait is not here; make its master or mold first.', 'baitId');
  insert(db, 'taste_wish', { id: newId(), orderId, ...body, proposals: [], createdAt: at });
}

/** @throws Failure `already-closed` once one of its proposals was approved. */
export function openTaste(db: Db, id: string): TasteWish {
  const wish = mustFind<TasteWish>(db, 'taste_wish', id, 'wish');
  if (wish.orderLineId) throw new Failure('already-closed', 'It was approved already; the order has its line.');
  openOrder(db, wish.orderId);
  return wish;
}

export function propose(db: Db, id: string, version: number, proposals: Proposal[]): void {
  openTaste(db, id);
  proposals.forEach((one, i) => {
    if (one.from === 'book' && !first(db, 'SELECT 1 FROM recipe WHERE id = ?', [one.recipeId]))
      throw new Failure('invalid-input', 'That recipe is not here.', `proposals.${i}.recipeId`);
  });
  update(db, 'taste_wish', id, version, { proposals }, 'wish');
}

/**
 * The customer said yes to a picture: the colour is written down where it is new, and the order has its line.
 * @throws Failure `photo-missing`, `invalid-input`.
 */
export function approve(
  db: Db,
  id: string,
  version: number,
  { proposal, name }: v.InferOutput<typeof approveBody>,
  at: string,
): void {
  const wish = openTaste(db, id);
  const chosen = wish.proposals[proposal];
  if (!chosen) throw new Failure('invalid-input', 'There is no such proposal; make them first.', 'proposal');
  if (!first(db, `SELECT 1 FROM photo WHERE about_type = 'taste_wish' AND about_id = ?`, [id]))
    throw new Failure('photo-missing', 'Add the picture that the customer said yes to first.');
  const colourwayId = chosen.from === 'book' ? chosen.recipeId : newColour(db, chosen, wish.theme, name, at);
  const { baitId, packs, perPack } = wish;
  const orderLineId = addOrderLine(db, wish.orderId, { baitId, colourwayId, packs, perPack });
  update(db, 'taste_wish', id, version, { orderLineId }, 'wish');
}

function newColour(
  db: Db,
  { hex, basisMl, items }: Extract<Proposal, { from: 'store' }>,
  theme: string,
  name: string | undefined,
  at: string,
): string {
  if (!name) throw new Failure('invalid-input', 'A new colour wants a name.', 'name');
  return addRecipe(db, { name, hex, notes: theme, basisMl, items, reason: 'by taste' }, at);
}
