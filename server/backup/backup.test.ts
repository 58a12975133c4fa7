import { createHash, randomBytes } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { gunzipSync, gzipSync } from 'node:zlib';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { extract, pack } from 'tar-stream';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Customer } from '../../contract/orders.ts';
import { newestSchema } from '../db/migrate.ts';
import { stocked, TestWorkshop } from '../testing/workshop.ts';
import { DataFolder } from './data.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

const backup = async () => Buffer.from(await (await fetch(`${workshop.url}/api/backup`)).arrayBuffer());
const restore = async (archive: Buffer) => {
  const response = await fetch(`${workshop.url}/api/restore`, { method: 'POST', body: new Uint8Array(archive) });
  return {
    status: response.status,
    body: (await response.json()) as {
      keptAs?: string;
      missingFiles?: number;
      error?: { code: string; message: string };
    },
  };
};
const names = async () => (await workshop.get<Page<Customer>>('/customers')).body.items.map((row) => row.name);

test('a backup brings the whole workshop back, photos too, and the workshop it replaces is kept', async () => {
  const { master } = await stocked(workshop);
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#4f8796' } })
    .png()
    .toBuffer();
  const photo = await fetch(`${workshop.url}/api/photos?aboutType=master&aboutId=${master.id}`, {
    method: 'POST',
    body: new Uint8Array(picture),
  });
  const { id } = (await photo.json()) as { id: string };
  const archive = await backup();
  await workshop.post('/customers', { name: 'Came later' });
  const { status, body } = await restore(archive);
  expect(status).toBe(201);
  expect(await names()).toEqual(['Quayside Chandlery']);
  const again = await fetch(`${workshop.url}/api/photos/${id}`);
  expect(Buffer.from(await again.arrayBuffer()).equals(picture)).toBe(true);
  expect(existsSync(join(workshop.data.root, body.keptAs as string, 'blunko.db'))).toBe(true);
  expect((await workshop.post('/customers', { name: 'After the restore' })).status).toBe(201);
});

test.each([
  ['nothing', () => Buffer.alloc(0)],
  ['no archive', () => Buffer.from('a shopping list')],
  ['half of it', (whole: Buffer) => whole.subarray(0, whole.length / 2)],
  ['an archive of something else', () => gzipSync(Buffer.alloc(1024))],
  [
    'one byte changed',
    (whole: Buffer) => {
      const tar = gunzipSync(whole);
      tar[tar.length - 3000] = (tar[tar.length - 3000] ?? 0) ^ 0xff;
      return gzipSync(tar);
    },
  ],
])('%s is refused and changes nothing', async (_what, spoil: (whole: Buffer) => Buffer) => {
  await workshop.post('/customers', { name: 'Tideline' });
  const whole = await backup();
  const { status, body } = await restore(spoil(whole));
  expect([status, body.error?.code]).toEqual([400, 'bad-backup']);
  expect(await names()).toEqual(['Tideline']);
  // Nothing half-written stays behind.
  expect(readdirSync(join(workshop.data.root, 'tmp'))).toEqual([]);
});

type Entry = [name: string, bytes: Buffer];
const sha256 = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

async function entriesOf(archive: Buffer): Promise<Entry[]> {
  const found: Entry[] = [];
  const reader = extract();
  Readable.from([gunzipSync(archive)]).pipe(reader);
  for await (const entry of reader) found.push([entry.header.name, await buffer(entry)]);
  return found;
}

/** An archive whose manifest tells the truth about what it holds. */
async function archiveOf(entries: Entry[], schema = newestSchema(), unlisted: Entry[] = []): Promise<Buffer> {
  const manifest = {
    format: 'blunko-backup',
    formatVersion: 1,
    schema,
    createdAt: '2026-03-02',
    entries: entries.map(([name, bytes]) => ({ name, bytes: bytes.length, sha256: sha256(bytes) })),
  };
  const tar = pack();
  tar.entry({ name: 'manifest.json' }, JSON.stringify(manifest));
  for (const [name, bytes] of [...entries, ...unlisted]) tar.entry({ name }, bytes);
  tar.finalize();
  return gzipSync(await buffer(tar));
}

