import { copyFileSync, existsSync, readdirSync, readFileSync } from 'node:fs';
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

/**
 * Brings the file up to date in one transaction; a file that already holds data is copied beside itself first.
 * @throws when the file was written by a newer program.
 */
export function migrate(db: Db): void {
  const current = schemaOf(db);
  const newest = newestSchema();
  if (current > newest)
    throw new Error(`This workshop was written by a newer Blunko (schema ${current}); update the program.`);
  if (current === newest) return;
  if (current > 0 && db.name !== ':memory:') {
    db.pragma('wal_checkpoint(TRUNCATE)');
    const copy = `${db.name}.before-${String(newest).padStart(4, '0')}`;
    if (!existsSync(copy)) copyFileSync(db.name, copy);
  }
  db.transaction(() => {
    for (const { number, sql } of migrations()) {
      if (number <= current) continue;
      db.exec(sql);
      db.pragma(`user_version = ${number}`);
    }
  }).exclusive();
}
