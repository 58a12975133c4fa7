import * as v from 'valibot';
import { endpoint } from '../http/endpoint.ts';
import { search } from './search.ts';
import { line, today } from './store.ts';

export const todayEndpoints = [
  endpoint({ method: 'GET', path: '/today', run: ({ db, now }) => today(db, now) }),
  endpoint({ method: 'GET', path: '/line', run: ({ db, now }) => line(db, now) }),
  endpoint({
    method: 'GET',
    path: '/search',
    query: v.strictObject({ q: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120)) }),
    run: ({ db, query }) => ({ items: search(db, query.q), nextCursor: null }),
  }),
];
