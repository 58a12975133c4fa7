import { lookBody } from '../../contract/looks.ts';
import { mustFind } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { addLook, looksOf, newestLooks } from './store.ts';

export const lookEndpoints = [
  endpoint({ method: 'GET', path: '/looks', run: ({ db }) => ({ items: newestLooks(db), nextCursor: null }) }),
  endpoint({
    method: 'GET',
    path: '/ledgers/:id/looks',
    run: ({ db, params }) => {
      mustFind(db, 'ledger', params.id as string, 'dosing ledger');
      return { items: looksOf(db, params.id as string), nextCursor: null };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/ledgers/:id/looks',
    body: lookBody,
    touches: ['looks', 'materials', 'recipes'],
    run: ({ db, body, params, at }) => {
      addLook(db, params.id as string, body, at);
      return { items: looksOf(db, params.id as string), nextCursor: null };
    },
  }),
];
