import type { Manifold } from 'manifold-3d';
import { Columns } from '../shape/columns.ts';
import { boundsOf, type Mesh, middleOf, plus, triangleCount, type Vec3 } from '../shape/mesh.ts';
import { filledIn, samplesOf } from '../shape/samples.ts';
import type { Arranged } from './arranged.ts';
import type { Shop } from './shop.ts';

/** Where the halves meet: its height along one cavity, in that cavity's own axes; the same all across. */
export interface Split {
  at(x: number): number;
  lowMm: number;
  highMm: number;
  wavy: boolean;
}

export const FLAT: Split = { at: () => 0, lowMm: 0, highMm: 0, wavy: false };

const STATION_MM = 1.5;
/** A seam that climbs more steeply than this wedges as it closes. */
const STEEPEST = 0.8;
/** No seam is cut or printed more finely, mm. */
const FINEST_MM = 0.01;
/** Beside the widest place, what is nearly as wide is the same edge. */
const EDGE_MM = 0.15;

/** Middle height of the widest places of each slice along the bait, right and left; null where there is nothing. */
function edges(cavity: Mesh, fromX: number, count: number): (number | null)[] {
  const slices = Array.from({ length: count }, () => [] as [y: number, z: number][]);
  const add = ([x, y, z]: Vec3) => slices[Math.min(count - 1, Math.floor((x - fromX) / STATION_MM))]?.push([y, z]);
  for (const { point } of samplesOf(cavity, 30_000)) add(point);
  return slices.map((points) => {
    if (points.length === 0) return null;
    const side = (way: 1 | -1) => {
      const widest = Math.max(...points.map(([y]) => way * y));
      const near = points.filter(([y]) => way * y > widest - EDGE_MM).map(([, z]) => z);
      return (Math.min(...near) + Math.max(...near)) / 2;
    };
    return (side(1) + side(-1)) / 2;
  });
}

/**
 * A seam that follows the bait's widest edge from nose to tail, level before the nose where the gate meets it, and level
 * past the tail. Smoothed, and nowhere steeper than it can close. `raisedMm` moves all of it. Source: the parting line is the outline seen along the pull.
 */
export function wavySplit(cavity: Mesh, raisedMm = 0): Split {
  const { min, max } = boundsOf(cavity.positions);
  const count = Math.max(2, Math.ceil((max[0] - min[0]) / STATION_MM));
  const found = edges(cavity, min[0], count);
  let last = 0;
  const raw = found.map((z) => {
    last = z ?? last;
    return last;
  });
  const smooth = raw.map((_, i) => {
    const near = raw.slice(Math.max(0, i - 3), i + 4);
    return near.reduce((sum, z) => sum + z, 0) / near.length;
  });
  // From the gate on, each no further from the one before than it may climb; then back from the tail.
  const climb = STEEPEST * STATION_MM;
  const heights = [0, 0, ...smooth.slice(2)];
  for (let i = 1; i < heights.length; i++) {
    const before = heights[i - 1] as number;
    const wanted = Math.min(before + climb, Math.max(before - climb, heights[i] as number));
    // Else each half would be smoothed a little differently along a seam that is all but level, and they would overlap.
    heights[i] = Math.round(wanted / FINEST_MM) * FINEST_MM;
  }
  const at = (x: number) => {
    const s = (x - min[0]) / STATION_MM - 0.5;
    const i = Math.min(heights.length - 1, Math.max(0, Math.floor(s)));
    const [a, b] = [heights[i] as number, heights[Math.min(heights.length - 1, i + 1)] as number];
    return raisedMm + (s <= 0 ? 0 : a + (b - a) * Math.min(1, s - i));
  };
  return { at, lowMm: raisedMm + Math.min(...heights), highMm: raisedMm + Math.max(...heights), wavy: true };
}

/** Height of the seam at a place of the block: that of the cavities on this side of the runner. */
export function seamAt(split: Split, { places }: Pick<Arranged, 'places'>, x: number): number {
  if (!split.wavy) return 0;
  const right = places.find((place) => !place.turned);
  const left = places.find((place) => place.turned);
  if (x < 0 && left) return split.at(left.x - x);
  return right ? split.at(x - right.x) : 0;
}

