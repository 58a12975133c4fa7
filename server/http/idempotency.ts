import { createHash } from 'node:crypto';
import type { Request } from 'express';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { first, insert, run } from '../db/rows.ts';

/** An answer is kept for as long as a tablet may be away before it asks again. */
export const KEPT_DAYS = 7;
/** Answers are thrown away a few at a time, with every write that has a key. */
const PRUNED_AT_ONCE = 20;

/** The key of a request, and what it asked: a key that comes back with something else is a fault of the sender. */
export interface Keyed {
  key: string | undefined;
  request: string;
}

export interface Answer {
  status: number;
  body: string;
}

/** @param body what stands for the body, where that is no JSON. */
export function keyed(request: Request, body: unknown = request.body): Keyed {
  const key = request.get('idempotency-key');
  if (key !== undefined && key.length > 200)
    throw new Failure('invalid-input', 'An Idempotency-Key has at most 200 characters.', 'idempotency-key');
  if (!key) return { key: undefined, request: '' };
  const text = `${request.method} ${request.originalUrl}\n${JSON.stringify(body ?? null)}`;
  return { key, request: createHash('sha256').update(text).digest('hex') };
}

/** The answer given to this key before, if any. */
export function answered(db: Db, { key, request }: Keyed): Answer | undefined {
  if (!key) return undefined;
  const row = first<{ request: string } & Answer>(db, 'SELECT * FROM idempotency WHERE key = ?', [key]);
  if (row && row.request !== request)
    throw new Failure('key-reused', 'That Idempotency-Key was used for something else; give each action its own.');
  return row;
}

/** Writes once for a key, in one transaction with the answer that is remembered for it. */
export function once(
  db: Db,
  told: Keyed,
  status: number,
  at: string,
  write: () => unknown,
): Answer & { again: boolean } {
  return db
    .transaction(() => {
      const earlier = answered(db, told);
      if (earlier) return { ...earlier, again: true };
      const body = JSON.stringify(write() ?? {});
      if (told.key) {
        insert(db, 'idempotency', { key: told.key, request: told.request, status, body, at });
        prune(db, at);
      }
      return { status, body, again: false };
    })
    .immediate();
}

function prune(db: Db, at: string): void {
  const before = new Date(Date.parse(at) - KEPT_DAYS * 86_400_000).toISOString();
  run(db, 'DELETE FROM idempotency WHERE key IN (SELECT key FROM idempotency WHERE at < ? ORDER BY at LIMIT ?)', [
    before,
    PRUNED_AT_ONCE,
  ]);
}
