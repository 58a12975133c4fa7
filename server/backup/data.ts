import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { Failure } from '../../core/failure.ts';
import { migrate, refuseStranger } from '../db/migrate.ts';
import { type Db, filesBeside, openDatabase } from '../db/open.ts';
import { newId } from '../ids.ts';
import { ensureWorkshop } from '../workshop/store.ts';
import { flushFolder } from './flush.ts';
import { putKeys, takeKeys } from './keys.ts';
import { holdFolder } from './lock.ts';

/** Left by a server that was killed at work, of this program and of earlier ones. */
const LEFTOVER = /^(tmp$|backup-\d|upload-\d|mesh-|photo-|staged-)/;
const STORED = /^[0-9a-f]{64}(\.thumb)?$/;

/** Opens a workshop's file and brings it up to date; says in words why it will not. */
function openWorkshop(file: string): Db {
  let db: Db | undefined;
  try {
    // Looked at before it is opened for writing: what is not ours stays as it is, to the byte. One that was cut off in its
    // very first write has to be rolled back by writing, and is looked at then.
    if (existsSync(file) && !existsSync(`${file}-journal`)) {
      db = new Database(file, { readonly: true });
      refuseStranger(db);
      db.close();
    }
    db = openDatabase(file);
    migrate(db);
    ensureWorkshop(db);
    return db;
  } catch (error) {
    db?.close();
    const code = (error as { code?: unknown }).code;
    if (code === 'SQLITE_NOTADB' || code === 'SQLITE_CORRUPT')
      throw new Failure(
        'bad-workshop',
        `${file} is no workshop that can be read. Move it away, or put a backup's file in its place.`,
      );
    throw error;
  }
}

/**
 * The data folder, held by one server: `live/` is the database and the files, `tmp/` whatever is being made. A restore puts a
 * checked folder in the place of `live/` by renames; a power cut between them is finished at the next start.
 */
export class DataFolder {
  db: Db;
  /** Grows when the workshop is replaced as a whole. */
  generation = 0;
  private readonly lock: { release(): void };

  constructor(readonly root: string) {
    mkdirSync(root, { recursive: true });
    this.lock = holdFolder(root);
    try {
      this.finishRestore();
      this.sweep();
      mkdirSync(this.files, { recursive: true });
      this.db = openWorkshop(this.file);
    } catch (error) {
      this.lock.release();
      throw error;
    }
  }

  get live(): string {
    return join(this.root, 'live');
  }

  get files(): string {
    return filesBeside(this.file);
  }

  get file(): string {
    return join(this.live, 'blunko.db');
  }

  /** A path for something that is being made; all of them are swept at the next start. */
  scratch(kind: string): string {
    const tmp = join(this.root, 'tmp');
    mkdirSync(tmp, { recursive: true });
    return join(tmp, `${kind}-${newId()}`);
  }

  private get incoming(): string {
    return join(this.root, 'incoming');
  }

  private finishRestore(): void {
    if (existsSync(this.incoming)) {
      // Both there: it was cut off before anything was replaced, and was never answered.
      if (existsSync(this.live)) rmSync(this.incoming, { recursive: true });
      else renameSync(this.incoming, this.live);
    }
    this.finishOlderRestore();
    flushFolder(this.root);
  }

  /** Earlier programs marked a restore by a file, which a power cut could tear. */
  private finishOlderRestore(): void {
    const marker = join(this.root, 'restoring.json');
    if (!existsSync(this.live)) {
      const inside = readdirSync(this.root).sort().reverse();
      const whole = (name: string) => existsSync(join(this.root, name, 'blunko.db'));
      const found =
        stagedIn(marker) ??
        inside.find((name) => name.startsWith('staged-') && whole(name)) ??
        inside.find((name) => name.startsWith('before-restore-') && whole(name));
      if (found && whole(found)) renameSync(join(this.root, found), this.live);
    }
    rmSync(marker, { force: true });
  }

  private sweep(): void {
    for (const name of readdirSync(this.root))
      if (LEFTOVER.test(name)) rmSync(join(this.root, name), { recursive: true, force: true });
    if (!existsSync(this.files)) return;
    for (const name of readdirSync(this.files))
      if (!STORED.test(name)) rmSync(join(this.files, name), { recursive: true, force: true });
  }

  /** Puts a checked folder in the place of the live one and keeps the old one, under the name returned. */
  replaceWith(staged: string, stamp: string): string {
    const name = join(this.root, `before-restore-${stamp}`);
    const kept = existsSync(name) ? `${name}-${this.generation}` : name;
    // Who may come in belongs to this machine: it goes into the new file before that takes the old one's place.
    const next = openWorkshop(join(staged, 'blunko.db'));
    try {
      putKeys(next, takeKeys(this.db));
      next.pragma('wal_checkpoint(TRUNCATE)');
    } finally {
      next.close();
    }
    mkdirSync(join(staged, 'files'), { recursive: true });
    flushFolder(staged);
    renameSync(staged, this.incoming);
    flushFolder(this.root);
    this.db.close();
    try {
      renameSync(this.live, kept);
      renameSync(this.incoming, this.live);
    } catch (error) {
      if (!existsSync(this.live)) renameSync(kept, this.live);
      rmSync(this.incoming, { recursive: true, force: true });
      this.db = openWorkshop(this.file);
      throw error;
    }
    flushFolder(this.root);
    this.db = openWorkshop(this.file);
    this.generation += 1;
    return kept;
  }

  close(): void {
    this.db.close();
    this.lock.release();
  }
}

function stagedIn(marker: string): string | undefined {
  try {
    const { staged } = JSON.parse(readFileSync(marker, 'utf8')) as { staged: string };
    return staged.split(/[\\/]/).at(-1);
  } catch {
    // Torn or not there: what lies in the folder decides.
    return undefined;
  }
}
