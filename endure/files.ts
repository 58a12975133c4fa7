import { gunzipSync, gzipSync } from 'node:zlib';
import { box, sphere } from '../core/shape/testing.ts';
import { writeObj, writeStl } from '../core/shape/write.ts';
import { type Part, rounds } from './counts.ts';
import { dice, withShop } from './shop.ts';

type Dice = ReturnType<typeof dice>;

/** Bytes as a bad cable, a half download or a hostile hand leaves them. */
function harmed(bytes: Uint8Array, { below }: Dice): Buffer {
  let out = Buffer.from(bytes);
  for (let n = 1 + below(4); n > 0; n--) {
    const at = below(out.length);
    const how = below(6);
    if (how === 0) out = Buffer.from(out.subarray(0, at));
    else if (how === 1) out[at] = below(256);
    else if (how === 2) out.fill(0xff, at, Math.min(out.length, at + 1 + below(64)));
    else if (how === 3) out = Buffer.concat([out.subarray(0, at), out.subarray(Math.max(0, at - below(200)))]);
    else if (how === 4) out.write(['NaN', '-1e999', 'f 1 1 1', '9'.repeat(50), 'solid', '/'][below(6)] as string, at);
    else out.writeUInt8((out[at] ?? 0) ^ (1 << below(8)), at);
    if (out.length === 0) out = Buffer.from('x');
  }
  return out;
}

/** Harmed meshes: each is read or refused, and the server goes on. */
export const meshes: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const chance = dice(7);
    const whole = [writeStl(box(60, 20, 4)), writeStl(sphere(9, 400)), writeObj(sphere(9, 300))];
    const counts = { meshes: 0, refused: 0, broken: 0 };
    counts.meshes = await rounds(most, until, async () => {
      const answer = await fetch(`${shop.url}/api/meshes?unit=${chance.pick(['mm', 'in', 'm'])}`, {
        method: 'POST',
        body: new Uint8Array(harmed(chance.pick(whole), chance)),
        signal: AbortSignal.timeout(60_000),
      });
      await answer.arrayBuffer();
      if (answer.status >= 500) counts.broken += 1;
      if (answer.status >= 400) counts.refused += 1;
    });
    return counts;
  });

/** Harmed backups: none is taken, and the records stay as they were. */
export const archives: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const chance = dice(11);
    const whole = Buffer.from(await (await fetch(`${shop.url}/api/backup`)).arrayBuffer());
    const tar = gunzipSync(whole);
    const counts = { archives: 0, refused: 0, broken: 0, rows: 0, taken: 0 };
    const before = shop.rows();
    counts.archives = await rounds(most, until, async () => {
      const body = chance.below(2) === 0 ? harmed(whole, chance) : gzipSync(harmed(tar, chance));
      // What was harmed only in the padding of an archive is whole.
      const same = body.equals(whole) || sameContent(body, tar);
      const answer = await fetch(`${shop.url}/api/restore`, {
        method: 'POST',
        body: new Uint8Array(body),
        signal: AbortSignal.timeout(60_000),
      });
      await answer.arrayBuffer();
      if (answer.status >= 500) counts.broken += 1;
      else if (answer.status >= 400) counts.refused += 1;
      else if (!same) counts.taken += 1;
      if (shop.rows() !== before) counts.rows += 1;
    });
    return counts;
  });

/** Whether an archive unpacks to the very bytes of the whole one, up to what follows its end. */
function sameContent(archive: Buffer, tar: Buffer): boolean {
  try {
    const content = gunzipSync(archive);
    const end = tar.length - 1024;
    return content.subarray(0, end).equals(tar.subarray(0, end));
  } catch {
    return false;
  }
}
