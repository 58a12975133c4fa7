import { request } from 'node:http';
import { gunzipSync } from 'node:zlib';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { TestWorkshop } from '../testing/workshop.ts';
import { setPasscode } from './passcode.ts';

let workshop: TestWorkshop;
beforeEach(async () => {
  workshop = await TestWorkshop.open(true);
  await setPasscode(workshop.data.db, '48151623');
});
afterEach(() => workshop.close());

test('with --lan nothing is read or written before the passcode', async () => {
  for (const path of ['/workshop', '/orders', '/backup', '/live', '/photos'])
    expect((await workshop.get(path)).status, path).toBe(401);
  expect((await workshop.post('/customers', { name: 'x' })).status).toBe(401);
  expect((await workshop.get<{ needed: boolean; known: boolean }>('/session')).body).toEqual({
    needed: true,
    known: false,
  });
  expect((await workshop.post('/session', { passcode: '11111111' })).status).toBe(401);
  const opened = await workshop.post('/session', { passcode: '48151623' });
  const cookie = opened.headers.get('set-cookie') ?? '';
  expect(cookie).toMatch(/HttpOnly/);
  expect(cookie).toMatch(/SameSite=Strict/);
  const headers = { cookie: cookie.split(';')[0] as string };
  expect((await workshop.ask('GET', '/workshop', undefined, { headers })).status).toBe(200);
  expect((await workshop.ask('GET', '/workshop', undefined, { headers: { cookie: 'blunko=guessed' } })).status).toBe(
    401,
  );
  workshop.waits(24 * 31);
  expect((await workshop.ask('GET', '/workshop', undefined, { headers })).status).toBe(401);
});

test('guessing the passcode is stopped after ten tries', async () => {
  const tries: number[] = [];
  for (let n = 0; n < 12; n++) tries.push((await workshop.post('/session', { passcode: `${n}` })).status);
  expect(tries.slice(0, 10)).toEqual(Array(10).fill(401));
  expect(tries.slice(10)).toEqual([429, 429]);
});

/** Speaks with any Host header, which fetch would not. */
function raw(headers: Record<string, string>, path = '/api/health'): Promise<number> {
  return new Promise((done, fail) => {
    const { port } = new URL(workshop.url);
    request({ port, host: '127.0.0.1', path, headers }, (response) => {
      response.resume();
      done(response.statusCode ?? 0);
    })
      .on('error', fail)
      .end();
  });
}

test('only its own names and its own pages are answered', async () => {
  expect(await raw({ host: 'localhost' })).toBe(200);
  expect(await raw({ host: 'evil.example' })).toBe(421);
  expect(await raw({ host: '127.0.0.1.evil.example' })).toBe(421);
  expect(await raw({ host: 'localhost', origin: 'http://evil.example' })).toBe(403);
  expect(await raw({ host: 'localhost', 'sec-fetch-site': 'cross-site' })).toBe(403);
  const { headers } = await workshop.get('/health');
  expect(headers.get('content-security-policy')).toContain("default-src 'none'");
  expect(headers.get('x-powered-by')).toBeNull();
});

test('a backup bears no passcode, and a restore locks nobody out or in', async () => {
  const enter = async (passcode: string) =>
    (await workshop.post('/session', { passcode })).headers.get('set-cookie')?.split(';')[0] ?? '';
  const cookie = await enter('48151623');
  const archive = Buffer.from(await (await fetch(`${workshop.url}/api/backup`, { headers: { cookie } })).arrayBuffer());
  const { hash } = workshop.data.db.prepare('SELECT hash FROM passcode').get() as { hash: Buffer };
  expect(gunzipSync(archive).includes(hash)).toBe(false);
  await setPasscode(workshop.data.db, 'another one');
  const later = await enter('another one');
  const restored = await fetch(`${workshop.url}/api/restore`, {
    method: 'POST',
    headers: { cookie: later },
    body: new Uint8Array(archive),
  });
  expect(restored.status).toBe(201);
  expect((await workshop.ask('GET', '/workshop', undefined, { headers: { cookie: later } })).status).toBe(200);
  expect((await workshop.ask('GET', '/workshop', undefined, { headers: { cookie } })).status).toBe(401);
  expect((await workshop.post('/session', { passcode: '48151623' })).status).toBe(401);
});
