import { coarsened } from './coarse.ts';
import { doubleNormals, type Mesh, unit, type Vec3 } from './mesh.ts';

/** Lower humps than this hold no bubble that a maker would see, mm. */
const LEAST_PROMINENCE_MM = 0.3;
/** Corners within this height of each other are one flat top, mm. */
const LEVEL_MM = 1e-6;

export interface AirTrap {
  pointMm: Vec3;
  /** How far the plastic must fall from here to reach a higher place, mm. */
  prominenceMm: number;
  /** What is left full of air above the lowest way out, mL; 0 where it is poured. */
  trappedMl: number;
  /** Filled from here: the high point nearest the pour point, or the highest. */
  pour: boolean;
}

/** What does not change when the same mesh is turned. */
export interface Terrain {
  mesh: Mesh;
  /** Neighbours of corner c: list[start[c]] … list[start[c+1]−1]. */
  start: Int32Array;
  list: Int32Array;
  /** The triangle in which each of those neighbours follows. */
  faces: Int32Array;
  /** Sum of twice-area normals round each corner. */
  normals: Float64Array;
  doubles: Float64Array;
}

export function terrainOf(mesh: Mesh): Terrain {
  const { triangles: t, positions } = mesh;
  const corners = positions.length / 3;
  const start = new Int32Array(corners + 1);
  for (let i = 0; i < t.length; i++) (start[(t[i] as number) + 1] as number)++;
  for (let c = 0; c < corners; c++) (start[c + 1] as number) += start[c] as number;
  const fill = start.slice(0, corners);
  const list = new Int32Array(t.length);
  const faces = new Int32Array(t.length);
  const doubles = doubleNormals(mesh);
  const normals = new Float64Array(positions.length);
  for (let i = 0; i < t.length; i++) {
    const a = t[i] as number;
    // Round a closed corner each neighbour follows exactly one triangle.
    const slot = (fill[a] as number)++;
    list[slot] = t[i % 3 === 2 ? i - 2 : i + 1] as number;
    const from = i - (i % 3);
    faces[slot] = from / 3;
    for (let k = 0; k < 3; k++) (normals[3 * a + k] as number) += doubles[from + k] as number;
  }
  return { mesh, start, list, faces, normals, doubles };
}

/** Indices from the highest value down: a radix sort over the bits of 32-bit floats. */
function fromTheTop(heights: Float64Array): Uint32Array {
  const n = heights.length;
  const floats = Float32Array.from(heights);
  const keys = new Uint32Array(floats.buffer);
  // Negative floats run backwards; turned so that the greatest float has the least key.
  for (let i = 0; i < n; i++) {
    const bits = keys[i] as number;
    keys[i] = bits & 0x80000000 ? bits : ~bits & 0x7fffffff;
  }
  let order = new Uint32Array(n);
  let other = new Uint32Array(n);
  for (let i = 0; i < n; i++) order[i] = i;
  for (let shift = 0; shift < 33; shift += 11) {
    const counts = new Uint32Array(2049);
    for (let i = 0; i < n; i++) (counts[(((keys[i] as number) >>> shift) & 2047) + 1] as number)++;
    for (let b = 0; b < 2048; b++) (counts[b + 1] as number) += counts[b] as number;
    for (let i = 0; i < n; i++) {
      const at = order[i] as number;
      other[(counts[((keys[at] as number) >>> shift) & 2047] as number)++] = at;
    }
    [order, other] = [other, order];
  }
  return order;
}

interface Peak {
  corner: number;
  height: number;
  /** Height at which it joins a higher one, or the body's lowest point. */
  saddle: number;
}

const NONE = Number.NEGATIVE_INFINITY;

/**
 * Peaks with their saddles: corners are joined from the top down, and where two parts meet the lower one's peak ends.
 * A flat top counts once; a roof that faces down (of a void, of a pocket from below) holds no air of the cavity.
 */
