// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { ApiError, call, NoAnswer } from './client.ts';
import { fetchThrough } from './stale.ts';
import { useUndo } from './undo.ts';
import { useWrite } from './write.ts';

vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', true);

type Reply = { status: number; body: unknown; stale?: string } | 'silence';
let replies: Reply[] = [];
let asked: { path: string; method: string; key: string | null; match: string | null; body: unknown }[] = [];
const invalidated: string[] = [];

beforeEach(() => {
  replies = [];
  asked = [];
  invalidated.length = 0;
  vi.stubGlobal('fetch', async (path: string, { method, headers, body }: RequestInit) => {
    const sent = new Headers(headers);
    asked.push({
      path,
      method: method ?? '',
      key: sent.get('idempotency-key'),
      match: sent.get('if-match'),
      body: JSON.parse(String(body)),
    });
    const reply = replies.shift() ?? { status: 201, body: {} };
    if (reply === 'silence') throw new TypeError('network');
    return new Response(JSON.stringify(reply.body), {
      status: reply.status,
      headers: reply.stale ? { 'x-blunko-stale': reply.stale, 'x-blunko-write': `w${asked.length}` } : {},
    });
  });
  fetchThrough({
    invalidateQueries: async ({ queryKey }: { queryKey: string[] }) => {
      invalidated.push(String(queryKey[0]));
    },
  } as never);
});

let root: Root;
afterEach(() => act(async () => root?.unmount()));

function Form<T>({ hook, held }: { hook: () => T; held: { current: T } }) {
  held.current = hook();
  return null;
}

/** A form whose hook is in the test's hand. */
async function form<T>(hook: () => T): Promise<{ current: T }> {
  const held = {} as { current: T };
  root = createRoot(document.createElement('div'));
  await act(async () =>
    root.render(
      <QueryClientProvider client={new QueryClient()}>
        <Form hook={hook} held={held} />
      </QueryClientProvider>,
    ),
  );
  return held;
}
const does = (work: () => unknown) => act(async () => void (await Promise.resolve(work()).catch(() => undefined)));

describe('a write from a form', () => {
  const recipe = (name: string) => ({ path: '/recipes', body: { name } });

  test('the same content goes under the same key until it is answered; another content has its own', async () => {
    const write = await form(() => useWrite((name: string) => recipe(name)));
    replies = ['silence', 'silence', { status: 201, body: { id: '1' } }];
    await does(() => write.current.mutateAsync('Slack Tide'));
    expect(write.current.error).toBeInstanceOf(NoAnswer);
    await does(() => write.current.mutateAsync('Sea Pink'));
    await does(() => write.current.mutateAsync('Sea Pink'));
    await does(() => write.current.mutateAsync('Sea Pink'));
    const [first, second, again, anew] = asked.map((one) => one.key);
    expect(again).toBe(second);
    expect(new Set([first, second, anew]).size).toBe(3);
  });

  test('what it made stale is fetched before it is done', async () => {
    const said: string[] = [];
    const write = await form(() =>
      useWrite<{ id: string }, string>(recipe, ({ id }) => said.push(`${id} after ${invalidated.join(' ')}`)),
    );
    replies = [{ status: 201, body: { id: 'r1' }, stale: 'recipes line' }];
    await does(() => write.current.mutateAsync('Slack Tide'));
    expect(said).toEqual(['r1 after recipes line']);
  });

  test('a row of any log is taken back at one address, by its id alone', async () => {
    const undo = await form(() => useUndo());
    await does(() => undo.current.mutateAsync('row-1'));
    expect(asked).toMatchObject([{ path: '/api/undo', method: 'POST', body: { rowId: 'row-1' } }]);
  });
});

describe('a call', () => {
  test('says which version it saw, and has a key only where it adds', async () => {
    await call('/recipes/1', { method: 'PATCH', body: { name: 'x' }, version: 7 });
    await call('/recipes', { method: 'POST', body: {} });
    expect(asked.map(({ match, key }) => [match, key === null])).toEqual([
      ['"7"', true],
      [null, false],
    ]);
  });

  test('a refusal keeps its field, its figures and the row as it is now', async () => {
    const said = { parts: ['A bed of ', ' holds.'], figures: [{ value: 3, as: 'length' }] };
    replies = [
      {
        status: 409,
        body: {
          error: { code: 'stale', message: 'A bed of 3 mm holds.', path: 'bed.depthMm', current: { version: 8 }, said },
        },
      },
    ];
    const refused = await call('/molds/1', { method: 'PATCH', body: {} }).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(ApiError);
    expect(refused).toMatchObject({
      status: 409,
      code: 'stale',
      path: 'bed.depthMm',
      current: { version: 8 },
      said: { ...said, text: 'A bed of 3 mm holds.' },
    });
  });

  test('an answer that is no answer of ours is said as broken, not swallowed', async () => {
    vi.stubGlobal('fetch', async () => new Response('<html>', { status: 502 }));
    const broken = await call('/today').catch((error: unknown) => error);
    expect(broken).toMatchObject({ status: 502, code: 'internal', message: 'Something broke; try again.' });
  });

  test('whoever has to type the passcode is told once, by an event', async () => {
    let told = 0;
    window.addEventListener('blunko:passcode', () => {
      told += 1;
    });
    replies = [{ status: 401, body: { error: { code: 'passcode-needed', message: 'Type it.' } } }];
    await call('/recipes', { method: 'POST', body: {} }).catch(() => undefined);
    expect(told).toBe(1);
  });
});
