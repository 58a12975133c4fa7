import fc from 'fast-check';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { measure } from '../shape/measure.ts';
import { boundsOf, type Mesh, moved } from '../shape/mesh.ts';
import { readMesh } from '../shape/read.ts';
import { loadModeller, sculpt } from '../shape/sculpt.ts';
import { Solids } from '../shape/solids.ts';
import { STARTS } from '../shape/starts.ts';
import { box, sphere } from '../shape/testing.ts';
import { weld } from '../shape/weld.ts';
import { writeStl } from '../shape/write.ts';
import { check } from '../validate.ts';
import { type BuiltMold, buildMold } from './build.ts';
import { buildFigures, buildSchema } from './buildCalculator.ts';
import { wishSchema } from './buildWish.ts';

const kit = await loadModeller();
const bounds = (mesh: Mesh) => boundsOf(mesh.positions);
type Wish = v.InferInput<typeof wishSchema>;
const build = (mesh: Mesh, wish: Wish) => buildMold(kit, mesh, check(wishSchema, wish));
const start = (id: string) => sculpt(kit, (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec);
const brick = box(40, 20, 10);
/** 40 × 20 × 10 mm, falling to nothing at the tail. */
const WEDGE =
  'v 0 0 0\nv 40 0 0\nv 40 20 0\nv 0 20 0\nv 0 0 10\nv 0 20 10\nf 1 4 3 2\nf 1 2 5\nf 4 6 3\nf 2 3 6 5\nf 1 5 6 4\n';
const BRICK: Wish = { kind: 'machined', count: 2, direction: [0, 0, 1], planeMm: 0, shrinkFraction: 0 };

const part = (mold: BuiltMold, name: string) => {
  const found = mold.parts.find((one) => one.name === name);
  if (!found) throw new Error(`no ${name}`);
  return found;
};
const blockMl = ({ blockMm: [x, y, z] }: BuiltMold) => (x * y * z) / 1000;

/** What two parts of a closed mold share, mL. */
function overlapMl(one: Mesh, two: Mesh): number {
  const solids = new Solids(kit);
  try {
    return solids.keep(kit.Manifold.intersection([solids.solid(one), solids.solid(two)])).volume() / 1000;
  } finally {
    solids.clear();
  }
}

describe('a brick of 40 × 20 × 10 mm, by hand', () => {
  test('block, cavity and halves of two cavities', () => {
    const mold = build(brick, BRICK);
    // Along: 16.65 before the runner's middle (a sprue of 6, 1.5 of wall, a socket of 3.15, and 6 from its middle to the edge), 4 + 6 to the nose, 40, wall 10. Across: 14 for the sprue's cone, 20 + 6 + 20, 10.
    expect(mold.blockMm.map((mm) => Number(mm.toFixed(6)))).toEqual([76.65, 70, 30]);
    expect(mold.halfMm).toEqual([15, 15]);
    // From the corner: noses 26.65 along (16.65 + 10), at 24 and 50 across (14 + 10, and 26 on); the runner at 16.65.
    expect(mold.layout.noses).toEqual([
      { x: expect.closeTo(26.65, 6), y: expect.closeTo(24, 6), tail: 'right' },
      { x: expect.closeTo(26.65, 6), y: expect.closeTo(50, 6), tail: 'right' },
    ]);
    expect(mold.layout.runner?.x).toBeCloseTo(16.65, 6);
    expect(mold.layout.pins[0]).toEqual({ x: 6, y: 6 });
    expect(mold.cavityMl).toBeCloseTo(8, 6);
    expect(mold.undercutMm2).toBeCloseTo(0, 6);
    // Above the parting plane the upper half has all of the vents, sockets and pry slots; below, the pins.
    const lower = part(mold, 'lower half').volumeMl;
    const pins = (4 * Math.PI * 9 * 5) / 1000;
    expect(lower - pins).toBeCloseTo(76.65 * 70 * 15 * 1e-3 - 8 - mold.channelsMl / 2, 1);
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
      / 6\.7 mm more than the stock is long/,
    ],
    ['pins in a thin wall', brick, { ...BRICK, wallMm: 5 }, 'pins-overlap', /a wall of 9\.3 mm/],
    ['a sprue as thick as the block', brick, { ...BRICK, sprueMm: 40 }, 'breaks-through', /28 mm is the most/],
    ['a parting plane over the bait', brick, { ...BRICK, planeMm: 30 }, 'gate-misses', /another pull or plane/],
    ['a rod without a bore', brick, { ...BRICK, coreRodMm: 6 }, 'no-bore', /bore/],
    ['a print of thin walls', brick, { ...BRICK, kind: 'printed', gapMm: 1 }, 'wall-too-thin', /1\.5 mm is the least/],
    ['four pieces round two cavities', brick, { ...BRICK, pieces: 4 }, 'invalid-input', /make it one/],
    [
      'a slot past the tail',
      brick,
      { ...BRICK, wallMm: 14, hookSlot: { fromNoseMm: 35, lengthMm: 12, depthMm: 4 } },
      'does-not-fit',
      /past the tail/,
    ],
    [
      'a slot in a thin half',
      brick,
      { ...BRICK, hookSlot: { fromNoseMm: 10, lengthMm: 12, depthMm: 6 } },
      'does-not-fit',
      /a wall of 11 mm/,
    ],
    [
      'a vent into a pin',
      box(40, 4, 10),
      { ...BRICK, count: 1, wallMm: 9.5, ventMm: 6, sprueMm: 1, runnerMm: 1, gateMm: 1 },
      'breaks-through',
      /1\.7 mm at most/,
    ],
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

test('every blind end has a vent of its own: the tail’s fork, each claw, each leg', () => {
  const { vents } = build(start('claws'), { kind: 'printed', count: 1 });
  const at = (kind: string) =>
    vents.filter((vent) => vent.kind === kind).map(({ atMm: [x, y] }) => [Math.round(x), Math.round(y)]);
  // 1.5 % larger: claws at 63.1 and ±15.4, the tail between them at 57.
  expect(at('groove').sort((a, b) => (a[1] as number) - (b[1] as number))).toEqual([
    [64, -16],
    [58, 0],
    [64, 16],
  ]);
  // Three legs a side, under the seam.
  expect(
    at('hole')
      .map(([, y]) => Math.sign(y as number))
      .sort(),
  ).toEqual([-1, -1, -1, 1, 1, 1]);
});

test('a tube on a core rod has no bore in its halves, and a rod of its own', () => {
  const mold = build(start('tube'), { kind: 'machined', count: 2, coreRodMm: 8.6 });
  expect(mold.parts.map((one) => one.name)).toEqual(['lower half', 'upper half', 'core rod']);
  expect(mold.notes.join()).not.toMatch(/leaves a step/);
  // 8.6 mm across: with the bore's length of about 70 mm, 10 mm of wall and 20 mm to hold.
  expect(measure(part(mold, 'core rod').mesh).sizeMm[1]).toBeCloseTo(8.6, 1);
  // What is cast is the tube, larger for shrinking, on a bore that is as wide as the rod.
  const grown = (measure(start('tube')).volumeMl ?? 0) * 1.015 ** 3;
  expect(mold.cavityMl / grown).toBeGreaterThan(1);
  expect(mold.cavityMl / grown).toBeLessThan(1.08);
});

/** All that the block is made of, over the block; and every part closed, as a file too, none in another's way. */
function holdsTogether(mold: BuiltMold, count: number): void {
  const solids = mold.parts.filter((one) => !/rod|electrode/.test(one.name));
  const inserts = solids.filter((one) => one.name === 'slot insert');
  const sum =
    solids.reduce((total, one) => total + one.volumeMl * (one.count ?? 1), 0) +
    count * mold.cavityMl +
    mold.channelsMl +
    mold.ventsMl +
    mold.clearanceMl;
  expect(Math.abs(sum / blockMl(mold) - 1)).toBeLessThan(1e-3);
  expect(measure(mold.casting).volumeMl).toBeCloseTo(count * mold.cavityMl + mold.channelsMl, 3);
  const pairs = solids.flatMap((one, i) => solids.slice(i + 1).map((other) => [one, other] as const));
  for (const [one, other] of pairs) expect(overlapMl(one.mesh, other.mesh)).toBeLessThan(1e-3);
  // No half reaches past the seam by more than its pins.
  for (const { name, mesh } of solids) {
    const { min, max } = bounds(mesh);
    if (name.startsWith('lower')) expect(max[2]).toBeLessThan(mold.seamMm.high + 5.01);
    if (name.startsWith('upper')) expect(min[2]).toBeGreaterThan(mold.seamMm.low - 0.01);
  }
  for (const insert of inserts) expect(insert.volumeMl).toBeGreaterThan(0);
  for (const { mesh, volumeMl } of mold.parts) {
    const { mesh: read, collapsed } = weld(readMesh(writeStl(mesh)).places);
    expect(measure(read, collapsed)).toMatchObject({ openEdges: 0, watertight: true, flipped: false });
    expect((measure(read).volumeMl ?? 0) / volumeMl).toBeCloseTo(1, 3);
  }
}

test('block = parts + cavities + channels + vents + clearance; closed, nothing overlaps; all of it is watertight, as a file too', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...STARTS.map((one) => one.id).filter((id) => id !== 'tube')),
      fc.integer({ min: 1, max: 5 }),
      fc.record({
        kind: fc.constantFrom('printed' as const, 'machined' as const),
        layout: fc.constantFrom('one-side' as const, 'both-sides' as const),
        split: fc.constantFrom('flat' as const, 'wavy' as const),
        wallMm: fc.double({ min: 9.5, max: 20, noNaN: true }),
        gapMm: fc.double({ min: 3, max: 12, noNaN: true }),
        gateMm: fc.double({ min: 2, max: 5, noNaN: true }),
        runnerMm: fc.double({ min: 5, max: 10, noNaN: true }),
        ventMm: fc.constantFrom(0, 0.8, 1.5),
      }),
      (id, count, wish) => holdsTogether(build(start(id), { ...wish, count }), count),
    ),
    { numRuns: 6, seed: 5, endOnFailure: true },
  );
}, 120_000);

