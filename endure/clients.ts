import { closeSync, existsSync, ftruncateSync, mkdtempSync, openSync, readdirSync, rmSync, writeSync } from 'node:fs';
import { request } from 'node:http';
import { connect, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataFolder } from '../server/backup/data.ts';
import type { TestWorkshop } from '../server/testing/workshop.ts';
import { type Counts, type Part, rounds } from './counts.ts';
import { withShop } from './shop.ts';

/** Held up: far more than a busy machine takes for a simple question, far less than one greedy request took before. */
const LATE_MS = 2500;

/** How long a simple question takes meanwhile, ms. */
async function answered(shop: TestWorkshop): Promise<number> {
  const from = performance.now();
  await (await fetch(`${shop.url}/api/health`, { signal: AbortSignal.timeout(30_000) })).json();
  return performance.now() - from;
}

const lying = (shop: TestWorkshop) => {
  const tmp = join(shop.data.root, 'tmp');
  return existsSync(tmp) ? readdirSync(tmp).length : 0;
};

/** Downloads of a backup that are left at any moment, some of them during a restore. */
export const downloads: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const counts = { downloads: 0, restores: 0, down: 0, left: 0 };
    const whole = new Uint8Array(await (await fetch(`${shop.url}/api/backup`)).arrayBuffer());
    counts.downloads = await rounds(most, until, async (n) => {
      const asked = request(`${shop.url}/api/backup`, (response) => response.pause());
      asked.on('error', () => undefined);
      asked.end();
      await new Promise((done) => setTimeout(done, (n * 53) % 400));
      asked.destroy();
      if (n % 5 === 4) {
        const restored = await fetch(`${shop.url}/api/restore`, { method: 'POST', body: whole });
        await restored.arrayBuffer();
        if (restored.status === 201) counts.restores += 1;
      }
      await answered(shop).catch(() => {
        counts.down += 1;
      });
    });
    for (let n = 0; n < 60 && lying(shop) > 0; n++) await new Promise((done) => setTimeout(done, 100));
    counts.left = lying(shop);
    return counts;
  });

/** Connections that say a byte a second, or never read, beside ordinary ones. */
export const slow: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const { port } = new URL(shop.url);
    const sockets: Socket[] = [];
    const opened = (first: string) => {
      const socket = connect(Number(port), '127.0.0.1');
      socket.on('error', () => undefined);
      socket.write(first);
      socket.pause();
      sockets.push(socket);
    };
    const counts = { clients: 0, slowestMs: 0, late: 0, down: 0 };
    counts.clients = await rounds(most, until, async (n) => {
      opened(
        [
          'GET /api/live HTTP/1.1\r\nhost: localhost\r\n\r\n',
          'POST /api/customers HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\ncontent-length: 900000\r\n\r\n{',
          'GET /api/pours HTTP/1.1\r\nhost: localhost\r\nx-',
          'POST /api/restore HTTP/1.1\r\nhost: localhost\r\ncontent-length: 4000000000\r\n\r\n\u001f',
        ][n % 4] as string,
      );
      const ms = await answered(shop).catch(() => {
        counts.down += 1;
        return 0;
      });
      counts.slowestMs = Math.max(counts.slowestMs, Math.round(ms));
      if (ms > LATE_MS) counts.late += 1;
      // Writes go on to be told to screens that never read.
      await shop.post('/clocks', { label: `clock ${n}`, minutes: 5 });
    });
    for (const socket of sockets) socket.destroy();
    return counts;
  });

