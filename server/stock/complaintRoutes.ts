import { complaintBody, complaintQuery, remakeBody } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import { endpoint } from '../http/endpoint.ts';
import { getOrder } from '../orders/store.ts';
import { complain, complaintsOfBag, complaintsOfColour, complaintsOfMold, originOf, remake } from './complaints.ts';
import { bagByCode } from './store.ts';

const listed = <T>(items: T[]) => ({ items, nextCursor: null });

export const complaintEndpoints = [
  endpoint({
    method: 'GET',
    path: '/complaints',
    query: complaintQuery,
    run: ({ db, query: { moldId, colourwayId } }) => {
      if (moldId) return listed(complaintsOfMold(db, moldId));
      if (colourwayId) return listed(complaintsOfColour(db, colourwayId));
      throw new Failure('invalid-input', 'Say of which mold or of which colour.', 'moldId');
    },
  }),
  endpoint({
    method: 'GET',
    path: '/bags/:code/complaints',
    run: ({ db, params }) => listed(complaintsOfBag(db, bagByCode(db, params.code as string).id)),
  }),
  endpoint({
    method: 'GET',
    path: '/bags/:code/origin',
    run: ({ db, params }) => listed(originOf(db, bagByCode(db, params.code as string))),
  }),
  endpoint({
    method: 'POST',
    path: '/bags/:code/complaints',
    body: complaintBody,
    touches: ['complaints', 'pours', 'molds', 'insight', 'today', 'customers'],
    run: ({ db, params, body, at }) => {
      const bag = bagByCode(db, params.code as string);
      complain(db, bag, body, at);
      return listed(complaintsOfBag(db, bag.id));
    },
  }),
  endpoint({
    method: 'POST',
    path: '/bags/:code/remake',
    body: remakeBody,
    touches: ['orders', 'customers', 'today', 'line'],
    run: ({ db, params, body, at }) => getOrder(db, remake(db, bagByCode(db, params.code as string), body, at), at),
  }),
];
