import { Failure } from '../failure.ts';
import { mm as inMm, say } from '../units/say.ts';
import { Centres, type Field, Relief } from './heightField.ts';
import {
  across,
  corner,
  dot,
  doubleNormals,
  type Mesh,
  middleOf,
  minus,
  type Progress,
  plus,
  triangleCount,
  unit,
  type Vec3,
} from './mesh.ts';
import { Rays } from './rays.ts';
import { filledIn, type Sample, samplesOf } from './samples.ts';
import { topologyOf } from './topology.ts';

/** Ball cutters that a shop has, diameter in mm. */
export const BALLS_MM = [0.5, 0.8, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12] as const;
/** A common cutter, to tell what would be left. */
export const TRIAL_BALL_MM = 3;
/** Left standing less than this is polished away, mm. */
export const LEFTOVER_MM = 0.1;
/** Most cells of the height field, and most looks into it. */
const MOST_CELLS = 4_000_000;
const MOST_LOOKS = 4e9;
/** Up to this a finer field is worth its time. */
const FINE_LOOKS = 2e8;
/** Walls steeper than this still count as this half's: sine of the draft angle. */
const DRAFT = 1e-3;

export interface ToolReach {
  direction: Vec3;
  ballMm: number;
  /** Cell of the height field, mm. */
  stepMm: number;
  /** Surface of this half that the ball leaves more than 0.1 mm of stock on, mm². */
  leftoverMm2: number;
  /** The most stock left anywhere, measured from the surface to the ball, mm. */
  greatestMm: number;
  greatestAtMm: Vec3 | null;
  /** The largest of the usual balls that leaves less than 0.1 mm everywhere; null: none does, corners must be eased. */
  largestBallMm: number | null;
  /** A wide shape is looked at more coarsely: of balls smaller than this nothing is known, mm. */
  knownFromMm: number;
  /** Stock left at each triangle of this half, mm; −1 for the other half. */
  perTriangleMm: Float32Array;
  /** Where stock stays, the most first: up to a few hundred places. */
  places: { pointMm: Vec3; mm: number }[];
}

/** Stock between a place on the cavity's wall and the nearest that the ball comes to it, mm: rings of cells outward. */
function leftAt(centres: Centres, pu: number, pw: number, height: number): number {
  const { radius } = centres;
  const { columns, rows, stepMm, originU, originW } = centres.field;
  const [cx, cy] = [Math.round((pu - originU) / stepMm), Math.round((pw - originW) / stepMm)];
  let near = (2 * radius) ** 2;
  // Written out: a function made anew for each place costs more than the looking.
  for (let off = 0; ; off++) {
    let isAnyNear = false;
    for (let side = 0; side < (off === 0 ? 1 : 2); side++) {
      const y = side === 0 ? cy + off : cy - off;
      const dw = originW + y * stepMm - pw;
      if (dw * dw >= near) continue;
      isAnyNear = true;
      if (y < 0 || y >= rows) continue;
      for (let way = 1; way >= -1; way -= 2) {
        for (let x = way === 1 ? cx : cx - 1; x >= 0 && x < columns; x += way) {
          const du = originU + x * stepMm - pu;
          if (du * du + dw * dw >= near) break;
          // The ball may stand anywhere above its lowest.
          const dh = Math.max(0, centres.at(x, y) - height);
          near = Math.min(near, du * du + dw * dw + dh * dh);
        }
      }
    }
    if (!isAnyNear && off > 0) break;
  }
  return Math.max(0, Math.sqrt(near) - radius);
}

interface Spot {
  triangle: number;
  u: number;
  w: number;
  height: number;
  areaMm2: number;
  point: Vec3;
  /** Outward from the bait; none on a sharp edge, where the wall has two. */
  normal: Vec3 | null;
}

/** Neighbours that meet at more than this are a sharp edge: cosine of 15°. */
const SHARP = Math.cos((15 * Math.PI) / 180);

