import { Columns } from './columns.ts';
import {
  boundsOf,
  dot,
  doubleNormals,
  type Mesh,
  type Progress,
  plus,
  triangleCount,
  unit,
  type Vec3,
} from './mesh.ts';
import { filledIn, samplesOf } from './samples.ts';
import { topologyOf } from './topology.ts';

export interface Parting {
  direction: Vec3;
  /** Surface that neither half can pull away from in a straight line, mm² and as a share of all of it. */
  undercutMm2: number;
  undercutFraction: number;
  /** The same, if the halves must meet in one plane at `planeMm`. */
  flatUndercutMm2: number;
  /** Best height for a flat parting plane: a distance along `direction`, mm. */
  planeMm: number;
  /** Heights between which the line that each half must reach runs, along `direction`, mm; equal for a flat one. */
  silhouetteMm: { min: number; max: number };
  /** One end along `direction` is a flat face that the bait can lie on. */
  flatBack: boolean;
  flatBackMm2: number;
  /** How much of each triangle is caught, 0 to 1. */
  caughtPerTriangle: Float32Array;
}

/** Walls steeper than this count as straight: they slide, but neither half owns them. Sine of the draft angle. */
const DRAFT = 1e-3;
const SKIN_MM = 1e-3;
/** Faces this near a plane lie in it, mm. */
const LEVEL_MM = 1e-3;
/** A back counts as flat when this much of the outline seen along the pull rests on one plane. */
const FLAT_SHARE = 0.5;

/**
 * How a bait comes out of a mold of two halves that are pulled apart along ±`direction`.
 * A place is caught when a straight way out, along its own half's pull, meets the bait again: looked for in columns along the pull, since a face
 * may look the right way and still sit behind another.
 * @returns areas in mm², heights in mm along the unit direction.
 */
export function parting(mesh: Mesh, wanted: Vec3, progress?: Progress): Parting {
  const direction = unit(wanted);
  const columns = new Columns(mesh, direction);
  const samples = samplesOf(mesh, 25_000);
  const caught = new Float64Array(triangleCount(mesh));
  const seen = new Float64Array(triangleCount(mesh));
  const heights: { at: number; area: number; way: number }[] = [];
  let [undercutMm2, total] = [0, 0];
  for (const [i, { triangle, point, normal, areaMm2 }] of samples.entries()) {
    const along = dot(normal, direction);
    const out = plus(point, normal, SKIN_MM);
    // Written out: a function made anew for each of so many places costs more than what it does.
    const isFree =
      along > DRAFT
        ? !columns.blocked(out, 1)
        : along < -DRAFT
          ? !columns.blocked(out, -1)
          : !columns.blocked(out, 1) || !columns.blocked(out, -1);
    total += areaMm2;
    seen[triangle] = (seen[triangle] as number) + areaMm2;
    if (!isFree) {
      undercutMm2 += areaMm2;
      caught[triangle] = (caught[triangle] as number) + areaMm2;
    } else if (Math.abs(along) > DRAFT)
      heights.push({ at: dot(point, direction), area: areaMm2, way: Math.sign(along) });
    if (i % 4000 === 0) progress?.(i / samples.length);
  }
  const plane = bestPlane(heights);
  const back2 = flatFace(mesh, direction);
  return {
    direction,
    undercutMm2,
    undercutFraction: undercutMm2 / total,
    flatUndercutMm2: undercutMm2 + plane.caught,
    planeMm: back2.flat && back2.caught(heights) <= plane.caught + 1e-6 * total ? back2.heightMm : plane.at,
    silhouetteMm: silhouette(mesh, direction),
    flatBack: back2.flat,
    flatBackMm2: back2.areaMm2,
    caughtPerTriangle: filledIn(
      Float32Array.from(caught, (area, t) => (seen[t] ? area / (seen[t] as number) : 0)),
      samples,
    ),
  };
}

/** Area that a flat plane at `at` would leave on the wrong side: faces that look up below it, or down above it. */
const wrongSide = (rows: { at: number; area: number; way: number }[], at: number) =>
  rows.reduce((sum, row) => sum + ((row.way > 0 ? row.at < at - LEVEL_MM : row.at > at + LEVEL_MM) ? row.area : 0), 0);

/** The height with the least area on the wrong side; the middle of a range of equally good ones. */
function bestPlane(rows: { at: number; area: number; way: number }[]): { at: number; caught: number } {
  let [total, caught] = [0, 0];
  let [lowestUp, highestDown] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const row of rows) {
    total += row.area;
    if (row.way < 0) highestDown = Math.max(highestDown, row.at);
    else lowestUp = Math.min(lowestUp, row.at);
  }
  // Below both everything looks down, above both up: only what lies between is in question, of most baits next to nothing.
  const [from, to] = [Math.min(lowestUp, highestDown), Math.max(lowestUp, highestDown)];
  const sorted = rows.filter((row) => row.at >= from && row.at <= to).sort((a, b) => a.at - b.at);
  for (const row of sorted) if (row.way < 0) caught += row.area;
  const slack = 1e-6 * total;
  let best = { caught, from: sorted[0]?.at ?? 0, to: sorted[0]?.at ?? 0 };
  for (const [i, row] of sorted.entries()) {
    caught += row.way > 0 ? row.area : -row.area;
    const to = sorted[i + 1]?.at ?? row.at;
    if (caught < best.caught - slack) best = { caught, from: row.at, to };
    else if (caught <= best.caught + slack && best.to === row.at) best = { ...best, to };
  }
  return { at: (best.from + best.to) / 2, caught: Math.max(0, best.caught) };
}

