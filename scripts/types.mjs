// The fast compiler checks each floor with its own library: the core sees neither DOM nor Node.
import { spawnSync } from 'node:child_process';

for (const project of ['core', 'web', '.']) {
  const { status } = spawnSync(process.execPath, ['node_modules/typescript-7/bin/tsc', '-p', project], {
    stdio: 'inherit',
  });
  if (status !== 0) process.exit(status ?? 1);
}
