// Keep-alive requests one after the other, as one warm client sends them.
import { Agent, request } from 'node:http';

const agent = new Agent({ keepAlive: true, maxSockets: 1 });

export interface Asked {
  status: number;
  bytes: number;
  ms: number;
}

export function ask(url: string, body?: unknown): Promise<Asked> {
  const text = body === undefined ? undefined : JSON.stringify(body);
  const headers =
    text === undefined ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) };
  const from = performance.now();
  return new Promise((done, failed) => {
    const sent = request(url, { agent, method: text === undefined ? 'GET' : 'POST', headers }, (response) => {
      let bytes = 0;
      response.on('data', (part: Buffer) => {
        bytes += part.length;
      });
      response.on('end', () => done({ status: response.statusCode ?? 0, bytes, ms: performance.now() - from }));
    });
    sent.on('error', failed);
    sent.end(text);
  });
}

const at = (sorted: number[], share: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;

export interface Times {
  median: number;
  p99: number;
  bytes: number;
}

/** @throws when one of the answers is a refusal. */
export async function times(runs: number, one: (n: number) => Promise<Asked>, what: string): Promise<Times> {
  const found: number[] = [];
  let bytes = 0;
  for (let n = -3; n < runs; n++) {
    const { status, ms, bytes: read } = await one(n);
    if (status >= 400) throw new Error(`${what} was answered with ${status}.`);
    if (n >= 0) found.push(ms);
    bytes = read;
  }
  found.sort((a, b) => a - b);
  return { median: at(found, 0.5), p99: at(found, 0.99), bytes };
}
