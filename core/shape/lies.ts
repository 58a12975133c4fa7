import { boundsOf, cross, dot, type Mesh, minus, moved, type Vec3 } from './mesh.ts';
import { samplesOf } from './samples.ts';
import { applied, type Matrix3, matrixOf, type Turn, turnOf } from './turn.ts';

/** How a mesh lies in its file, as far as its shape tells. */
export interface Lie {
  /** What brings its nose to the front, its back up and its sides to the right and left. */
  turn: Turn;
  /** How far its length lies off the nearest axis of the file; null where it is not long enough to have one. */
  askewDeg: number | null;
  /** Which way its nose looks in the file. */
  nose: '+x' | '-x' | '+y' | '-y' | '+z' | '-z' | null;
  /** As a bait should: nose to the front, back up, within a few degrees. */
  isRight: boolean;
}

/** A length is one where it spreads so many times as far as what lies across it. */
const LONG = 1.25;
/** More lopsided than this, a side is none. */
const LOPSIDED = 0.08;
const RIGHT_DEG = 4;
const DEG = 180 / Math.PI;

/** Axes along which a symmetric matrix only stretches, the longest first. Source: Jacobi's rotations, 1846. */
function principal(m: Matrix3): { axes: Matrix3; spread: Vec3 } {
  const a = m.map((row) => [...row]) as Matrix3;
  const v: Matrix3 = [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ];
  for (let turn = 0; turn < 40; turn++) {
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      if (Math.abs(a[p][q]) < 1e-14 * (Math.abs(a[p][p]) + Math.abs(a[q][q]))) continue;
      const theta = (a[q][q] - a[p][p]) / (2 * a[p][q]);
      const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
      const c = 1 / Math.sqrt(t * t + 1);
      const s = t * c;
      for (let k = 0; k < 3; k++) {
        const [x, y] = [a[k]?.[p] as number, a[k]?.[q] as number];
        (a[k] as Vec3)[p] = c * x - s * y;
        (a[k] as Vec3)[q] = s * x + c * y;
      }
      for (let k = 0; k < 3; k++) {
        const [x, y] = [a[p][k] as number, a[q][k] as number];
        a[p][k] = c * x - s * y;
        a[q][k] = s * x + c * y;
        const [vx, vy] = [v[p][k] as number, v[q][k] as number];
        v[p][k] = c * vx - s * vy;
        v[q][k] = s * vx + c * vy;
      }
    }
  }
  const order = [0, 1, 2].sort((i, j) => (a[j]?.[j] as number) - (a[i]?.[i] as number));
  return { axes: order.map((i) => v[i]) as Matrix3, spread: order.map((i) => a[i]?.[i]) as Vec3 };
}

/** The axis of the file that a direction lies nearest to, and how far off. */
function nearestAxis(d: Vec3): { index: 0 | 1 | 2; sign: 1 | -1; offDeg: number } {
  const index = ([0, 1, 2] as const).reduce((a, b) => (Math.abs(d[b]) > Math.abs(d[a]) ? b : a));
  return { index, sign: d[index] < 0 ? -1 : 1, offDeg: Math.acos(Math.min(1, Math.abs(d[index]))) * DEG };
}

/**
 * Where a mesh has its nose, its back and its sides, told from its moments over the surface: it is longest from nose to tail,
 * the tail is the long thin end, the sides are those it is the same on. What of it shape cannot tell stays as it lies.
 */
export function lieOf(mesh: Mesh): Lie {
  const samples = samplesOf(mesh, 6_000);
  const total = samples.reduce((sum, one) => sum + one.areaMm2, 0);
  const mean: Vec3 = [0, 0, 0];
  for (const { point, areaMm2 } of samples) {
    const share = areaMm2 / total;
    mean[0] += share * point[0];
    mean[1] += share * point[1];
    mean[2] += share * point[2];
  }
  let [xx, xy, xz, yy, yz, zz] = [0, 0, 0, 0, 0, 0];
  for (const { point, areaMm2 } of samples) {
    const share = areaMm2 / total;
    const [x, y, z] = minus(point, mean);
    xx += share * x * x;
    xy += share * x * y;
    xz += share * x * z;
    yy += share * y * y;
    yz += share * y * z;
    zz += share * z * z;
  }
  const covariance: Matrix3 = [
    [xx, xy, xz],
    [xy, yy, yz],
    [xz, yz, zz],
  ];
  const { axes, spread } = principal(covariance);
  const skew = (axis: Vec3) => {
    let [second, third] = [0, 0];
    for (const { point, areaMm2 } of samples) {
      const off = dot(minus(point, mean), axis);
      second += (areaMm2 * off ** 2) / total;
      third += (areaMm2 * off ** 3) / total;
    }
    return third / second ** 1.5;
  };
  const isLong = spread[0] > LONG ** 2 * spread[1];
  const [long, second, third] = axes;
  const lengthways = skew(long);
  // Where both ends are alike the nose stays on the side it lies on.
  const tail = (Math.abs(lengthways) > LOPSIDED ? lengthways > 0 : long[nearestAxis(long).index] > 0)
    ? long
    : (long.map((at) => -at) as Vec3);
  // It is the same right and left: what it is lopsided along is up and down. Alike both ways, up is what lies nearest to z.
  const [lop2, lop3] = [Math.abs(skew(second)), Math.abs(skew(third))];
  const upIsSecond = Math.max(lop2, lop3) > LOPSIDED ? lop2 > lop3 : Math.abs(second[2]) > Math.abs(third[2]);
  const raw = upIsSecond ? second : third;
  const up = raw[nearestAxis(raw).index] < 0 ? (raw.map((at) => -at) as Vec3) : raw;
  const side = cross(up, tail);
  const matrix: Matrix3 = [tail, side, up];
  const { index, sign, offDeg } = nearestAxis(tail);
  const turn = turnOf(matrix);
  const [x, , z] = matrixOf(turn);
  return {
    turn,
    askewDeg: isLong ? offDeg : null,
    nose: isLong ? (`${sign > 0 ? '-' : '+'}${'xyz'[index]}` as Lie['nose']) : null,
    isRight: isLong && Math.max(Math.acos(Math.min(1, x[0])), Math.acos(Math.min(1, z[2]))) * DEG < RIGHT_DEG,
  };
}

/** A block round it as it lies, over one round it as it would lie straight: 1 where nothing is gained. */
export function askewCost(mesh: Mesh, { turn }: Lie): number {
  const size = (positions: Float64Array) => {
    const { min, max } = boundsOf(positions);
    return minus(max, min).reduce((product, mm) => product * mm, 1);
  };
  const m = matrixOf(turn);
  const straight = moved(mesh, (point) => applied(m, point));
  return size(mesh.positions) / size(straight.positions);
}
