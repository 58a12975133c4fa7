import * as v from 'valibot';
import type { SearchHit } from '../../contract/today.ts';
import { all } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { line, today } from './store.ts';

const SEARCH = `
  SELECT 'master' AS kind, master.id, bait.name AS title, 'master' AS about FROM master JOIN bait ON bait.id = master.bait_id
  UNION ALL SELECT 'mold', mold.id, mold.name, 'mold, ' || mold.cavities || ' cavities' FROM mold
  UNION ALL SELECT 'colour', id, name, 'colour' FROM recipe
  UNION ALL SELECT 'pour', pour.id, pour.code || ' ' || recipe.name, 'pour of ' || substr(pour.laid_out_at, 1, 10) FROM pour JOIN recipe ON recipe.id = pour.recipe_id
  UNION ALL SELECT 'order', o.id, o.code || ' ' || customer.name, 'order, due ' || o.due_on FROM customer_order o JOIN customer ON customer.id = o.customer_id
  UNION ALL SELECT 'material', id, name, kind FROM material
  UNION ALL SELECT 'bag', code, code, 'bag of ' || baits FROM bag`;

export const todayEndpoints = [
  endpoint({ method: 'GET', path: '/today', run: ({ db, now }) => today(db, now) }),
  endpoint({ method: 'GET', path: '/line', run: ({ db, now }) => line(db, now) }),
  endpoint({
    method: 'GET',
    path: '/search',
    query: v.strictObject({ q: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120)) }),
    run: ({ db, query }) => ({
      items: all<SearchHit>(
        db,
        `SELECT * FROM (${SEARCH}) WHERE title LIKE ? ESCAPE '\\' ORDER BY length(title), title DESC LIMIT 12`,
        [`%${query.q.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`],
      ),
      nextCursor: null,
    }),
  }),
];
