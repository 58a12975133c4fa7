import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Dimension } from './dimension.ts';
import { parseQuantity } from './parse.ts';
import { cupsText, durationText, show, showText } from './show.ts';

const METRIC = { system: 'metric', temperature: 'C' } as const;
const US = { system: 'us', temperature: 'F' } as const;
const context = (unit: string) => ({ unit, dropsPerMl: 20, measures: [{ unit: 'scoop', ml: 0.68 }] });

describe('what makers write', () => {
  test.each([
    ['1/8 tsp', 'volume', 'mL', 4.92892159375 / 8],
    ['3 1/2 in', 'length', 'mm', 88.9],
    ['0.5 cup', 'volume', 'mL', 118.29411825],
    ['350 F', 'temperature', 'C', 176.66666666666666],
    ['350°F', 'temperature', 'C', 176.66666666666666],
    ['12', 'length', 'mm', 12],
    ['12', 'length', 'in', 304.8],
    ['1,5 cm', 'length', 'mm', 15],
    ['½ tsp', 'volume', 'mL', 2.464460796875],
    ['1½ cups', 'volume', 'mL', 354.88235475],
    ['4"', 'length', 'mm', 101.6],
    ['2 scoops', 'volume', 'mL', Number.NaN],
    ['2 scoop', 'volume', 'mL', 1.36],
    ['3 oz', 'volume', 'mL', 88.7205886875],
    ['3 oz', 'mass', 'g', 85.048569375],
    ['2 lbs', 'mass', 'g', 907.18474],
    ['20 drops', 'volume', 'mL', 1],
    ['−5 C', 'temperature', 'C', -5],
    ['.5 L', 'volume', 'mL', 500],
  ])('%s as a %s', (text, dimension, unit, wanted) => {
    const read = () => parseQuantity(text, dimension as Dimension, context(unit));
    if (Number.isNaN(wanted)) expect(read).toThrow(/not a unit/);
    else expect(read()).toBeCloseTo(wanted, 9);
  });
  test.each([
    ['', 'not-a-measure'],
    ['about ten', 'not-a-measure'],
    ['1/0 tsp', 'not-a-measure'],
    ['3 in', 'unit-mismatch'],
    ['-2 mL', 'out-of-range'],
    ['5 furlong', 'unknown-unit'],
  ])('%j is refused as %s', (text, code) => {
    expect(() => parseQuantity(text, 'volume', context('mL'))).toThrow(expect.objectContaining({ code }));
  });
});

describe('what they are shown', () => {
  test.each([
    [12.6, 'length', METRIC, '12.6 mm'],
    [110, 'length', METRIC, '110 mm'],
    [110, 'length', US, '4.33 in'],
    [237, 'volume', US, '8.01 fl oz'],
    [4.567, 'mass', METRIC, '4.57 g'],
    [246.3, 'mass', METRIC, '246 g'],
    [5500, 'mass', METRIC, '5.5 kg'],
    [175, 'temperature', US, '347 °F'],
    [-3.04, 'mass', METRIC, '-3.04 g'],
  ] as const)('%d as %s', (value, dimension, taste, wanted) => expect(showText(value, dimension, taste)).toBe(wanted));
  test('what is shown can be typed back, to the digits shown', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1900, noNaN: true }),
        fc.constantFrom('length', 'volume', 'mass'),
        fc.constantFrom(METRIC, US),
        (value, dimension, taste) => {
          const { figure, unit } = show(value, dimension as Dimension, taste);
          const back = parseQuantity(`${figure} ${unit}`, dimension as Dimension, context('mm'));
          expect(Math.abs(back - value)).toBeLessThanOrEqual(Math.max(0.51, value * 0.006));
        },
      ),
    );
  });
  test.each([
    [130, '2:10'],
    [1320, '22 min'],
    [12000, '3 h 20'],
    [86400, '1 d'],
    [-5, '0:00'],
  ])('%d s is %s', (seconds, wanted) => expect(durationText(seconds)).toBe(wanted));
  test.each([
    [29.57, '0.12 cup'],
    [59.147, '0.25 cup'],
    [118.3, '0.5 cup'],
    [236.6, '1 cup'],
    [379, '1.6 cups'],
    [709.8, '3 cups'],
    [3550, '15 cups'],
  ])('%f mL are %s', (ml, text) => expect(cupsText(ml)).toBe(text));
});
