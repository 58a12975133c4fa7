import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import pino from 'pino';
import { Failure } from '../core/failure.ts';
import { open } from './listen.ts';
import { choosePasscode } from './session/passcode.ts';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4870' },
    'tls-port': { type: 'string' },
    data: { type: 'string', default: 'data' },
    lan: { type: 'boolean', default: false },
    passcode: { type: 'string' },
  },
});

function portOf(name: 'port' | 'tls-port', text: string): number {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port <= 65535) return port;
  console.error(`--${name} takes a number from 1 to 65535, not "${text}".`);
  process.exit(2);
}

function giveUp(error: unknown): never {
  const { code, port: taken, message } = error as NodeJS.ErrnoException & { port?: number };
  if (error instanceof Failure) console.error(message);
  else if (code === 'EADDRINUSE')
    console.error(
      `Port ${taken} is already in use. Choose another: --${taken === port ? 'port' : 'tls-port'} ${(taken ?? port) + 1}`,
    );
  else if (code === 'EACCES' || code === 'ENOSPC' || code === 'EROFS')
    console.error(`${message}. Nothing was changed.`);
  else throw error;
  process.exit(1);
}

const port = portOf('port', values.port);
const tlsPort = portOf('tls-port', values['tls-port'] ?? String(port === 0 ? 0 : port + 1));
const log = pino({ level: process.env.BLUNKO_LOG ?? 'warn' });
const opened = await open({
  root: resolve(values.data),
  clock: () => new Date(),
  log,
  port,
  pages: fileURLToPath(new URL('../dist', import.meta.url)),
  ...(values.lan ? { lan: { port: tlsPort } } : {}),
}).catch(giveUp);

let closing = false;
async function close(): Promise<void> {
  if (closing) return;
  closing = true;
  await opened.close();
  process.exit(0);
}
process.on('SIGINT', close);
process.on('SIGTERM', close);

if (values.lan) {
  const chosen = await choosePasscode(opened.data.db, values.passcode).catch(giveUp);
  console.log(
    chosen
      ? `Passcode for the bench tablet: ${chosen}`
      : 'The bench tablet needs the passcode set before; --passcode sets a new one.',
  );
}
console.log(`Blunko is at http://localhost:${opened.port}`);
for (const url of opened.lanUrls) {
  const { hostname } = new URL(url);
  console.log(`From the bench tablet: ${url}`);
  console.log(`  the first time: http://${hostname}:${opened.port}, which says how to trust it`);
}
console.log(`Records: ${opened.data.root}. Ctrl-C closes.`);
process.send?.({ port: opened.port, lan: opened.lanUrls });
