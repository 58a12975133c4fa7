import { listQuery } from '../../contract/fields.ts';
import { customerBody, mergeBody } from '../../contract/orders.ts';
import { mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { addCustomer, listCustomers } from '../orders/store.ts';
import { getCustomer, mergeCustomers } from './store.ts';

const touches = ['orders', 'customers', 'rack', 'today', 'line'];

export const customerEndpoints = [
  endpoint({ method: 'GET', path: '/customers', query: listQuery, run: ({ db, query }) => listCustomers(db, query) }),
  endpoint({
    method: 'GET',
    path: '/customers/:id',
    run: ({ db, params, at }) => getCustomer(db, params.id as string, at),
  }),
  endpoint({
    method: 'POST',
    path: '/customers',
    body: customerBody,
    touches,
    run: ({ db, body, at }) => mustFind(db, 'customer', addCustomer(db, body, at), 'customer'),
  }),
  endpoint({
    method: 'PATCH',
    path: '/customers/:id',
    body: customerBody,
    versioned: true,
    touches,
    run: ({ db, body, params, version }) => {
      update(db, 'customer', params.id as string, version, body, 'customer');
      return mustFind(db, 'customer', params.id as string, 'customer');
    },
  }),
  endpoint({
    method: 'POST',
    path: '/customers/:id/merge',
    body: mergeBody,
    versioned: true,
    touches,
    run: ({ db, body, params, version, at }) => {
      mergeCustomers(db, params.id as string, body.intoId, version, at);
      return getCustomer(db, body.intoId, at);
    },
  }),
];
