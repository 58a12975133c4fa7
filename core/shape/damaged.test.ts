// Scans and downloads as they come: solids with typical faults, made by a seed, and mended. What a mesh held before is the truth.
import { describe, expect, test } from 'vitest';
import { Random } from '../../demo/random.ts';
import { crossings } from './crossing.ts';
import { lieOf } from './lies.ts';
import { measure } from './measure.ts';
import { type Mesh, moved, together, type Vec3 } from './mesh.ts';
import { readMesh } from './read.ts';
import { repair } from './repair.ts';
import { loadModeller, sculpt } from './sculpt.ts';
import { skinned } from './skinned.ts';
import { STARTS } from './starts.ts';
import { ellipse, sweep } from './sweep.ts';
import { box, cone, sphere, torus } from './testing.ts';
import { stood } from './turn.ts';
import { united } from './unite.ts';
import { soupOf } from './weld.ts';
import { writeStl } from './write.ts';

const kit = await loadModeller();
const CASES = 120;

const BASES: [string, Mesh][] = [
  ['ball', sphere(12, 3000)],
  ['ring', torus(14, 4, 3000)],
  ['cone', cone(8, 24, 800)],
  ['brick', box(40, 20, 10)],
  ...['paddle', 'curl'].map((id): [string, Mesh] => [
    id,
    sculpt(kit, (STARTS.find((one) => one.id === id) as (typeof STARTS)[number]).spec, 'draft'),
  ]),
];

const without = (mesh: Mesh, out: (triangle: number) => boolean): Mesh => {
  const gone = Array.from({ length: mesh.triangles.length / 3 }, (_, t) => out(t));
  return { positions: mesh.positions, triangles: mesh.triangles.filter((_, i) => !gone[Math.floor(i / 3)]) };
};
const turned = (mesh: Mesh, which: (triangle: number) => boolean): Mesh => {
  const triangles = mesh.triangles.slice();
  for (let t = 0; t < triangles.length / 3; t++)
    if (which(t))
      [triangles[3 * t + 1], triangles[3 * t + 2]] = [triangles[3 * t + 2] as number, triangles[3 * t + 1] as number];
  return { positions: mesh.positions, triangles };
};
const solidOf = (mesh: Mesh) =>
  new kit.Manifold(
    new kit.Mesh({ numProp: 3, vertProperties: Float32Array.from(mesh.positions), triVerts: mesh.triangles }),
  );
const shifted = (mesh: Mesh, by: [number, number, number]) =>
  moved(mesh, ([x, y, z]) => [x + by[0], y + by[1], z + by[2]]);
const volumeMl = (mesh: Mesh) => measure(mesh).volumeMl ?? 0;

/** A mesh that was damaged, and what it held. */
const FAULTS: [string, (mesh: Mesh, next: () => number) => { mesh: Mesh; ml: number }][] = [
  [
    'small holes',
    (mesh, next) => {
      const share = Math.min(0.06, 94 / (mesh.triangles.length / 3));
      return { mesh: without(mesh, () => next() < share), ml: volumeMl(mesh) };
    },
  ],
  ['turned triangles', (mesh, next) => ({ mesh: turned(mesh, () => next() < 0.2), ml: volumeMl(mesh) })],
  ['inside out', (mesh) => ({ mesh: turned(mesh, () => true), ml: volumeMl(mesh) })],
  [
    'holes and turned ones',
    (mesh, next) => ({
      mesh: without(
        turned(mesh, () => next() < 0.1),
        () => next() < 0.01,
      ),
      ml: volumeMl(mesh),
    }),
  ],
  [
    'corners that miss',
    (mesh, next) => ({
      mesh: (() => {
        const soup = soupOf(mesh).map((value) => value + (next() - 0.5) * 0.004);
        return { positions: soup, triangles: Uint32Array.from({ length: soup.length / 3 }, (_, i) => i) };
      })(),
      ml: volumeMl(mesh),
    }),
  ],
  [
    'a twin that reaches into it',
    (_mesh, next) => {
      // Half of a brick's length along: what they share is known.
      const brick = box(40, 20, 10);
      const by = 4 + 30 * next();
      return { mesh: together(brick, shifted(brick, [by, 0.01, 0.01])), ml: 8 + (by * 20 * 10) / 1000 };
    },
  ],
  [
    'a twin that touches it along an edge',
    () => {
      const brick = box(20, 20, 10);
      return { mesh: together(brick, shifted(brick, [20, 20, 0])), ml: 8 };
    },
  ],
  [
    'a skin that runs through itself',
    (_mesh, next) => {
      // A rod wound round so flat that its end runs into its beginning; cut in the middle, each half is a plain solid.
      const [radius, thick, rise] = [10 + 4 * next(), 2 + next(), 1 + next()];
      const rings = Array.from({ length: 81 }, (_, i) => {
        const turn = (400 * i * Math.PI) / 180 / 80;
        const [c, s] = [Math.cos(turn), Math.sin(turn)];
        const middle: Vec3 = [radius * c, radius * s, (rise * turn) / Math.PI];
        return ellipse(middle, [-thick * c, -thick * s, 0], [0, 0, thick], 20);
      });
      const halves = [rings.slice(0, 41), rings.slice(40)].map((half) => solidOf(sweep(half)));
      return { mesh: sweep(rings), ml: kit.Manifold.union(halves).volume() / 1000 };
    },
  ],
  [
    'large holes',
    (mesh, next) => {
      const { min, max } = measure(mesh).boundsMm;
      const cut = (min[0] as number) + (0.4 + 0.2 * next()) * ((max[0] as number) - (min[0] as number));
      // All triangles round one place on a flank, a hand's breadth of a small bait.
      const middle = (t: number, k: number) =>
        [0, 1, 2].reduce(
          (sum, i) => sum + (mesh.positions[3 * (mesh.triangles[3 * t + i] as number) + k] as number),
          0,
        ) / 3;
      const out = (t: number) => Math.abs(middle(t, 0) - cut) < 4 && middle(t, 2) > 0.6 * (max[2] as number);
      return { mesh: without(mesh, out), ml: volumeMl(mesh) };
    },
  ],
  [
    'doubles',
    (mesh, next) => ({
      mesh: together(
        mesh,
        without(mesh, () => next() < 0.9),
      ),
      ml: volumeMl(mesh),
    }),
  ],
];

