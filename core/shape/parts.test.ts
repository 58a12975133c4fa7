// Parts of a shape that came after the first ones: each does to the solid what it says, by figures worked out by hand.
import { createHash } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { axisOf } from './axis.ts';
import { textureAt } from './body.ts';
import { measure } from './measure.ts';
import { loadModeller, sculpt } from './sculpt.ts';
import { meshOf, Solids } from './solids.ts';
import { type ShapeSpec, wholeSpec } from './spec.ts';
import { STARTS, startFor, USUAL_FIN, USUAL_TAIL } from './starts.ts';
import { box } from './testing.ts';

const kit = await loadModeller();
const start = (id: string) => (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec;

/** A round bar of 10 mm: 60 of body, 20 of wrist, a thin disc behind. */
const BAR: ShapeSpec = {
  ...start('stick'),
  bodyMm: 60,
  noseMm: 0,
  stations: [
    { at: 0, topMm: 5, bottomMm: 5, widthMm: 10 },
    { at: 0.5, topMm: 5, bottomMm: 5, widthMm: 10 },
  ],
  wrist: { thicknessMm: 10, heightMm: 10, lengthMm: 20 },
  tail: { kind: 'paddle', lengthMm: 1, acrossMm: 9, thicknessMm: 1, angleDeg: 0, strands: 10 },
};
const found = (spec: ShapeSpec) => measure(sculpt(kit, spec));
const ml = (spec: ShapeSpec) => found(spec).volumeMl as number;

/** How many pieces a plane square to the axis cuts a shape into at x, and their bounds there. */
function sliced(spec: ShapeSpec, x: number) {
  const solids = new Solids(kit);
  const thin = solids.keep(solids.solid(sculpt(kit, spec)).trimByPlane([1, 0, 0], x)).trimByPlane([-1, 0, 0], -x - 0.2);
  const pieces = thin.decompose().filter((one) => one.volume() > 1e-3);
  return pieces.map((one) => measure(meshOf(one)).boundsMm);
}

test('shapes that were kept before are the same to the last corner', () => {
  const seen = Object.fromEntries(
    ['paddle', 'ribbon', 'claws', 'tube', 'stick', 'curl'].map((id) => {
      // As an older program kept it: without what came since.
      const { fins, gills, mouth, texture, hollow, bends, brought, tail, ...kept } = start(id);
      const { strands, ...oldTail } = tail;
      const { positions, triangles } = sculpt(kit, wholeSpec({ ...kept, tail: oldTail } as ShapeSpec));
      const bytes = [positions.buffer, triangles.buffer].map((one) => new Uint8Array(one as ArrayBuffer));
      return [
        id,
        bytes
          .reduce((hash, one) => hash.update(one), createHash('sha256'))
          .digest('hex')
          .slice(0, 16),
      ];
    }),
  );
  expect(seen).toEqual({
    paddle: '4a0074cba85ecb77',
    ribbon: 'b0ed8b184fdfd60d',
    claws: 'e4ce40be9f119581',
    tube: '5516cec73b3da7f3',
    stick: '7d8cb26e4d89a508',
    curl: '3795016a304ee5c7',
  });
});

describe('a bent axis', () => {
  const bends = [{ fromAt: 0.25, toAt: 0.75, turnDeg: 60 }];

  test('lies on an arc: 15 straight, 30 through 60°, the rest straight down it', () => {
    const axis = axisOf({ bodyMm: 60, bends });
    const radius = 30 / (Math.PI / 3);
    const [x, z] = [15 + radius * Math.sin(Math.PI / 3), -radius * (1 - 0.5)];
    expect(axis.at(45).xMm).toBeCloseTo(x, 2);
    expect(axis.at(45).zMm).toBeCloseTo(z, 2);
    // 35 mm on: half of it forward, √3/2 of it down.
    expect(axis.at(80).xMm).toBeCloseTo(x + 17.5, 2);
    expect(axis.at(80).zMm).toBeCloseTo(z - 35 * Math.sqrt(0.75), 2);
  });

  test('keeps what it holds and how long it is; a place on it is found again', () => {
    // Pappus: what lies evenly round the axis keeps its volume.
    expect(ml({ ...BAR, bends }) / ml(BAR)).toBeCloseTo(1, 2);
    const axis = axisOf({ bodyMm: 60, bends });
    const [x, z] = axis.place(40, 4);
    const [along, over] = axis.from(40, x, z);
    expect([along, over]).toEqual([expect.closeTo(40, 6), expect.closeTo(4, 6)]);
    expect(axisOf({ bodyMm: 60, bends: [] }).place(33, 2)).toEqual([33, 2]);
  });

  test('one so tight that its inside would fold is refused in words', () => {
    const fold = { ...BAR, bends: [{ fromAt: 0.4, toAt: 0.5, turnDeg: 120 }] };
    // 6 mm of way through 120°: a radius of 2.9 mm, and the bar is 5 thick to each side.
    expect(() => sculpt(kit, fold)).toThrow(expect.objectContaining({ code: 'does-not-fit', path: 'bends' }));
  });

  test('the prawn’s back is bent: its tail lies lower than its belly', () => {
    const straight = found({ ...start('prawn'), bends: [] });
    const bent = found(start('prawn'));
    expect(bent.boundsMm.min[2]).toBeLessThan(straight.boundsMm.min[2] - 6);
    expect(bent.sizeMm[0]).toBeLessThan(straight.sizeMm[0]);
  });

  test('stretched to sizes that were measured it has them, bent as it is', () => {
    const { sizeMm } = found(startFor('shrimp', 55, 16, 22));
    expect([Math.abs(sizeMm[0] - 55) < 2.5, Math.abs(sizeMm[2] - 22) < 4]).toEqual([true, true]);
  });
});

describe('parts that are added', () => {
  test('a back fin swept back keeps its root and moves its tip', () => {
    const fin = { ...USUAL_FIN.back, fromAt: 0.3, toAt: 0.6, heightMm: 8, sweepMm: 0 };
    const tip = (sweepMm: number) => {
      const { positions } = sculpt(kit, { ...BAR, fins: [{ ...fin, sweepMm }] });
      let [x, z] = [0, 0];
      for (let i = 0; i < positions.length; i += 3)
        if ((positions[i + 2] as number) > z) [x, z] = [positions[i] as number, positions[i + 2] as number];
      return { x, z };
    };
    const [upright, swept] = [tip(0), tip(6)];
    expect(upright.z).toBeCloseTo(13, 1);
    expect(upright.x).toBeCloseTo(27, 0);
    expect(swept.x - upright.x).toBeCloseTo(6, 0);
  });

  test.each([
    ['belly', [-13, 5], [-5, 5]],
    ['sides', [-5, 5], [-13, 13]],
  ] as const)('fins at the %s stand where they are said to', (place, [low, high], [left, right]) => {
    const { boundsMm } = found({ ...BAR, fins: [{ ...USUAL_FIN[place], heightMm: 8, sweepMm: 0, upMm: 0 }] });
    expect([boundsMm.min[2], boundsMm.max[2]]).toEqual([expect.closeTo(low, 1), expect.closeTo(high, 1)]);
    expect([boundsMm.min[1], boundsMm.max[1]]).toEqual([expect.closeTo(left, 1), expect.closeTo(right, 1)]);
  });

  test('gill plates stand proud behind by what is said, and level in front', () => {
    const gills = { at: 0.3, acrossMm: 8, raiseMm: 0.8 };
    const wide = (x: number) => {
      const [bounds] = sliced({ ...BAR, gills }, x);
      return (bounds?.max[1] as number) - (bounds?.min[1] as number);
    };
    expect(wide(14.4)).toBeLessThan(10.3);
    // The slice ends at 21.8, 7.8 of 8 mm along: 97.5 % of 0.8 on each side.
    expect(wide(21.6)).toBeCloseTo(11.56, 2);
    expect(wide(22.6)).toBeCloseTo(10, 1);
  });

  test('open pincers leave room between their fingers; claws do not', () => {
    const limb = { pairs: 1, at: 0.5, stepMm: 0, lengthMm: 30, thicknessMm: 4, angleDeg: 90, dropDeg: 0 };
    const fingers = (kind: 'pincer' | 'claw') => {
      const solids = new Solids(kit);
      const whole = solids.solid(sculpt(kit, { ...BAR, limbs: [{ kind, ...limb }] }));
      // A thin slice of the right limb, 26 of its 30 mm out.
      const slice = solids.keep(whole.trimByPlane([0, 1, 0], 31)).trimByPlane([0, -1, 0], -31.3);
      return slice.decompose().filter((one) => one.volume() > 1e-3).length;
    };
    expect([fingers('pincer'), fingers('claw')]).toEqual([2, 1]);
  });

  test('a skirt has as many strands as it is told, a fork two lobes over each other, a boot its heel above and its toe below', () => {
    const tube = start('tube');
    const skirt = { ...tube, tail: { kind: 'skirt' as const, ...USUAL_TAIL.skirt, strands: 7 } };
    expect(sliced(skirt, tube.bodyMm + tube.wrist.lengthMm + 15)).toHaveLength(7);
    const fork = { ...BAR, tail: { kind: 'fork' as const, ...USUAL_TAIL.fork } };
    const lobes = sliced(fork, 98);
    expect(lobes).toHaveLength(2);
    expect(lobes.map(({ min, max }) => Math.sign((min[2] + max[2]) / 2)).sort()).toEqual([-1, 1]);
    const thin = { thicknessMm: 3, heightMm: 4, lengthMm: 12 };
    const boot = found({
      ...start('paddle'),
      eyes: null,
      wrist: thin,
      tail: { kind: 'heel', ...USUAL_TAIL.heel, lengthMm: 40, angleDeg: 0 },
    });
    // 28 % of 40 over the wrist, 72 % under it.
    expect(boot.boundsMm.max[2]).toBeCloseTo(11.2, 1);
    expect(boot.boundsMm.min[2]).toBeCloseTo(-28.8, 1);
  });
});

describe('parts that are cut', () => {
  test('a mouth is a wedge right across the head', () => {
    const mouth = { depthMm: 10, gapMm: 4, upMm: 0 };
    // From 4 high at −1 to a corner of 0.88 at 9.1: seen from the side, times the width of the bar there.
    const lost = (ml(BAR) - ml({ ...BAR, mouth })) * 1000;
    const high = (x: number) => 4 - ((x + 1) / 10.12) * (4 - 1.76);
    const strip = Array.from({ length: 9 }, (_, i) => high(i + 0.5)).reduce((sum, h) => sum + h * 10 * 0.985, 0);
    expect(lost / strip).toBeGreaterThan(0.97);
    expect(lost / strip).toBeLessThan(1.12);
  });

  test('a hollow leaves its wall all round, and takes its own room away', () => {
    const hollow = { skinMm: 2, fromAt: 0.1, toAt: 0.9 };
    const made = found({ ...BAR, hollow });
    expect([made.shells, made.voids]).toEqual([2, 1]);
    // A bar of 6 mm, 48 long, its ends rounded off.
    const room = (Math.PI * 9 * 48) / 1000;
    expect((ml(BAR) - (made.volumeMl as number)) / room).toBeGreaterThan(0.78);
    expect((ml(BAR) - (made.volumeMl as number)) / room).toBeLessThan(0.97);
    expect(() => sculpt(kit, { ...BAR, hollow: { ...hollow, skinMm: 4.9 } })).toThrow(
      expect.objectContaining({ code: 'does-not-fit' }) as Failure,
    );
  });

  test('scales lie like tiles: no deeper than said, half a scale aside from row to row, each higher behind', () => {
    const cut = textureAt({ kind: 'scales', sizeMm: 3, depthMm: 0.4, fromAt: 0, toAt: 1 }, 60, 30);
    const deep = Array.from({ length: 4000 }, (_, i) => cut(6 + (i % 40) * 0.6, (i * 0.137) % 1));
    expect(Math.max(...deep)).toBeLessThanOrEqual(0.4);
    expect(Math.min(...deep)).toBeGreaterThanOrEqual(0);
    // Ten scales round: along the middle of one, from its root to where the next row shows.
    expect(cut(30.1, 0.05)).toBeGreaterThan(cut(32.9, 0.05));
    // What a row has here the next has half a scale further.
    expect(cut(31, 0.02)).toBeCloseTo(cut(34, 0.07), 9);
    const textured = { ...BAR, texture: { kind: 'ridges' as const, sizeMm: 2, depthMm: 0.4, fromAt: 0, toAt: 1 } };
    // Rings: half of 0.4 in the mean, off a skin of 60 × 31.4 mm.
    expect((ml(BAR) - ml(textured)) / ((60 * 31.4 * 0.2) / 1000)).toBeCloseTo(0.96, 1);
  });
});

test('a brought mesh is joined, turned and scaled about its middle, or cut out; without it there is a sentence', () => {
  const brick = box(20, 4, 4);
  const meshes = new Map([['brick', brick]]);
  const brought = {
    meshId: 'brick',
    how: 'join' as const,
    scale: 2,
    turnDeg: { x: 0, y: 0, z: 90 },
    toMm: { x: 30, y: 0, z: 0 },
  };
  const joined = measure(sculpt(kit, { ...BAR, brought }, 'fine', meshes));
  // 40 long across the bar, 8 wide, 8 high.
  expect(joined.boundsMm.max[1]).toBeCloseTo(20, 3);
  const cut = measure(sculpt(kit, { ...BAR, brought: { ...brought, how: 'cut' } }, 'fine', meshes));
  // What is joined on and what is cut out are together the brick.
  expect(((joined.volumeMl as number) - (cut.volumeMl as number)) * 1000).toBeCloseTo(40 * 8 * 8, 0);
  expect(() => sculpt(kit, { ...BAR, brought })).toThrow(expect.objectContaining({ code: 'no-such-record' }));
});
