import { describe, expect, test } from 'vitest';
import { LABEL_SHEETS, type LabelSheet, labelPlaces } from './labels.ts';

describe.each(Object.keys(LABEL_SHEETS) as LabelSheet[])('labels on %s', (sheet) => {
  const { paperMm, labelMm, columns, rows } = LABEL_SHEETS[sheet];
  test('lie on the paper and on no other', () => {
    const places = labelPlaces(sheet, 2 * columns * rows + 1);
    for (const { xMm, yMm } of places) {
      expect(xMm).toBeGreaterThanOrEqual(0);
      expect(xMm + labelMm[0]).toBeLessThanOrEqual(paperMm[0] + 1e-9);
      expect(yMm + labelMm[1]).toBeLessThanOrEqual(paperMm[1] + 1e-9);
    }
    for (const [i, a] of places.entries())
      for (const b of places.slice(i + 1))
        if (a.page === b.page)
          expect(Math.abs(a.xMm - b.xMm) >= labelMm[0] - 1e-9 || Math.abs(a.yMm - b.yMm) >= labelMm[1] - 1e-9).toBe(
            true,
          );
    expect(places.at(-1)?.page).toBe(2);
  });
});

test('a begun sheet is gone on with', () => {
  expect(labelPlaces('A4', 2, 23).map(({ page, xMm, yMm }) => [page, xMm, yMm])).toEqual([
    [0, 140, 256.5],
    [1, 0, 4.5],
  ]);
});
