import { length, type Mesh, minus, type Progress, plus, triangleCount, type Vec3 } from './mesh.ts';
import { Rays } from './rays.ts';
import { filledIn, type Sample, samplesOf } from './samples.ts';

export interface ThicknessPlace {
  pointMm: Vec3;
  thicknessMm: number;
}

export interface Thickness {
  thinnestMm: number;
  medianMm: number;
  /** Diameter of the largest ball that fits inside: the section that cools last. */
  thickestMm: number;
  thickestAtMm: Vec3;
  /** Area by thickness, thinnest first. */
  histogram: { fromMm: number; toMm: number; areaMm2: number }[];
  /** Thinnest places, apart from each other. */
  thin: ThicknessPlace[];
  /** Thickness at each triangle, mm; 0 where no opposite wall was found. */
  perTriangleMm: Float32Array;
}

/** Two walls face each other when a ray meets the second less than 60° off square; else it ran into an edge. */
const FACING = 0.5;
/** A wall counts as the thinnest when at least this share of the surface is as thin: a facet's corner is no wall. */
const LEAST_SHARE = 0.0015;

/** Starts a little inside, so that a ray does not meet the face that it leaves, mm. */
const SKIN_MM = 1e-4;

interface Ball {
  centre: Vec3;
  radius: number;
}

/** Moves a ball's centre away from the nearest wall for as long as that makes the ball larger. */
function grown(rays: Rays, start: Vec3, guessMm: number): Ball {
  let best: Ball = { centre: start, radius: rays.nearest(start)?.distance ?? 0 };
  let step = guessMm / 4;
  for (let turn = 0; turn < 28 && step > 1e-3 * guessMm; turn++) {
    const wall = rays.nearest(best.centre);
    if (!wall || wall.distance === 0) break;
    const away = minus(best.centre, wall.point);
    const centre = plus(best.centre, away, step / wall.distance);
    const radius = rays.nearest(centre)?.distance ?? 0;
    if (radius > best.radius) best = { centre, radius };
    else step /= 2;
  }
  return best;
}

/** The largest ball that fits inside: seeded half-way through at many places, grown from the best of them. */
function largestBall(rays: Rays, samples: Sample[], throughs: Float64Array, progress?: Progress): Ball {
  const every = Math.max(1, Math.floor(samples.length / BALLS));
  const seeds: Ball[] = [];
  for (let i = 0; i < samples.length; i += every) {
    const half = (throughs[i] as number) / 2;
    const sample = samples[i] as Sample;
    if (half <= 0) continue;
    const centre = plus(sample.point, sample.normal, -half);
    // Looked for a little short of the wall it came from: where nothing is nearer the search ends early.
    seeds.push({ centre, radius: rays.nearest(centre, 0.9 * half)?.distance ?? half });
    if (i % (every * 100) === 0) progress?.(0.6 + (0.3 * i) / samples.length);
  }
  seeds.sort((a, b) => b.radius - a.radius);
  const chosen: Ball[] = [];
  for (const seed of seeds.slice(0, 300)) {
    if (chosen.every((ball) => length(minus(ball.centre, seed.centre)) > ball.radius / 2)) chosen.push(seed);
    if (chosen.length === 6) break;
  }
  return chosen
    .map((seed) => grown(rays, seed.centre, seed.radius))
    .reduce((a, b) => (b.radius > a.radius ? b : a), { centre: [0, 0, 0], radius: 0 });
}

const BINS = 24;
/** Balls are fitted at about this many places. */
const BALLS = 1200;

/**
 * Local thickness: the distance to the opposite wall along the inward normal, but nowhere more than the largest ball that
 * fits inside, since a ray that runs along a plate from its edge, or down a bait from its nose, is no thickness.
 * @returns lengths in mm, areas in mm².
 */
export function thickness(mesh: Mesh, progress?: Progress): Thickness {
  const rays = new Rays(mesh);
  const samples = samplesOf(mesh);
  const perTriangleMm = new Float32Array(triangleCount(mesh));
  const throughs = new Float64Array(samples.length);
  const facing = new Uint8Array(samples.length);
  for (const [i, sample] of samples.entries()) {
    const inward: Vec3 = [-sample.normal[0], -sample.normal[1], -sample.normal[2]];
    const hit = rays.first(plus(sample.point, sample.normal, -SKIN_MM), inward, true);
    throughs[i] = hit === undefined ? 0 : hit.distance + SKIN_MM;
    facing[i] = hit !== undefined && hit.square > FACING ? 1 : 0;
    if (i % 2000 === 0) progress?.((0.6 * i) / samples.length);
  }
  const thickest = largestBall(rays, samples, throughs, progress);
  const found: { sample: Sample; mm: number }[] = [];
  for (const [i, sample] of samples.entries()) {
    const through = throughs[i] as number;
    if (through <= 0) continue;
    const mm = Math.min(through, 2 * thickest.radius);
    perTriangleMm[sample.triangle] = Math.max(perTriangleMm[sample.triangle] as number, mm);
    if (facing[i]) found.push({ sample, mm });
  }
  found.sort((a, b) => a.mm - b.mm);
  const top = found.at(-1)?.mm ?? 0;
  const histogram = Array.from({ length: BINS }, (_, i) => ({
    fromMm: (top * i) / BINS,
    toMm: (top * (i + 1)) / BINS,
    areaMm2: 0,
  }));
  let area = 0;
  for (const { sample, mm } of found) {
    const bin = histogram[Math.min(BINS - 1, Math.floor((mm / (top || 1)) * BINS))];
    if (bin) bin.areaMm2 += sample.areaMm2;
    area += sample.areaMm2;
  }
  const reaching = (share: number) => {
    let sum = 0;
    return found.findIndex(({ sample }) => {
      sum += sample.areaMm2;
      return sum >= share * area;
    });
  };
  const walls = found.slice(Math.max(0, reaching(LEAST_SHARE)));
  return {
    thinnestMm: walls[0]?.mm ?? 0,
    medianMm: found[Math.max(0, reaching(0.5))]?.mm ?? 0,
    thickestMm: 2 * thickest.radius,
    thickestAtMm: thickest.centre,
    histogram,
    thin: apart(walls, 5),
    perTriangleMm: filledIn(perTriangleMm, samples),
  };
}

/** The thinnest places, each at least a few wall thicknesses from the others. */
function apart(found: { sample: Sample; mm: number }[], most: number): ThicknessPlace[] {
  const places: ThicknessPlace[] = [];
  for (const { sample, mm } of found.slice(0, 4000)) {
    const near = places.some(
      (place) => Math.hypot(...sample.point.map((v, k) => v - (place.pointMm[k] as number))) < Math.max(5, 3 * mm),
    );
    if (!near) places.push({ pointMm: sample.point, thicknessMm: mm });
    if (places.length === most) break;
  }
  return places;
}
