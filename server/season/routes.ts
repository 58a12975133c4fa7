import { seasonQuery, wishBody } from '../../contract/season.ts';
import { endpoint } from '../http/endpoint.ts';
import { addWish, endWish, seasonOf } from './store.ts';

/** A season is at most half a year ahead. */
const MOST_WEEKS = 26;
const weeksOf = (text: string) => Math.min(MOST_WEEKS, Math.max(1, Number(text)));

export const seasonEndpoints = [
  endpoint({
    method: 'GET',
    path: '/season',
    query: seasonQuery,
    run: ({ db, query, now }) => seasonOf(db, now, weeksOf(query.weeks)),
  }),
  endpoint({
    method: 'POST',
    path: '/season/wishes',
    body: wishBody,
    touches: ['today', 'season'],
    run: ({ db, body, at, now }) => {
      addWish(db, body, at);
      return seasonOf(db, now, weeksOf('12'));
    },
  }),
  endpoint({
    method: 'POST',
    path: '/season/wishes/:id/end',
    touches: ['today', 'season'],
    run: ({ db, params, at, now }) => {
      endWish(db, params.id as string, at);
      return seasonOf(db, now, weeksOf('12'));
    },
  }),
];