/** The records of an archive, changed by hand. */
async function tampered(archive: Buffer, change: (db: Database.Database) => void): Promise<Buffer> {
  const file = join(mkdtempSync(join(tmpdir(), 'blunko-tamper-')), 'blunko.db');
  const records = (await entriesOf(archive)).find(([name]) => name === 'blunko.db') as Entry;
  writeFileSync(file, records[1]);
  const db = new Database(file);
  change(db);
  db.pragma('journal_mode = DELETE');
  db.close();
  return archiveOf([['blunko.db', readFileSync(file)]]);
}

test.each([
  [
    'a trigger of its own',
    (db: Database.Database) => db.exec(`CREATE TRIGGER x AFTER INSERT ON dose BEGIN DELETE FROM customer; END`),
    /trigger x/,
  ],
  ['a table of its own', (db: Database.Database) => db.exec('CREATE TABLE extra (id INTEGER)'), /table extra/],
  ['a rule left out', (db: Database.Database) => db.exec('DROP TRIGGER dose_no_delete'), /dose_no_delete is missing/],
  ['a newer schema', (db: Database.Database) => db.pragma(`user_version = ${newestSchema() + 1}`), /newer Blunko/],
  ['no schema', (db: Database.Database) => db.pragma('user_version = 0'), /no workshop/],
  [
    'a photo that is not in it',
    (db: Database.Database) =>
      db.prepare(`INSERT INTO photo VALUES ('p', ?, 'image/png', 'master', 'm', '2026-03-02')`).run('ab'.repeat(32)),
    /abababababab… that its records speak of is missing/,
  ],
] as [string, (db: Database.Database) => void, RegExp][])(
  'an archive with %s is refused in words',
  async (_what, change, words) => {
    await workshop.post('/customers', { name: 'Tideline' });
    const { status, body } = await restore(await tampered(await backup(), change));
    expect([status, body.error?.code]).toEqual([400, 'bad-backup']);
    expect(body.error?.message).toMatch(words);
    expect(await names()).toEqual(['Tideline']);
  },
);

test('an archive that holds more than its manifest lists, or a thing twice, is refused', async () => {
  const entries = (await entriesOf(await backup())).filter(([name]) => name !== 'manifest.json');
  const extra: Entry = [`files/${'cd'.repeat(32)}`, Buffer.from('smuggled')];
  expect((await restore(await archiveOf(entries))).status).toBe(201);
  const more = await restore(await archiveOf(entries, newestSchema(), [extra]));
  expect(more.body.error?.message).toMatch(/which its manifest does not list/);
  const twice = await restore(await archiveOf(entries, newestSchema(), [entries[0] as Entry]));
  expect(twice.body.error?.message).toMatch(/twice/);
});

/** Answers to lost taps fill the file, so that an archive is long enough to be left in the middle. */
function fill(): void {
  const insert = workshop.data.db.prepare(
    `INSERT INTO kept_result (id, calculator, title, input, output, created_at) VALUES (?, 'x', 'x', '{}', ?, 'x')`,
  );
  for (let n = 0; n < 60; n++) insert.run(`k${n}`, JSON.stringify(randomBytes(150_000).toString('base64')));
}

/** Asks for a backup and reads nothing of it after its first bytes. */
function unread(): Promise<{ status: number; leave(): void }> {
  return new Promise((done, fail) => {
    const asked = request(`${workshop.url}/api/backup`, (response) => {
      response.pause();
      done({ status: response.statusCode ?? 0, leave: () => asked.destroy() });
    });
    asked.on('error', (error) => (asked.destroyed ? undefined : fail(error)));
    asked.end();
  });
}
const lying = () => {
  const tmp = join(workshop.data.root, 'tmp');
  return existsSync(tmp) ? readdirSync(tmp).filter((name) => name.startsWith('archive-')) : [];
};

