import { expect, test } from 'vitest';
import { CURE_MS, curedAt } from './cure.ts';

test('a day from the last shot, in whatever order they are told', () => {
  expect(CURE_MS).toBe(86_400_000);
  expect(curedAt(['2026-03-02T19:00:00.000Z', '2026-03-02T20:30:00.500Z', '2026-03-02T18:00:00.000Z'])).toBe(
    '2026-03-03T20:30:00.500Z',
  );
  expect(curedAt([])).toBeNull();
});
