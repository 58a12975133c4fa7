import type { Db } from '../db/open.ts';

/** Who may come in belongs to this machine, not to the records: it is in no backup and outlives a restore. */
const KEY_TABLES = ['passcode', 'session'] as const;

type Keys = Record<(typeof KEY_TABLES)[number], Record<string, unknown>[]>;

export function takeKeys(db: Db): Keys {
  const rows = (table: string) => db.prepare(`SELECT * FROM ${table}`).all() as Record<string, unknown>[];
  return { passcode: rows('passcode'), session: rows('session') };
}

function dropKeys(db: Db): void {
  for (const table of KEY_TABLES) db.exec(`DELETE FROM ${table}`);
}

export function putKeys(db: Db, { passcode, session }: Keys): void {
  db.transaction(() => {
    dropKeys(db);
    for (const row of passcode) db.prepare('INSERT INTO passcode (id, salt, hash) VALUES (@id, @salt, @hash)').run(row);
    for (const row of session)
      db.prepare('INSERT INTO session (token_hash, expires_at) VALUES (@token_hash, @expires_at)').run(row);
  })();
}

/** Takes out of a copy what belongs to this machine alone: its keys, and answers remembered for lost ones. */
export function dropOwn(db: Db): void {
  dropKeys(db);
  db.exec('DELETE FROM idempotency');
}
