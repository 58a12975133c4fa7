import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { migrate } from '../db/migrate.ts';
import { type Db, openDatabase } from '../db/open.ts';
import { ensureWorkshop } from '../workshop/store.ts';

interface Keys {
  passcode: Record<string, unknown>[];
  session: Record<string, unknown>[];
}

/** Who may come in belongs to this machine, not to the records: it is in no backup and outlives a restore. */
function takeKeys(db: Db): Keys {
  const rows = (table: string) => db.prepare(`SELECT * FROM ${table}`).all() as Record<string, unknown>[];
  return { passcode: rows('passcode'), session: rows('session') };
}

export function dropKeys(db: Db): void {
  db.exec('DELETE FROM passcode; DELETE FROM session;');
}

function putKeys(db: Db, { passcode, session }: Keys): void {
  dropKeys(db);
  for (const row of passcode) db.prepare('INSERT INTO passcode (id, salt, hash) VALUES (@id, @salt, @hash)').run(row);
  for (const row of session)
    db.prepare('INSERT INTO session (token_hash, expires_at) VALUES (@token_hash, @expires_at)').run(row);
}

/**
 * The data folder: `live/` holds the database and the files; a restore swaps `live/` as a whole by two renames, with a
 * marker beside it so that a power cut between the two is finished at the next start.
 */
export class DataFolder {
  db: Db;

  constructor(readonly root: string) {
    mkdirSync(root, { recursive: true });
    this.finishRestore();
    this.db = this.open();
  }

  get live(): string {
    return join(this.root, 'live');
  }

  get files(): string {
    return join(this.live, 'files');
  }

  private get marker(): string {
    return join(this.root, 'restoring.json');
  }

  private open(): Db {
    mkdirSync(this.files, { recursive: true });
    const db = openDatabase(join(this.live, 'blunko.db'));
    try {
      migrate(db);
      ensureWorkshop(db);
    } catch (error) {
      db.close();
      throw error;
    }
    return db;
  }

  private finishRestore(): void {
    if (!existsSync(this.marker)) return;
    const { staged } = JSON.parse(readFileSync(this.marker, 'utf8')) as { staged: string };
    if (!existsSync(this.live) && existsSync(staged)) renameSync(staged, this.live);
    rmSync(this.marker);
  }

  /** Puts a checked folder in the place of the live one and keeps the old one; puts the old back if it will not open. */
  replaceWith(staged: string, stamp: string): string {
    const kept = join(this.root, `before-restore-${stamp}`);
    const keys = takeKeys(this.db);
    this.db.close();
    writeFileSync(this.marker, JSON.stringify({ staged }));
    renameSync(this.live, kept);
    try {
      renameSync(staged, this.live);
      this.db = this.open();
      putKeys(this.db, keys);
    } catch (error) {
      rmSync(this.live, { recursive: true, force: true });
      renameSync(kept, this.live);
      this.db = this.open();
      rmSync(this.marker, { force: true });
      throw error;
    }
    rmSync(this.marker);
    return kept;
  }

  close(): void {
    this.db.close();
  }
}
