import type { Statement } from 'better-sqlite3';
import { Failure } from '../../core/failure.ts';
import type { Db } from './open.ts';

export type Row = Record<string, unknown>;
type Params = Record<string, unknown> | unknown[];

interface Prepared {
  statement: Statement;
  /** Makes a row as code knows it of the values in the order of the columns; only for statements that give rows. */
  read: ((values: unknown[]) => Row) | undefined;
}

const prepared = new WeakMap<Db, Map<string, Prepared>>();

/** Each statement is compiled once per database. */
function prepare(db: Db, sql: string): Prepared {
  const cache = prepared.get(db) ?? new Map<string, Prepared>();
  prepared.set(db, cache);
  const found = cache.get(sql);
  if (found) return found;
  const statement = db.prepare(sql);
  if (statement.reader) statement.raw(true);
  const made = { statement, read: statement.reader ? reader(statement) : undefined };
  cache.set(sql, made);
  return made;
}

const statement = (db: Db, sql: string) => prepare(db, sql).statement;

const camel = (column: string) => column.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
const snake = (key: string) => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Columns that hold JSON text, and columns that hold booleans as 0 and 1. */
const JSON_COLUMNS = new Set([
  'plan',
  'mix',
  'detail',
  'input',
  'output',
  'facts',
  'changed',
  'spec',
  'speeds',
  'steps',
  'fitting',
  'inserts',
  'build',
  'making',
  'over_black',
  'over_white',
  'plain',
  'optics',
  'reflected',
  'foreseen',
  'proposals',
  'left_over',
]);
const BOOLEAN_COLUMNS = new Set([
  'drawn_of',
  'flat_back',
  'early',
  'cured',
  'gone',
  'favourite',
  'turned',
  'keep_warm',
  'gift',
]);

/** How each column is named and read, found out once and not for every row. */
function reader(statement: Statement): (values: unknown[]) => Row {
  const columns = statement.columns().map(({ name }) => ({
    key: camel(name),
    json: JSON_COLUMNS.has(name),
    boolean: BOOLEAN_COLUMNS.has(name),
  }));
  return (values) => {
    const row: Row = {};
    for (let i = 0; i < columns.length; i++) {
      const { key, json, boolean } = columns[i] as (typeof columns)[number];
      const value = values[i];
      row[key] = json && typeof value === 'string' ? JSON.parse(value) : boolean ? value === 1 : value;
    }
    return row;
  };
}

function toValue(column: string, value: unknown): unknown {
  if (JSON_COLUMNS.has(column) && value !== null && value !== undefined) return JSON.stringify(value);
  if (typeof value === 'boolean') return value ? 1 : 0;
  return value ?? null;
}

const bound = (params: Params): unknown[] =>
  Array.isArray(params)
    ? params.map((value) => toValue('', value))
    : [Object.fromEntries(Object.entries(params).map(([key, value]) => [key, toValue('', value)]))];

/** All rows of a query, columns renamed to camelCase, JSON and booleans unpacked. */
export function all<T>(db: Db, sql: string, params: Params = []): T[] {
  const { statement: found, read } = prepare(db, sql);
  const rows = found.all(...bound(params)) as unknown[][];
  return read ? rows.map((row) => read(row) as T) : [];
}

export function first<T>(db: Db, sql: string, params: Params = []): T | undefined {
  const { statement: found, read } = prepare(db, sql);
  const row = found.get(...bound(params)) as unknown[] | undefined;
  return row === undefined || !read ? undefined : (read(row) as T);
}

export function run(db: Db, sql: string, params: Params = []): number {
  return statement(db, sql).run(...bound(params)).changes;
}

/** Inserts an object whose keys are the table's columns in camelCase (keys come from code, never from a request). */
export function insert(db: Db, table: string, values: Row): void {
  const columns = Object.keys(values).map(snake);
  const sql = `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map((c) => `@${c}`).join(', ')})`;
  const params = Object.fromEntries(
    Object.entries(values).map(([key, value]) => [snake(key), toValue(snake(key), value)]),
  );
  try {
    statement(db, sql).run(params);
  } catch (error) {
    throw asFailure(error, table) ?? error;
  }
}

/** Turns a broken UNIQUE or FOREIGN KEY rule into a refusal a maker can act on. */
function asFailure(error: unknown, table: string): Failure | undefined {
  const code = (error as { code?: string }).code;
  const message = error instanceof Error ? error.message : '';
  if (code === 'SQLITE_CONSTRAINT_UNIQUE') {
    const column = message.split('.').pop() ?? '';
    const what = column === 'name' ? 'that name' : camel(column) === 'reverses' ? 'already taken back' : camel(column);
    return column === 'reverses'
      ? new Failure('already-reversed', 'That was already taken back.')
      : new Failure(
          'already-exists',
          `There is already a ${table.replaceAll('_', ' ')} with ${what}; choose another.`,
          camel(column),
        );
  }
  if (code === 'SQLITE_CONSTRAINT_FOREIGNKEY') {
    return new Failure('no-such-record', `A record that this ${table.replaceAll('_', ' ')} points to is not there.`);
  }
  return undefined;
}

/**
 * Throws a row out that nothing else names.
 * @throws Failure `in-use`: what was recorded with it stays, and so does it.
 */
export function remove(db: Db, table: string, id: string, what: string): void {
  try {
    statement(db, `DELETE FROM ${table} WHERE id = ?`).run(id);
  } catch (error) {
    if ((error as { code?: string }).code !== 'SQLITE_CONSTRAINT_FOREIGNKEY') throw error;
    throw new Failure(
      'in-use',
      `Other records still name this ${what}, so it stays. Put it away, and it leaves the lists.`,
    );
  }
}

/** Reads a record by id, or refuses with 404. */
export function mustFind<T>(db: Db, table: string, id: string, what: string): T {
  const row = first<T>(db, `SELECT * FROM ${table} WHERE id = ?`, [id]);
  if (!row) throw new Failure('not-found', `There is no such ${what}; it may have been on another workshop's records.`);
  return row;
}

/**
 * Changes an editable row if it is still at `version`.
 * @throws Failure `stale-version` with the current row when somebody else was first.
 */
export function update(db: Db, table: string, id: string, version: number, values: Row, what: string): void {
  const columns = Object.keys(values).map(snake);
  const sets = [...columns.map((c) => `${c} = @${c}`), 'version = version + 1'].join(', ');
  const params = Object.fromEntries(
    Object.entries(values).map(([key, value]) => [snake(key), toValue(snake(key), value)]),
  );
  let changes: number;
  try {
    changes = statement(db, `UPDATE ${table} SET ${sets} WHERE id = @id AND version = @version`).run({
      ...params,
      id,
      version,
    }).changes;
  } catch (error) {
    throw asFailure(error, table) ?? error;
  }
  if (changes === 1) return;
  const current = mustFind<Row>(db, table, id, what);
  throw new Failure(
    'stale-version',
    `Somebody changed this ${what} since you opened it. Look at both and save again.`,
    undefined,
    { current },
  );
}

/** The next number of a running series (pour and order codes), never used twice. */
export function nextNumber(db: Db, name: string): number {
  const row = first<{ value: number }>(
    db,
    'INSERT INTO counter (name, value) VALUES (?, 1) ON CONFLICT (name) DO UPDATE SET value = value + 1 RETURNING value',
    [name],
  );
  return (row as { value: number }).value;
}