test('a download that is left in the middle harms nothing, and neither does a restore during one', async () => {
  fill();
  const first = await unread();
  first.leave();
  const second = await unread();
  const whole = await backup();
  expect((await restore(whole)).status).toBe(201);
  second.leave();
  await expect.poll(lying).toEqual([]);
  expect((await restore(await backup())).status).toBe(201);
});

test('ten who never read hold one archive, not ten; and after two more writes a third is refused in words', async () => {
  fill();
  const readers = await Promise.all(Array.from({ length: 10 }, unread));
  expect(readers.map((one) => one.status)).toEqual(Array(10).fill(200));
  expect(lying()).toHaveLength(1);
  await workshop.post('/customers', { name: 'Tideline' });
  const later = await unread();
  await workshop.post('/customers', { name: 'North Stack' });
  const refused = await workshop.get('/backup');
  expect([later.status, refused.status, refused.body.error.code]).toEqual([200, 503, 'busy']);
  expect(lying()).toHaveLength(2);
  for (const one of [...readers, later]) one.leave();
  await expect.poll(lying).toEqual([]);
});

test('a backup holds neither remembered answers nor half-written files, and names a file that is gone', async () => {
  const { master } = await stocked(workshop);
  await workshop.post('/customers', { name: 'Tideline' }, { key: 'a-key-that-was-sent' });
  writeFileSync(join(workshop.data.files, '.0190-half-written'), 'half');
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#4f8796' } })
    .png()
    .toBuffer();
  await fetch(`${workshop.url}/api/photos?aboutType=master&aboutId=${master.id}`, {
    method: 'POST',
    body: new Uint8Array(picture),
  });
  rmSync(join(workshop.data.files, sha256(picture)));
  const archive = await backup();
  expect(gunzipSync(archive).includes('a-key-that-was-sent')).toBe(false);
  const inside = await entriesOf(archive);
  expect(inside.map(([name]) => name)).toEqual(['manifest.json', 'blunko.db']);
  expect(JSON.parse(String(inside[0]?.[1])).missing).toEqual([sha256(picture)]);
  const { status, body } = await restore(archive);
  expect([status, body]).toMatchObject([201, { missingFiles: 1 }]);
});

describe('a power cut', () => {
  let root: string;
  beforeEach(() => {
    root = mkdtempSync(join(tmpdir(), 'blunko-cut-'));
  });
  const customers = () => {
    const data = new DataFolder(root);
    const found = data.db
      .prepare('SELECT name FROM customer')
      .all()
      .map((row) => (row as { name: string }).name);
    const codes = data.db.prepare('SELECT count(*) AS n FROM passcode').get();
    data.close();
    return [found, codes];
  };
  /** A folder with one customer and a passcode. */
  const made = (name: string) => {
    const apart = mkdtempSync(join(tmpdir(), 'blunko-cut-'));
    const data = new DataFolder(apart);
    data.db.prepare(`INSERT INTO customer (id, name, created_at) VALUES (?, ?, 'x')`).run(name, name);
    data.db.prepare(`INSERT OR IGNORE INTO passcode VALUES (1, x'00', x'00')`).run();
    data.close();
    renameSync(join(apart, 'live'), join(root, name));
  };

  test('between the two renames of a restore is finished at the next start, passcode and all', () => {
    made('incoming');
    made('before-restore-1');
    expect(customers()).toEqual([['incoming'], { n: 1 }]);
  });

  test('before the first of them leaves the old workshop', () => {
    made('incoming');
    made('live');
    expect(customers()).toEqual([['live'], { n: 1 }]);
    expect(existsSync(join(root, 'incoming'))).toBe(false);
  });

  test.each([
    ['whole', (staged: string) => JSON.stringify({ staged })],
    ['torn', () => '{"sta'],
  ])('under an earlier program, its marker %s, is finished too', (_what, marker) => {
    made('staged-1');
    made('before-restore-1');
    writeFileSync(join(root, 'restoring.json'), marker(join(root, 'staged-1')));
    expect(customers()).toEqual([['staged-1'], { n: 1 }]);
    expect(existsSync(join(root, 'restoring.json'))).toBe(false);
  });

  test('leaves nothing half-made behind: all of it is swept at the next start', () => {
    made('live');
    const left = [
      'tmp/part-1',
      'backup-12-34.db',
      'backup-12-34.db-wal',
      'upload-5.tar.gz',
      'mesh-1',
      'photo-2',
      'staged-3',
    ];
    mkdirSync(join(root, 'tmp'));
    for (const name of left) writeFileSync(join(root, name), 'x');
    for (const name of ['.0190', 'ab'.repeat(32)]) writeFileSync(join(root, 'live/files', name), 'x');
    new DataFolder(root).close();
    expect(readdirSync(root)).toEqual(['live', 'lock.db']);
    expect(readdirSync(join(root, 'live/files'))).toEqual(['ab'.repeat(32)]);
  });
});