/** As a maker goes on until it is a solid: mend; close the large holes too; draw the skin anew. */
function broughtIn(bytes: Uint8Array, unit: 'mm' | 'in') {
  const { places } = readMesh(bytes, unit);
  const steps = ['mended'];
  let made = repair(places, { weldMm: 0.01, holeMm: 60 });
  if (made.changed.holesLeft > 0) {
    steps.push('all holes');
    made = repair(places, { weldMm: 0.01, holeMm: 1e5 });
  }
  let mesh = united(kit, made.mesh) ?? made.mesh;
  const { volumeMl: ml, flipped } = measure(mesh);
  if (ml === null || flipped || crossings(mesh).length > 0) {
    steps.push('skin');
    mesh = skinned(kit, mesh, undefined, 0.8)?.mesh ?? mesh;
  }
  return { mesh, steps };
}

describe(`of ${CASES} damaged meshes`, () => {
  const QUARTERS = 4;
  const failed: string[] = [];
  const ways = new Set<string>();

  test.each(Array.from({ length: QUARTERS }, (_, i) => i))(
    'part %i: brought in however they lie and in whichever unit; where it fails it is said what is wrong',
    (part) => {
      const chance = new Random(20261129 + part);
      const next = () => chance.next();
      for (let n = part; n < CASES; n += QUARTERS) {
        const [base, mesh] = BASES[n % BASES.length] as (typeof BASES)[number];
        const [fault, damage] = FAULTS[Math.floor(n / BASES.length) % FAULTS.length] as (typeof FAULTS)[number];
        const damaged = damage(mesh, next);
        const unit = n % 3 === 0 ? 'in' : 'mm';
        const turn = { x: 360 * next() - 180, y: 180 * next() - 90, z: 360 * next() - 180 };
        const askew = next() < 0.5 ? stood(damaged.mesh, turn, 1) : damaged.mesh;
        const file = writeStl(unit === 'in' ? moved(askew, (p) => p.map((at) => at / 25.4) as Vec3) : askew);
        const { mesh: whole, steps } = broughtIn(file, unit);
        ways.add(steps.join(', '));
        const after = measure(stood(whole, lieOf(whole).turn, 1));
        const right = after.volumeMl !== null && !after.flipped && Math.abs(after.volumeMl / damaged.ml - 1) < 0.01;
        if (right) continue;
        failed.push(
          `${base}: ${fault}, ${steps}, ${unit}, ${after.volumeMl?.toFixed(3)} for ${damaged.ml.toFixed(3)} mL`,
        );
        if (after.volumeMl === null) expect(after.faults.length).toBeGreaterThan(0);
      }
    },
    // Skins are drawn for some fifth of them: seconds each on a busy machine.
    180_000,
  );

  test('nine in ten end closed and right, and each way out is gone by some', () => {
    expect([...ways].sort()).toEqual(expect.arrayContaining(['mended', 'mended, all holes', 'mended, skin']));
    expect(failed.length, failed.join('\n')).toBeLessThanOrEqual(CASES / 10);
  });
});

describe('faults that were a dead end', () => {
  const mend = (mesh: Mesh) => repair(soupOf(mesh), { weldMm: 0.01, holeMm: 60 });

  test('two solids that touch along an edge come apart by a hair, and each holds what it held', () => {
    const brick = box(20, 20, 10);
    const made = mend(together(brick, shifted(brick, [20, 20, 0])));
    expect(made.changed.edgesCut).toBe(1);
    expect(made.after).toMatchObject({ watertight: true, shells: 2 });
    expect(made.after.volumeMl).toBeCloseTo(8, 2);
    // Written to a file and read again they stay apart.
    expect(mend(made.mesh).after.watertight).toBe(true);
  });

  test('holes that meet in a corner are closed in one go', () => {
    const ball = sphere(12, 3000);
    const [at] = ball.triangles;
    // Every other triangle round one corner is missing.
    let n = 0;
    const holes = without(ball, (t) => ball.triangles.slice(3 * t, 3 * t + 3).includes(at as number) && n++ % 2 === 0);
    const made = mend(holes);
    expect([made.after.watertight, made.changed.holesLeft]).toEqual([true, 0]);
    expect(made.changed.holesFilled).toBeGreaterThan(1);
  });

  test('drawing corners together never opens what was closed', () => {
    // Thinner than corners are drawn together over.
    const leaf = box(30, 20, 0.008);
    const made = mend(leaf);
    expect(made.before.watertight).toBe(true);
    expect(made.after.watertight).toBe(true);
    expect(made.after.volumeMl).toBeCloseTo(30 * 20 * 0.008 * 1e-3, 9);
  });

  test('a hollow stays one when the parts round it are united', () => {
    const hollow = together(
      box(40, 40, 40),
      turned(shifted(box(10, 10, 10), [5, 5, 5]), () => true),
    );
    const made = united(kit, together(hollow, shifted(box(40, 40, 40), [30, 0.01, 0.01]))) as Mesh;
    expect(volumeMl(made)).toBeCloseTo(64 + 64 - (10 * 39.99 * 39.99) / 1000 - 1, 2);
    expect(united(kit, box(10, 10, 10))).toBeNull();
  });
});
