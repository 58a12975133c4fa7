// npm run mutate -- core/mold/opening.ts: changes the code a little in every place, one at a time, and says which changes no test noticed.
// The tool is fetched into a folder of its own and is no dependency.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const VERSION = '9.6.1';
/** Where nothing is named: the rules that tables of cases hold. */
const RULES = ['core/mold/opening.ts', 'core/plastisol/batch.ts', 'core/units/convert.ts'];

const wanted = process.argv.slice(2);
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
