// npm run demo: the made-up workshop, in a folder of its own, made anew at each start unless --data names one.
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, node, serve } from './install.mjs';

const args = process.argv.slice(2);
const optionOf = (name) => {
  const at = args.findIndex((arg) => arg === name || arg.startsWith(`${name}=`));
  if (at < 0) return undefined;
  return args[at].includes('=') ? args[at].split('=')[1] : args[at + 1];
};

/** Said before the long work, not after it. */
async function refuseBusyPort() {
  const port = Number(optionOf('--port') ?? 4870);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    console.error(`--port takes a number from 1 to 65535, not "${optionOf('--port')}".`);
    process.exit(2);
  }
  await new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => {
      console.error(`Port ${port} is already in use. Choose another: npm run demo -- --port ${port + 1}`);
      process.exit(1);
    });
    probe.listen(port, '127.0.0.1', () => probe.close(resolve));
  });
}

await refuseBusyPort();
ensureInstalled();
ensureBuilt();
const own = optionOf('--data');
const data = own ?? mkdtempSync(join(tmpdir(), 'blunko-demo-'));
if (!own) process.on('exit', () => rmSync(data, { recursive: true, force: true }));
console.log('Making the demo workshop …');
node('--import', 'tsx', 'demo/main.ts', data);
serve(own ? args : [...args, '--data', data]);
