import { describe, expect, test } from 'vitest';
import { airTraps, bestTilt, terrainOf } from './airTraps.ts';
import { type Mesh, moved, together, type Vec3 } from './mesh.ts';
import { bestParting, parting } from './parting.ts';
import { moldWays, type ShapeFacts } from './suits.ts';
import { box, ellipsoid, lathe, sphere, torus, tube, turnedOut } from './testing.ts';
import { thickness } from './thickness.ts';
import { toolReach } from './toolReach.ts';

const UP: Vec3 = [0, 0, 1];
/** Round z instead of y. */
const upright = (mesh: Mesh) => moved(mesh, ([x, y, z]) => [x, -z, y]);
const turnedX = (mesh: Mesh, deg: number) => {
  const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
  return moved(mesh, ([x, y, z]) => [x, c * y - s * z, s * y + c * z]);
};

/** A block with two horns of different height, as a height map over a fine grid. */
function horned(): Mesh {
  const n = 80;
  const positions: number[] = [];
  const at = (i: number) => -20 + (40 * i) / n;
  const rise = (x: number, y: number) =>
    5 + 9 * Math.exp(-((x + 10) ** 2 + y * y) / 16) + 6 * Math.exp(-((x - 10) ** 2 + y * y) / 16);
  for (const top of [true, false])
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n; j++) positions.push(at(i), at(j), top ? rise(at(i), at(j)) : 0);
  const id = (i: number, j: number, top: boolean) => (top ? 0 : (n + 1) ** 2) + i * (n + 1) + j;
  const triangles: number[] = [];
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      triangles.push(
        id(i, j, true),
        id(i + 1, j, true),
        id(i + 1, j + 1, true),
        id(i, j, true),
        id(i + 1, j + 1, true),
        id(i, j + 1, true),
      );
      triangles.push(
        id(i, j, false),
        id(i + 1, j + 1, false),
        id(i + 1, j, false),
        id(i, j, false),
        id(i, j + 1, false),
        id(i + 1, j + 1, false),
      );
    }
  const wall = (a: [number, number], b: [number, number]) => {
    const [p, q, r, s] = [id(...a, false), id(...b, false), id(...b, true), id(...a, true)];
    triangles.push(p, q, r, p, r, s);
  };
  for (let k = 0; k < n; k++) {
    wall([k, 0], [k + 1, 0]);
    wall([k + 1, n], [k, n]);
    wall([0, k + 1], [0, k]);
    wall([n, k], [n, k + 1]);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

describe('air traps', () => {
  const horns = horned();
  test.each<[string, Mesh, Vec3, number]>([
    ['an upright ellipsoid has one', ellipsoid(8, 8, 20, 4000), UP, 1],
    ['the same on its side', ellipsoid(8, 8, 20, 4000), [1, 0, 0], 1],
    ['a two-horned body two', horns, UP, 2],
    ['the same upside down: its flat back is one', horns, [0, 0, -1], 1],
    ['a torus standing has one, its hole none', torus(20, 5, 8000), [0, 1, 0], 1],
    ['a torus lying is one ring', torus(20, 5, 8000), UP, 1],
    ['the roof of a void is none', together(sphere(20, 4000), turnedOut(sphere(8, 2000))), UP, 1],
    ['a flat top counts once', box(30, 20, 10), UP, 1],
    [
      'two parts have one each',
      together(
        sphere(5, 800),
        moved(sphere(5, 800), ([x, y, z]) => [x + 30, y, z]),
      ),
      UP,
      2,
    ],
  ])('%s', (_what, mesh, direction, count) => {
    const traps = airTraps(terrainOf(mesh), direction);
    expect(traps).toHaveLength(count);
    expect(traps.filter((trap) => trap.pour)).toHaveLength(1);
  });

  test('prominence and pocket of the lower horn, and which is poured', () => {
    const traps = airTraps(terrainOf(horns), UP);
    const [high, low] = traps as [(typeof traps)[number], (typeof traps)[number]];
    expect(high.prominenceMm).toBeCloseTo(14, 1);
    // Between the horns it falls back to about 5 mm.
    expect(low.prominenceMm).toBeGreaterThan(5.4);
    expect(low.prominenceMm).toBeLessThan(6.1);
    expect(low.pointMm[0]).toBeCloseTo(10, 0);
    // ∫ 6·exp(−r²/16) over the plane is 96π mm³, less what lies under the saddle and beyond the edge.
    expect(low.trappedMl).toBeGreaterThan(0.2);
    expect(low.trappedMl).toBeLessThan((96 * Math.PI) / 1000);
    expect([high.pour, high.trappedMl]).toEqual([true, 0]);
    const poured = airTraps(terrainOf(horns), UP, [12, 0, 11]);
    expect(poured.find((trap) => trap.pour)?.pointMm[0]).toBeCloseTo(10, 0);
    expect(poured.find((trap) => !trap.pour)?.trappedMl).toBeGreaterThan(0.2);
  });

  test('tilting lets the air of the lower horn out, no further than the cone', () => {
    const tilt = bestTilt(terrainOf(horns), UP, 60);
    expect(tilt.straightMl).toBeGreaterThan(0.2);
    expect(tilt.trappedMl).toBeLessThan(0.3 * tilt.straightMl);
    expect(tilt.tiltDeg).toBeLessThanOrEqual(60 + 1e-9);
    expect(bestTilt(terrainOf(sphere(5, 800)), UP, 30).tiltDeg).toBe(0);
  });
});

describe('parting', () => {
  test.each<[string, Mesh, Vec3, number, boolean]>([
    ['a sphere comes free along any pull', sphere(10, 4000), UP, 0, false],
    ['a box lies on its flat back', box(40, 20, 10), UP, 0, true],
    ['a torus along its axis', torus(20, 5, 8000), UP, 0, false],
    // The stem's underside of the cap is a ring that only the stem's own half could free.
    [
      'a mushroom along its stem',
      upright(
        lathe([
          [0, 0],
          [4, 0],
          [4, 10],
          [10, 10],
          [10, 15],
          [0, 15],
        ]),
      ),
      UP,
      0,
      true,
    ],
  ])('%s', (_what, mesh, direction, caught, flat) => {
    const found = parting(mesh, direction);
    expect(found.undercutFraction).toBeCloseTo(caught, 3);
    expect(found.flatBack).toBe(flat);
  });

  test('a groove round a bar is caught along its length, exactly both its faces', () => {
    // A bar of radius 10 along z with a groove 4 deep, 6 wide: pulled along z each groove face is behind the other side.
    const bar = upright(
      lathe(
        [
          [0, 0],
          [10, 0],
          [10, 12],
          [6, 12],
          [6, 18],
          [10, 18],
          [10, 30],
          [0, 30],
        ],
        256,
      ),
    );
    const along = parting(bar, UP);
    const ring = Math.PI * (100 - 36);
    const floor = 2 * Math.PI * 6 * 6;
    expect(along.undercutMm2 / (2 * ring + floor)).toBeCloseTo(1, 1);
    const across = parting(bar, [1, 0, 0]);
    expect(across.undercutMm2).toBeLessThan(0.02 * along.undercutMm2);
    expect(Math.abs(bestParting(bar).best.direction[2])).toBeLessThan(0.1);
  });

  test('a flat back sets the plane; a round one is parted at its middle', () => {
    expect(parting(box(40, 20, 10), UP).planeMm).toBeCloseTo(-5, 6);
    const ball = parting(
      moved(sphere(10, 4000), ([x, y, z]) => [x, y, z + 3]),
      UP,
    );
    expect(ball.planeMm).toBeCloseTo(3, 1);
    // The facets' line wanders by half a facet about the equator.
    expect(ball.silhouetteMm.min).toBeGreaterThan(2);
    expect(ball.silhouetteMm.max).toBeLessThan(4);
  });
});

describe('thickness', () => {
  test.each<[string, Mesh, number, number, number]>([
    ['a plate', box(60, 40, 3), 3, 3, 3],
    ['a tube, its wall', tube(6, 4, 60), 2, 2, 2],
    ['a sphere, its diameter', sphere(10, 8000), 20, 20, 20],
    ['a torus, its tube', torus(20, 4, 20_000), 8, 8, 8],
    [
      'a small box in a large one, apart',
      together(
        box(30, 30, 2),
        moved(box(9, 9, 9), ([x, y, z]) => [x, y, z + 40]),
      ),
      2,
      2,
      9,
    ],
  ])('%s, all three within a fiftieth', (_what, mesh, thin, median, thick) => {
    const found = thickness(mesh);
    expect(found.thinnestMm / thin).toBeCloseTo(1, 1.7);
    expect(Math.abs(found.medianMm / median - 1)).toBeLessThan(0.02);
    expect(Math.abs(found.thickestMm / thick - 1)).toBeLessThan(0.02);
    const area = found.histogram.reduce((sum, bin) => sum + bin.areaMm2, 0);
    expect(area).toBeGreaterThan(0);
    expect(found.thin.length).toBeGreaterThan(0);
  });

  test('the thin end of a wedge is found where it is', () => {
    const wedge = moved(box(40, 20, 2), ([x, y, z]) => [x, y, z * (1.5 + x / 40)]);
    const found = thickness(wedge);
    expect(found.thinnestMm).toBeLessThan(2.3);
    expect(found.thin[0]?.pointMm[0]).toBeLessThan(-15);
    expect(found.thickestAtMm[0]).toBeGreaterThan(10);
  });
});

describe('reach of a ball', () => {
  const r = 3;
  test('a square pocket: r(√3 − 1) where three walls meet, and none of the balls reaches all', () => {
    const found = toolReach(box(50, 30, 20), UP, 2 * r, 0);
    expect(found.greatestMm).toBeCloseTo(r * (Math.sqrt(3) - 1), 1);
    expect(found.largestBallMm).toBeNull();
  });

  test('a sharp inside corner of two walls: r(√2 − 1)', () => {
    // A box on its edge is a long groove of 90°, its bottom line far from both ends.
    const groove = turnedX(box(120, 20, 20), 45);
    const found = toolReach(groove, UP, 2 * r, 0);
    const ridge = Math.SQRT1_2 * 20;
    const middle = found.places.filter((place) => Math.abs(place.pointMm[0]) < 30 && place.pointMm[2] > ridge - 0.01);
    expect(middle.length).toBeGreaterThan(0);
    for (const place of middle) expect(Math.abs(place.mm / (r * (Math.SQRT2 - 1)) - 1)).toBeLessThan(0.02);
  });

  test.each<[string, Mesh, number]>([
    ['a hemisphere takes any ball up to its own', sphere(8, 20_000), 12],
    ['a lying torus takes balls up to its tube', torus(20, 2.6, 20_000), 5],
  ])('%s', (_what, mesh, largest) => {
    const found = toolReach(mesh, UP, 3, 0);
    expect(found.greatestMm).toBeLessThan(0.1);
    expect(found.largestBallMm).toBe(largest);
  });
});

describe('which molds suit', () => {
  const plain: ShapeFacts = {
    parting: { undercutFraction: 0, flatUndercutMm2: 0, flatBack: true, undercutMm2: 0, areaMm2: 4000 },
    thinnestMm: 2,
    thickestMm: 15,
    leftoverMm: 0.02,
    largestBallMm: 3,
    boreMm: null,
    round: false,
  };
  const ways = (change: Partial<ShapeFacts>, part: Partial<ShapeFacts['parting']> = {}) =>
    Object.fromEntries(
      moldWays({ ...plain, ...change, parting: { ...plain.parting, ...part } }).map((one) => [one.way, one.suits]),
    );
  test.each<[string, Partial<ShapeFacts>, Partial<ShapeFacts['parting']>, object]>([
    ['a flat-backed bait', {}, {}, { 'open-face': 'yes', 'two-piece': 'care', machined: 'yes', dip: 'no' }],
    ['one in the round', {}, { flatBack: false }, { 'open-face': 'no', 'two-piece': 'yes', printed: 'yes' }],
    [
      'one with undercuts',
      {},
      { undercutFraction: 0.12, flatBack: false },
      { wrap: 'care', 'two-piece': 'care', printed: 'no', machined: 'no' },
    ],
    ['a thin tail', { thinnestMm: 0.6 }, {}, { printed: 'care' }],
    ['a sharp corner', { leftoverMm: 0.4, largestBallMm: null }, {}, { machined: 'care' }],
    ['a round tube', { boreMm: 8, round: true }, {}, { dip: 'yes' }],
  ])('%s', (_what, change, part, wanted) => expect(ways(change, part)).toMatchObject(wanted));

  test('how much is undercut is said in percent, small shares to a tenth', () => {
    const why = (undercutFraction: number) =>
      moldWays({ ...plain, parting: { ...plain.parting, undercutFraction, flatBack: false } })
        .map((one) => one.because)
        .join(' ');
    expect(why(0.12)).toContain('12 % of its surface is undercut');
    expect(why(0.094)).toContain('9.4 % of its surface is undercut');
  });
});
