import fc from 'fast-check';
import { expect, test } from 'vitest';
import { along, placeFlags } from './scale.ts';

test('the strip goes from now to two days, later always further', () => {
  expect([along(0), along(-50), along(48 * 3600), along(1e9)]).toEqual([0, 0, 1, 1]);
  fc.assert(
    fc.property(fc.nat(170_000), fc.nat(2000), (s, more) => {
      expect(along(s + more)).toBeGreaterThanOrEqual(along(s));
    }),
  );
});

test('flags never overlap, and none is lost', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -5000, max: 200_000 })), (due) => {
      const placed = placeFlags(
        due.map((dueS) => ({ dueS })),
        1200,
        180,
      );
      expect(placed.reduce((sum, flag) => sum + 1 + flag.more.length, 0)).toBe(due.length);
      for (let i = 1; i < placed.length; i++)
        expect((placed[i]?.x ?? 0) - (placed[i - 1]?.x ?? 0)).toBeGreaterThanOrEqual(180);
      expect(placed[0]?.item.dueS ?? Number.NEGATIVE_INFINITY).toBe(
        due.length ? Math.min(...due) : Number.NEGATIVE_INFINITY,
      );
    }),
  );
});
