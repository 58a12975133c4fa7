import { describe, expect, test } from 'vitest';
import { beforeLearning, learntWait, waitsLearnt } from './learntWait.ts';

const opened = (share: number, soft = false) => ({ waitedS: share * 200, workedS: 200, soft });
const many = (n: number, share: number, soft = false) => Array.from({ length: n }, () => opened(share, soft));

describe('how long a mold really waits', () => {
  const cases: [string, Parameters<typeof learntWait>[0], number, number][] = [
    ['nothing seen: as worked out', [], 1, 0],
    // (3 × 0.6 + 3 × 1) ÷ 6
    ['three good ones at 0.6 count as much as the guess', many(3, 0.6), 0.8, 3],
    // (27 × 0.6 + 3) ÷ 30
    ['27 of them outweigh it', many(27, 0.6), 0.64, 27],
    ['good but late: hands were elsewhere', many(9, 1.11), 1, 0],
    ['good and all but in time', many(3, 1.1), 1.05, 3],
    // (3 × 1.25 + 3) ÷ 6
    ['soft at what was worked out: a quarter more', many(3, 1, true), 1.125, 3],
    ['soft after one and a half of it: not the wait', many(3, 1.51, true), 1, 0],
    ['soft at one and a half still says so', many(3, 1.5, true), 1.4375, 3],
    ['written down afterwards', many(9, 0.29), 1, 0],
    ['one soft among many good: as it was', [...many(9, 1), opened(1, true)], 1, 10],
    ['never under half', many(27, 0.3), 0.5, 27],
  ];
  test.each(cases)('%s', (_, seen, factor, openings) => {
    const learnt = learntWait(seen);
    expect(learnt.factor).toBeCloseTo(factor, 9);
    expect(learnt.openings).toBe(openings);
  });

  test('the waits of a mold go by it, not under a minute, and are told apart from what was worked out', () => {
    const waits = { waitS: [70, 100, 300], basis: 'heat' as const };
    const learnt = waitsLearnt(waits, { factor: 0.8, openings: 12 });
    expect(learnt).toEqual({ waitS: [60, 80, 240], basis: 'heat', learnt: { factor: 0.8, openings: 12 } });
    expect(beforeLearning(learnt, 1)).toBe(100);
    expect(beforeLearning(learnt, 7)).toBe(300);
    expect(beforeLearning(waits, 0)).toBe(70);
    expect(waitsLearnt(waits, { factor: 1, openings: 0 })).toBe(waits);
    expect(waitsLearnt({ waitS: [45], basis: 'kind' }, { factor: 0.8, openings: 3 }).waitS).toEqual([45]);
  });
  test('opened by the learnt clock and good, it stays where it is', () =>
    expect(learntWait(many(5, 0.8)).factor).toBeGreaterThan(0.8 - 1e-9));
});
