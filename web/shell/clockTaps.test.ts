import { expect, test } from 'vitest';
import type { Clock } from '../../contract/workshop.ts';
import { clockTaps, foldClocks, withClock } from './clockTaps.ts';

const at = (minute: number) => new Date(Date.UTC(2026, 2, 2, 19, minute)).toISOString();
const clock = (id: string, minute: number, endedAt: string | null = null) =>
  ({ id, dueAt: at(minute), endedAt }) as Clock;
const tapped = (id: string, minute: number, body: object, refused?: string) => ({
  key: `${id}${minute}`,
  n: minute,
  path: clockTaps(id),
  body: { ...body, tappedAt: at(minute) },
  said: '',
  about: id,
  ...(refused ? { refused } : {}),
});
const seen = (clocks: Clock[]) => clocks.map(({ id, dueAt }) => [id, new Date(dueAt).getUTCMinutes()]);

test('taps on their way count at once: put off from when it was tapped, or from when it is due; done is gone', () => {
  const clocks = [clock('late', 5), clock('soon', 12), clock('stir', 13)];
  const taps = [
    tapped('late', 10, { addMinutes: 5 }),
    tapped('soon', 10, { addMinutes: 5 }),
    tapped('stir', 10, { ended: true }),
  ];
  expect(seen(foldClocks(clocks, taps))).toEqual([
    ['late', 15],
    ['soon', 17],
  ]);
  // Twice is twice; what was refused is nothing, and who is nearest comes first.
  const more = [...taps, tapped('late', 11, { addMinutes: 5 }), tapped('soon', 11, { ended: true }, 'seen to')];
  expect(seen(foldClocks(clocks, more))).toEqual([
    ['soon', 17],
    ['late', 20],
  ]);
});

test('an answer stands in for its clock, until it was seen to', () => {
  const clocks = [clock('a', 5), clock('b', 12)];
  expect(seen(withClock(clocks, clock('a', 30)))).toEqual([
    ['a', 30],
    ['b', 12],
  ]);
  expect(seen(withClock(clocks, clock('a', 30, at(8))))).toEqual([['b', 12]]);
});
