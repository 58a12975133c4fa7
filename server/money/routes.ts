import { moneyQuery } from '../../contract/money.ts';
import { endpoint } from '../http/endpoint.ts';
import { moneyOf } from './store.ts';

export const moneyEndpoints = [
  endpoint({
    method: 'GET',
    path: '/money',
    query: moneyQuery,
    run: ({ db, query }) => moneyOf(db, query.from, query.to),
  }),
];
