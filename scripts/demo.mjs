// npm run demo: the made-up workshop, in a folder of its own, made anew at each start unless --data names one.
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
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
if (own && existsSync(own) && readdirSync(own).length > 0) {
  console.log(`Opening the workshop that stands in ${own}, as it was left.`);
  serve(args);
} else {
  // Made beside its place, so that one that was broken off is never taken for a whole one.
  if (own) mkdirSync(dirname(resolve(own)), { recursive: true });
  const made = own ? mkdtempSync(`${resolve(own)}.making-`) : mkdtempSync(join(tmpdir(), 'blunko-demo-'));
  const away = () => rmSync(made, { recursive: true, force: true });
  process.on('exit', away);
  console.log('Making the demo workshop …');
  node('--import', 'tsx', 'demo/main.ts', made);
  if (own) {
    rmSync(own, { recursive: true, force: true });
    renameSync(made, own);
  }
  serve(own ? args : [...args, '--data', made]);
}
