import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const repo = fileURLToPath(new URL('..', import.meta.url));

/** The program as plain modules, so that it starts many times without being translated many times. */
export function translated(name: string): string {
  const plain = join(repo, 'node_modules', '.cache', name);
  rmSync(plain, { recursive: true, force: true });
  const flags =
    '--ignoreConfig --noCheck --rewriteRelativeImportExtensions --module nodenext --target es2022 --types node --strict';
  const entries = ['server/main.ts', 'server/jobs/calcWork.ts', 'server/jobs/archiveWork.ts'];
  const { status, stdout } = spawnSync(
    process.execPath,
    ['node_modules/typescript-7/bin/tsc', ...flags.split(' '), '--rootDir', '.', '--outDir', plain, ...entries],
    { cwd: repo, encoding: 'utf8' },
  );
  if (status !== 0) throw new Error(`The program does not translate: ${stdout}`);
  cpSync(join(repo, 'server/db/migrations'), join(plain, 'server/db/migrations'), { recursive: true });
  cpSync(join(repo, 'server/jobs/thread.mjs'), join(plain, 'server/jobs/thread.mjs'));
  writeFileSync(join(plain, 'package.json'), '{"type":"module"}');
  return plain;
}

/** No start and no answer takes so long; one that does is counted, not waited for. */
const START_MS = 20_000;
const ANSWER_MS = 10_000;

export interface Running {
  child: ChildProcess;
  api: string;
  /** Ends with its exit code, null where a signal ended it. */
  gone: Promise<number | null>;
}

/** Starts the translated program on a folder; resolves once it listens. */
export function start(plain: string, root: string, env: Record<string, string> = {}): Promise<Running> {
  const child = spawn(process.execPath, [join(plain, 'server/main.js'), '--data', root, '--port', '0'], {
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    env: { ...process.env, ...env },
  });
  let said = '';
  child.stderr?.on('data', (part) => {
    said += part;
  });
  const gone = new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
  return new Promise((done, failed) => {
    child.once('message', (message) =>
      done({ child, gone, api: `http://127.0.0.1:${(message as { port: number }).port}/api` }),
    );
    setTimeout(() => {
      child.kill('SIGKILL');
      failed(new Error(`The server did not listen within ${START_MS / 1000} s: ${said}`));
    }, START_MS).unref();
    void gone.then((code) => failed(new Error(`The server ended with ${code} before it listened: ${said}`)));
  });
}

/** Told to stop, and made to where it does not. */
export async function stopped({ child, gone }: Running): Promise<void> {
  child.kill('SIGTERM');
  const stuck = setTimeout(() => child.kill('SIGKILL'), ANSWER_MS);
  await gone;
  clearTimeout(stuck);
}

export async function post<T>(url: string, body: unknown, key: string): Promise<T> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': key },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(ANSWER_MS),
  });
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}
