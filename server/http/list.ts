import type { ListQuery, Page } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, type Row } from '../db/rows.ts';

interface Listing {
  select: string;
  /** Field offered to `sort` → SQL expression. The first is the default. */
  sorts: Record<string, string>;
  /** The default order, with - for descending. */
  order: string;
  /** SQL that says whether a row has a word of `q` in it; `@q` stands for the word as LIKE takes it, `@code` for it in capitals. */
  search: string | ((word: string) => string);
  where?: string;
  idColumn: string;
}

interface Cursor {
  s: string;
  k: string | number | null;
  id: string;
}

function readCursor(text: string, sort: string): Cursor {
  try {
    const cursor = JSON.parse(Buffer.from(text, 'base64url').toString()) as Cursor;
    const plain = typeof cursor.k === 'string' || typeof cursor.k === 'number';
    if (cursor.s === sort && plain && typeof cursor.id === 'string') return cursor;
  } catch {
    // Falls through to the refusal below: a cursor is only ever one of ours, handed back.
  }
  throw new Failure('invalid-input', 'That cursor is not from this list; start again without it.', 'cursor');
}

/** More words than this narrow nothing. */
const MOST_WORDS = 8;
/** What was typed into a search, word by word. */
export const wordsOf = (q: string) => q.trim().split(/\s+/).slice(0, MOST_WORDS);

/** A word in any place, as LIKE takes it with the escape `\\`. */
export const like = (q: string) => `%${q.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;

/** One page of a list by keyset: the hundredth page costs what the first does. */
export function page<T>(db: Db, listing: Listing, query: ListQuery): Page<T> {
  const sort = query.sort ?? listing.order;
  const field = sort.replace(/^-/, '');
  const column = Object.hasOwn(listing.sorts, field) ? listing.sorts[field] : undefined;
  if (!column) {
    throw new Failure('invalid-input', `This list sorts by ${Object.keys(listing.sorts).join(', ')}.`, 'sort');
  }
  const [direction, past] = sort.startsWith('-') ? ['DESC', '<'] : ['ASC', '>'];
  const limit = query.limit ?? 50;
  const conditions = [listing.where ?? '1'];
  const params: Row = { limit: limit + 1 };
  if (query.q) {
    // Each word in any place, so that a code and a name may stand beside each other.
    wordsOf(query.q).forEach((word, n) => {
      const search = typeof listing.search === 'string' ? listing.search : listing.search(word);
      conditions.push(`(${search.replaceAll('@q', `@q${n} ESCAPE '\\'`).replaceAll('@code', `@code${n}`)})`);
      if (search.includes('@q')) params[`q${n}`] = like(word);
      if (search.includes('@code')) params[`code${n}`] = word.toUpperCase();
    });
  }
  if (query.cursor) {
    const cursor = readCursor(query.cursor, sort);
    conditions.push(`(${column}, ${listing.idColumn}) ${past} (@k, @id)`);
    params.k = cursor.k;
    params.id = cursor.id;
  }
  const sql = `${listing.select} WHERE ${conditions.join(' AND ')} ORDER BY ${column} ${direction}, ${listing.idColumn} ${direction} LIMIT @limit`;
  const rows = all<T & { id: string; sortKey: string | number }>(
    db,
    sql.replace('/*sort*/', `${column} AS sort_key,`),
    params,
  );
  const items = rows.slice(0, limit);
  const last = items.at(-1);
  const more = rows.length > limit && last;
  const nextCursor = more
    ? Buffer.from(JSON.stringify({ s: sort, k: last.sortKey, id: last.id } satisfies Cursor)).toString('base64url')
    : null;
  return { items: items.map(({ sortKey: _, ...item }) => item as unknown as T), nextCursor };
}
