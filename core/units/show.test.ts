import { describe, expect, test } from 'vitest';
import { areaText, cupsText, durationText, fineText, inUnit, show, showText, unitFor, unitSize } from './show.ts';

const METRIC = { system: 'metric', temperature: 'C' } as const;
const US = { system: 'us', temperature: 'F' } as const;

describe('a figure in the maker’s unit, as fine as the bench can measure', () => {
  test.each([
    // An inch is 25.4 mm, a US fluid ounce 29.5735 mL, an ounce 28.3495 g, a foot 0.3048 m (NIST SP 811).
    [99.96, 'length', '100 mm', '3.94 in'],
    [110, 'length', '110 mm', '4.33 in'],
    [7.04, 'length', '7 mm', '0.28 in'],
    [0.05, 'length', '0.05 mm', '0.002 in'],
    [0.3, 'length', '0.3 mm', '0.01 in'],
    [9.876, 'volume', '9.88 mL', '0.334 fl oz'],
    [98.76, 'volume', '98.8 mL', '3.34 fl oz'],
    [473.2, 'volume', '473 mL', '16 fl oz'],
    [2500, 'volume', '2.5 L', '84.54 fl oz'],
    [1999.4, 'mass', '1999 g', '4.41 lb'],
    [2000, 'mass', '2 kg', '4.41 lb'],
    [4.2, 'mass', '4.2 g', '0.148 oz'],
    [907.2, 'mass', '907 g', '2 lb'],
    [900, 'mass', '900 g', '31.75 oz'],
    [0.6, 'speed', '0.60 m/s', '1.97 ft/s'],
    [175, 'temperature', '175 °C', '347 °F'],
    [-5, 'temperature', '-5 °C', '23 °F'],
  ] as const)('%f of %s is %s, or %s', (value, dimension, metric, us) => {
    expect([showText(value, dimension, METRIC), showText(value, dimension, US)]).toEqual([metric, us]);
  });

  test('a difference keeps its sign, and a figure its unit beside it', () => {
    expect(show(-4.2, 'mass', METRIC)).toEqual({ figure: '-4.2', unit: 'g' });
    expect(show(-2500, 'mass', METRIC)).toEqual({ figure: '-2.5', unit: 'kg' });
    expect(inUnit(-25.4, 'length', US)).toBeCloseTo(-1, 9);
    expect(inUnit(0, 'temperature', US)).toBeCloseTo(32, 9);
  });

  test('system and thermometer are chosen apart', () => {
    const mixed = { system: 'us', temperature: 'C' } as const;
    expect((['length', 'volume', 'mass', 'speed', 'temperature'] as const).map((one) => unitFor(one, mixed))).toEqual([
      'in',
      'floz',
      'oz',
      'ft/s',
      'C',
    ]);
  });

  test('one of the shown unit, in the stored one', () => {
    expect(unitSize('length', US)).toBeCloseTo(25.4, 9);
    expect(unitSize('mass', US)).toBeCloseTo(28.349523125, 6);
    expect([unitSize('length', METRIC), unitSize('volume', METRIC)]).toEqual([1, 1]);
  });
});

test.each([
  [0.15, '0.15 mm', '0.0059 in'],
  [3, '3.00 mm', '0.1181 in'],
  [-0.04, '-0.04 mm', '-0.0016 in'],
])('a gap of %f mm is %s, or %s', (mm, metric, us) =>
  expect([fineText(mm, METRIC), fineText(mm, US)]).toEqual([metric, us]),
);

test.each([
  // A square inch is 645.16 mm².
  [645.16, '645 mm²', '1.00 in²'],
  [999.4, '999 mm²', '1.55 in²'],
  [1000, '10.0 cm²', '1.55 in²'],
  [12903.2, '129.0 cm²', '20.00 in²'],
])('a surface of %f mm² is %s, or %s', (mm2, metric, us) =>
  expect([areaText(mm2, METRIC), areaText(mm2, US)]).toEqual([metric, us]),
);

test.each([
  // A US cup is 236.588 mL.
  [59.147, '0.25 cup'],
  [236.588, '1 cup'],
  [242, '1 cup'],
  [354.88, '1.5 cups'],
  [2365.88, '10 cups'],
  [2500, '11 cups'],
])('%f mL are %s', (ml, text) => expect(cupsText(ml)).toBe(text));

test.each([
  [-3, '0:00'],
  [9.4, '0:09'],
  [130, '2:10'],
  [599.4, '9:59'],
  [599.6, '10 min'],
  [1320, '22 min'],
  [3599, '1 h'],
  [12000, '3 h 20'],
  [3900, '1 h 05'],
  [86_400, '1 d'],
  [86_400 + 3 * 3600, '1 d 3 h'],
])('%f s are said as %s', (s, text) => expect(durationText(s)).toBe(text));
