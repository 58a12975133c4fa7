import type * as v from 'valibot';
import type { orderBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import { type PriceList, priceFor } from '../../core/plan/prices.ts';
import type { Db } from '../db/open.ts';
import { first, insert } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { workshop } from '../workshop/store.ts';

/** A bait's price as this order's customer pays it. */
function priceHere(db: Db, orderId: string, priceMinor: number | null): number | null {
  const row = first<{ priceList: PriceList }>(
    db,
    'SELECT c.price_list FROM customer_order o JOIN customer c ON c.id = o.customer_id WHERE o.id = ?',
    [orderId],
  );
  return priceFor(row?.priceList ?? 'private', priceMinor, workshop(db));
}

type NewLine = Omit<v.InferOutput<typeof orderBody>['lines'][number], 'priceMinor'> & {
  priceMinor?: number | null | undefined;
};

/** One more line of an order, at the bait's price unless another is said. @param path where its fields stand in the request. */
export function addOrderLine(db: Db, orderId: string, line: NewLine, path = ''): string {
  const bait = first<{ priceMinor: number | null }>(db, 'SELECT price_minor FROM bait WHERE id = ?', [line.baitId]);
  if (!bait)
    throw new Failure('invalid-input', 'That bait is not here; make its master or mold first.', `${path}baitId`);
  if (!first(db, 'SELECT 1 FROM colourway WHERE id = ?', [line.colourwayId]))
    throw new Failure('invalid-input', 'That colour is not here; write its recipe first.', `${path}colourwayId`);
  const last = first<{ position: number | null }>(
    db,
    'SELECT max(position) AS position FROM order_line WHERE order_id = ?',
    [orderId],
  );
  const id = newId();
  insert(db, 'order_line', {
    id,
    orderId,
    position: (last?.position ?? -1) + 1,
    ...line,
    priceMinor: line.priceMinor ?? priceHere(db, orderId, bait.priceMinor),
  });
  return id;
}