function peaksOf({ mesh, start, list, normals }: Terrain, direction: Vec3): { peaks: Peak[]; heights: Float64Array } {
  const { positions: p } = mesh;
  const n = p.length / 3;
  const heights = new Float64Array(n);
  const [dx, dy, dz] = direction;
  for (let c = 0; c < n; c++)
    heights[c] = dx * (p[3 * c] as number) + dy * (p[3 * c + 1] as number) + dz * (p[3 * c + 2] as number);
  const order = fromTheTop(heights);
  const parent = new Int32Array(n).fill(-1);
  // Which level a corner was met on: a slope so shallow that levels run into each other is still no flat top.
  const group = new Int32Array(n).fill(-1);
  // Per part: its highest corner that faces up (−∞ until it has one), and the lowest reached.
  const peakAt = new Int32Array(n).fill(-1);
  const peakHeight = new Float64Array(n).fill(NONE);
  const find = (at: number): number => {
    let root = at;
    while (parent[root] !== root) root = parent[root] as number;
    for (let up = at; parent[up] !== root; ) {
      const next = parent[up] as number;
      parent[up] = root;
      up = next;
    }
    return root;
  };
  const peaks: Peak[] = [];
  const saddleOf = new Map<number, number>();
  const join = (one: number, two: number, at: number) => {
    const [a, b] = [find(one), find(two)];
    if (a === b) return;
    const [high, low] = (peakHeight[a] as number) >= (peakHeight[b] as number) ? [a, b] : [b, a];
    parent[low] = high;
    if (peakHeight[low] !== NONE && (peakHeight[low] as number) - at > LEVEL_MM)
      saddleOf.set(peakAt[low] as number, at);
  };
  for (let i = 0; i < n; ) {
    const level = heights[order[i] as number] as number;
    let end = i;
    while (end < n && level - (heights[order[end] as number] as number) <= LEVEL_MM) end++;
    // First all corners of this level, so that a flat top is one; then up to what was there before.
    for (let j = i; j < end; j++) {
      const c = order[j] as number;
      parent[c] = c;
      group[c] = i;
    }
    if (end - i > 1) {
      for (let j = i; j < end; j++) {
        const c = order[j] as number;
        for (let k = start[c] as number; k < (start[c + 1] as number); k++) {
          const other = list[k] as number;
          if (group[other] === i) levelJoin(c, other);
        }
      }
    }
    births(order.subarray(i, end), level);
    for (let j = i; j < end; j++) {
      const c = order[j] as number;
      for (let k = start[c] as number; k < (start[c + 1] as number); k++) {
        const other = list[k] as number;
        if (parent[other] !== -1) join(c, other, level);
      }
    }
    i = end;
  }
  function levelJoin(a: number, b: number): void {
    const [x, y] = [find(a), find(b)];
    if (x !== y) parent[x] = y;
  }
  /** A level part that touches nothing higher is a top; it is a peak where it faces up. */
  function births(level: Uint32Array, height: number): void {
    if (level.length === 1) {
      birth(level[0] as number, height);
      return;
    }
    const tops = new Map<number, { members: number[]; touches: boolean; up: number }>();
    for (const c of level) {
      const root = find(c);
      const top = tops.get(root) ?? { members: [], touches: false, up: 0 };
      tops.set(root, top);
      top.members.push(c);
      top.up +=
        dx * (normals[3 * c] as number) + dy * (normals[3 * c + 1] as number) + dz * (normals[3 * c + 2] as number);
      for (let k = start[c] as number; k < (start[c + 1] as number) && !top.touches; k++) {
        const other = list[k] as number;
        top.touches = parent[other] !== -1 && group[other] !== group[c];
      }
    }
    for (const [root, top] of tops) {
      if (top.touches || !(top.up > 0)) continue;
      peakHeight[root] = height;
      peakAt[root] = nearestToMiddle(mesh, top.members);
    }
  }
  function birth(c: number, height: number): void {
    for (let k = start[c] as number; k < (start[c + 1] as number); k++) if (parent[list[k] as number] !== -1) return;
    const up =
      dx * (normals[3 * c] as number) + dy * (normals[3 * c + 1] as number) + dz * (normals[3 * c + 2] as number);
    if (!(up > 0)) return;
    peakHeight[c] = height;
    peakAt[c] = c;
  }
  // From the top down: the last of each part is its lowest.
  const lowest = new Map<number, number>();
  let parts = 0;
  for (let c = 0; c < n; c++) if (parent[c] === c) parts++;
  for (let i = n - 1; i >= 0 && lowest.size < parts; i--) {
    const root = find(order[i] as number);
    if (!lowest.has(root)) lowest.set(root, heights[order[i] as number] as number);
  }
  for (const [root, low] of lowest) {
    if (peakHeight[root] !== NONE)
      peaks.push({ corner: peakAt[root] as number, height: peakHeight[root] as number, saddle: low });
  }
  for (const [at, saddle] of saddleOf) peaks.push({ corner: at, height: heights[at] as number, saddle });
  return { peaks: peaks.filter((peak) => peak.height - peak.saddle >= LEAST_PROMINENCE_MM), heights };
}

