import fc from 'fast-check';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { measure } from '../shape/measure.ts';
import type { Mesh } from '../shape/mesh.ts';
import { readMesh } from '../shape/read.ts';
import { loadModeller, sculpt } from '../shape/sculpt.ts';
import { Bench } from '../shape/solids.ts';
import { STARTS } from '../shape/starts.ts';
import { box } from '../shape/testing.ts';
import { weld } from '../shape/weld.ts';
import { writeStl } from '../shape/write.ts';
import { check } from '../validate.ts';
import { type BuiltMold, buildMold } from './build.ts';
import { wishSchema } from './buildWish.ts';

const kit = await loadModeller();
type Wish = v.InferInput<typeof wishSchema>;
const build = (mesh: Mesh, wish: Wish) => buildMold(kit, mesh, check(wishSchema, wish));
const start = (id: string) => sculpt(kit, (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec);
const brick = box(40, 20, 10);
const BRICK: Wish = { kind: 'machined', count: 2, direction: [0, 0, 1], planeMm: 0, shrinkFraction: 0 };

const part = (mold: BuiltMold, name: string) => {
  const found = mold.parts.find((one) => one.name === name);
  if (!found) throw new Error(`no ${name}`);
  return found;
};
const blockMl = ({ blockMm: [x, y, z] }: BuiltMold) => (x * y * z) / 1000;

/** What two parts of a closed mold share, mL. */
function overlapMl(one: Mesh, two: Mesh): number {
  const bench = new Bench(kit);
  try {
    return bench.keep(kit.Manifold.intersection([bench.solid(one), bench.solid(two)])).volume() / 1000;
  } finally {
    bench.clear();
  }
}

describe('a brick of 40 × 20 × 10 mm, by hand', () => {
  test('block, cavity and halves of two cavities', () => {
    const mold = build(brick, BRICK);
    // Along: wall 10, half a runner 4, from there 4 + 6 to the nose, 40, wall 10. Across: 14 for the sprue's cone, 20 + 6 + 20, 10.
    expect(mold.blockMm.map((mm) => Number(mm.toFixed(6)))).toEqual([74, 70, 30]);
    expect(mold.halfMm).toEqual([15, 15]);
    // From the corner: noses 24 along (10 + 4 + 10), at 24 and 50 across (14 + 10, and 26 on); the runner at 14.
    expect(mold.layout.noses).toEqual([
      { x: expect.closeTo(24, 6), y: expect.closeTo(24, 6), tail: 'right' },
      { x: expect.closeTo(24, 6), y: expect.closeTo(50, 6), tail: 'right' },
    ]);
    expect(mold.layout.runner?.x).toBeCloseTo(14, 6);
    expect(mold.layout.pins[0]).toEqual({ x: 6, y: 6 });
    expect(mold.cavityMl).toBeCloseTo(8, 6);
    expect(mold.undercutMm2).toBeCloseTo(0, 6);
    // Above the parting plane the upper half has all of the vents, sockets and pry slots; below, the pins.
    const lower = part(mold, 'lower half').volumeMl;
    const pins = (4 * Math.PI * 9 * 5) / 1000;
    expect(lower - pins).toBeCloseTo(74 * 70 * 15 * 1e-3 - 8 - mold.channelsMl / 2, 1);
  });

  test('its allowance for shrinking is on every side', () => {
    expect(build(brick, { ...BRICK, shrinkFraction: 0.02 }).cavityMl).toBeCloseTo(8 * 1.02 ** 3, 6);
  });

  test('a box to cast in holds what it does not: inside less half a brick, for each half', () => {
    const mold = build(brick, { ...BRICK, kind: 'silicone-box', count: 1, ventMm: 0 });
    expect(mold.parts.map((one) => one.name)).toEqual(['upper box', 'lower box']);
    const [x, y] = mold.blockMm;
    // Both rooms are half a brick and a wall high; four humps or dents of half a ball even out.
    expect(mold.rubberMl).toBeCloseTo((2 * x * y * 15) / 1000 - 8 - mold.channelsMl, 1);
  });

  test.each<[string, Mesh, Wish, string, RegExp]>([
    [
      'stock too short',
      brick,
      { ...BRICK, stockMm: [70, 90, 40] },
      'does-not-fit',
      /4\.0 mm more than the stock is long/,
    ],
    ['pins in a thin wall', brick, { ...BRICK, wallMm: 5 }, 'pins-overlap', /a wall of 9\.3 mm/],
    ['a sprue as thick as the block', brick, { ...BRICK, sprueMm: 40 }, 'breaks-through', /28\.0 mm is the most/],
    ['a parting plane over the bait', brick, { ...BRICK, planeMm: 30 }, 'gate-misses', /another pull or plane/],
    ['a rod without a bore', brick, { ...BRICK, coreRodMm: 6 }, 'no-bore', /bore/],
    ['a gate wider than its runner', brick, { ...BRICK, gateMm: 12 }, 'invalid-input', /at most as wide/],
  ])('%s is said before it is built', (_what, mesh, wish, code, words) => {
    try {
      build(mesh, wish);
      expect.unreachable();
    } catch (error) {
      expect((error as Failure).code).toBe(code);
      expect((error as Failure).message).toMatch(words);
    }
  });
});

test('a tube on a core rod has no bore in its halves, and a rod of its own', () => {
  const mold = build(start('tube'), { kind: 'machined', count: 2, coreRodMm: 8.6 });
  expect(mold.parts.map((one) => one.name)).toEqual(['lower half', 'upper half', 'core rod']);
  expect(mold.notes.join()).not.toMatch(/leaves a step/);
  // 8.6 mm across: with the bore's length of about 70 mm, 10 mm of wall and 20 mm to hold.
  expect(measure(part(mold, 'core rod').mesh).sizeMm[1]).toBeCloseTo(8.6, 1);
  expect(mold.cavityMl).toBeGreaterThan((measure(start('tube')).volumeMl ?? 0) + 3);
});

test('block = parts + cavities + channels + vents + clearance; closed, nothing overlaps; all of it is watertight, as a file too', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...STARTS.map((one) => one.id).filter((id) => id !== 'tube')),
      fc.integer({ min: 1, max: 5 }),
      fc.record({
        kind: fc.constantFrom('printed' as const, 'machined' as const),
        layout: fc.constantFrom('one-side' as const, 'both-sides' as const),
        wallMm: fc.double({ min: 9.5, max: 20, noNaN: true }),
        gapMm: fc.double({ min: 2, max: 12, noNaN: true }),
        gateMm: fc.double({ min: 2, max: 5, noNaN: true }),
        runnerMm: fc.double({ min: 5, max: 10, noNaN: true }),
        ventMm: fc.constantFrom(0, 0.8, 1.5),
      }),
      (id, count, wish) => {
        const mold = build(start(id), { ...wish, count });
        const sum =
          mold.parts.reduce((total, one) => total + one.volumeMl, 0) +
          count * mold.cavityMl +
          mold.channelsMl +
          mold.ventsMl +
          mold.clearanceMl;
        expect(Math.abs(sum / blockMl(mold) - 1)).toBeLessThan(1e-3);
        expect(measure(mold.casting).volumeMl).toBeCloseTo(count * mold.cavityMl + mold.channelsMl, 3);
        const [lower, upper] = [part(mold, 'lower half').mesh, part(mold, 'upper half').mesh];
        expect(overlapMl(lower, upper)).toBeLessThan(1e-3);
        for (const { mesh, volumeMl } of mold.parts) {
          const { mesh: read, collapsed } = weld(readMesh(writeStl(mesh)).soup);
          expect(measure(read, collapsed)).toMatchObject({ openEdges: 0, watertight: true, flipped: false });
          expect((measure(read).volumeMl ?? 0) / volumeMl).toBeCloseTo(1, 3);
        }
      },
    ),
    { numRuns: 6, seed: 5, endOnFailure: true },
  );
}, 120_000);