/** Places of this half's surface: sharp edges and their ends first, since stock stays where walls meet. */
function spotsOf(mesh: Mesh, samples: Sample[], { u, w }: Field, direction: Vec3, planeMm: number): Spot[] {
  const place = (triangle: number, point: Vec3, areaMm2: number, normal: Vec3 | null): Spot => ({
    triangle,
    point,
    u: dot(point, u),
    w: dot(point, w),
    height: -(dot(point, direction) - planeMm),
    areaMm2,
    normal,
  });
  const sharp: Spot[] = [];
  const normals = doubleNormals(mesh);
  const { across: next } = topologyOf(mesh);
  const t = mesh.triangles;
  const normalOf = (n: number) =>
    unit([normals[3 * n] as number, normals[3 * n + 1] as number, normals[3 * n + 2] as number]);
  /** Whether two triangles meet smoothly, of most edges told without making anything. */
  const isSmooth = (n: number, other: number): boolean => {
    const [i, k] = [3 * n, 3 * other];
    const [ax, ay, az] = [normals[i] as number, normals[i + 1] as number, normals[i + 2] as number];
    const [bx, by, bz] = [normals[k] as number, normals[k + 1] as number, normals[k + 2] as number];
    const along = ax * bx + ay * by + az * bz;
    return along > 0 && along * along >= SHARP * SHARP * (ax * ax + ay * ay + az * az) * (bx * bx + by * by + bz * bz);
  };
  for (let i = 0; i < t.length; i++) {
    const n = Math.floor(i / 3);
    const other = next[i] as number;
    if (other < n || isSmooth(n, other)) continue;
    const [one, two] = [normalOf(n), normalOf(other)];
    if (!(dot(one, two) < SHARP) || Math.max(dot(one, direction), dot(two, direction)) < -DRAFT) continue;
    const [p, q] = [corner(mesh, t[i] as number), corner(mesh, t[i % 3 === 2 ? i - 2 : i + 1] as number)];
    // Only where the bait is convex: there the cavity has an inside corner.
    if (dot(minus(middleOf(mesh, other), middleOf(mesh, n)), one) > 0) continue;
    const owner = dot(one, direction) >= dot(two, direction) ? n : other;
    for (const share of [0, 0.5, 1]) sharp.push(place(owner, plus(p, minus(q, p), share), 0, null));
  }
  const smooth = samples
    .filter(({ normal }) => dot(normal, direction) > -DRAFT)
    .map(({ triangle, point, areaMm2, normal }) => place(triangle, point, areaMm2, normal));
  return [...sharp, ...smooth].filter((one) => one.height < -1e-6);
}

/** The faces of the mesh that bound this half's cavity. */
function halfOf(mesh: Mesh, direction: Vec3): Mesh {
  const normals = doubleNormals(mesh);
  const kept = new Uint32Array(mesh.triangles.length);
  let count = 0;
  const [dx, dy, dz] = direction;
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [x, y, z] = [normals[i] as number, normals[i + 1] as number, normals[i + 2] as number];
    if (x * dx + y * dy + z * dz <= -DRAFT * Math.sqrt(x * x + y * y + z * z)) continue;
    for (let k = 0; k < 3; k++) kept[count++] = mesh.triangles[i + k] as number;
  }
  return { positions: mesh.positions, triangles: kept.slice(0, count) };
}

/** Most places that an answer lists. */
const MOST_PLACES = 300;

interface Left {
  /** Stock at each place, mm. */
  left: Float32Array;
  greatest: number;
  at: number;
}

/**
 * Where a ball that touches a place cuts into nothing else there is no stock: exact, and true of most places. For the
 * others the height field says how much stays.
 * @param enough stop looking once more than this is found, mm.
 */