/** How high each corner lies along a direction, mm. */
function heightsOf({ positions: p }: Mesh, [dx, dy, dz]: Vec3): Float64Array {
  const out = new Float64Array(p.length / 3);
  for (let c = 0; c < out.length; c++)
    out[c] = dx * (p[3 * c] as number) + dy * (p[3 * c + 1] as number) + dz * (p[3 * c + 2] as number);
  return out;
}

function spanOf(heights: Float64Array): { low: number; high: number } {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let c = 0; c < heights.length; c++) {
    low = Math.min(low, heights[c] as number);
    high = Math.max(high, heights[c] as number);
  }
  return { low, high };
}

/** Of a normal that begins at `i`, how far it goes along a direction, and how long it is. */
function slopeOf(normals: Float64Array, i: number, [dx, dy, dz]: Vec3): [along: number, size: number] {
  const [x, y, z] = [normals[i] as number, normals[i + 1] as number, normals[i + 2] as number];
  return [dx * x + dy * y + dz * z, Math.sqrt(x * x + y * y + z * z)];
}

/** The flat face, if any, at either end along the direction, large enough to lie on. */
function flatFace(mesh: Mesh, direction: Vec3) {
  const normals = doubleNormals(mesh);
  const { triangles: t } = mesh;
  const heights = heightsOf(mesh, direction);
  const { low, high } = spanOf(heights);
  const near = Math.max(0.05, (high - low) * 0.005);
  const flat = { low: 0, high: 0 };
  let outline = 0;
  for (let i = 0; i < t.length; i += 3) {
    const [along2, size2] = slopeOf(normals, i, direction);
    const [along, size] = [along2 / 2, size2 / 2];
    outline += Math.abs(along) / 2;
    if (Math.abs(along) < 0.999 * size) continue;
    const [a, b, c] = [
      heights[t[i] as number] as number,
      heights[t[i + 1] as number] as number,
      heights[t[i + 2] as number] as number,
    ];
    if (along < 0 && Math.max(a, b, c) - low < near) flat.low += size;
    if (along > 0 && high - Math.min(a, b, c) < near) flat.high += size;
  }
  const areaMm2 = Math.max(flat.low, flat.high);
  const heightMm = flat.low >= flat.high ? low : high;
  return {
    flat: areaMm2 >= FLAT_SHARE * outline,
    areaMm2,
    heightMm,
    caught: (rows: { at: number; area: number; way: number }[]) => wrongSide(rows, heightMm),
  };
}

/** Heights of the edges between faces that look one way and faces that do not; of straight walls both ends. */
function silhouette(mesh: Mesh, direction: Vec3): { min: number; max: number } {
  const normals = doubleNormals(mesh);
  const { across } = topologyOf(mesh);
  const { triangles: t } = mesh;
  const way = new Int8Array(t.length / 3);
  for (let n = 0; n < way.length; n++) {
    const [along, size] = slopeOf(normals, 3 * n, direction);
    way[n] = along > DRAFT * size ? 1 : along < -DRAFT * size ? -1 : 0;
  }
  const heights = heightsOf(mesh, direction);
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0; i < t.length; i++) {
    const other = across[i] as number;
    if (other < 0 || way[Math.floor(i / 3)] === way[other]) continue;
    const a = heights[t[i] as number] as number;
    const b = heights[t[i % 3 === 2 ? i - 2 : i + 1] as number] as number;
    min = Math.min(min, a, b);
    max = Math.max(max, a, b);
  }
  return min <= max ? { min, max } : { min: 0, max: 0 };
}

/** Ways to pull that a maker would try: straight up from the back, sideways, and along the length. */
const WAYS: Vec3[] = [
  [0, 0, 1],
  [0, 1, 0],
  [1, 0, 0],
];

/** The pull with the least caught surface of the three ways along the axes; ties go to the smaller flat-plane area. */
export function bestParting(mesh: Mesh, progress?: Progress): { best: Parting; tried: Parting[] } {
  const tried = WAYS.map((way, i) => parting(mesh, way, (done) => progress?.((i + done) / WAYS.length)));
  const worth = (one: Parting) => one.undercutMm2 + 0.25 * one.flatUndercutMm2;
  // A long pull along the bait needs a mold as deep as the bait is long: only when much better.
  const size = boundsOf(mesh.positions);
  const deep = (one: Parting) =>
    1 +
    Math.abs(dot(one.direction, [0, 1, 2].map((k) => (size.max[k] as number) - (size.min[k] as number)) as Vec3)) / 1e4;
  const best = tried.reduce((a, b) => ((worth(b) + 1e-6) * deep(b) < (worth(a) + 1e-6) * deep(a) ? b : a));
  return { best, tried };
}
