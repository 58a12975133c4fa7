import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';

/** A browser's shelf and network, as far as the outbox needs them. */
const shelf = new Map<string, string>();
type Reply = { status: number; body: unknown } | 'silence';
let replies: Reply[] = [];
let sent: { path: string; key: string; body: unknown }[] = [];

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers();
  shelf.clear();
  replies = [];
  sent = [];
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => shelf.get(key) ?? null,
    setItem: (key: string, value: string) => shelf.set(key, value),
  });
  vi.stubGlobal('window', { addEventListener: () => undefined, dispatchEvent: () => undefined });
  vi.stubGlobal('fetch', async (path: string, { headers, body }: { headers: Record<string, string>; body: string }) => {
    sent.push({ path, key: headers['idempotency-key'] ?? '', body: JSON.parse(body) });
    const reply = replies.shift() ?? { status: 201, body: {} };
    if (reply === 'silence') throw new TypeError('network');
    return { ok: reply.status < 400, status: reply.status, json: async () => reply.body };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const waiting = () =>
  JSON.parse(shelf.get('blunko.outbox') ?? '[]') as { key: string; refused?: string; body: Record<string, unknown> }[];
const settle = () => vi.advanceTimersByTimeAsync(0);
const refusal = (status: number, code: string) => ({ status, body: { error: { code, message: `because ${code}` } } });

describe('the outbox', () => {
  test('an answered tap leaves it, and its answer is handed on', async () => {
    const { tapRow, onAnswer } = await import('./outbox.ts');
    const answers: unknown[] = [];
    onAnswer((about, answer) => answers.push([about, answer]));
    replies = [{ status: 201, body: { id: 'p', molds: [] } }];
    tapRow('/pours/p/shots', { moldId: 'm' }, 'a shot', 'p');
    expect(waiting()).toHaveLength(1);
    await settle();
    expect(waiting()).toEqual([]);
    expect(answers).toEqual([['p', { id: 'p', molds: [] }]]);
    expect(sent[0]).toMatchObject({
      path: '/api/pours/p/shots',
      body: { moldId: 'm', id: expect.stringMatching(/^[0-9a-f-]{36}$/) },
    });
  });

  test('silence keeps it; it is tried again under the same key, in order', async () => {
    const { tap } = await import('./outbox.ts');
    replies = ['silence', 'silence'];
    tap('/a', { n: 1 }, 'first', 'p');
    tap('/b', { n: 2 }, 'second', 'p');
    await settle();
    expect(waiting()).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(3000);
    expect(waiting()).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(3000);
    expect(waiting()).toEqual([]);
    expect(sent.map((one) => one.path)).toEqual(['/api/a', '/api/a', '/api/a', '/api/b']);
    expect(new Set(sent.slice(0, 3).map((one) => one.key)).size).toBe(1);
    expect(sent[3]?.key).not.toBe(sent[0]?.key);
  });

  test.each([
    [500, 'internal'],
    [503, 'busy'],
    [401, 'passcode-needed'],
  ])('a %d %s is no answer to the tap: it stays', async (status, code) => {
    const { tap } = await import('./outbox.ts');
    replies = [refusal(status, code)];
    tap('/a', {}, 'a tap', 'p');
    await settle();
    expect(waiting()).toHaveLength(1);
    expect(waiting()[0]?.refused).toBeUndefined();
  });

  test('a refusal is shown until it was understood, and does not hold up the next', async () => {
    const { tap, dismiss } = await import('./outbox.ts');
    replies = [refusal(409, 'pour-closed')];
    tap('/a', {}, 'too late', 'p');
    tap('/b', {}, 'in time', 'p');
    await settle();
    expect(waiting()).toMatchObject([{ refused: 'because pour-closed' }]);
    expect(sent.map((one) => one.path)).toEqual(['/api/a', '/api/b']);
    dismiss(waiting()[0]?.key ?? '');
    expect(waiting()).toEqual([]);
  });

  test('a reload finds what was tapped before it and sends it', async () => {
    const first = await import('./outbox.ts');
    replies = ['silence'];
    first.tap('/a', { n: 1 }, 'before the reload', 'p');
    await settle();
    const key = waiting()[0]?.key;
    vi.resetModules();
    const second = await import('./outbox.ts');
    second.startOutbox();
    await settle();
    expect(waiting()).toEqual([]);
    expect(sent.at(-1)).toMatchObject({ path: '/api/a', key, body: { n: 1 } });
  });

  test('a shelf that holds rubbish is an empty one', async () => {
    shelf.set('blunko.outbox', '{broken');
    const { tap } = await import('./outbox.ts');
    tap('/a', {}, 'a tap', 'p');
    await settle();
    expect(sent).toHaveLength(1);
  });
});
