import { v7 } from 'uuid';
import type { Said } from '../../core/failure.ts';
import { cameWith } from './first.ts';
import { staled } from './stale.ts';

/** A refusal from the server, in words that can be shown. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path?: string,
    /** The row as it is now, when somebody else was first. */
    readonly current?: unknown,
    /** The sentence with its figures, to be said in the maker's units. */
    readonly said?: Said,
  ) {
    super(message);
  }
}

/** The request never got an answer: the Wi-Fi, not the workshop. */
export class NoAnswer extends Error {
  constructor() {
    super('No answer from the workshop’s computer. Nothing is lost: try it again.');
  }
}

export interface CallOptions {
  method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  body?: unknown;
  version?: number;
  key?: string;
  /** Answers only once what the write made stale was fetched again. */
  awaitStale?: boolean;
}

export interface ErrorBody {
  error?: { code?: string; message?: string; path?: string; current?: unknown; said?: Omit<Said, 'text'> };
}

export async function call<T>(
  path: string,
  { method = 'GET', body, version, key, awaitStale = false }: CallOptions = {},
): Promise<T> {
  const there = method === 'GET' ? cameWith(path) : undefined;
  if (there !== undefined) return there as T;
  const headers: Record<string, string> = {};
  if (body !== undefined) headers['content-type'] = 'application/json';
  if (version !== undefined) headers['if-match'] = `"${version}"`;
  if (method === 'POST') headers['idempotency-key'] = key ?? v7();
  const response = await fetch(`/api${path}`, {
    method,
    headers,
    body: body === undefined ? null : JSON.stringify(body),
  }).catch(() => {
    throw new NoAnswer();
  });
  const json = (await response.json().catch(() => ({}))) as T & ErrorBody;
  if (response.ok) {
    // The record itself is in the answer; lists and sums that it changed are fetched again.
    const stale = response.headers.get('x-blunko-stale');
    if (stale) {
      const fetched = staled(stale.split(' '), response.headers.get('x-blunko-write') ?? undefined);
      if (awaitStale) await fetched;
    }
    return json;
  }
  const refusal = refusalOf(response.status, json);
  if (refusal.code === 'passcode-needed') window.dispatchEvent(new Event('blunko:passcode'));
  throw refusal;
}

/** What an answer that is no yes says, with its figures. */
export function refusalOf(status: number, { error = {} }: ErrorBody): ApiError {
  const { code = 'internal', message = 'Something broke; try again.', path, current, said } = error;
  return new ApiError(status, code, message, path, current, said && { ...said, text: message });
}

export const post = <T>(path: string, body: unknown) => call<T>(path, { method: 'POST', body });
