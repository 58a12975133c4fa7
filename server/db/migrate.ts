import { closeSync, copyFileSync, fsyncSync, openSync, readdirSync, readFileSync, renameSync } from 'node:fs';
import Database from 'better-sqlite3';
import { Failure } from '../../core/failure.ts';
import type { Db } from './open.ts';

const folder = new URL('./migrations/', import.meta.url);

interface Migration {
  number: number;
  name: string;
  sql: string;
}

function migrations(): Migration[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .map((name) => ({ number: Number(name.slice(0, 4)), name, sql: readFileSync(new URL(name, folder), 'utf8') }));
}

/** The newest schema this program knows. */
export function newestSchema(): number {
  return Math.max(...migrations().map((migration) => migration.number));
}

export function schemaOf(db: Db): number {
  return db.pragma('user_version', { simple: true }) as number;
}

type Things = Map<string, string>;

/** Tables, indexes, triggers and views of a file, as they were written. */
function thingsIn(db: Db): Things {
  const rows = db
    .prepare(`SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite\\_%' ESCAPE '\\'`)
    .all();
  return new Map(
    (rows as { type: string; name: string; sql: string | null }[]).map(({ type, name, sql }) => [
      `${type} ${name}`,
      (sql ?? '').replaceAll(/\s+/g, ' '),
    ]),
  );
}

/** What a file of this schema holds when this program made it. */
function asMade(schema: number): Things {
  const db = new Database(':memory:');
  try {
    for (const { number, sql } of migrations()) if (number <= schema) db.exec(sql);
    return thingsIn(db);
  } finally {
    db.close();
  }
}

/** What in a file no Blunko made, in words; null where all of it is ours. */
export function strangeIn(db: Db): string | null {
  const schema = schemaOf(db);
  if (schema > newestSchema()) return `it was written by a newer Blunko (schema ${schema}); update the program first`;
  const [here, made] = [thingsIn(db), asMade(schema)];
  for (const [thing, sql] of here)
    if (made.get(thing) !== sql) return `it has a ${thing.slice(0, 60)} that no Blunko makes`;
  for (const thing of made.keys()) if (!here.has(thing)) return `its ${thing} is missing`;
  return null;
}

/** @throws Failure `newer-workshop`, `foreign-file`: a file that is not ours to change. */
export function refuseStranger(db: Db): void {
  const schema = schemaOf(db);
  if (schema > newestSchema())
    throw new Failure(
      'newer-workshop',
      `${db.name} was written by a newer Blunko (schema ${schema}, this one knows ${newestSchema()}). Update the program; nothing was changed.`,
    );
  const things = thingsIn(db);
  if (schema === 0 ? things.size > 0 : !things.has('table workshop'))
    throw new Failure(
      'foreign-file',
      `${db.name} is a database of another program. Choose another folder with --data; nothing was changed.`,
    );
}

/** A whole copy beside the file, or none: it gets its name only once it is on the disk. */
function copyBeside(db: Db, newest: number): void {
  db.pragma('wal_checkpoint(TRUNCATE)');
  const copy = `${db.name}.before-${String(newest).padStart(4, '0')}`;
  copyFileSync(db.name, `${copy}.part`);
  const handle = openSync(`${copy}.part`, 'r+');
  fsyncSync(handle);
  closeSync(handle);
  renameSync(`${copy}.part`, copy);
}

/**
 * Brings the file up to date in one transaction; a file that already holds data is copied beside itself first.
 * @throws Failure when the file was written by a newer program, or by another.
 */
export function migrate(db: Db): void {
  refuseStranger(db);
  const current = schemaOf(db);
  const newest = newestSchema();
  if (current === newest) return;
  if (current > 0 && db.name !== ':memory:') copyBeside(db, newest);
  // Tables that are built anew are pointed to by others: the pointers are checked as a whole at the end.
  db.pragma('foreign_keys = OFF');
  try {
    db.transaction(() => {
      for (const { number, sql } of migrations()) {
        if (number <= current) continue;
        db.exec(sql);
        db.pragma(`user_version = ${number}`);
      }
      if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
        throw new Error('The migration left records that point to nothing; the file stays as it was.');
    }).exclusive();
  } finally {
    db.pragma('foreign_keys = ON');
  }
}