test('two servers on one folder: the second refuses in words, and the first goes on', async () => {
  expect(() => new DataFolder(workshop.data.root)).toThrow(/Another Blunko is at work/);
  expect((await workshop.post('/customers', { name: 'Tideline' })).status).toBe(201);
});

test.each([
  ['a newer workshop', 'PRAGMA user_version = 999', /newer Blunko/],
  ['another program’s database', 'CREATE TABLE fish (id INTEGER)', /another program/],
])('%s is refused at the start, and stays as it was to the byte', (_what, change, words) => {
  const root = mkdtempSync(join(tmpdir(), 'blunko-foreign-'));
  mkdirSync(join(root, 'live'));
  const file = join(root, 'live', 'blunko.db');
  const db = new Database(file);
  db.exec(change);
  db.close();
  const before = readFileSync(file);
  expect(() => new DataFolder(root)).toThrow(words);
  expect(readFileSync(file).equals(before)).toBe(true);
});

test('a photo is kept without the place where it was taken, upright, and its torn thumbnail is made again', async () => {
  const { master } = await stocked(workshop);
  const placed = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#4f8796' } })
    .withMetadata({ orientation: 6 })
    .withExifMerge({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' } })
    .jpeg()
    .toBuffer();
  expect((await sharp(placed).metadata()).exif).toBeDefined();
  const send = async () => {
    const answer = await fetch(`${workshop.url}/api/photos?aboutType=master&aboutId=${master.id}`, {
      method: 'POST',
      body: new Uint8Array(placed),
    });
    return (await answer.json()) as { id: string };
  };
  const { id } = await send();
  const read = async (size: string) =>
    Buffer.from(await (await fetch(`${workshop.url}/api/photos/${id}${size}`)).arrayBuffer());
  const kept = await sharp(await read('')).metadata();
  expect([kept.exif, kept.width, kept.height]).toEqual([undefined, 20, 40]);
  const [thumb] = readdirSync(workshop.data.files).filter((name) => name.endsWith('.thumb'));
  const small = await read('/thumb');
  truncateSync(join(workshop.data.files, thumb as string), 30);
  expect((await read('/thumb')).equals(small)).toBe(true);
  // The picture itself, torn under an earlier program: sent again it is whole, and still one photo.
  const whole = await read('');
  truncateSync(join(workshop.data.files, (thumb as string).replace('.thumb', '')), 30);
  expect(await send()).toMatchObject({ id });
  expect((await read('')).equals(whole)).toBe(true);
});

test.each([
  ['text', Buffer.from('not a picture'), 400, 'bad-photo'],
  ['a picture cut short', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex'), 400, 'bad-photo'],
])('%s is no photo', async (_what, bytes, status, code) => {
  const { master } = await stocked(workshop);
  const answer = await fetch(`${workshop.url}/api/photos?aboutType=master&aboutId=${master.id}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
  const body = (await answer.json()) as { error: { code: string } };
  expect([answer.status, body.error.code]).toEqual([status, code]);
  expect(readdirSync(workshop.data.files)).toEqual([]);
});
