import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import twins from 'express-static-gzip';
import type { Logger } from 'pino';
import { buildIn } from '../contract/pages.ts';
import { Failure } from '../core/failure.ts';
import type { DataFolder } from './backup/data.ts';
import { backupRouter } from './backup/routes.ts';
import { calcRouter } from './calc/routes.ts';
import { first } from './db/rows.ts';
import { endpoints } from './endpoints.ts';
import { type Serving, serve } from './http/endpoint.ts';
import { errorHandler } from './http/errors.ts';
import { sameHouse, securityHeaders } from './http/guard.ts';
import { InstrumentDesk } from './instruments/desk.ts';
import { instrumentRouter } from './instruments/routes.ts';
import { Jobs } from './jobs/jobs.ts';
import { firstPage } from './live/firstPage.ts';
import { Live } from './live/live.ts';
import { drawMissing } from './meshes/outlines.ts';
import { meshJsonRouter, meshRouter } from './meshes/routes.ts';
import { photoRouter } from './photos/routes.ts';
import { demandPasscode, sessionOf, sessionRouter } from './session/passcode.ts';

export interface AppOptions {
  data: DataFolder;
  clock: () => Date;
  log: Logger;
  lan?: boolean;
  /** Folder of the built pages; none in tests that speak only HTTP. */
  pages?: string;
  /** Where other devices find the workshop, and the root that they trust; filled in while it is opened. */
  network?: { urls: string[]; root: string | null };
}

/** Builds the whole application without listening. */
const NO_NETWORK = { urls: [] as string[], root: null as string | null };

export function createApp({ data, clock, log, lan = false, pages, network = NO_NETWORK }: AppOptions): {
  app: Express;
  live: Live;
} {
  const app = express();
  const live = new Live(clock, pages ? buildOf(pages) : null);
  const db = () => data.db;
  const touched = (keys: string[]) => live.touched(keys);
  const jobs = new Jobs((name, done) => live.progress(name, done));
  const meshes = { data, jobs };
  live.onClose(() => jobs.close());
  const desk = new InstrumentDesk({ db, clock, live });
  live.onClose(() => desk.close());
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(securityHeaders, sameHouse(lan));

  // Answers of the API are never kept by a browser: no tags are worked out for them.
  const api = express();
  api.disable('x-powered-by').disable('etag').set('query parser', 'simple');
  api.use((_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  if (lan) api.use(demandPasscode(db, clock));
  api.get(
    '/live',
    live.handler((cookie) => sessionOf(data.db, cookie, clock(), lan).known),
  );
  api.use(
    backupRouter(data, jobs, clock, touched),
    photoRouter(data, clock, touched),
    meshRouter(meshes, clock, touched),
  );
  api.use(compression(), express.json({ limit: 1_000_000, strict: false }));
  api.use(sessionRouter(db, clock, lan));
  api.get('/health', (_request, response) => {
    first(data.db, 'SELECT 1 FROM workshop');
    response.json({ ok: true, now: clock().toISOString() });
  });
  api.get('/network', (_request, response) => {
    response.json({ urls: network.urls, root: network.root });
  });
  api.get('/root-certificate', (_request, response) => {
    if (!network.root) throw new Failure('not-found', 'The workshop is not open to its network; start it with --lan.');
    response.type('application/x-x509-ca-cert').attachment('blunko-root.crt').send(Buffer.from(network.root));
  });
  api.use(meshJsonRouter(meshes, clock, touched), calcRouter(jobs), instrumentRouter(desk));
  api.use(endpointRouter({ db, clock, touched, meshes }));
  api.use((request) => {
    throw new Failure('unknown-route', `There is nothing at ${request.method} /api${request.path}.`);
  });
  app.use('/api', api);

  if (pages && existsSync(pages)) {
    const forGood = { maxAge: '1y', immutable: true };
    app.use(compression());
    // Where a file has a smaller twin beside it, that is sent to browsers that take it.
    app.use(
      '/assets',
      twins(join(pages, 'assets'), { enableBrotli: true, orderPreference: ['br'], index: false, serveStatic: forGood }),
    );
    app.use(express.static(pages, { ...forGood, index: false, setHeaders: freshPages }));
    // A page of an older build asks for files that are gone: it must hear so, not get a page in their place.
    app.use('/assets', (_request, response) => {
      response.status(404).type('text/plain').send('This file belongs to an older build; load the page again.');
    });
    app.get('/{*splat}', firstPage(pages, { db, clock, lan, live }));
  }
  app.use(errorHandler(log));
  void drawMissing(meshes, touched, log);
  return { app, live };
}

/** Endpoints by the first part of their address, so that a request is not held against all others. */
function endpointRouter(serving: Serving): express.RequestHandler {
  const routers = new Map<string, express.Router>();
  for (const one of endpoints) {
    const first = one.path.split('/')[1] as string;
    const router = routers.get(first) ?? express.Router();
    routers.set(first, router);
    const method = one.method.toLowerCase() as 'get' | 'post' | 'put' | 'patch' | 'delete';
    router[method](one.path, (request, response) => serve(one, request, response, serving));
  }
  return (request, response, next) => {
    const router = routers.get(request.path.split('/')[1] as string);
    if (router) router(request, response, next);
    else next();
  };
}

function buildOf(pages: string): string | null {
  const index = join(pages, 'index.html');
  if (!existsSync(index)) return null;
  return buildIn(readFileSync(index, 'utf8'));
}

/** Only files with a hash in their name may be kept by a browser for good. */
function freshPages(response: express.Response, path: string): void {
  if (!path.includes('/assets/')) response.set('cache-control', 'no-cache');
}
