import express, { type Express } from 'express';
import { MOVE_SCRIPT, movePage } from './movePage.ts';

export interface Moved {
  /** Where the workshop is over TLS, on the same machine. */
  port: number;
  root: string;
}

/**
 * What a tablet finds at the workshop's plain address: how to trust its certificate, and the way on. Taps that still wait in the
 * browser under this address go along. Nothing of the workshop is told here.
 */
export function movedApp(moved: () => Moved): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.set({
      'content-security-policy':
        "default-src 'none'; script-src 'self'; style-src 'self'; base-uri 'none'; frame-ancestors 'none'",
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    });
    next();
  });
  app.get('/blunko-root.crt', (_request, response) => {
    response.type('application/x-x509-ca-cert').attachment('blunko-root.crt').send(Buffer.from(moved().root));
  });
  app.get('/move.js', (_request, response) => {
    response.type('text/javascript').send(MOVE_SCRIPT);
  });
  app.use('/api', (_request, response) => {
    response
      .status(426)
      .json({ error: { code: 'tls-needed', message: 'Over the network the workshop answers under https only.' } });
  });
  app.get('/{*splat}', (request, response) => {
    response.type('text/html').send(movePage(request.hostname, moved().port, request.originalUrl));
  });
  return app;
}
