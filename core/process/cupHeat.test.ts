import { expect, test } from 'vitest';
import { cupHeat, handsLeftS, vagueUntilS } from './cupHeat.ts';

const T0 = Date.parse('2026-03-02T18:00:00Z');
const at = (s: number) => new Date(T0 + 1000 * s).toISOString();
const WINDOW = { lowC: 158, highC: 172 };
/** A cup of 178 °C in a room of 20, by Newton with 480 s. */
const c = (s: number) => 20 + 158 * Math.exp(-s / 480);

test('nobody read it: not known; a cup that warms, or is colder than its room, neither', () => {
  expect(cupHeat([], WINDOW, 20, T0)).toBeNull();
  expect(cupHeat([{ kind: 'reading', c: 18, at: at(0) }], WINDOW, 20, T0)).toBeNull();
  const warming = [
    { kind: 'cook', c: 150, at: at(0) },
    { kind: 'reading', c: 170, at: at(300) },
  ];
  expect(cupHeat(warming, WINDOW, 20, T0)).toBeNull();
});

test('by one reading as cups usually cool: 178 comes to 172 in 23 s by hand, and to 158 in 81 s', () => {
  // 600 · ln(158/152), 600 · ln(158/138).
  const found = cupHeat([{ kind: 'cook', c: 178, at: at(0) }], WINDOW, 20, T0);
  expect(found).toMatchObject({ state: 'above', readings: 1 });
  expect(found?.enters.inS).toBeCloseTo(23.23, 1);
  expect(found?.leaves.inS).toBeCloseTo(81.19, 1);
  expect(found?.nowC).toBeCloseTo(178, 6);
  // Half a minute later it is in.
  const later = cupHeat([{ kind: 'cook', c: 178, at: at(0) }], WINDOW, 20, T0 + 30_000);
  expect(later).toMatchObject({ state: 'in' });
  expect(later?.enters.inS).toBeCloseTo(-6.77, 1);
});

test('from the second reading on it is this cup’s own; what was before it was heated again does not count', () => {
  const own = [0, 90, 180].map((s) => ({ kind: s === 0 ? 'cook' : 'reading', c: c(s), at: at(s) }));
  const found = cupHeat(own, WINDOW, 20, T0 + 180_000);
  expect(found?.tauS).toBeGreaterThan(480);
  expect(found?.tauS).toBeLessThan(510);
  expect(found?.state).toBe('below');
  expect(found?.at(T0 + 90_000)).toBeCloseTo(c(90), 0);
  const again = cupHeat([...own, { kind: 'reheat', c: 178, at: at(300) }], WINDOW, 20, T0 + 300_000);
  expect(again).toMatchObject({ readings: 1, state: 'above' });
  expect(again?.tauS).toBeCloseTo(600, 6);
  expect(again?.enters.inS).toBeCloseTo(23.23, 1);
});

test('a moment that may be now is none: only the latest is told', () => {
  // 1.96 standard deviations.
  expect(vagueUntilS({ inS: 660, sdS: 810 })).toBeCloseTo(2247.6, 9);
  expect(vagueUntilS({ inS: 98, sdS: 50 })).toBe(196);
  expect(vagueUntilS({ inS: 98.1, sdS: 50 })).toBeNull();
  expect(vagueUntilS({ inS: 60, sdS: 0 })).toBeNull();
});

test('hands for the shots that are left: a mold of four takes 130 s of them each', () => {
  expect(handsLeftS([{ moldId: 'm', cavities: 4, shots: 3, drawn: 1 }])).toBe(260);
  // As it is learnt of that mold; another's says nothing of it.
  const learnt = [
    { moldId: 'n', handsS: 10 },
    { moldId: 'm', handsS: 85 },
  ];
  expect(handsLeftS([{ moldId: 'm', cavities: 4, shots: 3, drawn: 1 }], learnt)).toBe(170);
  expect(
    handsLeftS([
      { moldId: 'm', cavities: 4, shots: 3, drawn: 5 },
      { moldId: 'm', cavities: 1, shots: 1, drawn: 0 },
    ]),
  ).toBe(100);
});
