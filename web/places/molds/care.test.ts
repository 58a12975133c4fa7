import { expect, test } from 'vitest';
import { failing } from './CareMap.tsx';
import { successorName } from './Renew.tsx';

const mold = { made: 400, rejected: 30, cavities: 4 };
const cavity = (made: number, rejected: number) => ({ cavity: 1, made, rejected, reasons: [] });

test.each([
  ['16 of 100 where the others spoil 14 of 300', cavity(100, 16), true],
  ['10 of 100, the others 20 of 300: luck does as much', cavity(100, 10), false],
  ['none made', cavity(0, 0), false],
  ['the best of them', cavity(100, 1), false],
])('a cavity keeps failing: %s', (_what, health, is) => {
  expect(failing(health, mold)).toBe(is);
});

test('a mold of one cavity has nothing to fail beside', () => {
  expect(failing(cavity(50, 9), { made: 50, rejected: 9, cavities: 1 })).toBe(false);
});

test.each([
  ['Sandlance × 4', 'Sandlance × 4, 2nd'],
  ['Sandlance × 4, 2nd', 'Sandlance × 4, 3rd'],
  ['Sandlance × 4, 10th', 'Sandlance × 4, 11th'],
  ['Sandlance × 4, 20th', 'Sandlance × 4, 21st'],
])('%s is followed by %s', (name, next) => {
  expect(successorName(name)).toBe(next);
});
