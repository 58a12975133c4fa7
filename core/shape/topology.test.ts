import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Mesh, triangleCount } from './mesh.ts';
import { box, cone, sphere, torus, turnedOut } from './testing.ts';
import { shellsOf, topologyOf } from './topology.ts';

const without = ({ positions, triangles }: Mesh, gone: (t: number) => boolean): Mesh => ({
  positions,
  triangles: triangles.filter((_, i) => !gone(Math.floor(i / 3))),
});
const beside = (a: Mesh, b: Mesh): Mesh => ({
  positions: Float64Array.of(...a.positions, ...b.positions),
  triangles: Uint32Array.of(...a.triangles, ...b.triangles.map((corner) => corner + a.positions.length / 3)),
});
const flipped = ({ positions, triangles }: Mesh, one: number): Mesh => {
  const turned = turnedOut({ positions, triangles });
  return {
    positions,
    triangles: triangles.map((corner, i) => (Math.floor(i / 3) === one ? (turned.triangles[i] as number) : corner)),
  };
};

/** Every side by a dictionary of its two corners: slow, and made another way. */
function byHand({ triangles }: Mesh) {
  const sides = new Map<string, { triangle: number; from: number }[]>();
  triangles.forEach((from, i) => {
    const to = triangles[i % 3 === 2 ? i - 2 : i + 1] as number;
    const key = [Math.min(from, to), Math.max(from, to)].join(' ');
    sides.set(key, [...(sides.get(key) ?? []), { triangle: Math.floor(i / 3), from }]);
  });
  const all = [...sides.values()];
  return {
    openEdges: all.filter((one) => one.length !== 2).length,
    turnedEdges: all.filter((one) => one.length === 2 && one[0]?.from === one[1]?.from).length,
  };
}

describe('neighbours', () => {
  test.each([
    ['a box', box(3, 2, 1), 12],
    ['a ball', sphere(5, 800), undefined],
    ['a ring', torus(8, 2, 1200), undefined],
    // A fan of hundreds round one corner takes the other way of sorting.
    ['a cone', cone(4, 9, 2400), undefined],
  ])('%s is closed, all one way round, and each names the other', (_what, mesh, count) => {
    const found = topologyOf(mesh);
    expect([found.openEdges, found.turnedEdges]).toEqual([0, 0]);
    if (count) expect(triangleCount(mesh)).toBe(count);
    found.across.forEach((other, side) => {
      const own = Math.floor(side / 3);
      expect([...found.across.slice(3 * other, 3 * other + 3)]).toContain(own);
    });
  });

  test('one triangle gone leaves three open sides; its neighbours have nothing across them', () => {
    const found = topologyOf(without(box(3, 2, 1), (t) => t === 4));
    expect([found.openEdges, [...found.across].filter((one) => one === -1)]).toEqual([3, [-1, -1, -1]]);
  });

  test('one triangle turned has three turned sides, told on both', () => {
    const found = topologyOf(flipped(box(3, 2, 1), 4));
    expect([found.openEdges, found.turnedEdges]).toEqual([0, 3]);
    expect([...found.turned].reduce((sum, one) => sum + one, 0)).toBe(6);
    expect([...found.turned.slice(12, 15)]).toEqual([1, 1, 1]);
  });

  test('turned inside out, all of it runs alike again', () => {
    expect(topologyOf(turnedOut(sphere(5, 300)))).toMatchObject({ openEdges: 0, turnedEdges: 0 });
  });

  test('a side that three share belongs to none of them', () => {
    // Three leaves of one book.
    const positions = Float64Array.of(0, 0, 0, 0, 0, 1, 1, 0, 0, 0, 1, 0, -1, 0, 0);
    const found = topologyOf({ positions, triangles: Uint32Array.of(0, 1, 2, 0, 1, 3, 0, 1, 4) });
    expect([found.openEdges, [...found.across]]).toEqual([7, Array.from({ length: 9 }, () => -1)]);
  });

  test('whatever is taken away or turned, it counts as a dictionary does', () => {
    const meshes = [box(3, 2, 1), sphere(5, 200), cone(4, 9, 400)];
    fc.assert(
      fc.property(
        fc.constantFrom(...meshes),
        fc.array(fc.nat(400), { maxLength: 12 }),
        fc.nat(400),
        (mesh, gone, one) => {
          const harmed = without(flipped(mesh, one % triangleCount(mesh)), (t) => gone.includes(t));
          const { openEdges, turnedEdges } = topologyOf(harmed);
          expect({ openEdges, turnedEdges }).toEqual(byHand(harmed));
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('shells', () => {
  const shells = (mesh: Mesh) => shellsOf(mesh, topologyOf(mesh));
  test('two bodies in one file are two, numbered as they come', () => {
    const found = shells(beside(box(1, 1, 1), sphere(2, 200)));
    expect([found.shells, [...found.shell.slice(0, 12)], found.shell.at(-1)]).toEqual([
      2,
      Array.from({ length: 12 }, () => 0),
      1,
    ]);
  });

  test('a body within a body is one more; nothing is none', () => {
    expect(shells(beside(sphere(5, 300), turnedOut(sphere(3, 300)))).shells).toBe(2);
    expect(shells({ positions: new Float64Array(), triangles: new Uint32Array() }).shells).toBe(0);
  });

  test('cut through, a ring hangs together until it is cut twice', () => {
    const ring = torus(8, 2, 1200);
    const middle = (t: number) => {
      const at = [0, 1, 2].map((k) => 3 * (ring.triangles[3 * t + k] as number));
      return [0, 1].map((axis) => at.reduce((sum, from) => sum + (ring.positions[from + axis] as number), 0) / 3);
    };
    const near = (way: 1 | -1) => (t: number) => {
      const [x = 0, y = 0] = middle(t);
      return Math.abs(y) < 1 && way * x > 0;
    };
    expect(shells(without(ring, near(1))).shells).toBe(1);
    expect(shells(without(ring, (t) => near(1)(t) || near(-1)(t))).shells).toBe(2);
  });
});