describe('more than two plain halves', () => {
  test('four pieces of one cavity hold together, and free what slides off sideways', () => {
    const wish: Wish = { kind: 'printed', count: 1, pieces: 4, wallMm: 16, direction: [0, 0, 1] };
    const mold = build(start('stick'), wish);
    expect(mold.parts.map((one) => one.name)).toEqual(['lower left', 'lower right', 'upper left', 'upper right']);
    holdsTogether(mold, 1);
    const two = build(start('stick'), { ...wish, pieces: 2 });
    expect(mold.undercutMm2).toBeLessThanOrEqual(two.undercutMm2 + 1e-6);
  });

  test('a slot insert takes a slot’s plastic, fits its hole, and turned over casts none', () => {
    const hookSlot = { fromNoseMm: 10, lengthMm: 12, depthMm: 4, widthMm: 2 };
    const wish: Wish = { ...BRICK, wallMm: 14, hookSlot };
    const mold = build(brick, wish);
    // The blade of 12 × 2 stands 4 mm into the brick: 96 mm³ less a bait.
    expect(mold.cavityMl).toBeCloseTo(8 - 0.096, 6);
    holdsTogether(mold, 2);
    const insert = part(mold, 'slot insert');
    expect(insert.count).toBe(2);
    // Turned over about its length it lies in the same hole with the belly's plain skin up.
    const { min, max } = bounds(insert.mesh);
    // From a millimetre over the block's floor plus the blade's room, to the belly and the blade over it.
    expect(min[2]).toBeCloseTo(-19 + 4 + 1, 5);
    expect(max[2]).toBeCloseTo(-5 + 4, 5);
  });

  test('electrodes are the cavity less the gap all round, on plates with the same two holes', () => {
    const mold = build(brick, { ...BRICK, count: 1, sparkGapMm: 0.2 });
    const [lower, upper] = [part(mold, 'lower electrode'), part(mold, 'upper electrode')];
    const size = (mesh: Mesh) => measure(mesh).sizeMm;
    // Plate: 40 + 24 by 20 + 24, 10 thick, two holes of 6; 3 off the face, and 4.8 into each half.
    expect(size(lower.mesh)[0]).toBeCloseTo(64, 5);
    expect(size(lower.mesh)[2]).toBeCloseTo(13 + 4.8, 4);
    const holes = 2 * 10 * 16 * 9 * Math.sin(Math.PI / 16);
    expect(lower.volumeMl).toBeCloseTo((64 * 44 * 10 - holes + 7.8 * 39.6 * 19.6) / 1000, 3);
    expect(lower.volumeMl).toBeCloseTo(upper.volumeMl, 6);
    expect(measure(lower.mesh)).toMatchObject({ watertight: true });
  });

  test('a wavy seam follows the widest edge, and nothing is caught that a flat one would catch', () => {
    // A bar that bends up and down along its length: its widest edge is at half its height, wherever that runs.
    const bent = moved(sphere(1, 12_000), ([x, y, z]) => [50 * x, 10 * y, 7 * z + 5 * Math.sin(2 * x)]);
    const wish: Wish = { kind: 'printed', count: 1, direction: [0, 0, 1] };
    const [flat, wavy] = [build(bent, wish), build(bent, { ...wish, split: 'wavy' })];
    expect(flat.undercutMm2).toBeGreaterThan(200);
    expect(wavy.undercutMm2).toBeLessThan(flat.undercutMm2 / 6);
    expect(wavy.seamMm.high - wavy.seamMm.low).toBeGreaterThan(6);
    holdsTogether(wavy, 1);
  });

  test('what two halves do not free lies in the half that is said, and where', () => {
    // Parted 3 mm over its middle, the lower half reaches over the ball’s widest place.
    const ball = sphere(10, 60_000);
    const mold = build(ball, { kind: 'printed', count: 1, direction: [0, 0, 1], planeMm: 3, shrinkFraction: 0 });
    // The zone between 0 and 3 mm over the middle: 2πrh.
    expect(mold.caughtMm2.lower / (2 * Math.PI * 10 * 3)).toBeCloseTo(1, 1);
    expect(mold.caughtMm2.upper).toBeLessThan(2);
    for (const [, , z] of mold.caughtAtMm) expect(z > -0.6 && z < 3.6).toBe(true);
  });
});

