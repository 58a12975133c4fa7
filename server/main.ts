import { createServer } from 'node:http';
import { networkInterfaces } from 'node:os';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import pino from 'pino';
import { createApp } from './app.ts';
import { DataFolder } from './backup/data.ts';
import { hasPasscode, inventPasscode, setPasscode } from './session/passcode.ts';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4870' },
    data: { type: 'string', default: 'data' },
    lan: { type: 'boolean', default: false },
    passcode: { type: 'string' },
  },
});

const port = Number(values.port);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  console.error(`--port takes a number from 1 to 65535, not "${values.port}".`);
  process.exit(2);
}

/** This machine's own addresses in the workshop's network. */
function networkHosts(): string[] {
  return Object.values(networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    .filter((address) => !address.internal && address.family === 'IPv4')
    .map((address) => address.address);
}

const log = pino({ level: process.env.BLUNKO_LOG ?? 'warn' });
const data = new DataFolder(resolve(values.data));
const pages = fileURLToPath(new URL('../dist', import.meta.url));
const { app, live } = createApp({ data, clock: () => new Date(), log, lan: values.lan, pages });
const server = createServer(app);

async function openToTheWorkshop(): Promise<void> {
  const given = values.passcode ?? (hasPasscode(data.db) ? undefined : inventPasscode());
  if (given) {
    await setPasscode(data.db, given);
    console.log(`Passcode for the bench tablet: ${given}`);
  } else console.log('The bench tablet needs the passcode set before; --passcode sets a new one.');
}

if (values.lan) await openToTheWorkshop();

server.on('error', (error: NodeJS.ErrnoException) => {
  const why =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is already in use. Choose another: --port ${port + 1}`
      : `Cannot listen on port ${port}: ${error.message}`;
  console.error(why);
  data.close();
  process.exit(1);
});

server.listen(port, values.lan ? '0.0.0.0' : '127.0.0.1', () => {
  const address = server.address();
  const actual = typeof address === 'object' && address ? address.port : port;
  console.log(`Blunko is at http://localhost:${actual}`);
  if (values.lan) for (const host of networkHosts()) console.log(`From the bench tablet: http://${host}:${actual}`);
  console.log(`Records: ${data.root}. Ctrl-C closes.`);
  process.send?.({ port: actual });
});

let closing = false;
function close(): void {
  if (closing) return;
  closing = true;
  live.close();
  server.close(() => {
    data.close();
    process.exit(0);
  });
  server.closeAllConnections();
}
process.on('SIGINT', close);
process.on('SIGTERM', close);
