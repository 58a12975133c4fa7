import { expect, test } from 'vitest';
import { chordsOf, LOOKS, thinAndThick } from './chords.ts';
import { measure } from './measure.ts';
import { moved, together } from './mesh.ts';
import { loadModeller, sculpt } from './sculpt.ts';
import { STARTS } from './starts.ts';
import { box, sphere } from './testing.ts';

const kit = await loadModeller();
const filledMl = ({ thickMm, cellMm }: ReturnType<typeof chordsOf>) =>
  (thickMm.reduce((sum, mm) => sum + mm, 0) * cellMm ** 2) / 1000;

test('a ball is as thick behind each point as its chord, from wherever it is seen', () => {
  const ball = sphere(10, 8000);
  for (const look of LOOKS) {
    const { columns, rows, cellMm, thickMm, nearMm } = chordsOf(ball, look, 80);
    expect([columns, rows]).toEqual([80, 80]);
    for (const [column, row] of [
      [40, 40],
      [55, 40],
      [40, 62],
      [24, 30],
    ] as const) {
      const off = Math.hypot((column + 0.4871) * cellMm - 10, (row + 0.5217) * cellMm - 10);
      expect(thickMm[row * columns + column]).toBeCloseTo(2 * Math.sqrt(100 - off ** 2), 0.9);
      expect(nearMm[row * columns + column]).toBeCloseTo(Math.sqrt(100 - off ** 2), 0.9);
    }
    expect(thickMm[0]).toBe(0);
  }
});

test('what lies behind all points is the bait: every start, from every side', () => {
  for (const { spec } of STARTS) {
    const mesh = sculpt(kit, spec);
    const { volumeMl } = measure(mesh);
    for (const look of LOOKS) expect(filledMl(chordsOf(mesh, look, 240)) / (volumeMl as number)).toBeCloseTo(1, 1.6);
  }
});

test('nose to the left and back up; a hollow does not count', () => {
  // A small block at the nose end, high up; a large one behind it, lower.
  const nose = moved(box(4, 4, 4), ([x, y, z]) => [x, y, z + 20]);
  const body = moved(box(20, 8, 10), ([x, y, z]) => [x + 14, y, z]);
  const seen = chordsOf(together(nose, body), 'side', 60);
  const at = (xMm: number, zMm: number) =>
    seen.thickMm[Math.floor((24 - zMm) / seen.cellMm) * seen.columns + Math.floor(xMm / seen.cellMm)];
  expect(at(2, 22)).toBeCloseTo(4, 3);
  expect(at(20, 5)).toBeCloseTo(8, 3);
  expect(at(2, 5)).toBe(0);
  const hollow = sphere(6, 4000);
  const inside = { positions: hollow.positions, triangles: hollow.triangles.slice().reverse() };
  const shell = together(sphere(10, 8000), inside);
  const middle = chordsOf(shell, 'side', 81);
  expect(middle.thickMm[40 * 81 + 40]).toBeCloseTo(8, 0.9);
});

test('the tail is judged by its own middle, the body by what a tenth of it is thicker than', () => {
  // 60 mm long: a body of 50 mm that is 20 thick, a tail of 10 mm that is 4.
  const body = moved(box(50, 20, 10), ([x, y, z]) => [x + 25, y, z]);
  const tail = moved(box(10, 4, 10), ([x, y, z]) => [x + 55, y, z]);
  const { tailMm, bodyMm } = thinAndThick(chordsOf(together(body, tail), 'side', 120));
  expect([tailMm, bodyMm]).toEqual([expect.closeTo(4, 4), expect.closeTo(20, 4)]);
});