test('the thinnest wall is told, and clamps go on opposite corners first', () => {
  const mold = build(brick, { ...BRICK, gapMm: 1.6 });
  expect(mold.thinnestWall).toEqual({ mm: 1.6, where: 'between cavities' });
  const [first, second] = mold.layout.clamps;
  expect(first).toEqual({ x: 12, y: 0 });
  expect(second).toEqual({ x: mold.blockMm[0] - 12, y: mold.blockMm[1] });
  // Pins 6 mm in from both sides of a wall of 9.5: √2 · 3.5 − 3.15 to the brick’s corner, less than the 1.85 outside the odd one.
  expect(build(brick, { ...BRICK, count: 1, wallMm: 9.5 }).thinnestWall).toMatchObject({
    where: 'between a pin and a cavity',
  });
});

test('as a calculator it tells what printing takes, and takes vents said in either way', async () => {
  const figures = async (more: object) =>
    buildFigures(
      check(buildSchema, { mesh: { text: WEDGE }, kind: 'printed', count: 1, direction: [0, 0, 1], ...more }),
    );
  const [plain, none, wide] = [
    await figures({}),
    await figures({ vents: false }),
    await figures({ vents: { diameterMm: 2 } }),
  ];
  expect([plain.vents.length > 0, none.vents, none.ventsMl]).toEqual([true, [], 0]);
  expect(wide.ventsMl / plain.ventsMl).toBeCloseTo(2, 1);
  const solidMl = plain.pieces.reduce((sum, one) => sum + one.volumeMl, 0);
  expect(plain.print?.plasticMl).toBeLessThan(solidMl);
  expect(plain.print?.plasticMl).toBeGreaterThan(solidMl / 4);
  expect((await figures({ kind: 'machined' })).print).toBeUndefined();
});
