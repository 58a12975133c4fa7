import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Failure } from '../failure.ts';
import { level, sharesBelow } from './level.ts';
import { measure } from './measure.ts';
import { type Mesh, moved, type Vec3 } from './mesh.ts';
import { loadModeller, sculpt } from './sculpt.ts';
import { STARTS } from './starts.ts';
import { box, cone, sphere, torus } from './testing.ts';

const UP: Vec3 = [0, 0, 1];
const shifted = (mesh: Mesh) => moved(mesh, ([x, y, z]) => [x + 13, y - 40, z + 7]);

describe('how much fills it to here', () => {
  test.each<[string, Mesh, Vec3, number, number, number]>([
    ['a box of 40 × 20 × 10 to 3 mm', box(40, 20, 10), UP, 3, 2.4, 6],
    ['on its end to 15', box(40, 20, 10), [1, 0, 0], 15, 3, 6],
    ['turned over it is the same', box(40, 20, 10), [0, 0, -1], 3, 2.4, 6],
    // A cap of h: πh²(3r − h)/3; half a ball: ⅔πr³.
    ['a ball of 10 to 4', sphere(10, 80_000), UP, 4, (Math.PI * 16 * 26) / 3 / 1000, 2],
    ['to its middle', sphere(10, 80_000), UP, 10, (2 * Math.PI * 1000) / 3 / 1000, 2],
    // What lies below h of a cone on its foot: the whole less the similar one above.
    ['a cone of 6 by 12 to 3', cone(6, 12, 4000), [0, 1, 0], 3, ((Math.PI * 36 * 12) / 3 / 1000) * (1 - 0.75 ** 3), 2],
    // Half of a ring, whichever way it lies: π²·R·r².
    ['a ring to its middle', torus(8, 2, 40_000), UP, 2, (Math.PI ** 2 * 8 * 4) / 1000, 2],
    ['and standing', torus(8, 2, 40_000), [1, 0, 0], 10, (Math.PI ** 2 * 8 * 4) / 1000, 2],
  ])('%s', (_what, mesh, up, heightMm, ml, places) => {
    expect(level(mesh, up, { heightMm }).ml / ml).toBeCloseTo(1, places);
    // Where it stands in the room changes nothing.
    expect(level(shifted(mesh), up, { heightMm }).ml / ml).toBeCloseTo(1, places);
  });

  test('nothing to nothing, all of it to the top', () => {
    expect(level(box(40, 20, 10), UP, { heightMm: 0 })).toEqual({ heightMm: 0, ml: 0 });
    expect(level(box(40, 20, 10), UP, { heightMm: 10 }).ml).toBeCloseTo(8, 9);
  });

  test.each([
    [{ heightMm: -0.1 }, 'heightMm'],
    [{ heightMm: 10.1 }, 'heightMm'],
    [{ volumeMl: -1 }, 'volumeMl'],
    [{ volumeMl: 8.1 }, 'volumeMl'],
  ])('%j is outside', (wish, path) => {
    try {
      level(box(40, 20, 10), UP, wish);
      expect.unreachable();
    } catch (error) {
      expect([(error as Failure).code, (error as Failure).path]).toEqual(['out-of-range', path]);
    }
  });
});

describe('of baits', () => {
  let baits: Mesh[];
  beforeAll(async () => {
    const kit = await loadModeller();
    baits = STARTS.slice(0, 4).map((start) => sculpt(kit, start.spec));
  });
  const way = fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))) as fc.Arbitrary<Vec3>;

  test('height and volume lead back to each other, and the whole is the whole', () => {
    fc.assert(
      fc.property(fc.nat(3), way, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (which, up, share) => {
        fc.pre(Math.hypot(...up) > 0.05);
        const mesh = baits[which] as Mesh;
        const whole = measure(mesh).volumeMl as number;
        const { heightMm } = level(mesh, up, { volumeMl: share * whole });
        expect(level(mesh, up, { heightMm }).ml / (share * whole)).toBeCloseTo(1, 6);
        // Filled from the other side, the rest is what is left.
        const tall = level(mesh, up, { volumeMl: whole }).heightMm;
        const down = up.map((value) => -value) as Vec3;
        expect(level(mesh, down, { heightMm: Math.max(0, tall - heightMm) }).ml / whole).toBeCloseTo(1 - share, 4);
      }),
      { numRuns: 12 },
    );
  });
});

describe('what of a solid lies under shares of its height', () => {
  test('of a ball, as its caps have it; wherever it lies, and in any order', () => {
    const cap = (f: number) => f * f * (3 - 2 * f);
    const { tallMm, shares } = sharesBelow(shifted(sphere(10, 80_000)), [0, -1, 0], [0.9, 0, 0.25, 1, 0.5]);
    expect(tallMm).toBeCloseTo(20, 2);
    [0.9, 0, 0.25, 1, 0.5].forEach((f, i) => {
      expect(shares[i]).toBeCloseTo(cap(f), 3);
    });
  });

  test('of any start it is what `level` says of the same height', async () => {
    const mesh = sculpt(await loadModeller(), STARTS[0]?.spec as (typeof STARTS)[number]['spec']);
    const { tallMm, shares } = sharesBelow(mesh, UP, [0.3, 0.7]);
    const whole = level(mesh, UP, { heightMm: tallMm }).ml;
    for (const [i, f] of [0.3, 0.7].entries())
      expect(shares[i]).toBeCloseTo(level(mesh, UP, { heightMm: f * tallMm }).ml / whole, 9);
  });
});
