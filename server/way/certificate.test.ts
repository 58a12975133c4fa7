import { createPrivateKey, X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { request as plainRequest } from 'node:http';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { beforeEach, describe, expect, test } from 'vitest';
import { open } from '../listen.ts';
import { setPasscode } from '../session/passcode.ts';
import { certificates } from './certificate.ts';

const NOW = new Date('2026-03-02T18:00:00Z');
const later = (days: number) => new Date(NOW.getTime() + days * 86_400_000);
let folder: string;
beforeEach(() => {
  folder = join(mkdtempSync(join(tmpdir(), 'blunko-keys-')), 'keys');
});

describe('the workshop’s own certificates', () => {
  test('a root of ten years, and a leaf of it for every name; the keys are for nobody else', async () => {
    const made = await certificates(folder, ['localhost', 'loft.local', '192.168.1.20'], NOW);
    const [root, leaf] = [new X509Certificate(made.root), new X509Certificate(made.leaf.cert)];
    expect([root.ca, leaf.ca, leaf.verify(root.publicKey)]).toEqual([true, false, true]);
    expect([leaf.checkHost('loft.local'), leaf.checkIP('192.168.1.20'), leaf.checkIP('192.168.1.21')]).toEqual([
      'loft.local',
      '192.168.1.20',
      undefined,
    ]);
    // No longer than the strictest tablet takes.
    expect((Date.parse(leaf.validTo) - Date.parse(leaf.validFrom)) / 86_400_000).toBeLessThanOrEqual(400);
    for (const name of ['root.key', 'leaf.key']) expect(statSync(join(folder, name)).mode & 0o777).toBe(0o600);
    expect(statSync(folder).mode & 0o777).toBe(0o700);
  });

  test('the leaf stays while it serves, and is issued anew for another address or before it runs out; the root stays', async () => {
    const first = await certificates(folder, ['192.168.1.20'], NOW);
    expect(await certificates(folder, ['192.168.1.20'], later(100))).toEqual(first);
    const moved = await certificates(folder, ['192.168.1.77'], NOW);
    expect(new X509Certificate(moved.leaf.cert).checkIP('192.168.1.77')).toBeDefined();
    const renewed = await certificates(folder, ['192.168.1.77'], later(390));
    expect(renewed.leaf.cert).not.toBe(moved.leaf.cert);
    expect([moved.root, renewed.root]).toEqual([first.root, first.root]);
  });

  test.each([
    ['the key of an older leaf', (leaf: string) => writeFileSync(`${leaf}.key`, readFileSync(`${leaf}.key.before`))],
    ['half a key', (leaf: string) => writeFileSync(`${leaf}.key`, readFileSync(`${leaf}.key`).subarray(0, 60))],
    ['an empty certificate', (leaf: string) => writeFileSync(`${leaf}.crt`, '')],
  ])('a power cut that leaves %s does not close the workshop for good', async (_what, cut) => {
    const leaf = join(folder, 'leaf');
    await certificates(folder, ['192.168.1.20'], NOW);
    writeFileSync(`${leaf}.key.before`, readFileSync(`${leaf}.key`));
    const before = await certificates(folder, ['192.168.1.77'], NOW);
    cut(leaf);
    const after = await certificates(folder, ['192.168.1.77'], NOW);
    expect(new X509Certificate(after.leaf.cert).checkPrivateKey(createPrivateKey(after.leaf.key))).toBe(true);
    expect([after.root, after.leaf.cert === before.leaf.cert]).toEqual([before.root, false]);
  });

  test('a leaf of another root is not served', async () => {
    const first = await certificates(folder, ['192.168.1.20'], NOW);
    const other = await certificates(`${folder}-other`, ['192.168.1.20'], NOW);
    for (const ending of ['key', 'crt'])
      writeFileSync(join(folder, `leaf.${ending}`), readFileSync(join(`${folder}-other`, `leaf.${ending}`)));
    const again = await certificates(folder, ['192.168.1.20'], NOW);
    expect([again.root === first.root, again.leaf.cert === other.leaf.cert]).toEqual([true, false]);
  });
});

describe('open to the network', () => {
  const opened = () =>
    open({
      root: mkdtempSync(join(tmpdir(), 'blunko-lan-')),
      clock: () => new Date(),
      log: pino({ level: 'silent' }),
      port: 0,
      lan: { port: 0, addresses: () => ['127.0.0.2'] },
    });
  type Said = { status: number; body: string; cookie: string };
  const said = (send: typeof request | typeof plainRequest, url: string, options: object, text?: string) =>
    new Promise<Said>((done, failed) => {
      const asked = send(url, options, (response) => {
        let body = '';
        response.on('data', (part) => {
          body += part;
        });
        response.on('end', () =>
          done({ status: response.statusCode ?? 0, body, cookie: response.headers['set-cookie']?.[0] ?? '' }),
        );
      });
      asked.on('error', failed);
      asked.end(text);
    });

  test('over TLS with its root alone, behind the passcode; its cookie goes over TLS only', async () => {
    const { data, lanUrls, url, close } = await opened();
    try {
      await setPasscode(data.db, 'harbour light');
      const [home] = lanUrls as [string];
      const { port } = new URL(home);
      const { root } = JSON.parse((await said(plainRequest, `${url}/api/session`, {})).body) as { root?: string };
      expect(root).toBeUndefined();
      const ca = readFileSync(join(data.root, 'keys', 'root.crt'));
      const call = (path: string, options: object = {}, text?: string) =>
        said(request, `https://localhost:${port}/api${path}`, { ca, ...options }, text);
      expect((await call('/workshop')).status).toBe(401);
      await expect(said(request, `https://localhost:${port}/api/health`, {})).rejects.toThrow(/certificate/);
      const opening = await call(
        '/session',
        { method: 'POST', headers: { 'content-type': 'application/json' } },
        JSON.stringify({ passcode: 'harbour light' }),
      );
      expect([opening.status, /; Secure/.test(opening.cookie), /HttpOnly/.test(opening.cookie)]).toEqual([
        201,
        true,
        true,
      ]);
      const headers = { cookie: opening.cookie.split(';')[0] };
      const network = JSON.parse((await call('/network', { headers })).body) as { urls: string[]; root: string };
      expect(network.urls).toEqual([`https://127.0.0.2:${port}`]);
      expect(network.root).toBe(ca.toString());
    } finally {
      await close();
    }
  });
});
