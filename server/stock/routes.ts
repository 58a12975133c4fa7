import { stockOutBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import { first } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { promisedByRack } from '../orders/need.ts';
import { bagByCode, recallOf, stockMoves, stockOut, unpack } from './store.ts';

const touches = ['rack', 'orders', 'today', 'line', 'recipes', 'pours'];

export const stockEndpoints = [
  endpoint({
    method: 'GET',
    path: '/rack',
    run: ({ db, at }) => ({
      items: promisedByRack(db, at),
      moves: stockMoves(db),
      nextCursor: null,
    }),
  }),
  endpoint({
    method: 'POST',
    path: '/rack/out',
    body: stockOutBody,
    touches,
    run: ({ db, body, at }) => {
      stockOut(db, body, at);
      return { items: promisedByRack(db, at), moves: stockMoves(db), nextCursor: null };
    },
  }),
  endpoint({ method: 'GET', path: '/bags/:code', run: ({ db, params }) => bagByCode(db, params.code as string) }),
  endpoint({
    method: 'GET',
    path: '/bags/:code/recall',
    run: ({ db, params }) => recallOf(db, bagByCode(db, params.code as string)),
  }),
  endpoint({
    method: 'POST',
    path: '/bags/:code/unpack',
    touches,
    run: ({ db, params, at }) => {
      const bag = bagByCode(db, params.code as string);
      const sent = first(
        db,
        'SELECT 1 FROM order_line l JOIN customer_order o ON o.id = l.order_id WHERE l.id = ? AND o.sent_at IS NOT NULL',
        [bag.lineId],
      );
      if (sent)
        throw new Failure('already-closed', `Bag ${bag.code} went out with its order; it cannot be opened here.`);
      unpack(db, bag, at);
      return bagByCode(db, bag.code);
    },
  }),
];
