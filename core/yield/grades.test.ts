import { describe, expect, test } from 'vitest';
import { FILLS, MOLD_KINDS } from '../heat/window.ts';
import { countGrades, graded, REASON_IDS, REASONS, reasonsFor } from './grades.ts';

test('every reason can be tapped in every mold, once, and no two say the same', () => {
  expect(new Set(Object.values(REASONS)).size).toBe(REASON_IDS.length);
  for (const kind of MOLD_KINDS)
    for (const fill of FILLS) {
      const { all, usual } = reasonsFor({ kind, fill });
      expect([...all].sort()).toEqual([...REASON_IDS].sort());
      // What is usual fits on one screen of large targets.
      expect(usual).toBeGreaterThan(5);
      expect(usual).toBeLessThanOrEqual(11);
    }
});

test.each([
  ['an open pour', 'silicone-open', 'open-pour', 'open-tail'],
  ['an injected mold', 'aluminium', 'injection', 'hollow'],
  ['a gravity pour', 'silicone-two-piece', 'gravity', 'dent'],
  ['dipping', 'dip-rods', 'dip', 'flake-ran'],
  ['a print', 'printed', 'injection', 'blown-through'],
] as const)('of %s what goes wrong there comes first', (_what, kind, fill, reason) => {
  const { all, usual } = reasonsFor({ kind, fill });
  expect(all.slice(0, usual)).toContain(reason);
  const elsewhere = reasonsFor(
    fill === 'dip' ? { kind: 'aluminium', fill: 'injection' } : { kind: 'dip-rods', fill: 'dip' },
  );
  expect(elsewhere.all.slice(0, elsewhere.usual)).not.toContain(reason);
});

describe('a tap of either form', () => {
  test.each([
    [
      { cavity: 1, result: 'good' as const },
      { cavity: 1, grade: 'sell' },
    ],
    [
      { cavity: 2, result: 'bad' as const, reason: 'flash' as const },
      { cavity: 2, grade: 'remelt', reason: 'flash' },
    ],
    [
      { cavity: 3, result: 'unmarked' as const },
      { cavity: 3, grade: 'unmarked' },
    ],
    [
      { cavity: 4, grade: 'own' as const, reason: 'bubble' as const },
      { cavity: 4, grade: 'own', reason: 'bubble' },
    ],
  ])('%j', (tapped, expected) => expect(graded(tapped)).toEqual(expected));
});

test('what was not looked at is of no grade', () => {
  const marks = (['sell', 'own', 'sell', 'remelt', 'unmarked', 'sell'] as const).map((grade) => ({ grade }));
  expect(countGrades(marks)).toEqual({ sell: 3, own: 1, remelt: 1 });
});
