import { existsSync, mkdirSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { afterEach, beforeEach, expect, test } from 'vitest';
import type { Page } from '../../contract/fields.ts';
import type { Customer } from '../../contract/orders.ts';
import { schemaOf } from '../db/migrate.ts';
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
    body: (await response.json()) as { keptAs?: string; error?: { code: string; message: string } },
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
  expect(readdirSync(workshop.data.root)).toEqual(['live']);
});

test('a power cut between the two renames of a restore is finished at the next start', async () => {
  await workshop.post('/customers', { name: 'Tideline' });
  const { root, live } = workshop.data;
  workshop.data.db.pragma('wal_checkpoint(TRUNCATE)');
  const other = join(root, 'other');
  mkdirSync(other);
  const folder = new DataFolder(other);
  folder.db.pragma('wal_checkpoint(TRUNCATE)');
  renameSync(live, join(other, 'staged-1'));
  folder.close();
  renameSync(join(other, 'live'), join(other, 'before-restore-1'));
  writeFileSync(join(other, 'restoring.json'), JSON.stringify({ staged: join(other, 'staged-1') }));
  const next = new DataFolder(other);
  expect(next.db.prepare('SELECT name FROM customer').all()).toEqual([{ name: 'Tideline' }]);
  expect(schemaOf(next.db)).toBeGreaterThan(0);
  next.close();
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
