import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { DataFolder } from '../backup/data.ts';
import { migrate, newestSchema, schemaOf } from './migrate.ts';
import { type Db, openDatabase } from './open.ts';

let root: string;
let db: Db;
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'blunko-db-'));
  db = openDatabase(join(root, 'blunko.db'));
});
afterEach(() => {
  db.close();
  rmSync(root, { recursive: true, force: true });
});

test('a new file gets the newest schema; a second start changes nothing', () => {
  migrate(db);
  const before = db.prepare('SELECT name, sql FROM sqlite_master ORDER BY name').all();
  migrate(db);
  expect(schemaOf(db)).toBe(newestSchema());
  expect(db.prepare('SELECT name, sql FROM sqlite_master ORDER BY name').all()).toEqual(before);
});

test('an answered write is on the disk: WAL, synchronous FULL, foreign keys on', () => {
  expect([
    db.pragma('journal_mode', { simple: true }),
    db.pragma('synchronous', { simple: true }),
    db.pragma('foreign_keys', { simple: true }),
  ]).toEqual(['wal', 2, 1]);
});

test('every table is STRICT', () => {
  migrate(db);
  const loose = db
    .prepare(`SELECT name FROM pragma_table_list WHERE type = 'table' AND strict = 0 AND name NOT LIKE 'sqlite_%'`)
    .all();
  expect(loose).toEqual([]);
});

test('a file of a newer program is refused, and left as it is', () => {
  migrate(db);
  db.pragma(`user_version = ${newestSchema() + 1}`);
  expect(() => migrate(db)).toThrow(/newer Blunko/);
  expect(schemaOf(db)).toBe(newestSchema() + 1);
});

test('a file of another program is refused, and left as it is', () => {
  db.exec('CREATE TABLE workshop (id INTEGER)');
  db.exec('INSERT INTO workshop VALUES (7)');
  expect(() => migrate(db)).toThrow(/database of another program/);
  expect(schemaOf(db)).toBe(0);
  expect(db.prepare('SELECT * FROM workshop').all()).toEqual([{ id: 7 }]);
  expect(db.prepare(`SELECT count(*) AS n FROM sqlite_master WHERE name = 'pour'`).get()).toEqual({ n: 0 });
});

test('a migration that breaks leaves the old schema, whole', () => {
  // A later table stands in the way of the second migration.
  const first = readFileSync(new URL('./migrations/0001-workshop.sql', import.meta.url), 'utf8');
  db.exec(first);
  db.exec('CREATE TABLE ladder (id INTEGER); INSERT INTO ladder VALUES (7)');
  db.pragma('user_version = 1');
  expect(() => migrate(db)).toThrow(/already exists/);
  expect([schemaOf(db), db.prepare('SELECT * FROM ladder').all()]).toEqual([1, [{ id: 7 }]]);
  expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
});

test('the copy before a migration is made whole, even where an earlier one was torn', () => {
  const first = readFileSync(new URL('./migrations/0001-workshop.sql', import.meta.url), 'utf8');
  db.exec(first);
  db.pragma('user_version = 1');
  db.exec("INSERT INTO customer (id, name, created_at) VALUES ('c', 'Tideline', '2026-01-01')");
  const copy = `${db.name}.before-${String(newestSchema()).padStart(4, '0')}`;
  writeFileSync(copy, 'torn');
  migrate(db);
  const before = new Database(copy, { readonly: true });
  expect([schemaOf(before), before.prepare('SELECT name FROM customer').all()]).toEqual([1, [{ name: 'Tideline' }]]);
  before.close();
});

test('a workshop opens with one row of defaults, however often', () => {
  const folder = join(root, 'shop');
  for (let n = 0; n < 3; n++) {
    const data = new DataFolder(folder);
    expect(data.db.prepare('SELECT count(*) AS n FROM workshop').get()).toEqual({ n: 1 });
    data.close();
  }
  expect(existsSync(join(folder, 'live', 'files'))).toBe(true);
});
