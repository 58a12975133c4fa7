import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { boardParts, boxNet, LIP_MM, netSvg } from './boxParts.ts';

const mm = fc.double({ min: 15, max: 400, noNaN: true });
const inside = fc.record({ lengthMm: mm, widthMm: mm, heightMm: mm });
type Point = [number, number];
const areaOf = (points: Point[]) =>
  Math.abs(
    points.reduce((sum, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length] as Point;
      return sum + (x * ny - nx * y) / 2;
    }, 0),
  );

test('boards of 5 mm for a box of 130 × 84 × 27 mm, by hand', () => {
  expect(boardParts({ lengthMm: 130, widthMm: 84, heightMm: 27 }, 5)).toEqual([
    { name: 'floor', count: 1, lengthMm: 140, widthMm: 94 },
    { name: 'long side', count: 2, lengthMm: 140, widthMm: 32 },
    { name: 'short side', count: 2, lengthMm: 84, widthMm: 32 },
  ]);
});

describe('a box folded from one card', () => {
  test('its net is floor, four sides and four tabs, and lies on its sheet', () => {
    fc.assert(
      fc.property(inside, (box) => {
        const { outline, folds, sheetMm } = boxNet(box);
        const { lengthMm: l, widthMm: w } = box;
        const h = box.heightMm + LIP_MM;
        const tabs = 4 * Math.min(12, h) * (h - 2 * Math.min(6, h / 3));
        expect(areaOf(outline)).toBeGreaterThanOrEqual(l * w + 2 * h * (l + w) + tabs - 1e-6);
        for (const [x, y] of [...outline, ...folds.flat()]) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(sheetMm[0]);
          expect(y).toBeLessThanOrEqual(sheetMm[1]);
        }
        expect(folds).toHaveLength(8);
      }),
    );
  });

  test('the drawing says its size in millimetres, so that it prints at 1:1', () => {
    // 130 + 2 · (27 + 5) + 2 · 6 by 84 + the same.
    expect(netSvg({ lengthMm: 130, widthMm: 84, heightMm: 27 })).toContain(
      'width="206.00mm" height="160.00mm" viewBox="0 0 206.00 160.00"',
    );
  });
});
