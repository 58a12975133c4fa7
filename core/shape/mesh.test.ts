import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Failure } from '../failure.ts';
import { measure } from './measure.ts';
import { type Mesh, moved, together, type Vec3 } from './mesh.ts';
import { readMesh } from './read.ts';
import { repair } from './repair.ts';
import { box, cone, ellipsoid, sphere, torus, turnedOut } from './testing.ts';
import { soupOf, weld } from './weld.ts';
import { writeMesh, writeObj, writeStl } from './write.ts';

const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const again = (file: Uint8Array) => weld(readMesh(file).places);
const codeOf = (work: () => unknown) => {
  try {
    work();
  } catch (error) {
    if (error instanceof Failure) return error.code;
    throw error;
  }
  return 'none';
};
/** Shares of a figure that is known exactly. */
const off = (got: number | null, exact: number) => Math.abs((got ?? Number.NaN) / exact - 1);

/** Source: Thomsen's approximation of an ellipsoid's area, good to 1.1 %; here only bodies of revolution, which are exact. */
function spheroidArea(a: number, c: number): number {
  const e = Math.sqrt(1 - (c * c) / (a * a));
  return 2 * Math.PI * a * a * (1 + ((1 - e * e) / e) * Math.atanh(e));
}

describe('solids of 100,000 triangles against the exact', () => {
  test.each<[string, Mesh, number, number]>([
    ['sphere', sphere(20, 100_000), (4 / 3) * Math.PI * 8000, 4 * Math.PI * 400],
    ['torus', torus(30, 8, 100_000), 2 * Math.PI ** 2 * 30 * 64, 4 * Math.PI ** 2 * 30 * 8],
    ['ellipsoid', ellipsoid(30, 30, 12, 100_000), (4 / 3) * Math.PI * 30 * 30 * 12, spheroidArea(30, 12)],
    ['cone', cone(12, 40, 100_000), (Math.PI / 3) * 144 * 40, Math.PI * 12 * (12 + Math.hypot(12, 40))],
  ])('%s: volume within 0.1 %%, area within 0.2 %%', (_name, mesh, volumeMm3, areaMm2) => {
    const found = measure(again(writeStl(mesh)).mesh);
    expect(found).toMatchObject({ watertight: true, flipped: false, openEdges: 0, shells: 1, faults: [] });
    expect(off(found.volumeMl, volumeMm3 / 1000)).toBeLessThan(1e-3);
    expect(off(found.areaMm2, areaMm2)).toBeLessThan(2e-3);
  });
});

describe('what is wrong is said, never measured over', () => {
  const cube = box(20, 10, 5);
  const hole = { positions: cube.positions, triangles: cube.triangles.slice(3) };
  const oneTurned = {
    positions: cube.positions,
    triangles: cube.triangles.map((at, i) => (i < 3 ? ([0, 2, 1].map((k) => cube.triangles[k])[i] as number) : at)),
  };
  const away = moved(box(4, 4, 4), ([x, y, z]) => [x + 40, y, z]);
  const within = box(2, 2, 2);
  test.each<[string, Mesh, object]>([
    ['a hole', hole, { watertight: false, openEdges: 3, volumeMl: null, centroidMm: null, flipped: false }],
    ['one turned triangle', oneTurned, { watertight: false, openEdges: 0, volumeMl: null, flipped: true }],
    ['inside out', turnedOut(cube), { watertight: true, flipped: true, volumeMl: 1 }],
    ['two parts', together(cube, away), { watertight: true, shells: 2, volumeMl: 1.064, flipped: false }],
    ['two parts, one inside out', together(cube, turnedOut(away)), { flipped: true, volumeMl: null }],
    ['a void', together(cube, turnedOut(within)), { shells: 2, voids: 1, volumeMl: 0.992, flipped: false }],
    ['a solid in a solid', together(cube, within), { flipped: true, volumeMl: null }],
  ])('%s', (_what, mesh, wanted) => {
    const found = measure(mesh);
    for (const [key, value] of Object.entries(wanted)) {
      const got = found[key as keyof typeof found];
      if (typeof value === 'number') expect(got, key).toBeCloseTo(value, 9);
      else expect(got, key).toBe(value);
    }
    expect(found.faults.length).toBeGreaterThan(0);
  });

  test('corners that miss by less than a ten-thousandth are one, also across a cell’s border', () => {
    const soup = soupOf(sphere(10, 2000)).map((value, i) => value + ((i * 7919) % 13) * 4e-6);
    expect(measure(weld(soup).mesh)).toMatchObject({ watertight: true, openEdges: 0 });
  });

  test('far from the origin it measures the same', () => {
    const there = moved(sphere(10, 20_000), ([x, y, z]) => [x + 9000, y - 5000, z + 700]);
    expect(measure(there).volumeMl).toBeCloseTo(measure(sphere(10, 20_000)).volumeMl ?? 0, 6);
  });

  test('volume is that of the parts however it is turned and moved', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 50 })),
        fc.double({ min: 0, max: 6, noNaN: true }),
        ([a, b, c], turn) => {
          const [s, k] = [Math.sin(turn), Math.cos(turn)];
          const mesh = moved(box(a, b, c), ([x, y, z]) => [k * x - s * y + 3, s * x + k * y - 7, z + 11] as Vec3);
          const found = measure(mesh);
          // The box comes in single precision.
          expect(off(found.volumeMl, (a * b * c) / 1000)).toBeLessThan(1e-6);
          expect(found.centroidMm?.[2]).toBeCloseTo(11, 6);
        },
      ),
      { numRuns: 60, seed: 3 },
    );
  });
});

