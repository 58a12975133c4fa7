import { createHash } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import Database from 'better-sqlite3';
import { extract, type Pack, pack } from 'tar-stream';
import * as v from 'valibot';
import { Failure } from '../../core/failure.ts';
import { newestSchema } from '../db/migrate.ts';
import { type DataFolder, dropKeys } from './data.ts';

const manifestSchema = v.object({
  format: v.literal('blunko-backup'),
  formatVersion: v.literal(1),
  schema: v.number(),
  createdAt: v.string(),
  entries: v.array(v.object({ name: v.string(), bytes: v.number(), sha256: v.string() })),
});

async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

async function add(tar: Pack, name: string, file: string): Promise<void> {
  const entry = tar.entry({ name, size: statSync(file).size });
  await pipeline(createReadStream(file), entry);
}

function withoutKeys(file: string): void {
  const db = new Database(file);
  try {
    db.pragma('journal_mode = DELETE');
    db.pragma('secure_delete = ON');
    dropKeys(db);
  } finally {
    db.close();
  }
}

/** Streams one consistent archive: an online copy of the database, the files, and a manifest with their hashes. */
export async function writeBackup(data: DataFolder, out: NodeJS.WritableStream, now: Date): Promise<void> {
  const copy = join(data.root, `backup-${process.pid}-${now.getTime()}.db`);
  await data.db.backup(copy);
  try {
    withoutKeys(copy);
    const files = readdirSync(data.files).sort();
    const sources = [['blunko.db', copy], ...files.map((name) => [`files/${name}`, join(data.files, name)])] as [
      string,
      string,
    ][];
    const entries = [];
    for (const [name, file] of sources) entries.push({ name, bytes: statSync(file).size, sha256: await hashOf(file) });
    const manifest = {
      format: 'blunko-backup',
      formatVersion: 1,
      schema: newestSchema(),
      createdAt: now.toISOString(),
      entries,
    };
    const tar = pack();
    const sent = pipeline(tar, createGzip({ level: 6 }), out);
    tar.entry({ name: 'manifest.json' }, JSON.stringify(manifest, null, 2));
    for (const [name, file] of sources) await add(tar, name, file);
    tar.finalize();
    await sent;
  } finally {
    rmSync(copy, { force: true });
  }
}

const bad = (why: string) =>
  new Failure('bad-backup', `This is not a whole Blunko backup: ${why}. Nothing was changed.`);

/** Only the names a backup has; nothing may climb out of the folder. */
const ALLOWED = /^(manifest\.json|blunko\.db|files\/[0-9a-f]{64}(\.thumb)?)$/;

async function unpack(archive: string, folder: string): Promise<void> {
  mkdirSync(join(folder, 'files'), { recursive: true });
  const reader = extract();
  const read = pipeline(createReadStream(archive), createGunzip(), reader);
  read.catch(() => {}); // Awaited below; a broken archive also ends the loop.
  try {
    for await (const entry of reader) {
      const { name } = entry.header;
      if (!ALLOWED.test(name)) throw bad(`it holds "${name.slice(0, 60)}"`);
      await pipeline(Readable.from(entry), createWriteStream(join(folder, name)));
    }
    await read;
  } catch (error) {
    throw error instanceof Failure ? error : bad('it cannot be read to the end');
  }
}

async function checkStaged(folder: string): Promise<void> {
  const file = join(folder, 'manifest.json');
  if (!existsSync(file)) throw bad('its manifest is missing');
  const manifest = v.safeParse(manifestSchema, JSON.parse(readFileSync(file, 'utf8')));
  if (!manifest.success) throw bad('its manifest is of another kind');
  if (manifest.output.schema > newestSchema()) throw bad('it was written by a newer Blunko; update the program first');
  for (const { name, bytes, sha256 } of manifest.output.entries) {
    const path = join(folder, name);
    if (!ALLOWED.test(name) || !existsSync(path)) throw bad(`${name.slice(0, 60)} is missing`);
    if (statSync(path).size !== bytes || (await hashOf(path)) !== sha256) throw bad(`${name} is damaged`);
  }
  if (!existsSync(join(folder, 'blunko.db'))) throw bad('its records are missing');
  const db = new Database(join(folder, 'blunko.db'), { readonly: true });
  try {
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') throw bad('its records are damaged');
    if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
      throw bad('its records point to others that are missing');
    if (!db.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'workshop'`).get()) throw bad('it holds no workshop');
  } finally {
    db.close();
  }
  rmSync(file);
}

/** Checks an archive in a folder beside the live one, then swaps; the old workshop is kept under the name returned. */
export async function restore(data: DataFolder, archive: string, now: Date): Promise<string> {
  const stamp = now.toISOString().replaceAll(/[:.]/g, '-');
  const staged = join(data.root, `staged-${stamp}`);
  try {
    await unpack(archive, staged);
    await checkStaged(staged).catch((error: unknown) => {
      if (error instanceof Failure) throw error;
      throw bad('its records cannot be opened');
    });
    return data.replaceWith(staged, stamp);
  } finally {
    rmSync(staged, { recursive: true, force: true });
  }
}

export async function saveUpload(stream: NodeJS.ReadableStream, file: string, limitBytes: number): Promise<void> {
  let bytes = 0;
  async function* counted(source: AsyncIterable<Buffer>) {
    for await (const chunk of source) {
      bytes += chunk.length;
      if (bytes > limitBytes) throw new Failure('too-large', `That is more than ${Math.round(limitBytes / 1e6)} MB.`);
      yield chunk;
    }
  }
  writeFileSync(file, '');
  await pipeline(stream as Readable, counted, createWriteStream(file));
}
