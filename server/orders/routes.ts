import { importBody } from '../../contract/imports.ts';
import {
  addLineBody,
  backOrderBody,
  lineChangeBody,
  orderBody,
  orderPatch,
  orderQuery,
  packBody,
  setBody,
  takeLineBody,
} from '../../contract/orders.ts';
import { packWithBody } from '../../contract/packing.ts';
import { atField, Failure } from '../../core/failure.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { packedWith, setPackedWith } from '../materials/store.ts';
import { addTaste } from '../tastes/store.ts';
import { addLine, backOrder, changeLine, packTogether, takeLine } from './changes.ts';
import { importOrders, orderImports, takeImportBack } from './imports.ts';
import { packingOf, packTime } from './packing.ts';
import { addOrder, getOrder, listOrders, pack, priceLine } from './store.ts';

const touches = ['orders', 'customers', 'rack', 'today', 'line'];

export const orderEndpoints = [
  endpoint({
    method: 'GET',
    path: '/orders',
    query: orderQuery,
    run: ({ db, query, at }) => listOrders(db, query, at),
  }),
  endpoint({
    method: 'GET',
    path: '/orders/imports',
    run: ({ db }) => ({ items: orderImports(db), nextCursor: null }),
  }),
  endpoint({
    method: 'POST',
    path: '/orders/imports',
    body: importBody,
    touches,
    run: ({ db, body, at }) => {
      const id = importOrders(db, body, at);
      return orderImports(db).find((one) => one.id === id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/imports/:id/take-back',
    touches,
    run: ({ db, params, at }) => {
      takeImportBack(db, params.id as string, at);
      return { items: orderImports(db), nextCursor: null };
    },
  }),
  endpoint({ method: 'GET', path: '/orders/:id', run: ({ db, params, at }) => getOrder(db, params.id as string, at) }),
  endpoint({
    method: 'POST',
    path: '/orders',
    body: orderBody,
    touches,
    run: ({ db, body, at }) => {
      const id = addOrder(db, body, at);
      body.tastes.forEach((wish, i) => {
        atField(`tastes.${i}.baitId`, () => addTaste(db, id, wish, at));
      });
      return getOrder(db, id, at);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/orders/:id',
    body: orderPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version, at }) => {
      const id = params.id as string;
      const { sent, cancelled, lines, ...values } = body;
      const order = getOrder(db, id, at);
      if (sent && order.undecided > 0)
        throw new Failure(
          'not-packed',
          `A colour of ${order.code} is not chosen yet: approve one of its proposals, or put the wish away.`,
        );
      if (sent && order.state !== 'ready') {
        const packs = order.lines.map((line) => `${line.packed} of ${line.packs}`).join(', ');
        throw new Failure('not-packed', `${order.code} is not packed yet: ${packs} packs.`);
      }
      const marks = {
        ...(sent === undefined ? {} : { sentAt: sent ? at : null }),
        ...(cancelled === undefined ? {} : { cancelledAt: cancelled ? at : null }),
      };
      update(db, 'customer_order', id, version, { ...values, ...marks }, 'order');
      (lines ?? []).forEach((line, i) => {
        priceLine(db, id, line, `lines.${i}.id`);
      });
      return getOrder(db, id, at);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/lines',
    body: addLineBody,
    touches,
    run: ({ db, body, params, at }) => {
      addLine(db, params.id as string, body, at);
      return getOrder(db, params.id as string, at);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/sets',
    body: setBody,
    touches,
    run: ({ db, body, params, at }) => {
      packTogether(db, params.id as string, body);
      return getOrder(db, params.id as string, at);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/lines/:lineId/take-out',
    body: takeLineBody,
    touches,
    run: ({ db, body, params, at }) => {
      takeLine(db, params.id as string, params.lineId as string, body.why, at);
      return getOrder(db, params.id as string, at);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/lines/:lineId',
    body: lineChangeBody,
    touches,
    run: ({ db, body, params, at }) => {
      changeLine(db, params.id as string, params.lineId as string, body, at);
      return getOrder(db, params.id as string, at);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/back-order',
    body: backOrderBody,
    touches,
    run: ({ db, body, params, at }) => getOrder(db, backOrder(db, params.id as string, body, at), at),
  }),
  endpoint({
    method: 'GET',
    path: '/orders/:id/packing',
    run: ({ db, params, at }) => {
      mustFind(db, 'customer_order', params.id as string, 'order');
      return packingOf(db, params.id as string, at);
    },
  }),
  endpoint({
    method: 'GET',
    path: '/pack-with',
    run: ({ db }) => ({ items: packedWith(db), nextCursor: null, time: packTime(db) }),
  }),
  endpoint({
    method: 'POST',
    path: '/pack-with',
    body: packWithBody,
    touches: ['orders', 'materials'],
    run: ({ db, body }) => {
      setPackedWith(db, body);
      return { items: packedWith(db), nextCursor: null };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/orders/:id/pack',
    body: packBody,
    touches: [...touches, 'pours', 'materials'],
    run: ({ db, body, params, at }) => {
      pack(db, params.id as string, body, at);
      return getOrder(db, params.id as string, at);
    },
  }),
];