describe('files', () => {
  const shape = sphere(8, 800);
  test.each(['stl', 'obj'] as const)('%s there and back is the same solid', (format) => {
    const { mesh, collapsed } = again(writeMesh(shape, format));
    expect(measure(mesh, collapsed)).toMatchObject({ triangles: shape.triangles.length / 3, watertight: true });
    expect(off(measure(mesh).volumeMl, measure(shape).volumeMl ?? 0)).toBeLessThan(1e-5);
  });

  test('text STL, faces of many corners, negative and slashed indices, other units', () => {
    const facet = (a: string, b: string, c: string) =>
      `facet normal 0 0 0\nouter loop\nvertex ${a}\nvertex ${b}\nvertex ${c}\nendloop\nendfacet`;
    const [o, x, y, z] = ['0 0 0', '10 0 0', '0 10 0', '0 0 1e1'] as const;
    const text = `solid t\n${[facet(o, y, x), facet(o, x, z), facet(o, z, y), facet(x, y, z)].join('\n')}\nendsolid t`;
    expect(measure(again(bytes(text)).mesh).volumeMl).toBeCloseTo(1 / 6, 9);
    const lShape =
      'v 0 0 0\nv 20 0 0\nv 20 10 0\nv 10 10 0\nv 10 20 0\nv 0 20 0\nv 0 0 5\nv 20 0 5\nv 20 10 5\nv 10 10 5\nv 10 20 5\nv 0 20 5\n' +
      'f 6 5 4 3 2 1\nf 7/1 8/2/3 9//4 -3 -2 -1\nf 1 2 8 7\nf 2 3 9 8\nf 3 4 10 9\nf 4 5 11 10\nf 5 6 12 11\nf 6 1 7 12\n';
    const found = measure(again(bytes(lShape)).mesh);
    expect(found).toMatchObject({ watertight: true, flipped: false });
    expect(found.volumeMl).toBeCloseTo(1.5, 9);
    expect(found.areaMm2).toBeCloseTo(2 * 300 + 80 * 5, 6);
    expect(measure(weld(readMesh(bytes(text), 'in').places).mesh).volumeMl).toBeCloseTo(25.4 ** 3 / 6, 3);
  });

  const stl = writeStl(box(10, 10, 10));
  const nan = stl.slice();
  new DataView(nan.buffer).setFloat32(96, Number.NaN, true);
  const far = stl.slice();
  new DataView(far.buffer).setFloat32(96, 3e30, true);
  const lie = stl.slice();
  new DataView(lie.buffer).setUint32(80, 1_300_000, true);
  const flat = writeStl({
    positions: Float64Array.from([0, 0, 0, 1, 0, 0, 2, 0, 0]),
    triangles: Uint32Array.from([0, 1, 2]),
  });
  test.each<[string, Uint8Array]>([
    ['nothing', new Uint8Array()],
    ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...new Array(200).fill(0)])],
    ['words', bytes('one two three')],
    ['cut short', stl.subarray(0, 400)],
    ['something after the end', Uint8Array.from([...stl, 1, 2, 3])],
    ['a header that lies', lie],
    ['no triangles', stl.subarray(0, 84).fill(0, 80)],
    ['NaN', nan],
    ['enormous', far],
    ['no area', flat],
    ['a text that breaks off', bytes('solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0')],
    [
      'a text without numbers',
      bytes('solid a\nfacet normal 0 0 1\nouter loop\nvertex a b c\nendloop\nendfacet\nendsolid'),
    ],
    ['a face of two corners', bytes('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2\n')],
    ['a face to nowhere', bytes('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n')],
  ])('%s is refused', (_what, file) => {
    expect(codeOf(() => measure(again(file).mesh))).toBe('bad-mesh');
  });

  test('a 64 MB lie is refused at once, more than 64 MB and two million triangles as too large', () => {
    const big = new Uint8Array(64 * 1024 * 1024);
    new DataView(big.buffer).setUint32(80, 0xffffffff, true);
    expect(codeOf(() => readMesh(big))).toBe('bad-mesh');
    expect(codeOf(() => readMesh(new Uint8Array(64 * 1024 * 1024 + 1)))).toBe('too-large');
    const many = new Uint8Array(84);
    new DataView(many.buffer).setUint32(80, 2_000_001, true);
    expect(['bad-mesh', 'too-large']).toContain(codeOf(() => readMesh(many)));
  });

  test('no bytes at all break the reader', () => {
    const pieces = fc.constantFrom(
      'solid x\n',
      'facet',
      'vertex 1 2 3\n',
      'v 1 2 3\n',
      'f 1 2 3\n',
      'endsolid',
      '\0',
      ' ',
      'f -1 0 1\n',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.uint8Array({ maxLength: 400 }),
          fc.array(pieces, { maxLength: 40 }).map((row) => bytes(row.join(''))),
        ),
        (file) => {
          expect(['none', 'bad-mesh']).toContain(codeOf(() => measure(again(file).mesh)));
        },
      ),
      { numRuns: 400, seed: 5 },
    );
  });
});

