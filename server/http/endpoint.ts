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
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  body?: v.GenericSchema;
  query?: v.GenericSchema;
  versioned?: boolean;
  /** Query keys that a screen must fetch again after this write. */
  touches: string[];
  /** Slow or asynchronous work on the checked body, done before the transaction begins. */
  prepare?(body: never, beside: Beside): Promise<unknown>;
  /** What is added to the answer beside the server's own thread, each time it is given. */
  finish?(answer: never, beside: Beside): Promise<unknown>;
  run(context: Context<never, never>): unknown;
}

/** What slow work may use. */
export interface Beside extends Meshes {
  db: Db;
  /** Ends when whoever asked has left. */
  signal: AbortSignal;
}

interface Definition<B extends v.GenericSchema | undefined, Q extends v.GenericSchema | undefined> {
  method: Endpoint['method'];
  path: string;
  body?: B;
  query?: Q;
  versioned?: boolean;
  touches?: string[];
  prepare?(body: B extends v.GenericSchema ? v.InferOutput<B> : undefined, beside: Beside): Promise<unknown>;
  finish?(answer: never, beside: Beside): Promise<unknown>;
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

/** Taps wait for the Wi-Fi this long and are still believed to be of their own moment. */
const LONGEST_WAIT_MS = 12 * 3600_000;

/** A tap that had to wait happened when it was made, not when it arrived; never later than now, nor long ago. */
function tapped(context: Context, body: unknown): void {
  const { tappedAt, ...rest } = body as { tappedAt?: string };
  if (tappedAt === undefined) {
    context.body = body;
    return;
  }
  const now = context.now.getTime();
  const at = Math.min(now, Math.max(now - LONGEST_WAIT_MS, Date.parse(tappedAt)));
  context.now = new Date(at);
  context.at = context.now.toISOString();
  context.body = rest;
}

export interface Serving {
  db(): Db;
  clock(): Date;
  /** Tells every screen what is stale, and gives the name of this write. */
  touched(keys: string[]): string;
  meshes: Meshes;
}

/** A request as it is before anything was read of its body. */
const asked = (endpoint: Endpoint, db: Db, now: Date, params: object, query: object): Context => ({
  db,
  now,
  at: now.toISOString(),
  params: params as Record<string, string>,
  body: undefined,
  query: endpoint.query ? check(endpoint.query, { ...query }) : undefined,
  version: 0,
  prepared: undefined,
});

/** What a GET answers before anything slow is added. */
export const read = (endpoint: Endpoint, ...request: [db: Db, now: Date, params: object, query: object]): unknown =>
  endpoint.run(asked(endpoint, ...request) as never);

/** Nothing of it may be kept by a browser, so it needs no tag to be compared by. */
function sendJson(response: Response, status: number, text: string): void {
  response.statusCode = status;
  response.setHeader('content-type', 'application/json; charset=utf-8');
  response.setHeader('content-length', Buffer.byteLength(text));
  response.end(text);
}

/** Runs one request: checks it, answers a repeated key from memory, writes in one transaction, tells the screens. */
export async function serve(
  endpoint: Endpoint,
  request: Request,
  response: Response,
  { db, clock, touched, meshes }: Serving,
): Promise<void> {
  const now = clock();
  const context = asked(endpoint, db(), now, request.params, request.query);
  const beside = (): Beside => ({ ...meshes, db: context.db, signal: leaving(response) });
  const sent = async (status: number, body: string) => {
    const text = endpoint.finish ? JSON.stringify(await endpoint.finish(JSON.parse(body) as never, beside())) : body;
    sendJson(response, status, text);
  };
  if (endpoint.method === 'GET') return sent(200, JSON.stringify(endpoint.run(context as never)));
  if (endpoint.body) tapped(context, check(endpoint.body, request.body));
  else emptyBody(request);
  if (endpoint.versioned) context.version = versionOf(request);
  const told = keyed(request);
  if (endpoint.prepare) {
    const earlier = answered(context.db, told);
    if (earlier) return sent(earlier.status, earlier.body);
    context.prepared = await endpoint.prepare(context.body as never, beside());
    // A restore may have put another workshop in its place meanwhile.
    context.db = db();
  }
  const answer = once(context.db, told, endpoint.method === 'POST' ? 201 : 200, now.toISOString(), () =>
    endpoint.run(context as never),
  );
  if (!answer.again && endpoint.touches.length > 0) {
    response.set('x-blunko-stale', endpoint.touches.join(' '));
    response.set('x-blunko-write', touched(endpoint.touches));
  }
  await sent(answer.status, answer.body);
}