/** What is cut with reaches this far past what it cuts, so that no two faces fall together. */
const PAST_MM = 1;

/** The block parted along the seam. */
export function blocksOf(shop: Shop, plan: Arranged, split: Split): { lower: Manifold; upper: Manifold } {
  const { low, high } = plan;
  if (!split.wavy) return { lower: shop.box(low, [high[0], high[1], 0]), upper: shop.box([low[0], low[1], 0], high) };
  const [from, to] = [low[0] - PAST_MM, high[0] + PAST_MM];
  const steps = Math.ceil((to - from) / (STATION_MM / 2));
  const line = Array.from({ length: steps + 1 }, (_, i): [number, number] => {
    const x = from + ((to - from) * i) / steps;
    return [x, seamAt(split, plan, x)];
  });
  const outline = [...line, [to, high[2] + PAST_MM], [from, high[2] + PAST_MM]] as [number, number][];
  const section = new shop.kit.CrossSection([outline], 'Positive');
  const long = shop.keep(section.extrude(high[1] - low[1] + 2 * PAST_MM));
  section.delete();
  // Drawn in x and z, pulled along y.
  const over = shop.moved(shop.keep(long.rotate([90, 0, 0])), [0, high[1] + PAST_MM, 0]);
  const block = shop.box(low, high);
  return { lower: shop.less(block, [over]), upper: shop.both([block, over]) };
}

/** Walls this near to straight slide out; sine of the draft angle. */
const DRAFT = 1e-3;
/** A place this near the seam belongs to either half, mm. */
const SEAM_MM = 0.02;

export interface Caught {
  upperMm2: number;
  lowerMm2: number;
  perTriangle: Float32Array;
  /** The middles of the caught places, the largest first, each away from the others. */
  places: Vec3[];
}

/**
 * What of a cavity does not come out of its half in a straight pull, now that it is known where they meet. Of four
 * pieces a place is free too if its own piece slides off sideways.
 * @returns areas in mm², places in the cavity's axes.
 */
export function caughtBy(cavity: Mesh, split: Split, sidewaysFrom: number | null): Caught {
  const up = new Columns(cavity, [0, 0, 1]);
  const aside = sidewaysFrom === null ? null : new Columns(cavity, [0, 1, 0]);
  const samples = samplesOf(cavity, 12_000);
  const caught = new Float64Array(triangleCount(cavity));
  const seen = new Float64Array(triangleCount(cavity));
  const found = { upperMm2: 0, lowerMm2: 0 };
  const free = (out: Vec3, nz: number, way: 1 | -1) => way * nz > -DRAFT && !up.blocked(out, way);
  for (const { triangle, point, normal, areaMm2 } of samples) {
    const above = point[2] - split.at(point[0]);
    const out = plus(point, normal, 1e-3);
    seen[triangle] = (seen[triangle] as number) + areaMm2;
    if (above > -SEAM_MM && free(out, normal[2], 1)) continue;
    if (above < SEAM_MM && free(out, normal[2], -1)) continue;
    if (aside && sidewaysFrom !== null) {
      const way = point[1] >= sidewaysFrom ? 1 : -1;
      if (way * normal[1] > -DRAFT && !aside.blocked(out, way)) continue;
    }
    found[above > 0 ? 'upperMm2' : 'lowerMm2'] += areaMm2;
    caught[triangle] = (caught[triangle] as number) + areaMm2;
  }
  const perTriangle = filledIn(
    Float32Array.from(caught, (area, t) => (seen[t] ? area / (seen[t] as number) : 0)),
    samples,
  );
  return { ...found, perTriangle, places: placesOf(cavity, perTriangle) };
}

function placesOf(mesh: Mesh, perTriangle: Float32Array): Vec3[] {
  const places: Vec3[] = [];
  for (let t = 0; t < perTriangle.length && places.length < 5; t++) {
    if ((perTriangle[t] as number) <= 0.5) continue;
    const at = middleOf(mesh, t);
    if (places.every((other) => Math.hypot(...at.map((value, k) => value - (other[k] as number))) > 6)) places.push(at);
  }
  return places;
}