function nearestToMiddle({ positions: p }: Mesh, members: number[]): number {
  const at = (k: number) => members.reduce((sum, c) => sum + (p[3 * c + k] as number), 0) / members.length;
  const [x, y, z] = [at(0), at(1), at(2)];
  const far = (c: number) =>
    Math.hypot((p[3 * c] as number) - x, (p[3 * c + 1] as number) - y, (p[3 * c + 2] as number) - z);
  return members.reduce((best, c) => (far(c) < far(best) ? c : best));
}

/** Volume between the surface round a peak and the level of its saddle, mm³: prisms under the triangles above it. */
function pocketMm3(
  { mesh, start, list, faces, doubles }: Terrain,
  heights: Float64Array,
  peak: Peak,
  direction: Vec3,
): number {
  const t = mesh.triangles;
  const inside = new Set<number>([peak.corner]);
  const queue = [peak.corner];
  const touched = new Set<number>();
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    for (let k = start[at] as number; k < (start[at + 1] as number); k++) {
      touched.add(faces[k] as number);
      const other = list[k] as number;
      if ((heights[other] as number) > peak.saddle && !inside.has(other)) {
        inside.add(other);
        queue.push(other);
      }
    }
  }
  let volume = 0;
  for (const face of touched) {
    const over = [0, 1, 2].map((k) => (heights[t[3 * face + k] as number] as number) - peak.saddle) as Vec3;
    const up =
      (direction[0] * (doubles[3 * face] as number) +
        direction[1] * (doubles[3 * face + 1] as number) +
        direction[2] * (doubles[3 * face + 2] as number)) /
      2;
    volume += up * meanAbove(over);
  }
  return Math.max(0, volume);
}

/** Mean over a triangle of max(0, h), h linear with these corner values. */
function meanAbove(h: Vec3): number {
  const above = h.filter((value) => value > 0);
  if (above.length === 3) return (h[0] + h[1] + h[2]) / 3;
  if (above.length === 1) {
    const [a] = above as [number];
    const [b, c] = h.filter((value) => value <= 0) as [number, number];
    return (a * ((a / (a - b)) * (a / (a - c)))) / 3;
  }
  const below = h.find((value) => value <= 0) as number;
  const [a, b] = above as [number, number];
  // The whole, plus the corner that was cut off and counted below zero.
  return (h[0] + h[1] + h[2]) / 3 - (below * ((below / (below - a)) * (below / (below - b)))) / 3;
}

/**
 * High points of the cavity that a bait's mesh is the shape of, with `direction` held up: where air stays.
 * @param direction up, any length. @param pourPoint mm; the nearest high point is the pour, else the highest.
 * @returns traps, the most prominent first; places in mm, trapped air in mL.
 * Source: topographic prominence by a sweep with union–find; pockets by prisms above the saddle.
 */
export function airTraps(terrain: Terrain, direction: Vec3, pourPoint?: Vec3): AirTrap[] {
  const up = unit(direction);
  const { peaks, heights } = peaksOf(terrain, up);
  const p = terrain.mesh.positions;
  const traps = peaks.map((peak) => ({
    peak,
    pointMm: [0, 1, 2].map((k) => p[3 * peak.corner + k] as number) as Vec3,
    prominenceMm: peak.height - peak.saddle,
  }));
  const rank = (trap: (typeof traps)[number]) =>
    pourPoint ? -Math.hypot(...trap.pointMm.map((v, k) => v - (pourPoint[k] as number))) : trap.peak.height;
  const pour = traps.length > 0 ? traps.reduce((a, b) => (rank(b) > rank(a) ? b : a)) : undefined;
  // Filled from a lower top, the highest keeps the air above the way between the two.
  const highest = traps.reduce((a, b) => (b.peak.height > a.peak.height ? b : a), traps[0] as (typeof traps)[number]);
  const spill = (trap: (typeof traps)[number]): Peak =>
    trap === highest && pour ? { ...trap.peak, saddle: pour.peak.saddle } : trap.peak;
  return traps
    .map((trap) => ({
      pointMm: trap.pointMm,
      prominenceMm: trap.prominenceMm,
      trappedMl: trap === pour ? 0 : pocketMm3(terrain, heights, spill(trap), up) / 1000,
      pour: trap === pour,
    }))
    .sort((a, b) => b.prominenceMm - a.prominenceMm);
}

export interface Tilt {
  direction: Vec3;
  /** Angle from the direction asked for, degrees. */
  tiltDeg: number;
  /** Air left without a vent, mL. */
  trappedMl: number;
  /** The same with no tilt. */
  straightMl: number;
  traps: AirTrap[];
}

