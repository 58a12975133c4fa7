import type { Request, Response } from 'express';
import type * as v from 'valibot';
import { Failure } from '../../core/failure.ts';
import { check } from '../../core/validate.ts';
import type { Db } from '../db/open.ts';
import { leaving } from '../jobs/jobs.ts';
import type { Meshes } from '../meshes/files.ts';
import { answered, keyed, once } from './idempotency.ts';

export interface Context<B = unknown, Q = unknown> {
  db: Db;
  now: Date;
  /** The moment of this request, UTC ISO text. */
  at: string;
  params: Record<string, string>;
  body: B;
  query: Q;
  /** From If-Match, for endpoints that change an editable row. */
  version: number;
  /** What `prepare` found out before the transaction began. */
  prepared: unknown;
}

export interface Endpoint {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH';
  path: string;
  body?: v.GenericSchema;
  query?: v.GenericSchema;
  versioned?: boolean;
  /** Query keys that a screen must fetch again after this write. */
  touches: string[];
  /** Slow or asynchronous work on the checked body, done before the transaction begins. */
  prepare?(body: never, meshes: Meshes, signal: AbortSignal): Promise<unknown>;
  run(context: Context<never, never>): unknown;
}

interface Definition<B extends v.GenericSchema | undefined, Q extends v.GenericSchema | undefined> {
  method: Endpoint['method'];
  path: string;
  body?: B;
  query?: Q;
  versioned?: boolean;
  touches?: string[];
  prepare?(
    body: B extends v.GenericSchema ? v.InferOutput<B> : undefined,
    meshes: Meshes,
    signal: AbortSignal,
  ): Promise<unknown>;
  run(
    context: Context<
      B extends v.GenericSchema ? v.InferOutput<B> : undefined,
      Q extends v.GenericSchema ? v.InferOutput<Q> : undefined
    >,
  ): unknown;
}

/** Declares an endpoint; its schemas are what the handler gets, and what the fuzz test reads. */
export function endpoint<
  B extends v.GenericSchema | undefined = undefined,
  Q extends v.GenericSchema | undefined = undefined,
>(definition: Definition<B, Q>): Endpoint {
  return { touches: [], ...definition } as unknown as Endpoint;
}

function versionOf(request: Request): number {
  const header = request.get('if-match');
  if (!header)
    throw new Failure('version-required', 'Send the version you saw as If-Match, so that nobody is overwritten.');
  const match = /^(?:W\/)?"?(\d{1,15})"?$/.exec(header.trim());
  if (!match) throw new Failure('invalid-input', 'If-Match must be the version number you saw.', 'if-match');
  return Number(match[1]);
}

function emptyBody(request: Request): void {
  const body: unknown = request.body;
  if (body !== undefined && !(typeof body === 'object' && body !== null && Object.keys(body).length === 0)) {
    throw new Failure('invalid-input', 'This address takes no body.');
  }
}

export interface Serving {
  db(): Db;
  clock(): Date;
  touched(keys: string[]): void;
  meshes: Meshes;
}

/** Runs one request: checks it, answers a repeated key from memory, writes in one transaction, tells the screens. */
export async function serve(
  endpoint: Endpoint,
  request: Request,
  response: Response,
  { db, clock, touched, meshes }: Serving,
): Promise<void> {
  const now = clock();
  const context: Context = {
    db: db(),
    now,
    at: now.toISOString(),
    params: request.params as Record<string, string>,
    body: undefined,
    query: endpoint.query ? check(endpoint.query, { ...request.query }) : undefined,
    version: 0,
    prepared: undefined,
  };
  if (endpoint.method === 'GET') {
    response.json(endpoint.run(context as never));
    return;
  }
  if (endpoint.body) context.body = check(endpoint.body, request.body);
  else emptyBody(request);
  if (endpoint.versioned) context.version = versionOf(request);
  const told = keyed(request);
  const sent = ({ status, body }: { status: number; body: string }) =>
    response.status(status).type('application/json').send(body);
  if (endpoint.prepare) {
    const earlier = answered(context.db, told);
    if (earlier) return void sent(earlier);
    context.prepared = await endpoint.prepare(context.body as never, meshes, leaving(request, response));
    // A restore may have put another workshop in its place meanwhile.
    context.db = db();
  }
  const answer = once(context.db, told, endpoint.method === 'POST' ? 201 : 200, context.at, () =>
    endpoint.run(context as never),
  );
  if (!answer.again) touched(endpoint.touches);
  sent(answer);
}
