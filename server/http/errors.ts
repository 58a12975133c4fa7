import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { Failure, type RefusalCode } from '../../core/failure.ts';

/** HTTP status by code; all other refusals are 400. */
export const STATUS: Partial<Record<RefusalCode, number>> = {
  'too-large': 413,
  'not-found': 404,
  'unknown-route': 404,
  'stale-version': 409,
  'already-exists': 409,
  'already-reversed': 409,
  'already-closed': 409,
  'already-started': 409,
  'too-early': 409,
  'pour-closed': 409,
  'not-enough-stock': 409,
  'not-cured': 409,
  'key-reused': 409,
  cancelled: 409,
  'version-required': 428,
  'passcode-needed': 401,
  'wrong-passcode': 401,
  'too-many-tries': 429,
  busy: 503,
  'tls-needed': 426,
  'wrong-host': 421,
  'cross-site': 403,
  'disk-full': 507,
  internal: 500,
};

interface BodyError {
  code?: string;
  type?: string;
  status?: number;
}

function asFailure(error: unknown): Failure | undefined {
  if (error instanceof Failure) return error;
  const { code, type, status } = error as BodyError;
  if (code === 'SQLITE_FULL' || code === 'ENOSPC')
    return new Failure('disk-full', 'The disk is full; nothing was written. Free some room on it, then try again.');
  if (type === 'entity.too.large') return new Failure('too-large', 'That is more than 1 MB; send less at once.');
  if (type === 'entity.parse.failed') return new Failure('malformed-json', 'The body is not valid JSON.');
  if (error instanceof URIError) return new Failure('invalid-input', 'The address is not readable.');
  if (status !== undefined && status >= 400 && status < 500)
    return new Failure('invalid-input', 'The request is not readable.');
  return undefined;
}

/** The one place where an error becomes an answer. Registered last. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const failure = asFailure(error);
    if (!failure) {
      log.error({ err: error, url: request.originalUrl }, 'unexpected');
      response
        .status(500)
        .json({ error: { code: 'internal', message: 'Something broke here. Nothing was written; try again.' } });
      return;
    }
    const { code, message, path, detail, said } = failure;
    response.status(STATUS[code] ?? 400).json({
      error: {
        code,
        message,
        ...(path ? { path } : {}),
        // So that a screen can say it in the units of whoever reads it.
        ...(said ? { said: { words: said.words, figures: said.figures } } : {}),
        ...detail,
      },
    });
  };
}
