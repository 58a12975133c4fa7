import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PAPERS, tilesOf } from './tiles.ts';

test('what fits one page takes one, the way it fits; a wider one is laid across', () => {
  expect(tilesOf([180, 270], 'A4')).toMatchObject({ paperMm: [210, 297], pages: [[0, 0]] });
  expect(tilesOf([270, 180], 'A4')).toMatchObject({ paperMm: [297, 210], pages: [[0, 0]] });
  // Upright: 190 wide rooms, 178 on; 3 columns of 190 + 178 + 178 = 546.
  expect(tilesOf([500, 270], 'A4')).toMatchObject({ columns: 3, rows: 1, paperMm: [210, 297] });
});

test('every point of a drawing lies on a page, neighbours share 12 mm, no page is without any of it', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(['A4', 'Letter'] as const)),
      fc.double({ min: 20, max: 1500, noNaN: true }),
      fc.double({ min: 20, max: 1500, noNaN: true }),
      (paper, wide, tall) => {
        const { pages, columns, rows, paperMm, marginMm } = tilesOf([wide, tall], paper);
        const room = paperMm.map((mm) => mm - 2 * marginMm) as [number, number];
        expect([...paperMm].sort((a, b) => a - b)).toEqual([...PAPERS[paper]]);
        const [lastX, lastY] = pages.at(-1) as [number, number];
        expect(lastX + room[0]).toBeGreaterThanOrEqual(wide - 1e-6);
        expect(lastY + room[1]).toBeGreaterThanOrEqual(tall - 1e-6);
        expect(lastX).toBeLessThan(wide);
        expect(lastY).toBeLessThan(tall);
        expect(pages).toHaveLength(columns * rows);
        if (columns > 1) expect((pages[1] as [number, number])[0]).toBeCloseTo(room[0] - 12, 9);
      },
    ),
  );
});
