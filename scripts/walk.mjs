// npm run walk: every record of the demo, at three sizes, by day and night. `npm test` opens a choice of them.
import { spawnSync } from 'node:child_process';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
const { status } = spawnSync(
  process.execPath,
  ['node_modules/@playwright/test/cli.js', 'test', 'all.spec', ...process.argv.slice(2)],
  { cwd: root, stdio: 'inherit', env: { ...process.env, BLUNKO_WALK: 'all' } },
);
process.exit(status ?? 1);
