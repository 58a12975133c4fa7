import { expect, test } from 'vitest';
import { successorName } from './Renew.tsx';

test.each([
  ['Sandlance × 4', 'Sandlance × 4, 2nd'],
  ['Sandlance × 4, 2nd', 'Sandlance × 4, 3rd'],
  ['Sandlance × 4, 10th', 'Sandlance × 4, 11th'],
  ['Sandlance × 4, 20th', 'Sandlance × 4, 21st'],
])('%s is followed by %s', (name, next) => {
  expect(successorName(name)).toBe(next);
});
