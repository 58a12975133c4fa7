import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { Failure } from '../../core/failure.ts';
import { ownNames } from '../way/names.ts';

/** Everything from here, nothing from elsewhere; WebAssembly for the solver and nothing else that compiles. */
const headersFor = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      'default-src': ["'none'"],
      'script-src': ["'self'", "'wasm-unsafe-eval'"],
      'worker-src': ["'self'"],
      'style-src': ["'self'"],
      'img-src': ["'self'", 'data:', 'blob:'],
      'font-src': ["'self'"],
      'connect-src': ["'self'"],
      'manifest-src': ["'self'"],
      'base-uri': ["'none'"],
      'form-action': ["'self'"],
      'frame-ancestors': ["'none'"],
      'object-src': ["'none'"],
    },
  },
  // Served over plain HTTP on the workshop's own network.
  strictTransportSecurity: false,
  crossOriginOpenerPolicy: false,
  originAgentCluster: false,
});

/** The headers are the same for every answer, so they are worked out once. */
function worked(): [string, string][] {
  const headers: [string, string][] = [];
  const setHeader = (name: string, value: string) => headers.push([name, value]);
  headersFor({} as never, { setHeader, removeHeader: () => undefined } as never, (error) => {
    if (error) throw error;
  });
  return headers;
}
const HEADERS = worked();

export const securityHeaders: RequestHandler = (_request, response, next) => {
  for (const [name, value] of HEADERS) response.setHeader(name, value);
  next();
};

/** Addresses change while a server runs, but not with every request. */
const LOOK_AGAIN_MS = 30_000;

/** Refuses names that are not this machine's (DNS rebinding) and calls that another site's page makes. */
export function sameHouse(lan: boolean): RequestHandler {
  let names = ownNames(lan);
  let looked = performance.now();
  return (request, _response, next) => {
    if (lan && performance.now() - looked > LOOK_AGAIN_MS) {
      names = ownNames(lan);
      looked = performance.now();
    }
    const host = request.get('host') ?? '';
    const name = host.replace(/:\d+$/, '').toLowerCase();
    if (!names.has(name)) throw new Failure('wrong-host', 'This workshop does not answer to that name.');
    const origin = request.get('origin');
    const elsewhere = request.get('sec-fetch-site') === 'cross-site' && request.path.startsWith('/api');
    if (elsewhere || (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`)) {
      throw new Failure('cross-site', 'Only the workshop’s own pages may call it.');
    }
    next();
  };
}
