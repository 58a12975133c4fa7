import { expect, test } from 'vitest';
import { printEstimate } from './print.ts';
import { printSkin } from './skin.ts';

test.each([
  // Six layers of 0.1 mm are half a millimetre over hollow infill: blown through.
  [
    { perimeters: 5, lineMm: 0.4, layers: 6, layerMm: 0.1 },
    { sideMm: 2, flatMm: 0.6, holds: false, layersNeeded: 15 },
  ],
  [
    { perimeters: 4, lineMm: 0.4, layers: 8, layerMm: 0.2 },
    { sideMm: 1.6, flatMm: 1.6, holds: true },
  ],
  [
    { perimeters: 3, lineMm: 0.5, layers: 15, layerMm: 0.1 },
    { holds: true, perimetersNeeded: 3, layersNeeded: 15 },
  ],
  [
    { perimeters: 2, lineMm: 0.42, layers: 20, layerMm: 0.1 },
    { holds: false, perimetersNeeded: 4 },
  ],
])('case %#', (settings, wanted) => {
  for (const [key, value] of Object.entries(wanted)) {
    const found = printSkin(settings)[key as keyof typeof wanted];
    if (typeof value === 'number') expect(found).toBeCloseTo(value, 9);
    else expect(found).toBe(value);
  }
});

test('a line without thickness is refused', () =>
  expect(() => printSkin({ perimeters: 4, lineMm: 0, layers: 4, layerMm: 0.2 })).toThrow(/slicer/));

test('printing a block: skin all over it and a quarter within, by hand', () => {
  // 100 × 50 × 20 mm: 100 mL, 16 000 mm² of skin 2 mm thick are 32 mL, a quarter of the other 68 is 17: 49 mL, 60.76 g.
  const found = printEstimate([{ volumeMl: 100, areaMm2: 16_000 }]);
  expect([found.plasticMl, found.grams, found.hours]).toEqual([49, 60.76, expect.closeTo(49_000 / 8 / 3600, 9)]);
  // A thin sheet is all skin.
  expect(printEstimate([{ volumeMl: 3, areaMm2: 2000 }]).plasticMl).toBe(3);
});