/** Questions that ask for far more than a bench does; the next tap must not wait for them. */
export const greedy: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const nine = '9'.repeat(60_000);
    const star = Array.from({ length: 9000 }, (_, i) => {
      const [turn, r] = [(i * 2 * Math.PI) / 9000, i % 2 ? 40 : 5];
      return `v ${(r * Math.cos(turn)).toFixed(4)} ${(r * Math.sin(turn)).toFixed(4)} 0`;
    });
    const obj = (text: string) => ({ mesh: { text } });
    const asks: [string, unknown][] = [
      ['mesh.measure', obj(`v ${nine}x 0 0\nf 1 1 1`)],
      ['mesh.measure', obj(`v ${'1 '.repeat(30_000)}\nf 1 1 1`)],
      ['mesh.measure', obj(`${star.join('\n')}\nf ${star.map((_, i) => i + 1).join(' ')}`)],
      ['mesh.bestTilt', obj(`solid${' '.repeat(60_000)}x`)],
      [
        'batch.size',
        { molds: Array.from({ length: 1000 }, (_, i) => ({ id: `${i}`, shots: 2000, cavities: 1000, cavityMl: 1 })) },
      ],
      [
        'yield.shots',
        { goodNeeded: 1e6, cavities: 1, rejects: { alpha: 1, beta: 19, rejected: 0, made: 0 }, confidence: 0.999 },
      ],
    ];
    const counts = { asks: 0, slowestMs: 0, late: 0, down: 0 };
    counts.asks = await rounds(most, until, async (n) => {
      const [name, input] = asks[n % asks.length] as [string, unknown];
      const left = new AbortController();
      const kept = n % 2 === 1;
      const asked = fetch(`${shop.url}/api/${kept ? 'kept' : `calc/${name}`}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(kept ? { calculator: name, title: 'greedy', input } : input),
        signal: left.signal,
      }).then(
        (answer) => answer.arrayBuffer(),
        () => undefined,
      );
      for (let k = 0; k < 5; k++) {
        await new Promise((done) => setTimeout(done, 30));
        const ms = await answered(shop).catch(() => {
          counts.down += 1;
          return 0;
        });
        counts.slowestMs = Math.max(counts.slowestMs, Math.round(ms));
        if (ms > LATE_MS) counts.late += 1;
      }
      left.abort();
      await asked;
    });
    return counts;
  });

/** A second server on the same folder: refused each time, and nothing that was answered is lost. */
export const twoServers: Part = ({ rounds: most, until }) =>
  withShop(async (shop) => {
    const counts: Counts = { tries: 0, taken: 0, lost: 0 };
    let written = 0;
    counts.tries = await rounds(Math.min(most, 5), until, async (n) => {
      try {
        new DataFolder(shop.data.root).close();
        counts.taken = (counts.taken ?? 0) + 1;
      } catch {
        // As it must be.
      }
      if ((await shop.post('/customers', { name: `Customer ${n}` })).status === 201) written += 1;
    });
    const { body } = await shop.get<{ items: unknown[] }>('/customers?limit=200');
    counts.lost = written + 1 - body.items.length;
    return counts;
  });

/** Fills the disk that `path` is on but for `left` bytes. */
function fill(path: string, left: number): string {
  const file = openSync(path, 'w');
  const piece = new Uint8Array(64 * 1024);
  let size = 0;
  try {
    for (;;) size += writeSync(file, piece);
  } catch (error) {
    if ((error as { code?: string }).code !== 'ENOSPC') throw error;
    ftruncateSync(file, Math.max(0, size - left));
  } finally {
    closeSync(file);
  }
  return path;
}

/** A disk that runs full in the middle of writes: refused or answered, never half, and all answered ones are there. */
export const fullDisk: Part = async ({ rounds: most, until }) => {
  const { spawnSync } = await import('node:child_process');
  const small = mkdtempSync(join(tmpdir(), 'blunko-small-'));
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', small]).status === 0;
  // Only root may make a small disk; elsewhere it is said that nothing was tried.
  if (!mounted) {
    rmSync(small, { recursive: true, force: true });
    return { notTried: 1 };
  }
  try {
    return await withShop(
      async (shop) => {
        const counts = { writes: 0, refused: 0, unsaid: 0, lost: 0, down: 0, 'still-full': 0 };
        const names: string[] = [];
        const ballast = fill(join(small, 'ballast'), 200_000);
        const customer = (name: string) => shop.post('/customers', { name, contact: 'y'.repeat(100) });
        counts.writes = await rounds(most * 40, until, async (n) => {
          const name = `Customer ${n} ${'x'.repeat(80)}`;
          const answer = await customer(name);
          if (answer.status === 201) names.push(name);
          else {
            counts.refused += 1;
            if (answer.status !== 507) counts.unsaid += 1;
          }
          await answered(shop).catch(() => {
            counts.down += 1;
          });
        });
        rmSync(ballast);
        const again = await customer('Once there is room');
        counts['still-full'] = again.status === 201 ? 0 : 1;
        const kept = shop.data.db.prepare('SELECT name FROM customer').all() as { name: string }[];
        const there = new Set(kept.map((row) => row.name));
        counts.lost = names.filter((name) => !there.has(name)).length;
        return counts;
      },
      join(small, 'data'),
    );
  } finally {
    spawnSync('umount', [small]);
    rmSync(small, { recursive: true, force: true });
  }
};
