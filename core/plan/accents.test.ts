import { expect, test } from 'vitest';
import { type AccentPart, accentsOf } from './accents.ts';

const part = (recipeId: string, colourwayName: string, ml: number): AccentPart => ({
  recipeId,
  colourwayId: colourwayName,
  colourwayName,
  place: 'eyes',
  baits: 24,
  ml,
});
const least = { leastMl: 60, filmMl: 8 };

test('two colours that each want 20 mL of one melt are one cup of 60, 12 of which are left', () => {
  const [found, ...others] = accentsOf(
    [part('pearl', 'a', 20), part('pearl', 'b', 20), part('black', 'a', 300)],
    least,
  );
  expect(others).toEqual([]);
  expect(found).toMatchObject({ recipeId: 'pearl', neededMl: 40, cookMl: 60, leftMl: 12, tooSmallAlone: 2 });
});

test.each([
  // Together they are a cup of their own: only what stays in it is more.
  [[40, 40], { neededMl: 80, cookMl: 88, leftMl: 0, tooSmallAlone: 2 }],
  [[51.9], { cookMl: 60, leftMl: 0.1, tooSmallAlone: 1 }],
  // One that is large enough helps the small one.
  [[5, 200], { cookMl: 213, leftMl: 0, tooSmallAlone: 1 }],
])('%o mL', (each, expected) => {
  const [found] = accentsOf(
    each.map((ml, i) => part('pearl', String(i), ml)),
    least,
  );
  for (const [key, value] of Object.entries(expected)) expect(found?.[key as 'leftMl']).toBeCloseTo(value, 9);
});

test('what is large enough alone is no accent, and nothing is none', () => {
  expect(accentsOf([part('pearl', 'a', 52), part('pearl', 'b', 90)], least)).toEqual([]);
  expect(accentsOf([part('pearl', 'a', 0)], least)).toEqual([]);
});