/** A mesh larger than this is searched on a coarse one of about so many triangles; of what looks best there, so many are looked at. */
const ROUGH_TRIANGLES = 25_000;
const LOOKED_AT = 3;

function roughOf(terrain: Terrain): Terrain {
  const { doubles } = terrain;
  if (doubles.length / 3 <= 1.5 * ROUGH_TRIANGLES) return terrain;
  let areaMm2 = 0;
  for (let i = 0; i < doubles.length; i += 3)
    areaMm2 += Math.hypot(doubles[i] as number, doubles[i + 1] as number, doubles[i + 2] as number) / 2;
  return terrainOf(coarsened(terrain.mesh, ROUGH_TRIANGLES, areaMm2));
}

const trappedOf = (traps: AirTrap[]) => traps.reduce((sum, trap) => sum + trap.trappedMl, 0);

/**
 * The way up, within a cone about `direction`, that leaves the least air: rings of directions, then finer rings about
 * the best. Ties go to the smaller tilt.
 * @param coneDeg half the cone's opening, degrees.
 */
export function bestTilt(
  terrain: Terrain,
  direction: Vec3,
  coneDeg: number,
  pourPoint?: Vec3,
  progress?: (done: number) => void,
): Tilt {
  const axis = unit(direction);
  const helper: Vec3 = Math.abs(axis[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0];
  const u = unit([
    axis[1] * helper[2] - axis[2] * helper[1],
    axis[2] * helper[0] - axis[0] * helper[2],
    axis[0] * helper[1] - axis[1] * helper[0],
  ]);
  const w: Vec3 = [axis[1] * u[2] - axis[2] * u[1], axis[2] * u[0] - axis[0] * u[2], axis[0] * u[1] - axis[1] * u[0]];
  const leaning = (x: number, y: number): Vec3 => {
    const angle = (Math.hypot(x, y) * Math.PI) / 180;
    const turn = Math.atan2(y, x);
    const [s, c] = [Math.sin(angle), Math.cos(angle)];
    return [0, 1, 2].map(
      (k) => c * (axis[k] as number) + s * (Math.cos(turn) * (u[k] as number) + Math.sin(turn) * (w[k] as number)),
    ) as Vec3;
  };
  // A large mesh is searched on a coarse one, and what looks best there is looked at as it is.
  const rough = roughOf(terrain);
  const look = (x: number, y: number, on = rough) => {
    const traps = airTraps(on, leaning(x, y), pourPoint);
    return { x, y, traps, trappedMl: trappedOf(traps) };
  };
  const straight = look(0, 0, terrain);
  let best = rough === terrain ? straight : look(0, 0);
  const seen: (typeof best)[] = [best];
  const better = (one: typeof best) => {
    seen.push(one);
    const lean = (row: typeof best) => Math.hypot(row.x, row.y);
    const gain = best.trappedMl - one.trappedMl;
    if (gain > 1e-6 || (Math.abs(gain) <= 1e-6 && lean(one) < lean(best) - 1e-9)) best = one;
  };
  const wish: [number, number][] = [];
  const step = coneDeg / 4;
  for (let ring = 1; ring <= 4; ring++) {
    for (let k = 0; k < 6 * ring; k++) {
      const turn = (2 * Math.PI * k) / (6 * ring);
      wish.push([ring * step * Math.cos(turn), ring * step * Math.sin(turn)]);
    }
  }
  const total = wish.length + 12;
  for (const [i, [x, y]] of wish.entries()) {
    better(look(x, y));
    progress?.((i + 1) / total);
  }
  for (let fine = step / 2, round = 0; round < 2; round++, fine /= 2) {
    const { x, y } = best;
    for (let k = 0; k < 6; k++) {
      const [nx, ny] = [x + fine * Math.cos((Math.PI * k) / 3), y + fine * Math.sin((Math.PI * k) / 3)];
      if (Math.hypot(nx, ny) <= coneDeg) better(look(nx, ny));
      progress?.((wish.length + 6 * round + k + 1) / total);
    }
  }
  if (rough !== terrain) {
    best = straight;
    for (const { x, y } of seen.sort((a, b) => a.trappedMl - b.trappedMl).slice(0, LOOKED_AT))
      better(look(x, y, terrain));
  }
  return {
    direction: leaning(best.x, best.y),
    tiltDeg: Math.hypot(best.x, best.y),
    trappedMl: best.trappedMl,
    straightMl: straight.trappedMl,
    traps: best.traps,
  };
}
