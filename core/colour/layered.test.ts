import { expect, test } from 'vitest';
import { chordsOf } from '../shape/chords.ts';
import { moved } from '../shape/mesh.ts';
import { box, sphere } from '../shape/testing.ts';
import { filledMl, type Part, piecesAt, seamsOf, shareUnder, throughAll } from './layered.ts';
import { layerOver, type Optics } from './light.ts';

const CLEAR: Optics = { k: [0.01, 0.01, 0.01], s: [0.001, 0.001, 0.001] };
const PEARL: Optics = { k: [0.001, 0.001, 0.002], s: [0.2, 0.2, 0.2] };
/** 60 × 20 × 10 mm. */
const brick = box(60, 20, 10);
const [side, above] = [chordsOf(brick, 'side', 120), chordsOf(brick, 'above', 120)];
const part = (place: Part['place'], share: number, optics = CLEAR): Part => ({ place, share, optics });
const middle = (chords: typeof side) => Math.floor(chords.rows / 2) * chords.columns + 60;

test('a brick’s belly of 40 % is 4 of its 10 mm, from the side by height, from above under the back', () => {
  expect(filledMl(side)).toBeCloseTo(12, 2);
  const parts = [part('belly', 0.4, PEARL), part('back', 0.6)];
  const seams = seamsOf(parts, side);
  // 10 mm high: 4 from the bottom are 1 mm under the middle.
  expect(seams.stack.map(({ toMm }) => toMm)).toEqual([expect.closeTo(-1, 6), Number.POSITIVE_INFINITY]);
  const column = (row: number) => piecesAt(side, 'side', seams, row * side.columns + 30);
  const belly = Array.from({ length: side.rows }, (_, row) => column(row)[0]?.part === 0).filter(Boolean).length;
  expect(belly / side.rows).toBeCloseTo(0.4, 5);
  expect(column(3)).toEqual([{ part: 1, mm: expect.closeTo(20, 4) }]);
  const down = piecesAt(above, 'above', seams, middle(above));
  expect(down).toEqual([
    { part: 1, mm: expect.closeTo(6, 4) },
    { part: 0, mm: expect.closeTo(4, 4) },
  ]);
  // The pearl shines through the back: by hand, back over belly over black.
  const seen = throughAll(down, parts, [0, 0, 0]);
  const byHand = layerOver(CLEAR, 6, layerOver(PEARL, 4, [0, 0, 0]));
  for (const i of [0, 1, 2] as const) expect(seen[i]).toBeCloseTo(byHand[i], 5);
  expect(seen[0]).toBeGreaterThan(layerOver(CLEAR, 10, [0, 0, 0])[0] + 0.2);
});

test('a ball’s halves meet at its middle; a third by volume lies where its cap formula says', () => {
  const ball = chordsOf(sphere(10, 20_000), 'side', 200);
  expect(shareUnder(ball, 0.5)).toBeCloseTo(0.5, 2);
  // A cap of h over all of 2r: h²(3r − h)/4r³.
  for (const share of [0.2, 0.7]) {
    const h = share * 20;
    expect(shareUnder(ball, share)).toBeCloseTo((h * h * (30 - h)) / 4000, 2);
  }
});

test('a tail takes its share from the end, a core the middle of every way through', () => {
  const parts = [part('whole', 0.65), part('tail', 0.1), part('core', 0.25)];
  const seams = seamsOf(parts, side);
  expect(seams.tail?.fromColumn).toBe(108);
  expect(piecesAt(side, 'side', seams, 5 * side.columns + 115)).toEqual([{ part: 1, mm: expect.closeTo(20, 4) }]);
  // Half as wide as the bait: 5 of 20 mm before it, 10 of it, 5 behind.
  expect(
    piecesAt(side, 'side', seams, 5 * side.columns + 30).map(({ part, mm }) => [part, Number(mm.toFixed(3))]),
  ).toEqual([
    [0, 5],
    [2, 10],
    [0, 5],
  ]);
  // From above through a belly and a back: 10 mm, of which the core is the middle 5.
  const layered = [part('belly', 0.3), part('back', 0.45), part('core', 0.25)];
  const down = piecesAt(above, 'above', seamsOf(layered, side), middle(above));
  expect(down.map((piece) => piece.part)).toEqual([1, 2, 0]);
  expect(down.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(10, 4);
  expect(down[1]?.mm).toBeCloseTo(5, 4);
  // Nothing lies beside the bait.
  const round = chordsOf(
    moved(sphere(10, 2000), (p) => p),
    'side',
    50,
  );
  expect(piecesAt(round, 'side', seamsOf([part('whole', 1)], round), 0)).toEqual([]);
});

test('stripes are half rods over the back of both sides', () => {
  const seams = seamsOf([part('whole', 0.96), part('stripes', 0.04, PEARL)], side);
  const [stripes] = seams.skin;
  expect(stripes?.at).toHaveLength(5);
  let mm3 = 0;
  for (let at = 0; at < side.thickMm.length; at++) {
    const pieces = piecesAt(side, 'side', seams, at);
    expect(pieces.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(side.thickMm[at] as number, 4);
    for (const { part: of, mm } of pieces) if (of === 1) mm3 += mm * side.cellMm ** 2;
  }
  // 4 % of 12 mL, half of it on the side that is seen.
  expect(mm3 / 240).toBeCloseTo(1, 1);
});

test('spots are half balls in the skin of both sides: what is drawn of one side is half of them', () => {
  const parts = [part('whole', 0.96), part('spots', 0.04, PEARL)];
  const seams = seamsOf(parts, side);
  const [spots] = seams.skin;
  expect(spots?.at).toHaveLength(6);
  // 4 % of 12 mL in twelve drops: 40 mm³ each, a half ball of 2.673 mm.
  expect(spots?.radiusMm).toBeCloseTo(2.673, 2);
  let mm3 = 0;
  for (let at = 0; at < side.thickMm.length; at++) {
    const pieces = piecesAt(side, 'side', seams, at);
    // Nothing is added and nothing taken: a drop takes the place of what lay there.
    expect(pieces.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(side.thickMm[at] as number, 4);
    for (const { part: of, mm } of pieces) if (of === 1) mm3 += mm * side.cellMm ** 2;
  }
  expect(mm3 / 240).toBeCloseTo(1, 1);
  expect(piecesAt(above, 'above', seams, middle(above)).map(({ part: of }) => of)).toEqual([0]);
});
