import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { Failure } from '../core/failure.ts';
import type { DataFolder } from './backup/data.ts';
import { backupRouter } from './backup/routes.ts';
import { calcRouter } from './calc/routes.ts';
import { first } from './db/rows.ts';
import { endpoints } from './endpoints.ts';
import { serve } from './http/endpoint.ts';
import { errorHandler } from './http/errors.ts';
import { sameHouse, securityHeaders } from './http/guard.ts';
import { Live } from './live/live.ts';
import { MeshJobs } from './meshes/jobs.ts';
import { meshJsonRouter, meshRouter } from './meshes/routes.ts';
import { photoRouter } from './photos/routes.ts';
import { demandPasscode, sessionRouter } from './session/passcode.ts';

export interface AppOptions {
  data: DataFolder;
  clock: () => Date;
  log: Logger;
  lan?: boolean;
  /** Folder of the built pages; none in tests that speak only HTTP. */
  pages?: string;
}

/** Builds the whole application without listening. */
export function createApp({ data, clock, log, lan = false, pages }: AppOptions): { app: Express; live: Live } {
  const app = express();
  const live = new Live(clock);
  const db = () => data.db;
  const touched = (keys: string[]) => live.touched(keys);
  const jobs = new MeshJobs((name, done) => live.progress(name, done));
  const meshes = { data, jobs };
  live.onClose(() => jobs.close());
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(securityHeaders, sameHouse(lan));

  const api = express.Router();
  api.use((_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  if (lan) api.use(demandPasscode(db, clock));
  api.get('/live', live.handler);
  api.use(backupRouter(data, clock, touched), photoRouter(data, clock, touched), meshRouter(meshes, clock, touched));
  api.use(compression(), express.json({ limit: 1_000_000, strict: false }));
  api.use(sessionRouter(db, clock, lan));
  api.get('/health', (_request, response) => {
    first(data.db, 'SELECT 1 FROM workshop');
    response.json({ ok: true, now: clock().toISOString() });
  });
  api.use(meshJsonRouter(meshes, clock, touched), calcRouter(jobs));
  for (const one of endpoints) {
    const method = one.method.toLowerCase() as 'get' | 'post' | 'put' | 'patch';
    api[method](one.path, (request, response) => serve(one, request, response, { db, clock, touched, meshes }));
  }
  api.use((request) => {
    throw new Failure('unknown-route', `There is nothing at ${request.method} /api${request.path}.`);
  });
  app.use('/api', api);

  if (pages && existsSync(pages)) {
    app.use(
      compression(),
      express.static(pages, { index: false, maxAge: '1y', immutable: true, setHeaders: freshPages }),
    );
    app.get('/{*splat}', (_request, response) => {
      response.set('cache-control', 'no-cache').sendFile(join(pages, 'index.html'));
    });
  }
  app.use(errorHandler(log));
  return { app, live };
}

/** Only files with a hash in their name may be kept by a browser for good. */
function freshPages(response: express.Response, path: string): void {
  if (!path.includes('/assets/')) response.set('cache-control', 'no-cache');
}
