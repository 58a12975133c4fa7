import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Columns } from './columns.ts';
import { moved, unit, type Vec3 } from './mesh.ts';
import { Rays } from './rays.ts';
import { box, ellipsoid, torus } from './testing.ts';

const SHAPES = {
  box: box(40, 20, 10),
  torus: torus(20, 6, 3000),
  egg: moved(ellipsoid(30, 9, 7, 4000), ([x, y, z]) => [x, y, z + 4 * Math.sin(x / 9)] as Vec3),
};

test('what a straight way meets is the same in columns as by rays', () => {
  const part = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(SHAPES) as (keyof typeof SHAPES)[])),
      fc.tuple(part, part, part).filter((d) => Math.hypot(...d) > 0.1),
      fc.array(fc.tuple(part, part, part), { minLength: 30, maxLength: 30 }),
      (name, way, places) => {
        const mesh = SHAPES[name];
        const direction = unit(way as Vec3);
        const [columns, rays] = [new Columns(mesh, direction), new Rays(mesh)];
        for (const [x, y, z] of places) {
          const at: Vec3 = [34 * x, 28 * y, 12 * z];
          for (const sign of [1, -1] as const) {
            const along = direction.map((one) => sign * one) as Vec3;
            expect(columns.blocked(at, sign)).toBe(rays.first(at, along, false) !== undefined);
          }
        }
      },
    ),
    { numRuns: 40, seed: 3 },
  );
});

test('beside a brick nothing is met, over it only downward', () => {
  const columns = new Columns(box(40, 20, 10), [0, 0, 1]);
  expect([columns.blocked([0.1, 0.2, 9], -1), columns.blocked([0.1, 0.2, 9], 1)]).toEqual([true, false]);
  expect([columns.blocked([21, 0, 0], 1), columns.blocked([0, -11, 0], -1)]).toEqual([false, false]);
});
