// What a maker decides about a mold, and what the exported parts then are.
import type { Manifold } from 'manifold-3d';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { measure } from '../shape/measure.ts';
import { loadModeller, sculpt } from '../shape/sculpt.ts';
import type { ShapeSpec } from '../shape/spec.ts';
import { STARTS } from '../shape/starts.ts';
import { cutterFor, cutterOf, toolReach } from '../shape/toolReach.ts';
import { stood } from '../shape/turn.ts';
import { writeStl } from '../shape/write.ts';
import { check } from '../validate.ts';
import { stubSpec } from '../water/ladder.ts';
import { type BuiltMold, buildMold } from './build.ts';
import { wishSchema } from './buildWish.ts';
import { SCREW_MM } from './slot.ts';
import { SPARK_LEAVE_MM, sparkPlan } from './spark.ts';
import { readStl, solidOf } from './testing.ts';
import { baitWithout } from './without.ts';

const kit = await loadModeller();
const spec = (id: string) => (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec;
const PLAIN: ShapeSpec = { ...spec('paddle'), bellySlot: null, eyes: null };
const paddle = sculpt(kit, PLAIN, 'draft');
const tube = sculpt(kit, spec('tube'), 'draft');
type Wish = v.InferInput<typeof wishSchema>;
const build = (mesh: typeof paddle, wish: Wish) => buildMold(kit, mesh, check(wishSchema, wish));
const refusal = (code: string, path: string) => expect.objectContaining({ code, path }) as Failure;

const partOf = (mold: BuiltMold, name: string): Manifold => {
  const part = mold.parts.find((one) => one.name === name);
  if (!part) throw new Error(`no ${name}`);
  return solidOf(kit, readStl(writeStl(part.mesh)));
};
const ml = (one: Manifold) => one.volume() / 1000;
/** What both halves leave free in their block, mL. */
function freeIn(mold: BuiltMold): number {
  const both = partOf(mold, 'lower half').add(partOf(mold, 'upper half'));
  const { min, max } = both.boundingBox();
  return (max[0] - min[0]) * (max[1] - min[1]) * (max[2] - min[2]) * 1e-3 - ml(both);
}
const stated = (mold: BuiltMold, count: number) =>
  count * mold.cavityMl + mold.channelsMl + mold.ventsMl + mold.clearanceMl;

describe('a rod held at both ends', () => {
  const wish: Wish = { kind: 'machined', count: 2, coreRodMm: 8.6, rodHeld: 'both' };
  const mold = build(tube, wish);
  const rod = mold.parts.find((one) => one.name === 'core rod');

  test('is one piece, thick in the bore and thin through nose, gate and runner into the wall', () => {
    const mesh = rod?.mesh as NonNullable<typeof rod>['mesh'];
    const solid = partOf(mold, 'core rod');
    const across = (x: number) => {
      const slice = solid
        .trimByPlane([1, 0, 0], x)
        .trimByPlane([-1, 0, 0], -x - 0.1)
        .boundingBox();
      return slice.max[1] - slice.min[1];
    };
    expect([across(5), across(-5)]).toEqual([expect.closeTo(8.6, 1), expect.closeTo(2, 1)]);
    // Nose 0.14 × 62 mm and 1.5 %, a gate of 6, a runner of 8, 5 into the wall.
    expect(measure(mesh).boundsMm.min[0]).toBeCloseTo(-(0.14 * 62 * 1.015 + 6 + 8 + 5), 1);
  });

  test('what is free is the bait, the channels, their air and what the ways are wider; the rest is steel', () => {
    // Of each rod 20 mm stand out to be held.
    const steel = 2 * ((rod?.volumeMl ?? 0) - (16 * Math.sin(Math.PI / 16) * 4.3 ** 2 * 20) / 1000);
    expect((stated(mold, 2) + steel) / freeIn(mold)).toBeCloseTo(1, 2);
    const open = build(tube, { ...wish, rodHeld: 'tail' });
    // A hole of 2 mm through the nose, less 1.5 % of growing.
    const hole = (Math.PI * 0.14 * 62 * 1.015) / 1000;
    expect(open.cavityMl - mold.cavityMl).toBeGreaterThan(0.7 * hole);
    expect(open.cavityMl - mold.cavityMl).toBeLessThan(1.1 * hole);
  });

  test.each<[string, Wish, string]>([
    ['a single cavity', { ...wish, count: 1 }, 'rodHeld'],
    ['noses that face each other', { ...wish, count: 4, layout: 'both-sides' }, 'layout'],
    ['a pin that fills its gate', { ...wish, rodPinMm: 3 }, 'rodPinMm'],
    ['a bore that is left out', { kind: 'machined', count: 2, coreRodMm: 8.6, without: ['bore'] }, 'coreRodMm'],
  ])('%s is refused', (_, bad, path) => {
    expect(() => build(tube, bad)).toThrow(refusal('invalid-input', path));
  });
});

test('steel dowels: holes in both halves, as deep in each, and no pin on the lower', () => {
  const wish: Wish = { kind: 'machined', count: 1 };
  const [pinned, doweled] = [build(paddle, wish), build(paddle, { ...wish, pins: { dowels: true } })];
  expect([pinned.pinTallMm, doweled.pinTallMm]).toEqual([5, 0]);
  expect(partOf(pinned, 'lower half').boundingBox().max[2]).toBeCloseTo(5, 3);
  expect(partOf(doweled, 'lower half').boundingBox().max[2]).toBeCloseTo(0, 3);
  const dowel = doweled.parts.find((one) => one.name === 'dowel');
  expect([dowel?.count, measure(dowel?.mesh as NonNullable<typeof dowel>['mesh']).sizeMm[2]]).toEqual([4, 10]);
  expect((stated(doweled, 1) + 4 * (dowel?.volumeMl ?? 0)) / freeIn(doweled)).toBeCloseTo(1, 3);
});

describe('a hook slot by an insert', () => {
  const hookSlot = { fromNoseMm: 30, lengthMm: 20, depthMm: 4 };
  const wish: Wish = { kind: 'machined', count: 2, hookSlot, wallMm: 16 };

  test('a screw holds its flank: a way from the tail’s end, narrow at last, clear of the bait', () => {
    const mold = build(paddle, wish);
    expect(
      (stated(mold, 2) + 2 * (mold.parts.find((one) => one.name === 'slot insert')?.volumeMl ?? 0)) / freeIn(mold),
    ).toBeCloseTo(1, 3);
    const lower = partOf(mold, 'lower half');
    const { max } = lower.boundingBox();
    // The outermost slice along x shows the way's mouth in each cavity's line.
    const slice = kit.Manifold.cube([0.2, 200, 200], true).translate([max[0] - 0.2, 0, -20]);
    const mouth = ml(slice.intersect(lower.hull())) - ml(slice.intersect(lower));
    expect(mouth * 1000).toBeGreaterThan(2 * 0.2 * (SCREW_MM.access / 2) ** 2 * Math.PI * 0.9);
  });

  test('halves that part sideways are refused, and a bait that has a slot there', () => {
    expect(() => build(paddle, { ...wish, direction: [0, 1, 0] })).toThrow(refusal('invalid-input', 'hookSlot'));
    const slotted = sculpt(kit, { ...PLAIN, bellySlot: spec('paddle').bellySlot }, 'draft');
    expect(() => build(slotted, wish)).toThrow(refusal('does-not-fit', 'hookSlot'));
  });
});

describe('vents by hand', () => {
  test('stand where they are set, instead of those that are worked out', () => {
    const at = { kind: 'hole' as const, fromNoseMm: 40, asideMm: 3 };
    const mold = build(paddle, { kind: 'printed', count: 1, ventsAt: [at] });
    expect(mold.ventsFrom).toEqual([
      { kind: 'hole', fromNoseMm: expect.closeTo(40, 1), asideMm: expect.closeTo(3, 1) },
    ]);
    expect(stated(mold, 1) / freeIn(mold)).toBeCloseTo(1, 3);
  });

  test('those that were worked out can be taken over as they are, also at thin tips', () => {
    for (const id of ['ribbon', 'claws', 'crayfish']) {
      const mesh = sculpt(kit, spec(id), 'draft');
      const mold = build(mesh, { kind: 'printed', count: 1 });
      const again = build(mesh, {
        kind: 'printed',
        count: 1,
        ventsAt: mold.ventsFrom.map((one) => ({ ...one, fromNoseMm: Math.max(0, one.fromNoseMm) })),
      });
      expect([id, again.vents.length]).toEqual([id, mold.vents.length]);
    }
  });

  test('one beside the bait is refused by its number', () => {
    const ventsAt = [{ kind: 'hole' as const, fromNoseMm: 40, asideMm: 60 }];
    expect(() => build(paddle, { kind: 'printed', count: 1, ventsAt })).toThrow(refusal('does-not-fit', 'ventsAt.0'));
  });
});

test('bore and slots can be left out: what is cast is the bait without them', () => {
  const whole = (mesh: typeof paddle) => measure(mesh).volumeMl as number;
  const noBore = sculpt(kit, { ...spec('tube'), bore: null });
  // From the spec exactly; of a mesh as its own bore shows.
  expect(whole(baitWithout(kit, tube, spec('tube'), ['bore']))).toBeCloseTo(whole(noBore), 6);
  expect(whole(baitWithout(kit, tube, null, ['bore'])) / whole(noBore)).toBeCloseTo(1, 1);
  expect(whole(baitWithout(kit, paddle, spec('paddle'), ['slots']))).toBeCloseTo(
    whole(sculpt(kit, { ...spec('paddle'), bellySlot: null })),
    6,
  );
  expect(() => baitWithout(kit, paddle, null, ['slots'])).toThrow(refusal('not-applicable', 'without'));
});

test('two pairs of electrodes, each smaller by what the stops reckon with; the depth is the built half’s', () => {
  const mold = build(paddle, { kind: 'machined', count: 1, sparkGapMm: 0.05, sparkRoughGapMm: 0.2 });
  const burnt = (name: string) => {
    // Over the mold's face stands what burns; the plate is on the other side.
    const { max, min } = partOf(mold, name).trimByPlane([0, 0, 1], 0).boundingBox();
    return { high: max[2], long: max[0] - min[0] };
  };
  const [fine, rough] = [burnt('upper electrode'), burnt('upper roughing electrode')];
  const depth = mold.depthMm[1];
  const [first, last] = sparkPlan(depth, { gapMm: 0.2, amps: 18 }, { gapMm: 0.05, amps: 3 });
  expect(SPARK_LEAVE_MM).toBe(0.1);
  expect(depth - fine.high).toBeCloseTo(last?.undersizeMm as number, 2);
  expect(depth - rough.high).toBeCloseTo(first?.undersizeMm as number, 2);
  expect(fine.long - rough.long).toBeCloseTo(2 * 0.25, 1);
});

test('bench and builder ask for the same cutter of a tube: with a rod in its bore', () => {
  const mold = build(tube, { kind: 'machined', count: 1, coreRodMm: 8.6 });
  const builder = cutterFor(mold.cavity, [0, 0, 1], 0);
  const bench = cutterFor(baitWithout(kit, tube, null, ['bore']), mold.direction, mold.planeMm);
  expect(bench.largestBallMm).toBe(builder.largestBallMm);
  // The worse of the two halves decides.
  const halves = [toolReach(paddle, [0, 0, 1], 3, 0), toolReach(paddle, [0, 0, -1], 3, 0)];
  expect(cutterOf(halves).leftoverMm).toBe(Math.max(...halves.map((half) => half.greatestMm)));
});

test('a very wide shape is judged all the same, from which ball on is said; a smaller one is refused in words', () => {
  const wide = stood(paddle, { x: 0, y: 0, z: 0 }, 9);
  const found = toolReach(wide, [0, 0, 1], 12, 0);
  expect(found.knownFromMm).toBeGreaterThan(0.5);
  expect(found.greatestMm).toBeGreaterThanOrEqual(0);
  expect(() => toolReach(wide, [0, 0, 1], 0.5, 0)).toThrow(refusal('too-large', 'ballMm'));
});

test('a mold round an askew bait says so; ladder stubs stand on their bellies', () => {
  const steps = {
    wristThicknessMm: 3,
    wristHeightMm: 6,
    wristLengthMm: 12,
    paddleDiameterMm: 18,
    paddleThicknessMm: 4,
  };
  const { boundsMm } = measure(sculpt(kit, stubSpec(steps)));
  // The paddle's rim is 9 under the axis.
  expect(boundsMm.min[2]).toBeLessThan(-9.5);
  const askew = stood(paddle, { x: 0, y: 0, z: 35 }, 1);
  expect(build(askew, { kind: 'printed', count: 1 }).notes.join()).toMatch(/askew/);
  expect(build(paddle, { kind: 'printed', count: 1 }).notes.join()).not.toMatch(/askew/);
});
