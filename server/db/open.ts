import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';

export type Db = Database.Database;

/** Opens (or makes) the workshop's file. An answered write has reached the disk: WAL with synchronous=FULL. */
export function openDatabase(file: string): Db {
  const db = new Database(file);
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  db.pragma('busy_timeout = 5000');
  return db;
}

/** Where the files of a workshop lie: beside its database. */
export const filesBeside = (file: string) => join(dirname(file), 'files');
