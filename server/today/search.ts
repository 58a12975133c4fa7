import type { SearchHit } from '../../contract/today.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { like, wordsOf } from '../http/list.ts';
import { BAGS_FOUND } from '../stock/bags.ts';

const MOST = 12;

/** What there are few of, whatever the age of the workshop: looked into as a whole. */
const NAMED = `
  SELECT 'master' AS kind, master.id, bait.name AS title, 'master' AS about FROM master JOIN bait ON bait.id = master.bait_id
  UNION ALL SELECT 'mold', mold.id, mold.name, 'mold, ' || mold.cavities || ' cavities' FROM mold
  UNION ALL SELECT 'colour', id, name, iif(recipe_id IS NULL, 'colour in layers', 'colour') FROM colourway_called
  UNION ALL SELECT 'material', id, name, kind FROM material`;

// What there are many of is found by the beginning of its code, or by the name of what it belongs to, the newest first.
const POURS = `
  SELECT 'pour' AS kind, pour.id, pour.code || ' ' || c.name || iif(pour.lead_id IS NULL, '', ', ' || recipe.name) AS title,
    'pour of ' || substr(pour.laid_out_at, 1, 10) AS about
  FROM pour JOIN recipe ON recipe.id = pour.recipe_id JOIN colourway_called c ON c.id = pour.colourway_id`;
const ORDERS = `
  SELECT 'order' AS kind, o.id, o.code || ' ' || customer.name AS title, 'order, due ' || o.due_on AS about
  FROM customer_order o JOIN customer ON customer.id = o.customer_id`;

/** A code is one letter and digits; the letter may be left out. */
const CODE = /^([pnb]?)(\d+)$/i;

function byCode(db: Db, words: string[]): SearchHit[] {
  const code = words.map((word) => CODE.exec(word)).find((found) => found !== null);
  if (!code) return [];
  const [, letter = '', digits] = code;
  const rest = words.filter((word) => word !== code[0]).map((word) => word.toLowerCase());
  const sources: [string, string, string][] = [
    ['P', POURS, 'pour.code'],
    ['N', ORDERS, 'o.code'],
    ['B', BAGS_FOUND, 'bag.code'],
  ];
  return sources
    .filter(([sign]) => letter === '' || letter.toUpperCase() === sign)
    .flatMap(([sign, sql, column]) => {
      // A range over the index: codes that begin so.
      const from = `${sign}${digits}`;
      const where = `WHERE ${column} COLLATE NOCASE >= @from AND ${column} COLLATE NOCASE < @from || ':'`;
      return all<SearchHit>(db, `${sql} ${where} ORDER BY length(${column}), ${column} LIMIT @most`, {
        from,
        most: rest.length > 0 ? 200 : MOST,
      }).filter((hit) => rest.every((word) => hit.title.toLowerCase().includes(word)));
    });
}

function byName(db: Db, words: string[]): SearchHit[] {
  const patterns = words.map(like);
  const named = (column: string) => patterns.map((_, n) => `${column} LIKE @w${n} ESCAPE '\\'`).join(' AND ');
  const params = { ...Object.fromEntries(patterns.map((text, n) => [`w${n}`, text])), most: MOST };
  const ids = (table: 'colourway_called' | 'customer') =>
    all<{ id: string }>(db, `SELECT id FROM ${table} WHERE ${named('name')} LIMIT @most`, params);
  // The newest of each, by its own index: to look through all by time would be to look through all.
  const newest = (sql: string, column: string, order: string, table: 'colourway_called' | 'customer') =>
    ids(table).flatMap(({ id }) =>
      all<SearchHit>(db, `${sql} WHERE ${column} = ? ORDER BY ${order} DESC LIMIT ${MOST}`, [id]),
    );
  return [
    ...all<SearchHit>(
      db,
      `SELECT * FROM (${NAMED}) WHERE ${named('title')} ORDER BY length(title) LIMIT @most`,
      params,
    ),
    ...newest(POURS, 'pour.colourway_id', 'pour.laid_out_at', 'colourway_called'),
    ...newest(ORDERS, 'o.customer_id', 'o.due_on', 'customer'),
  ];
}

/** How much more there is in a title than was asked for; how many digits its code has says nothing. */
const surplus = ({ title }: SearchHit) => title.replace(/\d+/, '').length;

/** Records by the beginning of a code, the shortest first, then by names, each word in any place of the name, the newest first. */
export function search(db: Db, q: string): SearchHit[] {
  const words = wordsOf(q);
  const codes = byCode(db, words).sort((a, b) => a.title.length - b.title.length);
  const names = byName(db, words).sort(
    (a, b) => surplus(a) - surplus(b) || b.title.localeCompare(a.title, undefined, { numeric: true }),
  );
  const hits = [...codes, ...names];
  const seen = new Set<string>();
  return hits.filter(({ kind, id }) => !seen.has(`${kind} ${id}`) && seen.add(`${kind} ${id}`)).slice(0, MOST);
}
