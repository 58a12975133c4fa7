import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
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

test('a migration that breaks leaves the old schema, whole', () => {
  db.exec('CREATE TABLE workshop (id INTEGER)');
  db.exec('INSERT INTO workshop VALUES (7)');
  expect(() => migrate(db)).toThrow(/already exists/);
  expect(schemaOf(db)).toBe(0);
  expect(db.prepare('SELECT * FROM workshop').all()).toEqual([{ id: 7 }]);
  expect(db.prepare(`SELECT count(*) AS n FROM sqlite_master WHERE name = 'pour'`).get()).toEqual({ n: 0 });
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
