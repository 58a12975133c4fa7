// npm run -s calc: see calc.ts. It is bundled once for each state of its sources, so that a calculation does not wait for a compiler.
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const KEPT = `${root}node_modules/.cache/calc`;

function* sourcesIn(path) {
  for (const one of readdirSync(`${root}${path}`, { withFileTypes: true })) {
    if (one.isDirectory()) yield* sourcesIn(`${path}/${one.name}`);
    else if (one.name.endsWith('.ts') && !one.name.endsWith('.test.ts')) yield `${path}/${one.name}`;
  }
}

/** Which state the sources are in, by size and time: reading them all would take longer than most calculations. */
function stateOfSources() {
  const hash = createHash('sha1').update(process.version);
  for (const file of [...sourcesIn('core'), 'scripts/calc.ts', 'scripts/calc.mjs', 'package-lock.json']) {
    const { size, mtimeMs } = statSync(`${root}${file}`);
    hash.update(`${file} ${size} ${mtimeMs}\n`);
  }
  return hash.digest('hex').slice(0, 16);
}

async function bundle(folder) {
  const { build } = await import('vite');
  // Made aside and moved into place: two calculations may begin at once.
  const aside = `${folder}.${process.pid}`;
  await build({
    root,
    configFile: false,
    logLevel: 'error',
    // What brings a WebAssembly file with it stays where that lies.
    ssr: { noExternal: true, external: ['manifold-3d', 'highs'] },
    build: { ssr: `${root}scripts/calc.ts`, outDir: aside, target: 'node20', minify: false },
  });
  writeFileSync(`${aside}/package.json`, '{"type":"module"}');
  try {
    renameSync(aside, folder);
  } catch (error) {
    rmSync(aside, { recursive: true, force: true });
    if (!isThere(folder)) throw error;
  }
}

function isThere(folder) {
  try {
    return readFileSync(`${folder}/package.json`, 'utf8') !== '';
  } catch {
    return false;
  }
}

const folder = `${KEPT}/${stateOfSources()}`;
if (!isThere(folder)) {
  mkdirSync(KEPT, { recursive: true });
  // Another calculation may still be running on the one before.
  for (const old of readdirSync(KEPT))
    if (statSync(`${KEPT}/${old}`).mtimeMs < Date.now() - 86_400_000)
      rmSync(`${KEPT}/${old}`, { recursive: true, force: true });
  await bundle(folder);
}
await import(`${folder}/calc.js`);
