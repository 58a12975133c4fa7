import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { Failure } from '../../core/failure.ts';

/** Everything from here, nothing from elsewhere; WebAssembly for the solver and nothing else that compiles. */
export const securityHeaders = helmet({
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

function ownNames(lan: boolean): Set<string> {
  const names = ['localhost', '127.0.0.1', '[::1]'];
  if (lan) {
    names.push(hostname().toLowerCase(), `${hostname().toLowerCase()}.local`);
    for (const addresses of Object.values(networkInterfaces())) {
      for (const { address, family } of addresses ?? [])
        names.push(family === 'IPv6' ? `[${address.split('%')[0]}]` : address);
    }
  }
  return new Set(names);
}

/** Refuses names that are not this machine's (DNS rebinding) and calls that another site's page makes. */
export function sameHouse(lan: boolean): RequestHandler {
  const names = ownNames(lan);
  return (request, _response, next) => {
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
