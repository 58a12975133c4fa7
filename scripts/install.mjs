// Uses nothing but Node until the packages are there: these scripts are the first command on a fresh clone.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants } from 'node:zlib';

export const root = fileURLToPath(new URL('..', import.meta.url));
const stampFile = new URL('../node_modules/.blunko-install', import.meta.url);

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`Blunko needs Node 20.19 or newer; this is ${process.version}.`);
  process.exit(1);
}

function stamp() {
  const lock = readFileSync(new URL('../package-lock.json', import.meta.url));
  return `${createHash('sha256').update(lock).digest('hex')} ${process.versions.modules} ${process.platform}-${process.arch}`;
}

function cleanEnvironment() {
  const env = Object.fromEntries(
    Object.entries(process.env).filter(([key]) => !/^npm_config_/i.test(key) || /registry|cache|nodedir/i.test(key)),
  );
  return env;
}

/** What is built and served is a production build, whatever the shell says; a development build is for `npm run dev`. */
const production = () => ({ ...cleanEnvironment(), NODE_ENV: 'production' });

function npm(...args) {
  const cli = process.env.npm_execpath;
  const [command, first] = cli ? [process.execPath, [cli]] : ['npm', []];
  return spawnSync(command, [...first, ...args], { cwd: root, stdio: 'inherit', env: cleanEnvironment() }).status;
}

const loads = () =>
  spawnSync(process.execPath, ['-e', "require('better-sqlite3')(':memory:').close(); require('sharp')"], { cwd: root })
    .status === 0;

/** Installs the locked packages once; a stamp is written only after the native ones load. */
export function ensureInstalled() {
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp()) return;
  console.log('Installing packages (the first time takes a few minutes) …');
  if (npm('ci', '--include=dev') !== 0) process.exit(1);
  if (!loads()) {
    console.error(
      'The database or picture package did not load after the install. It needs python3, make and g++ to build.',
    );
    process.exit(1);
  }
  writeFileSync(stampFile, stamp());
}

/** Runs a command of the project to its end; gives up with it. */
export function must(command, args, options = {}) {
  const { status, signal } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: cleanEnvironment(),
    ...options,
  });
  if (signal) process.exit(130);
  if (status !== 0) process.exit(status ?? 1);
}

export const node = (...args) => must(process.execPath, args);

/** What the pages are made of. */
const SOURCES = ['web', 'core', 'contract', 'vite.config.ts', 'package-lock.json', 'scripts/install.mjs'];
const builtStamp = new URL('../dist/.made-of', import.meta.url);

function* filesIn(path) {
  const folder = new URL(`../${path}`, import.meta.url);
  const inside = readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1));
  for (const one of inside) {
    if (one.isDirectory()) yield* filesIn(`${path}/${one.name}`);
    else if (!/\.test\.tsx?$/.test(one.name)) yield `${path}/${one.name}`;
  }
}

function sourcesHash() {
  const hash = createHash('sha256');
  for (const source of SOURCES)
    for (const file of source.includes('.') ? [source] : filesIn(source))
      hash.update(`${file}\0`).update(readFileSync(new URL(`../${file}`, import.meta.url)));
  return hash.digest('hex');
}

/** Builds the pages unless nothing they are made of changed since. */
export function ensureBuilt() {
  const hash = sourcesHash();
  if (existsSync(builtStamp) && readFileSync(builtStamp, 'utf8') === hash) return;
  console.log('Building the pages …');
  rmSync(builtStamp, { force: true });
  must(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'], { env: production() });
  squeeze();
  writeFileSync(builtStamp, hash);
}

/** Smaller twins of what is served, made once at the best setting instead of with every request. */
function squeeze() {
  const assets = new URL('../dist/assets/', import.meta.url);
  for (const name of readdirSync(assets)) {
    if (!/\.(js|css|wasm)$/.test(name)) continue;
    const bytes = readFileSync(new URL(name, assets));
    writeFileSync(
      new URL(`${name}.br`, assets),
      brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: name.endsWith('wasm') ? 9 : 11 } }),
    );
  }
}

/** Hands the process over to the server: signals go on to it and its end is ours. */
export function serve(args) {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', ...args], {
    cwd: root,
    stdio: 'inherit',
    env: production(),
  });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code, signal) => process.exit(signal ? 0 : (code ?? 0)));
}
