import { createHash } from 'node:crypto';
import {
  copyFileSync,
  createReadStream,
  createWriteStream,
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import Database from 'better-sqlite3';
import { extract, pack } from 'tar-stream';
import * as v from 'valibot';
import { Failure } from '../../core/failure.ts';
import { migrate, newestSchema, schemaOf, strangeIn } from '../db/migrate.ts';
import { flushAll } from './flush.ts';
import { dropOwn } from './keys.ts';

const fileHash = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/));
const manifestSchema = v.object({
  format: v.literal('blunko-backup'),
  formatVersion: v.literal(1),
  schema: v.number(),
  createdAt: v.string(),
  entries: v.array(v.object({ name: v.string(), bytes: v.number(), sha256: fileHash })),
  /** Files that the records speak of and that were gone or damaged when this was made. */
  missing: v.optional(v.array(fileHash), []),
});
type Manifest = v.InferOutput<typeof manifestSchema>;

export async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/** The files that records refer to, by the hash of their content. */
function referred(db: Database.Database): string[] {
  const rows = db.prepare('SELECT hash FROM photo UNION SELECT hash FROM mesh ORDER BY hash').all();
  return (rows as { hash: string }[]).map((row) => row.hash);
}

/** The same file under a second name: it stays even when the workshop is replaced meanwhile. */
function linked(from: string, to: string): void {
  try {
    linkSync(from, to);
  } catch {
    // Some file systems know no second names.
    copyFileSync(from, to);
  }
}

/** Copies the records as they are at this moment, less what belongs to this machine. */
function copyRecords(from: string, to: string): string[] {
  const live = new Database(from);
  try {
    live.prepare('VACUUM INTO ?').run(to);
  } finally {
    live.close();
  }
  const copy = new Database(to);
  try {
    copy.pragma('journal_mode = DELETE');
    copy.pragma('secure_delete = ON');
    dropOwn(copy);
    copy.exec('VACUUM');
    return referred(copy);
  } finally {
    copy.close();
  }
}

export interface Making {
  db: string;
  files: string;
  /** Where the copy is laid out, and the archive that is made of it. */
  folder: string;
  archive: string;
  now: string;
}

/** Makes one consistent archive and checks it as a restore would. Slow work: for a thread of its own. */
export async function makeArchive({ db, files, folder, archive, now }: Making): Promise<{ missing: number }> {
  try {
    mkdirSync(join(folder, 'files'), { recursive: true });
    const records = join(folder, 'blunko.db');
    const entries: Manifest['entries'] = [];
    const missing: string[] = [];
    const hashes = copyRecords(db, records);
    entries.push({ name: 'blunko.db', bytes: statSync(records).size, sha256: await hashOf(records) });
    for (const hash of hashes) {
      const from = join(files, hash);
      if (!existsSync(from) || (await hashOf(from)) !== hash) missing.push(hash);
      else {
        linked(from, join(folder, 'files', hash));
        entries.push({ name: `files/${hash}`, bytes: statSync(from).size, sha256: hash });
      }
    }
    const manifest: Manifest = {
      format: 'blunko-backup',
      formatVersion: 1,
      schema: newestSchema(),
      createdAt: now,
      entries,
      missing,
    };
    const text = JSON.stringify(manifest, null, 2);
    writeFileSync(join(folder, 'manifest.json'), text);
    await checkStaged(folder);
    const tar = pack();
    const written = pipeline(tar, createGzip({ level: 6 }), createWriteStream(archive));
    const filled = async () => {
      tar.entry({ name: 'manifest.json' }, text);
      for (const { name, bytes } of entries)
        await pipeline(createReadStream(join(folder, name)), tar.entry({ name, size: bytes }));
      tar.finalize();
    };
    await Promise.all([written, filled()]);
    return { missing: missing.length };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const bad = (why: string) =>
  new Failure('bad-backup', `This is not a whole Blunko backup: ${why}. Nothing was changed.`);

/** Only the names a backup has; nothing may climb out of the folder. */
const ALLOWED = /^(manifest\.json|blunko\.db|files\/[0-9a-f]{64}(\.thumb)?)$/;

async function unpack(archive: string, folder: string): Promise<Set<string>> {
  mkdirSync(join(folder, 'files'), { recursive: true });
  const reader = extract();
  const names = new Set<string>();
  const taken = async () => {
    for await (const entry of reader) {
      const { name } = entry.header;
      if (!ALLOWED.test(name)) throw bad(`it holds "${name.slice(0, 60)}"`);
      if (names.has(name)) throw bad(`it holds ${name} twice`);
      names.add(name);
      await pipeline(entry, createWriteStream(join(folder, name)));
    }
  };
  try {
    await Promise.all([pipeline(createReadStream(archive), createGunzip(), reader), taken()]);
  } catch (error) {
    reader.destroy();
    throw error instanceof Failure ? error : bad('it cannot be read to the end');
  }
  return names;
}

function manifestOf(folder: string): Manifest {
  const file = join(folder, 'manifest.json');
  if (!existsSync(file)) throw bad('its manifest is missing');
  let json: unknown;
  try {
    json = JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    throw bad('its manifest cannot be read');
  }
  const manifest = v.safeParse(manifestSchema, json);
  if (!manifest.success) throw bad('its manifest is of another kind');
  if (manifest.output.schema > newestSchema()) throw bad('it was written by a newer Blunko; update the program first');
  return manifest.output;
}

/** The records themselves: whole, of a schema that this program made, and speaking of no file that is not there. */
function checkRecords(folder: string, missing: Set<string>): void {
  const db = new Database(join(folder, 'blunko.db'), { readonly: true });
  try {
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') throw bad('its records are damaged');
    if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
      throw bad('its records point to others that are missing');
    if (schemaOf(db) === 0) throw bad('it holds no workshop');
    const strange = strangeIn(db);
    if (strange) throw bad(strange);
    const gone = referred(db).find((hash) => !missing.has(hash) && !existsSync(join(folder, 'files', hash)));
    if (gone) throw bad(`the file ${gone.slice(0, 12)}… that its records speak of is missing`);
  } finally {
    db.close();
  }
}

async function checkStaged(folder: string): Promise<Manifest> {
  const manifest = manifestOf(folder);
  for (const { name, bytes, sha256 } of manifest.entries) {
    const path = join(folder, name);
    if (!ALLOWED.test(name) || !existsSync(path)) throw bad(`${name.slice(0, 60)} is missing`);
    if (statSync(path).size !== bytes || (await hashOf(path)) !== sha256) throw bad(`${name} is damaged`);
  }
  if (!existsSync(join(folder, 'blunko.db'))) throw bad('its records are missing');
  try {
    checkRecords(folder, new Set(manifest.missing));
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw bad('its records cannot be opened');
  }
  return manifest;
}

/** Unpacks an archive into a folder, checks it, and brings its records up to date there. */
export async function unpackChecked(archive: string, folder: string): Promise<{ missing: number }> {
  const names = await unpack(archive, folder);
  const manifest = await checkStaged(folder);
  const listed = new Set([...manifest.entries.map((entry) => entry.name), 'manifest.json']);
  const extra = [...names].find((name) => !listed.has(name));
  if (extra) throw bad(`it holds ${extra.slice(0, 60)}, which its manifest does not list`);
  rmSync(join(folder, 'manifest.json'));
  const db = new Database(join(folder, 'blunko.db'));
  try {
    migrate(db);
  } finally {
    db.close();
  }
  flushAll(folder);
  return { missing: manifest.missing.length };
}
