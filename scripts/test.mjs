// npm test: everything, as the first command on a fresh clone. Ends with one line of counts.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { ensureInstalled, root } from './install.mjs';

const CHROMIUM = '/usr/bin/chromium';
/** Puts a workshop's own root into a browser's store. */
const CERTUTIL = '/usr/bin/certutil';

function ensureBrowser() {
  if (existsSync(CHROMIUM) && existsSync(CERTUTIL)) return;
  if (process.platform === 'linux' && process.getuid?.() === 0) {
    console.log('Installing Chromium and certutil for the browser tests …');
    const apt = (...args) =>
      spawnSync('apt-get', args, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status;
    if (apt('update') === 0) apt('install', '-y', 'chromium', 'libnss3-tools');
  }
  if (!existsSync(CHROMIUM) || !existsSync(CERTUTIL)) {
    console.error(
      'The browser tests need Chromium and certutil: apt-get update && apt-get install -y chromium libnss3-tools',
    );
    process.exit(1);
  }
}

const results = `${root}test-results`;
const counts = { passed: 0, failed: 0 };

function step(name, args) {
  console.log(`\n── ${name}`);
  const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' });
  return status === 0;
}

/** A check that is one thing counts as one. */
function single(name, args) {
  counts[step(name, args) ? 'passed' : 'failed'] += 1;
}

/** A runner that wrote a report is counted by it; one that wrote none has failed. */
function counted(name, args, report, read) {
  const ok = step(name, args);
  const file = `${results}/${report}`;
  const found = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 0 };
  counts.passed += found.passed;
  counts.failed += found.failed;
  if (!ok && found.failed === 0) counts.failed += 1;
  if (ok && found.passed === 0) counts.failed += 1;
}

ensureInstalled();
ensureBrowser();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

single('Types', ['scripts/types.mjs']);
single('Lint and format', ['node_modules/@biomejs/biome/bin/biome', 'check', '--error-on-warnings', '.']);
single('Architecture', ['scripts/architecture.mjs']);
counted(
  'Core, server and parts',
  [
    'node_modules/vitest/vitest.mjs',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${results}/unit.json`,
  ],
  'unit.json',
  (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests }),
);
single('Pages', ['scripts/build.mjs']);
counted('Journeys in a browser', ['node_modules/@playwright/test/cli.js', 'test'], 'browser.json', ({ stats }) => ({
  passed: stats.expected + stats.flaky,
  failed: stats.unexpected,
}));

console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
