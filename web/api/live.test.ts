// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';

/** The line as a browser would open it. */
class Line extends EventTarget {
  static readonly CLOSED = 2;
  static opened: Line[] = [];
  readyState = 1;
  constructor(readonly path: string) {
    super();
    Line.opened.push(this);
  }
  tell(name: string, data?: object) {
    this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify(data) }));
  }
  close() {
    this.readyState = Line.CLOSED;
  }
}

const newest = () => Line.opened.at(-1) as Line;
const invalidated: (string | undefined)[] = [];
let stop: () => void = () => {};

/** Everything anew, as a page that is loaded: what it came with, and the line it listens on. */
async function page(came?: { write: string }) {
  vi.resetModules();
  Line.opened = [];
  invalidated.length = 0;
  document.body.innerHTML = came
    ? `<script id="first-answers" type="application/json">${JSON.stringify({ now: '2026-03-02T19:00:00.000Z', answers: {}, ...came })}</script>`
    : '';
  const { fetchThrough } = await import('./stale.ts');
  fetchThrough({
    invalidateQueries: async (what?: { queryKey: string[] }) => {
      invalidated.push(what?.queryKey[0]);
    },
  } as never);
  const live = await import('./live.ts');
  const { serverNow } = await import('./now.ts');
  stop = live.listen();
  return { ...live, serverNow };
}
const hello = (write: string, build: string | null = 'b1') => ({ now: '2026-03-02T19:10:00.000Z', build, write });

beforeEach(() => {
  vi.useFakeTimers({ now: Date.parse('2026-03-02T19:00:00Z') });
  vi.stubGlobal('EventSource', Line);
  localStorage.clear();
});
afterEach(() => {
  stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the line to the workshop', () => {
  test('tells the time: this device is ten minutes behind', async () => {
    const { serverNow } = await page();
    newest().tell('hello', hello('w1'));
    expect(serverNow() - Date.now()).toBe(600_000);
  });

  test('what another screen wrote is fetched again, once, by its keys', async () => {
    await page();
    newest().tell('hello', hello('w1'));
    newest().tell('stale', { keys: ['pours', 'today'], write: 'w2' });
    newest().tell('stale', { keys: ['pours', 'today'], write: 'w2' });
    newest().tell('stale', { keys: ['*'], write: 'w3' });
    await vi.runAllTimersAsync();
    expect(invalidated).toEqual(['pours', 'today', undefined]);
  });

  test.each([
    ['as new as the page', 'w7', []],
    ['newer than the page', 'w8', [undefined]],
  ])('what came with the page is %s', async (_, write, fetched) => {
    await page({ write: 'w7' });
    newest().tell('hello', hello(write));
    await vi.runAllTimersAsync();
    expect(invalidated).toEqual(fetched);
    // Only the first word tells of what came with the page.
    newest().tell('hello', hello('w9'));
    await vi.runAllTimersAsync();
    expect(invalidated).toEqual(fetched);
  });

  test('after a gap everything is fetched again', async () => {
    await page();
    newest().tell('hello', hello('w1'));
    newest().dispatchEvent(new Event('error'));
    newest().tell('hello', hello('w1'));
    await vi.runAllTimersAsync();
    expect([invalidated, Line.opened.length]).toEqual([[undefined], 1]);
  });

  test('one that was closed for good is opened again after five seconds, or at once for who was let in', async () => {
    const { openLiveLine } = await page();
    const refused = newest();
    refused.close();
    refused.dispatchEvent(new Event('error'));
    vi.advanceTimersByTime(4999);
    expect(Line.opened).toHaveLength(1);
    vi.advanceTimersByTime(1);
    expect(Line.opened).toHaveLength(2);
    openLiveLine();
    expect([Line.opened.length, Line.opened[1]?.readyState]).toEqual([3, Line.CLOSED]);
    // The old one's last word opens nothing.
    Line.opened[1]?.dispatchEvent(new Event('error'));
    vi.advanceTimersByTime(60_000);
    expect(Line.opened).toHaveLength(3);
  });

  test('a page that is left listens no more', async () => {
    await page();
    const left = newest();
    left.close();
    left.dispatchEvent(new Event('error'));
    stop();
    vi.advanceTimersByTime(60_000);
    expect(Line.opened).toHaveLength(1);
  });

  test('tells which build it serves, and how far long work is', async () => {
    const { whenThere } = await page();
    const builds: (string | null)[] = [];
    whenThere((build) => builds.push(build));
    const jobs: unknown[] = [];
    window.addEventListener('blunko:job', (event) => jobs.push((event as CustomEvent).detail), { once: true });
    newest().tell('hello', hello('w1', 'b2'));
    newest().tell('job', { job: 'j1', done: 0.25 });
    expect([builds, jobs]).toEqual([['b2'], [{ job: 'j1', done: 0.25 }]]);
  });
});
