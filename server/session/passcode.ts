import { createHash, randomBytes, randomInt, scrypt as scryptCallback, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { type RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import * as v from 'valibot';
import { passcodeRule, sessionBody } from '../../contract/workshop.ts';
import { Failure } from '../../core/failure.ts';
import { check } from '../../core/validate.ts';
import type { Db } from '../db/open.ts';
import { first, run } from '../db/rows.ts';

const scrypt = promisify<string, Buffer, number, Buffer>(scryptCallback);
const COOKIE = 'blunko';
const SESSION_DAYS = 30;

/** Eight digits: easy to type with a glove, hopeless to guess at ten tries a quarter of an hour. */
const inventPasscode = () => String(randomInt(0, 100_000_000)).padStart(8, '0');

export async function setPasscode(db: Db, passcode: string): Promise<void> {
  const salt = randomBytes(16);
  const hash = await scrypt(passcode.normalize('NFC'), salt, 32);
  run(db, 'DELETE FROM session');
  run(
    db,
    'INSERT INTO passcode (id, salt, hash) VALUES (1, @salt, @hash) ON CONFLICT (id) DO UPDATE SET salt = @salt, hash = @hash',
    { salt, hash },
  );
}

const hasPasscode = (db: Db) => first(db, 'SELECT 1 FROM passcode') !== undefined;

/**
 * Sets the passcode that was given, or invents one where there is none.
 * @returns what is new and should be told, null where the old one stays.
 * @throws Failure `invalid-input` for one that is too short, or that no tablet can type.
 */
export async function choosePasscode(db: Db, given: string | undefined): Promise<string | null> {
  if (given === undefined && hasPasscode(db)) return null;
  const passcode =
    given === undefined
      ? inventPasscode()
      : check(v.strictObject({ passcode: passcodeRule }), { passcode: given }).passcode;
  await setPasscode(db, passcode);
  return passcode;
}

const tokenHash = (token: string) => createHash('sha256').update(token).digest();

function cookieOf(header: string | undefined): string | undefined {
  return header
    ?.split(';')
    .map((part) => part.trim())
    .find((part) => part.startsWith(`${COOKIE}=`))
    ?.slice(COOKIE.length + 1);
}

/** Until when whoever bears this cookie is known; undefined for a stranger. */
export function knownUntil(db: Db, cookie: string | undefined, now: Date): string | undefined {
  const token = cookieOf(cookie);
  if (token === undefined) return undefined;
  return first<{ expiresAt: string }>(db, 'SELECT expires_at FROM session WHERE token_hash = ? AND expires_at > ?', [
    tokenHash(token),
    now.toISOString(),
  ])?.expiresAt;
}

/** Behind `--lan`: nobody reads or writes without the passcode. */
export function demandPasscode(db: () => Db, clock: () => Date): RequestHandler {
  return (request, _response, next) => {
    if (request.path === '/session' || request.path === '/health') return next();
    if (!knownUntil(db(), request.get('cookie'), clock()))
      throw new Failure('passcode-needed', 'Type the passcode that the workshop’s computer shows.');
    next();
  };
}

export interface Session {
  /** Whether a passcode is asked for at all. */
  needed: boolean;
  known: boolean;
}

export const sessionOf = (db: Db, cookie: string | undefined, now: Date, lan: boolean): Session => ({
  needed: lan,
  known: !lan || knownUntil(db, cookie, now) !== undefined,
});

export function sessionRouter(db: () => Db, clock: () => Date, lan: boolean): Router {
  const limit = rateLimit({
    windowMs: 15 * 60_000,
    limit: 10,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: (_request, _response, next) =>
      next(new Failure('too-many-tries', 'Too many tries; wait a quarter of an hour.')),
  });
  const open: RequestHandler = async (request, response) => {
    const { passcode } = check(sessionBody, request.body);
    const stored = first<{ salt: Buffer; hash: Buffer }>(db(), 'SELECT salt, hash FROM passcode');
    const given = stored ? await scrypt(passcode.normalize('NFC'), stored.salt, 32) : undefined;
    if (!stored || !given || !timingSafeEqual(given, stored.hash))
      throw new Failure('wrong-passcode', 'That is not the passcode.');
    const token = randomBytes(32).toString('base64url');
    const expires = new Date(clock().getTime() + SESSION_DAYS * 86400_000);
    run(db(), 'INSERT INTO session (token_hash, expires_at) VALUES (?, ?)', [tokenHash(token), expires.toISOString()]);
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: '/', secure: request.secure, expires });
    response.status(201).json({ needed: lan, known: true });
  };
  return Router()
    .get('/session', (request, response) => {
      response.json(sessionOf(db(), request.get('cookie'), clock(), lan));
    })
    .post('/session', limit, open);
}
