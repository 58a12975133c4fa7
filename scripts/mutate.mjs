// npm run mutate -- core/process/opening.ts: changes the code a little in every place, one at a time, and says which changes no test noticed.
// npm run mutate -- --sample 150 --seed 1: as many changes drawn by chance over core and server each.
// The tool is fetched into a folder of its own and is no dependency.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { root } from './install.mjs';

const VERSION = '9.6.1';
/** Where nothing is named: the rules that tables of cases hold. */
const RULES = ['core/process/opening.ts', 'core/plastisol/batch.ts', 'core/units/convert.ts'];

const { values, positionals: wanted } = parseArgs({
  options: {
    sample: { type: 'string' },
    seed: { type: 'string', default: '1' },
    room: { type: 'string', multiple: true },
  },
  allowPositionals: true,
});
const files = wanted.length > 0 ? wanted : RULES;
const missing = files.filter((file) => !existsSync(join(root, file.replace(/:\d+.*$/, ''))));
if (missing.length > 0) {
  console.error(`There is no ${missing.join(', no ')}. Name files of the project, such as ${RULES[0]}.`);
  process.exit(2);
}

const home = join(root, '.bench-data', 'stryker');
const cli = join(home, 'node_modules', '@stryker-mutator', 'core', 'bin', 'stryker.js');
if (!existsSync(cli)) {
  mkdirSync(home, { recursive: true });
  writeFileSync(join(home, 'package.json'), '{"private":true}');
  console.log(`Fetching the mutation tester ${VERSION} …`);
  const packages = ['core', 'vitest-runner'].map((name) => `@stryker-mutator/${name}@${VERSION}`);
  // The test runner it speaks to is the project's own.
  const { status } = spawnSync('npm', ['install', '--no-save', '--ignore-scripts', '--legacy-peer-deps', ...packages], {
    cwd: home,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (status !== 0) process.exit(status ?? 1);
}

if (values.sample !== undefined) {
  const size = Number(values.sample);
  if (!Number.isInteger(size) || size < 1) {
    console.error(`--sample takes how many changes, not "${values.sample}".`);
    process.exit(2);
  }
  const { sample } = await import('./mutateSample.mjs');
  // At most one change in ten may go unnoticed.
  const rooms = values.room ?? ['core', 'server'];
  process.exit((await sample(root, home, { size, seed: Number(values.seed), rooms })) >= 0.9 ? 0 : 1);
}

// A rule is held by the tests of its own room: the others would take hours.
const rooms = [...new Set(files.map((file) => file.split('/')[0]))];
const tests = join(home, 'vitest.config.mjs');
writeFileSync(
  tests,
  `export default { test: { include: ${JSON.stringify(rooms.map((room) => `${room}/**/*.test.{ts,tsx}`))}, testTimeout: 60_000 } };\n`,
);
const settings = join(home, 'settings.json');
writeFileSync(
  settings,
  JSON.stringify({
    testRunner: 'vitest',
    plugins: [join(home, 'node_modules', '@stryker-mutator', 'vitest-runner', 'dist', 'src', 'index.js')],
    mutate: files,
    // Words are read by people, not by tests.
    mutator: { excludedMutations: ['StringLiteral'] },
    reporters: ['clear-text'],
    clearTextReporter: { allowColor: false, allowEmojis: false, reportTests: false },
    coverageAnalysis: 'perTest',
    concurrency: 2,
    tempDirName: join(home, 'tried'),
    ignorePatterns: ['dist', 'docs', 'e2e', 'bench', 'endure', '.bench-data', 'test-results'],
    vitest: { configFile: tests, related: true },
    disableTypeChecks: false,
  }),
);
const { status } = spawnSync(process.execPath, [cli, 'run', settings], { cwd: root, stdio: 'inherit' });
process.exit(status ?? 1);
