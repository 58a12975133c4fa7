import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { boundsOf, cross, dot, moved, type Vec3 } from '../shape/mesh.ts';
import { box } from '../shape/testing.ts';
import { check } from '../validate.ts';
import { arrange, clampsOf, cornersOf, frameOf, mustFit } from './arrange.ts';
import { type MoldWish, wishSchema } from './buildWish.ts';
import { FLAT } from './split.ts';

const brick = box(40, 20, 10);
const wish = (more: object = {}): MoldWish => check(wishSchema, { kind: 'machined', count: 1, ...more });
const laid = (more: object = {}, split = FLAT) => arrange(brick, wish(more), split);
const length = (v: Vec3) => Math.hypot(...v);

describe('the mold’s axes', () => {
  const axis = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))) as fc.Arbitrary<Vec3>;
  test('turn a bait without bending or mirroring it, and scale it by what it shrinks', () => {
    fc.assert(
      fc.property(axis, axis, axis, fc.double({ min: 1, max: 1.2, noNaN: true }), (pull, a, b, scale) => {
        fc.pre(length(pull) > 0.05);
        const frame = frameOf(pull, 0, scale);
        const [fa, fb] = [frame(a), frame(b)];
        expect(dot(fa, fb)).toBeCloseTo(scale ** 2 * dot(a, b), 9);
        const turned = frame(cross(a, b));
        for (const [k, value] of cross(fa, fb).entries()) expect(value).toBeCloseTo(scale * (turned[k] as number), 9);
        // The pull points up.
        expect(frame(pull)[2]).toBeCloseTo(scale * length(pull), 9);
      }),
    );
  });

  test('the parting plane lies at nothing, and a pull across keeps the nose in front', () => {
    expect(frameOf([0, 0, 1], 3, 1)([7, 2, 3])).toEqual([7, 2, 0]);
    expect(frameOf([0, 0, -2], 3, 1)([7, 2, -3]).map((value) => value + 0)).toEqual([7, -2, 0]);
    expect(frameOf([0, 1, 0], 0, 1.1)([10, 0, 0])[0]).toBeCloseTo(11, 9);
  });
});

describe('a brick of 40 × 20 × 10 mm is laid out', () => {
  test('alone: the sprue’s cone before its nose, a wall on every other side', () => {
    // Gate 6 from the cone’s foot at 0, the cone 14 before it; walls of 10.
    const { low, high, places } = laid();
    expect([low, high]).toEqual([
      [-14, -20, -15],
      [56, 20, 15],
    ]);
    expect(places).toEqual([{ x: 26, y: 0, turned: false }]);
  });

  test.each([
    [2, undefined, 1],
    [3, undefined, 1],
    [4, undefined, 2],
    [5, undefined, 2],
    [4, 'one-side', 1],
    [2, 'both-sides', 2],
  ] as const)('%d of them, %s: noses to the runner from %d sides', (count, layout, sides) => {
    const plan = laid({ count, ...(layout ? { layout } : {}) });
    expect(new Set(plan.places.map((place) => place.turned)).size).toBe(sides);
    // No two lie on each other, the gap between neighbours is 6, and all keep their wall.
    const solids = plan.places.map(({ x, y, turned }) =>
      boundsOf(moved(brick, ([px, py, pz]) => (turned ? [x - px, y - py, pz] : [x + px, y + py, pz])).positions),
    );
    solids.forEach((one, i) => {
      for (const other of solids.slice(i + 1)) {
        const apart = [0, 1].map((k) =>
          Math.max(
            (one.min[k] as number) - (other.max[k] as number),
            (other.min[k] as number) - (one.max[k] as number),
          ),
        );
        expect(Math.max(...apart)).toBeGreaterThan(6 - 1e-9);
      }
      for (const k of [0, 1, 2] as const) {
        expect(one.min[k] - plan.low[k]).toBeGreaterThan(10 - 1e-9);
        expect(plan.high[k] - one.max[k]).toBeGreaterThan(10 - 1e-9);
      }
    });
  });

  test('five on two sides: the runner reaches the last nose', () => {
    // Three columns, 26 apart: middles at −26, 0, 26; half the runner’s 8 more.
    expect(laid({ count: 5 }).runnerTo).toBe(30);
  });

  test('a seam that climbs past the bait takes its wall with it', () => {
    const plan = laid({}, { at: () => 9, lowMm: -8, highMm: 9, wavy: true });
    expect([plan.low[2], plan.high[2]]).toEqual([-18, 19]);
  });
});

test('pins stand in the corners, one of them a little off so that it closes one way only', () => {
  const plan = laid({ count: 2 });
  const inset = 3 + 3;
  const corners = cornersOf(plan, wish({ count: 2 }));
  expect(
    corners.map(([x, y]) => [Math.min(x - plan.low[0], plan.high[0] - x), Math.min(y - plan.low[1], plan.high[1] - y)]),
  ).toEqual([
    [inset, inset],
    [inset, inset],
    [inset, inset],
    [inset - 1, inset],
  ]);
});

test.each([
  [70, 4],
  [113, 4],
  [115, 6],
  [300, 10],
])('a block of %d mm takes %d clamps, opposite corners first', (long, count) => {
  const clamps = clampsOf({ low: [0, 0, 0], high: [long, 50, 20] });
  expect([clamps.length, clamps[0]?.y, clamps[1]?.y]).toEqual([count, 0, 50]);
  const along = [...new Set(clamps.map(({ x }) => x))].sort((a, b) => a - b);
  for (const [i, x] of along.slice(1).entries()) expect(x - (along[i] as number)).toBeLessThanOrEqual(90 + 1e-9);
});

describe('what cannot be built', () => {
  const refusal = (more: object) => {
    try {
      mustFit(laid(more), wish(more));
      return null;
    } catch (error) {
      return [(error as Failure).code, (error as Failure).path];
    }
  };
  test.each([
    ['stock of exactly its size', { stockMm: [70, 40, 30] }, null],
    ['a hair less', { stockMm: [70, 40, 29.9] }, ['does-not-fit', 'stockMm']],
    ['the least wall of metal', { wallMm: 9.25 }, ['pins-overlap', 'wallMm']],
    ['with thinner pins', { wallMm: 7, pins: { diameterMm: 3 } }, null],
    ['a box to cast in has no pins', { kind: 'silicone-box', wallMm: 1 }, ['breaks-through', 'sprueMm']],
    ['a print needs a wall and a half', { kind: 'printed', wallMm: 1.4 }, ['wall-too-thin', 'wallMm']],
    ['one cavity has none beside it', { gapMm: 1 }, null],
    ['a print of two does', { kind: 'printed', count: 2, gapMm: 1 }, ['wall-too-thin', 'gapMm']],
    ['a gate as wide as its runner', { gateMm: 8 }, null],
    ['a gate wider than it', { gateMm: 8.1 }, ['invalid-input', 'gateMm']],
    // Half a brick and a wall less one are 14: a sprue of 28 just stays in.
    ['the widest sprue', { sprueMm: 28 }, null],
    ['a wider one', { sprueMm: 28.1 }, ['breaks-through', 'sprueMm']],
  ])('%s', (_what, more, expected) => expect(refusal(more)).toEqual(expected));
});
