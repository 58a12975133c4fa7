import { createHash } from 'node:crypto';
import type { Request } from 'express';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { first, insert } from '../db/rows.ts';

const fingerprint = (request: Request) =>
  createHash('sha256')
    .update(`${request.method} ${request.originalUrl}\n${JSON.stringify(request.body ?? null)}`)
    .digest('hex');

/** The answer given to this key before, if any. A key that comes back with another request is a fault of the sender. */
export function answered(
  db: Db,
  key: string | undefined,
  request: Request,
): { status: number; body: string } | undefined {
  if (!key) return undefined;
  if (key.length > 200)
    throw new Failure('invalid-input', 'An Idempotency-Key has at most 200 characters.', 'idempotency-key');
  const row = first<{ request: string; status: number; body: string }>(db, 'SELECT * FROM idempotency WHERE key = ?', [
    key,
  ]);
  if (!row) return undefined;
  if (row.request !== fingerprint(request)) {
    throw new Failure('key-reused', 'That Idempotency-Key was used for something else; give each action its own.');
  }
  return row;
}

/** Kept in the same transaction as the write it answers. */
export function remember(
  db: Db,
  key: string | undefined,
  request: Request,
  status: number,
  body: string,
  at: string,
): void {
  if (key) insert(db, 'idempotency', { key, request: fingerprint(request), status, body, at });
}