function leftover(field: Field, walls: Rays, places: Spot[], radius: number, enough = Number.POSITIVE_INFINITY): Left {
  let centres: Centres | undefined;
  const out: Left = { left: new Float32Array(places.length), greatest: 0, at: -1 };
  // A ball that cuts in by less than this can give way by as much: where only `enough` matters, half of it is looked past.
  const slack = Math.max(0.01 + 0.005 * radius, Number.isFinite(enough) ? enough / 2 : 0);
  for (const [i, one] of places.entries()) {
    if (one.normal && !walls.nearest(plus(one.point, one.normal, -radius), radius - slack)) continue;
    centres ??= new Centres(field, radius);
    const mm = leftAt(centres, one.u, one.w, one.height);
    out.left[i] = mm;
    if (mm > out.greatest) {
      out.greatest = mm;
      out.at = i;
      if (mm > enough) return out;
    }
  }
  return out;
}

/** A ball is told from its neighbours by this many cells a radius at the least. */
const LEAST_CELLS = 4;
/** The least cell that a shape's width leaves room for, mm. */
function leastStepOf(mesh: Mesh, direction: Vec3): number {
  const [u, w] = across(direction);
  const wide = (axis: Vec3) => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (let i = 0; i < mesh.positions.length; i += 3) {
      const at = dot(
        [mesh.positions[i] as number, mesh.positions[i + 1] as number, mesh.positions[i + 2] as number],
        axis,
      );
      low = Math.min(low, at);
      high = Math.max(high, at);
    }
    return high - low;
  };
  return Math.sqrt((wide(u) * wide(w) * 1.1) / MOST_CELLS);
}

/** A cell that fits a whole number of times into the radius, so that a wall is met exactly: at most 0.2 mm where there is room. */
const stepFor = (radius: number, cells: number, leastMm: number) =>
  radius / Math.max(LEAST_CELLS, Math.min(Math.max(cells, Math.ceil(radius / 0.2)), Math.floor(radius / leastMm)));

/**
 * What a ball cutter cannot reach when the half of a mold that takes the bait's `direction` side is cut from the
 * parting plane: the cavity as a height field, closed by the ball, and the distance from the wall to the closed field.
 * Where two square walls meet r(√2 − 1) stays, where three meet r(√3 − 1).
 * @param ballMm cutter diameter, mm. @param planeMm parting height along `direction`, mm.
 * @throws Failure `too-large`.
 * Source: grey-scale closing of a height field by a sphere, as in inverse-offset tool-path planning.
 */
