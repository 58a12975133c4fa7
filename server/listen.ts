import { createServer, type Server } from 'node:http';
import { createServer as createTlsServer, type Server as TlsServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { createApp } from './app.ts';
import { DataFolder } from './backup/data.ts';
import { certificates } from './way/certificate.ts';
import { type Moved, movedApp } from './way/moved.ts';
import { lanAddresses, lanNames } from './way/names.ts';

export interface Opening {
  /** The data folder. */
  root: string;
  clock: () => Date;
  log: Logger;
  /** 0: any that is free. */
  port: number;
  /** Folder of the built pages; none where only HTTP is spoken. */
  pages?: string;
  /** Lets the workshop's own network in, over TLS and behind a passcode. */
  lan?: { port: number; addresses?: () => string[] };
}

export interface Opened {
  data: DataFolder;
  /** On this machine. */
  url: string;
  port: number;
  /** In the network, by address; empty without `lan`. */
  lanUrls: string[];
  close(): Promise<void>;
}

/** A restore of gigabytes over a garage's Wi-Fi takes its time; what says nothing for ten minutes is gone. */
const LONGEST_REQUEST_MS = 4 * 3600_000;
const SILENT_MS = 10 * 60_000;
/** Addresses change when a router starts anew. */
const LOOK_AGAIN_MS = 60_000;

function patient<S extends Server | TlsServer>(server: S): S {
  server.requestTimeout = LONGEST_REQUEST_MS;
  server.headersTimeout = 60_000;
  server.timeout = SILENT_MS;
  return server;
}

function listening(server: Server | TlsServer, port: number, host: string): Promise<number> {
  return new Promise((done, failed) => {
    server.once('error', failed);
    server.listen(port, host, () => {
      server.off('error', failed);
      done((server.address() as AddressInfo).port);
    });
  });
}

const closed = (server: Server | TlsServer) =>
  new Promise<void>((done) => {
    server.closeAllConnections();
    server.close(() => done());
  });

const isLoopback = (address: string | undefined) => address === undefined || /^(127\.|::1$|::ffff:127\.)/.test(address);

/** Opens a workshop: its folder, the application and its ports. The one way in for makers, tests and benchmarks alike. */
export async function open({ root, clock, log, port, pages, lan }: Opening): Promise<Opened> {
  const data = new DataFolder(root);
  const servers: (Server | TlsServer)[] = [];
  let look: NodeJS.Timeout | undefined;
  const network = { urls: [] as string[], root: null as string | null };
  const { app, live } = createApp({
    data,
    clock,
    log,
    lan: lan !== undefined,
    network,
    ...(pages === undefined ? {} : { pages }),
  });
  const close = async () => {
    clearInterval(look);
    live.close();
    await Promise.all(servers.map(closed));
    data.close();
  };
  try {
    const moved: Moved = { port: 0, root: '' };
    const plain = movedApp(() => moved);
    // On the machine itself as ever; from the network only the way on to TLS.
    const server = patient(
      createServer((request, response) =>
        lan && !isLoopback(request.socket.localAddress) ? plain(request, response) : app(request, response),
      ),
    );
    servers.push(server);
    if (lan) {
      const addresses = lan.addresses ?? lanAddresses;
      const issued = () =>
        certificates(
          join(root, 'keys'),
          [...new Set(['localhost', '127.0.0.1', ...lanNames(), ...addresses()])],
          clock(),
        );
      const first = await issued();
      moved.root = network.root = first.root;
      const tls = patient(createTlsServer(first.leaf, app));
      servers.push(tls);
      moved.port = await listening(tls, lan.port, '0.0.0.0');
      const told = () => {
        network.urls = addresses().map((address) => `https://${address}:${moved.port}`);
      };
      told();
      look = setInterval(async () => {
        try {
          tls.setSecureContext((await issued()).leaf);
          told();
        } catch (error) {
          log.error({ err: error }, 'the certificate could not be issued anew');
        }
      }, LOOK_AGAIN_MS);
      look.unref();
    }
    const actual = await listening(server, port, lan ? '0.0.0.0' : '127.0.0.1');
    return { data, url: `http://127.0.0.1:${actual}`, port: actual, lanUrls: network.urls, close };
  } catch (error) {
    await close();
    throw error;
  }
}
