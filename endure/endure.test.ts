import { expect, test } from 'vitest';
import { isClean, MUST_BE_NONE } from './counts.ts';
import { PARTS } from './parts.ts';
import { cuts } from './power.ts';

// The short form of `npm run endure`: the same code, fewer rounds, bounded in time.
test.each(Object.entries(PARTS))(
  '%s: nothing is lost, doubled, broken or brought down',
  { timeout: 150_000 },
  async (name, { part, short }) => {
    const counts = await part({ rounds: short, until: Date.now() + 60_000 });
    // It really happened: something was done, and counted.
    expect(Math.max(...Object.values(counts))).toBeGreaterThan(0);
    expect(Object.fromEntries(MUST_BE_NONE.map((count) => [count, counts[count] ?? 0]))).toEqual(
      Object.fromEntries(MUST_BE_NONE.map((count) => [count, 0])),
    );
    expect(isClean(counts)).toBe(true);
    if (name === 'full-disk' && !counts.notTried) expect(counts.refused).toBeGreaterThan(0);
  },
);

test('a program that does not flush is found out by the power cut', { timeout: 120_000 }, async () => {
  const { answered, lost } = await cuts(1, Date.now() + 60_000, true);
  expect(answered).toBeGreaterThan(0);
  expect(lost).toBeGreaterThan(0);
});
