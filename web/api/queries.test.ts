import { QueryClient } from '@tanstack/react-query';
import { afterEach, expect, test, vi } from 'vitest';
import { queries } from './queries.ts';

afterEach(() => vi.unstubAllGlobals());

/** A server with so many masters that gives so many at once. */
function serve(total: number, atOnce: number): string[] {
  const asked: string[] = [];
  vi.stubGlobal('fetch', async (path: string) => {
    asked.push(path);
    const from = Number(new URL(path, 'http://here').searchParams.get('cursor') ?? 0);
    const items = Array.from({ length: Math.min(atOnce, total - from) }, (_, n) => ({ id: String(from + n) }));
    return Response.json({ items, nextCursor: from + atOnce < total ? String(from + atOnce) : null });
  });
  return asked;
}

const list = () => new QueryClient().fetchQuery(queries.masters);

test('a list is shown to its end, each row once and in order', async () => {
  const asked = serve(450, 200);
  const { items, nextCursor } = await list();
  expect(items.map((row) => row.id)).toEqual(Array.from({ length: 450 }, (_, n) => String(n)));
  expect(nextCursor).toBeNull();
  expect(asked).toEqual([
    '/api/masters?limit=200',
    '/api/masters?limit=200&cursor=200',
    '/api/masters?limit=200&cursor=400',
  ]);
});

test('one that fits is asked for once', async () => {
  const asked = serve(200, 200);
  expect((await list()).items).toHaveLength(200);
  expect(asked).toHaveLength(1);
});
