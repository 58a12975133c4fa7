import fc from 'fast-check';
import { expect, test } from 'vitest';
import { deltaEOfHex } from './lab.ts';
import { linearOf, luminance } from './light.ts';
import { mixedHex } from './mixed.ts';

const grams = fc.double({ min: 1, max: 5000, noNaN: true });

test('one colour is itself, however it is split; by hand for two greys', () => {
  expect(deltaEOfHex(mixedHex([{ hex: '#66752b', grams: 300 }]) as string, '#66752b')).toBeLessThan(0.5);
  const split = mixedHex([
    { hex: '#4f8796', grams: 10 },
    { hex: '#4f8796', grams: 90 },
  ]);
  expect(deltaEOfHex(split as string, '#4f8796')).toBeLessThan(0.5);
  // R 0.5 has K/S 0.25, R 0.2 has 1.6: half and half 0.925, R = 1.925 − √(0.925 · 2.925) = 0.28.
  const [light, dark] = ['#bcbcbc', '#7c7c7c'] as const;
  const mixed = linearOf(
    mixedHex([
      { hex: light, grams: 1 },
      { hex: dark, grams: 1 },
    ]) as string,
  )[0];
  expect(mixed).toBeCloseTo(0.28, 1.9);
  expect(mixedHex([{ hex: light, grams: 0 }])).toBeNull();
});

test('a mixture lies between its parts, and a little black pulls it far down', () => {
  fc.assert(
    fc.property(grams, grams, (a, b) => {
      const y = luminance(
        linearOf(
          mixedHex([
            { hex: '#e9e4da', grams: a },
            { hex: '#2b3358', grams: b },
          ]) as string,
        ),
      );
      expect(y).toBeLessThanOrEqual(luminance(linearOf('#e9e4da')) + 0.01);
      expect(y).toBeGreaterThanOrEqual(luminance(linearOf('#2b3358')) - 0.01);
    }),
  );
  const tenth = luminance(
    linearOf(
      mixedHex([
        { hex: '#e9e4da', grams: 9 },
        { hex: '#1b1c20', grams: 1 },
      ]) as string,
    ),
  );
  // By plain averages it would still be nine tenths as light.
  expect(tenth).toBeLessThan(0.4 * luminance(linearOf('#e9e4da')));
});