describe('repair', () => {
  const whole = sphere(10, 4000);
  const volume = measure(whole).volumeMl ?? 0;
  const part = (from: number, to?: number): Mesh => ({
    positions: whole.positions,
    triangles: whole.triangles.slice(3 * from, to === undefined ? undefined : 3 * to),
  });
  test.each<[string, Mesh, object]>([
    ['a hole is closed', part(40), { holesFilled: 1, holesLeft: 0 }],
    [
      'turned triangles are turned back',
      {
        ...whole,
        triangles: whole.triangles.map((_, i) =>
          i < 300
            ? (whole.triangles[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1] as number)
            : (whole.triangles[i] as number),
        ) as Uint32Array,
      },
      { trianglesTurned: 100 },
    ],
    ['inside out is turned', turnedOut(whole), { shellsTurned: 1 }],
    [
      'doubles are dropped',
      { ...whole, triangles: Uint32Array.from([...whole.triangles, ...whole.triangles.slice(0, 60)]) },
      { doublesDropped: 20 },
    ],
    [
      'corners a hundredth apart are joined',
      {
        positions: soupOf(whole).map((v, i) => v + (i % 2) * 0.003),
        triangles: Uint32Array.from({ length: whole.triangles.length }, (_, i) => i),
      },
      {},
    ],
  ])('%s', (_what, mesh, changed) => {
    const { after, changed: did } = repair(soupOf(mesh), { weldMm: 0.01, holeMm: 60 });
    expect(after).toMatchObject({ watertight: true, flipped: false });
    expect(off(after.volumeMl, volume)).toBeLessThan(0.01);
    expect(did).toMatchObject(changed);
  });

  test('half a sphere missing is no repair', () => {
    const { after, changed } = repair(soupOf(part(0, 2000)), { weldMm: 0.01, holeMm: 40 });
    expect(after.watertight).toBe(false);
    expect(changed).toMatchObject({ holesFilled: 0, holesLeft: 1 });
  });

  test('a sound mesh stays as it is', () => {
    const { changed } = repair(soupOf(whole), { weldMm: 1e-3, holeMm: 60 });
    expect(Object.values(changed).reduce((a, b) => a + b, 0)).toBe(0);
  });
});

test('OBJ text keeps the count of corners and faces', () => {
  const text = Buffer.from(writeObj(box(1, 2, 3))).toString();
  expect([text.match(/^v /gm)?.length, text.match(/^f /gm)?.length]).toEqual([8, 12]);
});

test('a corner stays joined to what it was joined to, though something nearer comes later', () => {
  // Along x at 0, 0.00009 and 0.00018 mm: the middle one lies within the weld of both ends, the ends do not of each other.
  const corner = (x: number, n: number) => [x, 0, 0, n, 5, 0, n, 0, 5];
  const soup = Float64Array.from([0, 0.9e-4, 1.8e-4, 0.9e-4].flatMap((x, n) => corner(x, n + 1)));
  const { triangles: t, positions } = weld(soup, 1e-4).mesh;
  expect(t[9]).toBe(t[3]);
  expect(t[3]).toBe(t[0]);
  expect(t[6]).not.toBe(t[0]);
  // Twelve corners, of which the middle one went into the first, twice.
  expect(positions.length / 3).toBe(10);
});
