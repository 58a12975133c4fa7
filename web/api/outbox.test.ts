import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';

/** A browser's shelf and network, as far as the outbox needs them. */
const shelf = new Map<string, string>();
let roomFor = Number.POSITIVE_INFINITY;
type Reply = { status: number; body: unknown } | 'silence';
let replies: Reply[] = [];
let sent: { path: string; key: string; body: Record<string, unknown> }[] = [];
let heard: Record<string, (event: { key: string | null }) => void> = {};
let held = false;
let hash = '';

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers({ now: Date.parse('2026-03-02T19:00:00Z') });
  shelf.clear();
  roomFor = Number.POSITIVE_INFINITY;
  replies = [];
  sent = [];
  heard = {};
  held = false;
  hash = '';
  vi.stubGlobal('localStorage', {
    get length() {
      return shelf.size;
    },
    key: (i: number) => [...shelf.keys()][i] ?? null,
    getItem: (key: string) => shelf.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (!shelf.has(key) && shelf.size >= roomFor) throw new Error('QuotaExceededError');
      shelf.set(key, value);
    },
    removeItem: (key: string) => shelf.delete(key),
  });
  vi.stubGlobal('window', {
    addEventListener: (name: string, hear: () => void) => {
      heard[name] = hear;
    },
    dispatchEvent: () => undefined,
    location: {
      pathname: '/',
      search: '',
      get hash() {
        return hash;
      },
    },
    history: { replaceState: () => undefined },
  });
  vi.stubGlobal('navigator', {
    locks: {
      request: async (_name: string, _how: object, work: (lock: object | null) => Promise<void>) =>
        work(held ? null : {}),
    },
  });
  vi.stubGlobal('fetch', async (path: string, { headers, body }: { headers: Record<string, string>; body: string }) => {
    sent.push({ path, key: headers['idempotency-key'] ?? '', body: JSON.parse(body) });
    const reply = replies.shift() ?? { status: 201, body: {} };
    if (reply === 'silence') throw new TypeError('network');
    return { ok: reply.status < 400, status: reply.status, headers: new Headers(), json: async () => reply.body };
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const waiting = () =>
  [...shelf]
    .filter(([name]) => name.startsWith('blunko.tap.'))
    .map(([, text]) => JSON.parse(text) as { key: string; n: number; refused?: string; body: Record<string, unknown> })
    .sort((a, b) => a.n - b.n);
const settle = async () => {
  for (let turn = 0; turn < 40; turn++) await vi.advanceTimersByTimeAsync(1);
};
const later = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms);
  await settle();
};
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
      body: { moldId: 'm', id: expect.stringMatching(/^[0-9a-f-]{36}$/), tappedAt: '2026-03-02T19:00:00.000Z' },
    });
  });

  test('silence keeps it; it is tried again under the same key, in order, and later each time', async () => {
    const { tap } = await import('./outbox.ts');
    replies = ['silence', 'silence', 'silence'];
    tap('/a', { n: 1 }, 'first', 'p');
    tap('/b', { n: 2 }, 'second', 'p');
    await settle();
    const asked: number[] = [];
    for (let s = 0; s < 16; s++) {
      asked.push(sent.length);
      await later(1000);
    }
    // At once, then after 2, 4 and 8 seconds.
    expect([asked[0], asked[1], asked[2], asked[5], asked[6], asked[13]]).toEqual([1, 1, 2, 2, 3, 3]);
    expect(waiting()).toEqual([]);
    expect(sent.map((one) => one.path)).toEqual(['/api/a', '/api/a', '/api/a', '/api/a', '/api/b']);
    expect(new Set(sent.slice(0, 4).map((one) => one.key)).size).toBe(1);
    expect(sent[4]?.key).not.toBe(sent[0]?.key);
  });

  test('twenty taps without Wi-Fi ask once, not twenty times; heard again, all go at once', async () => {
    const { tap, sendNow } = await import('./outbox.ts');
    replies = ['silence', 'silence'];
    for (let n = 0; n < 20; n++) tap(`/${n}`, {}, 'a tap', 'p');
    await later(2500);
    expect(sent).toHaveLength(2);
    sendNow();
    await settle();
    expect(sent).toHaveLength(22);
    expect(waiting()).toEqual([]);
  });

  test('stamps are the server’s: a tablet ten minutes slow says when it really was', async () => {
    const { learnServerTime } = await import('./now.ts');
    learnServerTime('2026-03-02T19:10:00.000Z');
    const { tap } = await import('./outbox.ts');
    tap('/a', {}, 'a tap', 'p');
    await settle();
    expect(sent[0]?.body.tappedAt).toBe('2026-03-02T19:10:00.000Z');
  });

  test('a full browser: the tap is not lost, is said to be at risk, and is kept once there is room', async () => {
    roomFor = 0;
    const { tap, startOutbox } = await import('./outbox.ts');
    startOutbox();
    replies = ['silence'];
    tap('/a', {}, 'no room', 'p');
    await settle();
    expect(waiting()).toEqual([]);
    await later(2000);
    expect(sent.map((one) => one.path)).toEqual(['/api/a', '/api/a']);
    // Room for one, taken by the first; the second waits in the page until the first has gone.
    roomFor = 1;
    replies = ['silence', { status: 201, body: {} }, 'silence'];
    tap('/b', {}, 'kept', 'p');
    tap('/c', {}, 'not kept', 'p');
    await settle();
    expect(waiting().map((one) => one.n)).toHaveLength(1);
    await later(2000);
    expect(waiting()).toMatchObject([{ path: '/c' }]);
  });

  test('two tabs: neither writes over the other’s tap, and one of them sends', async () => {
    const first = await import('./outbox.ts');
    first.startOutbox();
    held = true;
    first.tap('/a', {}, 'in the first', 'p');
    vi.resetModules();
    const second = await import('./outbox.ts');
    second.tap('/b', {}, 'in the second', 'p');
    await settle();
    expect(waiting().map((one) => (one as unknown as { path: string }).path)).toEqual(['/a', '/b']);
    expect(sent).toEqual([]);
    held = false;
    heard.storage?.({ key: 'blunko.tap.x' });
    first.sendNow();
    await settle();
    expect(sent.map((one) => one.path)).toEqual(['/api/a', '/api/b']);
    expect(waiting()).toEqual([]);
  });

  test.each([
    [500, 'internal'],
    [503, 'busy'],
    [507, 'disk-full'],
    [401, 'passcode-needed'],
    [426, 'tls-needed'],
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

  test('taps of an earlier page’s list, and those that an older address sends along, are taken over once', async () => {
    const tap = (key: string, path: string) => ({ key, path, body: {}, said: 's', about: 'p' });
    shelf.set('blunko.outbox', JSON.stringify([tap('k1', '/a'), tap('k2', '/b')]));
    hash = `#taps=${encodeURIComponent(JSON.stringify([tap('k3', '/c')]))}`;
    replies = ['silence'];
    const first = await import('./outbox.ts');
    first.startOutbox();
    expect(shelf.has('blunko.outbox')).toBe(false);
    await later(2000);
    expect(sent.map((one) => [one.path, one.key])).toEqual([
      ['/api/a', 'k1'],
      ['/api/a', 'k1'],
      ['/api/b', 'k2'],
      ['/api/c', 'k3'],
    ]);
    vi.resetModules();
    (await import('./outbox.ts')).startOutbox();
    await settle();
    expect(sent).toHaveLength(4);
  });

  test('a shelf that holds rubbish is an empty one', async () => {
    shelf.set('blunko.outbox', '{broken');
    shelf.set('blunko.tap.x', '{broken');
    const { tap, startOutbox } = await import('./outbox.ts');
    startOutbox();
    tap('/a', {}, 'a tap', 'p');
    await settle();
    expect(sent).toHaveLength(1);
  });
});
