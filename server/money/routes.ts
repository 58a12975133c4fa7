import { moneyQuery } from '../../contract/money.ts';
import { endpoint } from '../http/endpoint.ts';
import { moneyOf } from './store.ts';

export const moneyEndpoints = [
  endpoint({
    method: 'GET',
    path: '/money',
    query: moneyQuery,
    run: ({ db, query }) => moneyOf(db, query.from ?? '0000-01-01', query.to ?? '9999-12-31'),
  }),
];
