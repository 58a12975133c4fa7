import { describe, expect, test } from 'vitest';
import { failing, flashRises } from './wear.ts';

const counted = (made: number, rejected: number) => ({ made, rejected });

describe('a cavity that keeps failing', () => {
  // Fisher's exact p by hand for the first: 20 of 100 against 10 of 500 is far under 0.05 / 6.
  test.each<[what: string, cavity: [number, number], mold: [number, number], cavities: number, fails: boolean]>([
    ['one in five where the others spoil one in fifty', [100, 20], [600, 30], 6, true],
    ['16 of 100 where the others spoil 14 of 300', [100, 16], [400, 30], 4, true],
    ['10 of 100, the others 20 of 300: luck does as much', [100, 10], [400, 30], 4, false],
    ['as many as the others', [100, 5], [600, 30], 6, false],
    ['fewer than the others', [100, 0], [600, 30], 6, false],
    ['a single spoiled bait of the first shot', [1, 1], [6, 1], 6, false],
    // 3 of 3 against 0 of 9 has p = 1/220 = 0.0045.
    ['three of three, of four cavities', [3, 3], [12, 3], 4, true],
    ['the same of twelve, where chance has more tries', [3, 3], [12, 3], 12, false],
    ['nothing looked at yet', [0, 0], [600, 30], 6, false],
    ['the only cavity has none to be held against', [50, 20], [50, 20], 1, false],
  ])('%s', (_what, cavity, mold, cavities, fails) => {
    expect(failing(counted(...cavity), counted(...mold), cavities)).toBe(fails);
  });
});

describe('flash that rises', () => {
  const pours = (n: number, flash: number) => Array.from({ length: n }, () => counted(20, flash));
  test.each([
    ['three times as much as before', [...pours(5, 1), ...pours(5, 3)], true],
    ['twice as much is not over twice', [...pours(5, 1), ...pours(5, 2)], false],
    // One of 100 against none of 120: p = 100/220 = 0.45.
    ['a single bait, where there was none', [...pours(6, 0), ...pours(4, 0), counted(20, 1)], false],
    ['none before, some now', [...pours(6, 0), ...pours(5, 1)], true],
    ['too few before to tell', [...pours(4, 0), ...pours(5, 3)], false],
    ['nothing ever', pours(12, 0), false],
    ['less than before', [...pours(8, 3), ...pours(5, 0)], false],
  ])('%s', (_what, rows, rises) => {
    expect(flashRises(rows).rises).toBe(rises);
  });

  test('both shares are of baits, not of pours', () => {
    const found = flashRises([...pours(5, 1), counted(100, 10), ...pours(4, 0)]);
    expect(found.before).toBeCloseTo(5 / 100, 12);
    expect(found.recent).toBeCloseTo(10 / 180, 12);
  });
});