export function toolReach(mesh: Mesh, wanted: Vec3, ballMm: number, planeMm: number, progress?: Progress): ToolReach {
  const direction = unit(wanted);
  const radius = ballMm / 2;
  const leastStep = leastStepOf(mesh, direction);
  const knownFromMm = 2 * LEAST_CELLS * leastStep;
  if (ballMm < knownFromMm)
    throw new Failure(
      'too-large',
      say`This shape is so wide that it can be looked at only for balls of ${inMm(Math.ceil(10 * knownFromMm) / 10)} or more; choose a larger one.`,
      'ballMm',
    );
  const wide = leastStep ** 2 * MOST_CELLS;
  const looksAt = (stepMm: number) => (wide / stepMm ** 2) * Math.PI * (radius / stepMm) ** 2;
  // A large ball over a wide shape is looked at more coarsely, rather than not at all.
  let cells = Math.max(8, Math.ceil(radius / 0.2));
  while (cells > LEAST_CELLS && looksAt(radius / cells) > MOST_LOOKS) cells--;
  const roughMm = Math.max(radius / cells, stepFor(radius, 8, leastStep));
  if (looksAt(roughMm) > MOST_LOOKS)
    throw new Failure(
      'too-large',
      'That cutter is too large to be worked out on this shape; choose a smaller one.',
      'ballMm',
    );
  const relief = new Relief(mesh, direction, planeMm);
  const rough = relief.field(roughMm);
  const stepMm =
    [24, 16].map((cells) => stepFor(radius, cells, leastStep)).find((step) => looksAt(step) < FINE_LOOKS) ??
    rough.stepMm;
  const field = stepMm === rough.stepMm ? rough : relief.field(stepMm);
  progress?.(0.1);
  const samples = samplesOf(mesh, 8_000);
  const places = spotsOf(mesh, samples, field, direction, planeMm);
  const walls = new Rays(halfOf(mesh, direction));
  const asked = leftover(field, walls, places, radius);
  progress?.(0.5);
  const perTriangleMm = new Float32Array(triangleCount(mesh)).fill(-1);
  let leftoverMm2 = 0;
  for (const [i, one] of places.entries()) {
    const mm = asked.left[i] as number;
    if (mm > (perTriangleMm[one.triangle] as number)) perTriangleMm[one.triangle] = mm;
    if (mm > LEFTOVER_MM) leftoverMm2 += one.areaMm2;
  }
  const normals = doubleNormals(mesh);
  const [dx, dy, dz] = direction;
  const { positions: p, triangles: corners } = mesh;
  const heightOf = (corner: number) =>
    dx * (p[3 * corner] as number) + dy * (p[3 * corner + 1] as number) + dz * (p[3 * corner + 2] as number);
  const isHere = (t: number) =>
    dx * (normals[3 * t] as number) + dy * (normals[3 * t + 1] as number) + dz * (normals[3 * t + 2] as number) > 0 &&
    heightOf(corners[3 * t] as number) +
      heightOf(corners[3 * t + 1] as number) +
      heightOf(corners[3 * t + 2] as number) >
      3 * planeMm;
  filledIn(perTriangleMm, samples, isHere);
  // A larger ball never leaves less: halve the list of balls. Sharp edges fail first, so a part of the rest will do.
  const every = Math.max(1, Math.ceil(places.length / 4000));
  const some = places.filter((one, i) => one.normal === null || i % every === 0);
  const balls = BALLS_MM.filter((ball) => ball >= knownFromMm);
  let [low, high]: [number, number] = [-1, balls.length];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    const ball = balls[middle] as number;
    const trial = relief.field(stepFor(ball / 2, 8, leastStep));
    const fits = leftover(trial, walls, some, ball / 2, LEFTOVER_MM).greatest < LEFTOVER_MM;
    if (fits) low = middle;
    else high = middle;
    progress?.(0.5 + 0.5 * (1 - (high - low) / balls.length));
  }
  const named = new Set<string>();
  return {
    direction,
    ballMm,
    stepMm,
    leftoverMm2,
    greatestMm: asked.greatest,
    greatestAtMm: asked.at < 0 ? null : (places[asked.at] as Spot).point,
    largestBallMm: low < 0 ? null : (balls[low] as number),
    knownFromMm,
    perTriangleMm,
    places: places
      .map((one, i) => ({ pointMm: one.point, mm: asked.left[i] as number }))
      .filter((one) => one.mm > LEFTOVER_MM)
      .sort((a, b) => b.mm - a.mm)
      .filter(({ pointMm }) => {
        // Triangles that share a corner all name it.
        const key = pointMm.map((at) => at.toFixed(2)).join();
        return !named.has(key) && named.add(key);
      })
      .slice(0, MOST_PLACES),
  };
}

/** Which cutter a mold asks for, of both its halves. */
export interface Cutter {
  /** The largest of the usual balls that reaches all of both; null: none does. */
  largestBallMm: number | null;
  /** Of smaller ones nothing is known. */
  knownFromMm: number;
  /** The most that the trial ball leaves. */
  leftoverMm: number;
}

/** @param cavity as it is cut: where a rod goes through a bore, without it. */
export function cutterFor(cavity: Mesh, direction: Vec3, planeMm: number, ballMm = TRIAL_BALL_MM): Cutter {
  const back = direction.map((part) => -part) as Vec3;
  const halves = [toolReach(cavity, direction, ballMm, planeMm), toolReach(cavity, back, ballMm, -planeMm)];
  return cutterOf(halves);
}

/** The two halves' figures as one. */
export function cutterOf(halves: ToolReach[]): Cutter {
  const balls = halves.map((half) => half.largestBallMm);
  return {
    largestBallMm: balls.some((ball) => ball === null) ? null : Math.min(...(balls as number[])),
    knownFromMm: Math.max(BALLS_MM[0], ...halves.map((half) => half.knownFromMm)),
    leftoverMm: Math.max(...halves.map((half) => half.greatestMm)),
  };
}
