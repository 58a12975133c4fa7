import { readdirSync } from 'node:fs';
import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { TestWorkshop } from '../testing/workshop.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open();
});
afterEach(() => workshop.close());

async function send(bytes: Buffer) {
  const { body } = await workshop.post<{ id: string }>('/ledgers', { title: 'a green', batchMl: 240 });
  const answer = await fetch(`${workshop.url}/api/photos?aboutType=ledger&aboutId=${body.id}`, {
    method: 'POST',
    body: new Uint8Array(bytes),
  });
  return { ledgerId: body.id, status: answer.status, body: (await answer.json()) as { error?: { message: string } } };
}

/** A PNG of a few bytes that says it is so many points wide and tall. */
function saysItIs(wide: number, tall: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const named = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const [size, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    size.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(named));
    return Buffer.concat([size, named, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(wide, 0);
  head.writeUInt32BE(tall, 4);
  head[8] = 8;
  return Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(64))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

test('each look at the cup is kept with its ledger, with a small picture of it', async () => {
  const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#55702c' } })
    .jpeg()
    .toBuffer();
  const { ledgerId, status } = await send(picture);
  expect(status).toBe(201);
  const { body } = await workshop.get<{ items: { id: string }[] }>(`/photos?aboutType=ledger&aboutId=${ledgerId}`);
  const small = await fetch(`${workshop.url}/api/photos/${body.items[0]?.id}/thumb`);
  expect(await sharp(Buffer.from(await small.arrayBuffer())).metadata()).toMatchObject({ width: 360, height: 270 });
});

test.each([
  ['HEIC', Buffer.from('0000001866747970686569630000000068656963', 'hex'), /HEIC .* set the phone to JPEG/],
  ['a small file that unfolds to 900 million points', saysItIs(30_000, 30_000), /30000 × 30000 points/],
  ['text', Buffer.from('not a picture'), /no JPEG, PNG or WebP/],
])('%s is refused in words, and nothing is kept', async (_what, bytes, words) => {
  const { status, body } = await send(bytes);
  expect(status).toBe(400);
  expect(body.error?.message).toMatch(words);
  expect(readdirSync(workshop.data.files)).toEqual([]);
});
