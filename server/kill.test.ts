import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { v7 } from 'uuid';
import { expect, test } from 'vitest';
import type { Material } from '../contract/materials.ts';
import type { Ledger } from '../contract/recipes.ts';

const KILLS = 50;
const repo = fileURLToPath(new URL('..', import.meta.url));
const plain = join(repo, 'node_modules', '.cache', 'killed-server');

/** The program as plain modules, so that it starts fifty times without being translated fifty times. */
function translate(): string {
  rmSync(plain, { recursive: true, force: true });
  const flags =
    '--ignoreConfig --noCheck --rewriteRelativeImportExtensions --module nodenext --target es2022 --types node';
  const { status, stdout } = spawnSync(
    process.execPath,
    ['node_modules/typescript-7/bin/tsc', ...flags.split(' '), '--rootDir', '.', '--outDir', plain, 'server/main.ts'],
    { cwd: repo, encoding: 'utf8' },
  );
  if (status !== 0) throw new Error(`The program does not translate: ${stdout}`);
  cpSync(join(repo, 'server/db/migrations'), join(plain, 'server/db/migrations'), { recursive: true });
  writeFileSync(join(plain, 'package.json'), '{"type":"module"}');
  return join(plain, 'server/main.js');
}

function start(main: string, root: string): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, [main, '--data', root, '--port', '0'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((done, fail) => {
    child.once('message', (message) =>
      done({ child, url: `http://127.0.0.1:${(message as { port: number }).port}/api` }),
    );
    child.once('exit', (code) => fail(new Error(`The server ended with ${code} before it listened.`)));
  });
}

async function post<T>(url: string, body: unknown, key: string): Promise<T> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': key },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}

test(`a power cut in the middle of writes, ${KILLS} times over, loses nothing that was answered and doubles nothing`, {
  timeout: 280_000,
}, async () => {
  const root = mkdtempSync(join(tmpdir(), 'blunko-kill-'));
  const main = translate();
  const answered = new Set<string>();
  const waiting = new Map<string, string>();
  let ledger = '';
  let materialId = '';
  let lost = 0;
  for (let round = 0; round <= KILLS; round++) {
    const { child, url } = await start(main, root);
    const gone = new Promise((done) => child.once('exit', done));
    if (round === 0) {
      materialId = (await post<Material>(`${url}/materials`, { name: 'Harbour Blue liquid', kind: 'colourant' }, v7()))
        .id;
      ledger = (await post<Ledger>(`${url}/ledgers`, { title: 'killed', batchMl: 240 }, v7())).id;
    }
    const { doses } = (await (await fetch(`${url}/ledgers/${ledger}`)).json()) as Ledger;
    const there = new Set(doses.map((dose) => dose.id));
    lost += [...answered].filter((id) => !there.has(id)).length;
    const last = round === KILLS;
    // Two tablets: each sends what was never answered again, under the same key, then new taps.
    const tablet = async (mine: number) => {
      for (let n = 0; n < (last ? 0 : 200); n++) {
        const id = [...waiting.keys()].find((_, index) => index % 2 === mine) ?? v7();
        const key = waiting.get(id) ?? v7();
        waiting.set(id, key);
        await post(`${url}/ledgers/${ledger}/doses`, { id, materialId, amount: 1, unit: 'drop' }, key);
        answered.add(id);
        waiting.delete(id);
      }
    };
    const work = Promise.all([tablet(0), tablet(1)]).catch(() => undefined);
    if (last) {
      for (const [id, key] of waiting)
        await post(`${url}/ledgers/${ledger}/doses`, { id, materialId, amount: 1, unit: 'drop' }, key);
      for (const id of waiting.keys()) answered.add(id);
      const { doses: all } = (await (await fetch(`${url}/ledgers/${ledger}`)).json()) as Ledger;
      expect(new Set(all.map((dose) => dose.id))).toEqual(answered);
      expect(all).toHaveLength(answered.size);
    } else await new Promise((done) => setTimeout(done, 25 + ((round * 37) % 140)));
    child.kill('SIGKILL');
    await Promise.all([gone, work]);
  }
  expect(lost).toBe(0);
  expect(answered.size).toBeGreaterThan(KILLS);
  const db = new Database(join(root, 'live', 'blunko.db'), { readonly: true });
  expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
  db.close();
  rmSync(root, { recursive: true, force: true });
});
