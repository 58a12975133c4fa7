// What a maker prints or hands to a shop: the exported files alone, read by code that did not write them.
import { strFromU8, unzipSync } from 'fflate';
import type { Manifold } from 'manifold-3d';
import type * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { loadModeller, sculpt } from '../shape/sculpt.ts';
import { STARTS } from '../shape/starts.ts';
import { write3mf, writeStl } from '../shape/write.ts';
import { check } from '../validate.ts';
import { type BuiltMold, buildMold } from './build.ts';
import { wishSchema } from './buildWish.ts';
import { type Read, readStl, solidOf, soundness } from './testing.ts';

const kit = await loadModeller();
const start = (id: string) => sculpt(kit, (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec);

const solid = (file: Read): Manifold => solidOf(kit, file);
const exported = (mold: BuiltMold) =>
  new Map(mold.parts.map((one) => [one.name, readStl(writeStl(one.mesh))] as const));
const ml = (one: Manifold) => one.volume() / 1000;
const spaces = (one: Manifold) => one.decompose().filter((space) => space.volume() > 0.05);

type Wish = v.InferInput<typeof wishSchema>;
const build = (id: string, wish: Wish) => buildMold(kit, start(id), check(wishSchema, wish));

const MOLDS: [string, string, Wish][] = [
  ['one', 'paddle', { kind: 'printed', count: 1 }],
  ['two', 'paddle', { kind: 'printed', count: 2 }],
  ['four', 'paddle', { kind: 'machined', count: 4 }],
  ['one slim', 'ribbon', { kind: 'printed', count: 1 }],
  ['two slim', 'ribbon', { kind: 'printed', count: 2 }],
  ['one with claws and legs', 'claws', { kind: 'printed', count: 1 }],
  ['two tubes on rods', 'tube', { kind: 'machined', count: 2, coreRodMm: 8.6 }],
  ['one tube on a rod', 'tube', { kind: 'printed', count: 1, coreRodMm: 8.6 }],
];

describe.each(MOLDS)('%s: %s', (_name, id, wish) => {
  const mold = build(id, wish);
  const files = exported(mold);
  const half = (name: 'lower half' | 'upper half') => solid(files.get(name) as Read);

  test('each file is closed, and one piece: no slivers lie about in it', () => {
    for (const [name, file] of files)
      expect([name, soundness(file)]).toEqual([name, { open: 0, collapsed: 0, shells: 1 }]);
  });

  test('closed, the halves do not meet, and what they leave free hangs together, is as much as is said, and opens into no pin', () => {
    const [lower, upper] = [half('lower half'), half('upper half')];
    expect(ml(lower.intersect(upper))).toBeLessThan(0.002);
    const { min, max } = lower.add(upper).boundingBox();
    const box = kit.Manifold.cube([max[0] - min[0], max[1] - min[1], max[2] - min[2]]).translate(min);
    const free = box.subtract(lower.add(upper));
    // Cavities, channels and vents are one space.
    const largest = Math.max(...free.decompose().map(ml));
    expect(largest).toBeGreaterThan((mold.cavityMl * wish.count + mold.channelsMl + mold.ventsMl) * 0.999);
    // Round each socket stands a wall: a channel that broke into it would be free there.
    const { diameterMm, clearanceMm } = check(wishSchema, wish).pins;
    const socket = diameterMm / 2 + clearanceMm;
    for (const { x, y } of mold.layout.pins) {
      const wall = kit.Manifold.cylinder(4.5, socket + 1, socket + 1, 64)
        .subtract(kit.Manifold.cylinder(4.5, socket + 0.03, socket + 0.03, 64))
        .translate([x + min[0], y + min[1], 0.2]);
      expect(wall.intersect(free).volume()).toBeLessThan(0.01);
    }
    // Where rods stand, their own room is free too.
    const stated = mold.cavityMl * wish.count + mold.channelsMl + mold.ventsMl + mold.clearanceMl;
    if (wish.coreRodMm === undefined) expect(stated / ml(free)).toBeCloseTo(1, 3);
    else expect(stated).toBeLessThan(ml(free));
  });
});

test('a tube on a rod: what comes out is the bait, and its vent lies beside the rod', () => {
  const mold = build('tube', { kind: 'machined', count: 2, coreRodMm: 8.6 });
  const bait = solid(readStl(writeStl(start('tube'))));
  // Larger by 1.5 % each way; the bore is as wide as the rod, which does not grow with it.
  const grown = ml(bait) * 1.015 ** 3;
  expect(mold.cavityMl).toBeGreaterThan(grown);
  expect(mold.cavityMl).toBeLessThan(grown * 1.08);
  const casting = solid(readStl(writeStl(mold.casting)));
  expect(ml(casting)).toBeCloseTo(2 * mold.cavityMl + mold.channelsMl, 1);
  const groove = mold.vents.find((vent) => vent.kind === 'groove');
  expect(Math.abs(groove?.atMm[1] ?? 0)).toBeGreaterThan(8.6 / 2);
});

test('all parts in one 3MF: each by its name, as often as the mold takes it, beside each other on the plate', () => {
  const mold = build('tube', { kind: 'printed', count: 2, coreRodMm: 8.6 });
  const model = strFromU8(unzipSync(write3mf(mold.parts))['3D/3dmodel.model'] as Uint8Array);
  const objects = [...model.matchAll(/<object id="(\d+)" type="model" name="([^"]+)">(.*?)<\/object>/gs)];
  expect(objects.map(([, id, name]) => [id, name])).toEqual([
    ['1', 'lower half'],
    ['2', 'upper half'],
    ['3', 'core rod'],
  ]);
  const corners = objects.map(([, , , mesh]) =>
    [...(mesh as string).matchAll(/<vertex x="([^"]+)" y="([^"]+)" z="([^"]+)"/g)].map(([, ...at]) => at.map(Number)),
  );
  const items = [...model.matchAll(/<item objectid="(\d)" transform="1 0 0 0 1 0 0 0 1 ([^"]+)"/g)];
  expect(items.map(([, id]) => id)).toEqual(['1', '2', '3', '3']);
  let until = Number.NEGATIVE_INFINITY;
  for (const [, id, by] of items) {
    const [x = 0, , z = 0] = (by as string).split(' ').map(Number);
    const mine = corners[Number(id) - 1] as number[][];
    const along = mine.map((at) => (at[0] as number) + x);
    expect(Math.min(...along)).toBeGreaterThan(until);
    until = Math.max(...along);
    expect(Math.min(...mine.map((at) => (at[2] as number) + z))).toBeCloseTo(0, 4);
  }
});

describe.each<[string, Wish]>([
  ['one', { kind: 'silicone-box', count: 1 }],
  ['two', { kind: 'silicone-box', count: 2 }],
  ['three', { kind: 'silicone-box', count: 3 }],
  ['four', { kind: 'silicone-box', count: 4 }],
  ['two in a thin wall', { kind: 'silicone-box', count: 2, wallMm: 4 }],
])('boxes to cast %s in', (_name, wish) => {
  const mold = build('paddle', { ...wish, direction: [0, 1, 0] });
  const files = exported(mold);

  test('are closed', () => {
    for (const [name, file] of files)
      expect([name, soundness(file)]).toEqual([name, { open: 0, collapsed: 0, shells: 1 }]);
    expect([...files.keys()]).toEqual(['upper box', 'lower box']);
  });

  test('give halves of rubber that meet: nothing lies in the other, and between them is the casting', () => {
    const cast = (name: 'upper box' | 'lower box') => {
      const box = solid(files.get(name) as Read);
      const { min, max } = box.boundingBox();
      // Filled to the brim inside its sides of 3 mm, dents under the floor included.
      const inside = kit.Manifold.cube([max[0] - min[0] - 6, max[1] - min[1] - 6, max[2] + 3]).translate([
        min[0] + 3,
        min[1] + 3,
        -3,
      ]);
      const rubber = inside.subtract(box);
      // Under the floor's face is rubber only in a dent; what is cut off below the floor is none.
      return rubber.trimByPlane([0, 0, 1], -2.5);
    };
    const upper = cast('upper box');
    const lower = cast('lower box').rotate([180, 0, 0]);
    expect(ml(upper.intersect(lower))).toBeLessThan(0.01);
    const { min, max } = upper.add(lower).boundingBox();
    const block = kit.Manifold.cube([max[0] - min[0], max[1] - min[1], max[2] - min[2]]).translate(min);
    const free = block.subtract(upper.add(lower));
    expect(ml(free)).toBeCloseTo(mold.cavityMl * wish.count + mold.channelsMl, 1);
    expect(spaces(free)).toHaveLength(1);
  });
});
