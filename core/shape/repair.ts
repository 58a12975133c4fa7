import earcut from 'earcut';
import { cutEdges } from './edges.ts';
import { type Measured, measure, survey } from './measure.ts';
import {
  across,
  corner,
  cross,
  dot,
  length,
  type Mesh,
  minus,
  plus,
  type Soup,
  triangleCount,
  unit,
  type Vec3,
} from './mesh.ts';
import type { Places } from './places.ts';
import { type Topology, topologyOf } from './topology.ts';
import { soupOf, weld } from './weld.ts';

export interface RepairWish {
  /** Corners nearer than this become one, mm. */
  weldMm: number;
  /** Holes whose edge is up to this long are closed, mm. */
  holeMm: number;
}

export interface Repaired {
  mesh: Mesh;
  before: Measured;
  after: Measured;
  changed: {
    cornersJoined: number;
    collapsedDropped: number;
    doublesDropped: number;
    /** Edges that more than two triangles shared, where solids only touch. */
    edgesCut: number;
    trianglesTurned: number;
    shellsTurned: number;
    holesFilled: number;
    trianglesAdded: number;
    holesLeft: number;
  };
}

/** Leaves out triangles that are there twice, whichever way round. */
function withoutDoubles({ positions, triangles: t }: Mesh): { mesh: Mesh; dropped: number } {
  const seen = new Set<string>();
  const kept: number[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [t[i] as number, t[i + 1] as number, t[i + 2] as number];
    const key = [a, b, c].sort((x, y) => x - y).join(' ');
    if (seen.has(key)) continue;
    seen.add(key);
    kept.push(a, b, c);
  }
  return { mesh: { positions, triangles: Uint32Array.from(kept) }, dropped: (t.length - kept.length) / 3 };
}

const turn = (t: Uint32Array, triangle: number) => {
  const [b, c] = [t[3 * triangle + 1] as number, t[3 * triangle + 2] as number];
  t[3 * triangle + 1] = c;
  t[3 * triangle + 2] = b;
};

/** Turns triangles until neighbours agree: each part keeps the way that most of its triangles had. */
function agree(mesh: Mesh, topology: Topology): number {
  const count = triangleCount(mesh);
  const side = new Int8Array(count);
  let turned = 0;
  for (let first = 0; first < count; first++) {
    if (side[first] !== 0) continue;
    side[first] = 1;
    const part = [first];
    for (let i = 0; i < part.length; i++) {
      const at = part[i] as number;
      for (let k = 0; k < 3; k++) {
        const next = topology.across[3 * at + k] as number;
        if (next < 0 || side[next] !== 0) continue;
        side[next] = (side[at] as number) * (topology.turned[3 * at + k] ? -1 : 1);
        part.push(next);
      }
    }
    const against = part.filter((at) => side[at] === -1);
    const minority = against.length * 2 > part.length ? part.filter((at) => side[at] === 1) : against;
    for (const at of minority) turn(mesh.triangles, at);
    turned += minority.length;
  }
  return turned;
}

/**
 * Closed rings of open edges, each as corners in the order in which a filling runs. Where several holes meet in a corner, a
 * way that comes back to it is a ring of its own.
 */
function holesOf(mesh: Mesh, { across: neighbours }: Topology): number[][] {
  const next = new Map<number, number[]>();
  const t = mesh.triangles;
  for (let i = 0; i < t.length; i++) {
    if (neighbours[i] !== -1) continue;
    // The filling runs along the edge the other way.
    const from = t[i % 3 === 2 ? i - 2 : i + 1] as number;
    next.set(from, [...(next.get(from) ?? []), t[i] as number]);
  }
  const rings: number[][] = [];
  const step = (at: number): number | undefined => {
    const ways = next.get(at);
    const to = ways?.pop();
    if (ways?.length === 0) next.delete(at);
    return to;
  };
  while (next.size > 0) {
    const way: number[] = [next.keys().next().value as number];
    for (let at = step(way[0] as number); at !== undefined; at = step(at)) {
      const before = way.indexOf(at);
      if (before < 0) {
        way.push(at);
        continue;
      }
      const ring = way.splice(before + 1);
      ring.unshift(at);
      if (ring.length >= 3) rings.push(ring);
    }
  }
  return rings;
}

const ringMm = (mesh: Mesh, ring: number[]) =>
  ring.reduce(
    (sum, at, i) => sum + length(minus(corner(mesh, ring[(i + 1) % ring.length] as number), corner(mesh, at))),
    0,
  );

/** Closes a ring with triangles between its own corners. */
function filling(mesh: Mesh, ring: number[]): number[] {
  const points = ring.map((at) => corner(mesh, at));
  const middle = points.reduce<Vec3>((sum, p) => plus(sum, p, 1 / points.length), [0, 0, 0]);
  const normal = points.reduce<Vec3>(
    (sum, p, i) => plus(sum, cross(minus(p, middle), minus(points[(i + 1) % points.length] as Vec3, middle))),
    [0, 0, 0],
  );
  const fan = ring.slice(2).flatMap((_, i) => [ring[0], ring[i + 1], ring[i + 2]] as number[]);
  if (ring.length === 3 || length(normal) < 1e-12) return fan;
  const [u, w] = across(unit(normal));
  const ears = earcut(points.flatMap((p) => [dot(minus(p, middle), u), dot(minus(p, middle), w)]));
  if (ears.length !== 3 * (ring.length - 2)) return fan;
  // The ears' own turn is that of the flat outline or against it; a filling goes with the ring.
  const at = (i: number) => points[ears[i] as number] as Vec3;
  let way = 0;
  for (let i = 0; i < ears.length; i += 3) way += dot(cross(minus(at(i + 1), at(i)), minus(at(i + 2), at(i))), normal);
  const order = way >= 0 ? ears : [...ears].reverse();
  return order.map((ear) => ring[ear] as number);
}

/** Whether one holds a volume and the other none, or has fewer open edges. */
const isBetter = (one: Measured, other: Measured) =>
  (other.volumeMl === null && one.volumeMl !== null) || one.openEdges < other.openEdges;

/** Rounds of closing holes: a filling may close one and leave another that it met. */
const MOST_ROUNDS = 4;

/**
 * Mends what is commonly wrong with a mesh: corners that do not meet, doubles, edges that several solids share, triangles and
 * parts the wrong way out, small holes. What it cannot mend stays as it is, and is told. Where drawing corners together opens
 * what was closed, they are drawn together less.
 * @throws Failure `bad-mesh`.
 */
export function repair(given: Soup | Places, wish: RepairWish): Repaired {
  const tries = [wish.weldMm, wish.weldMm / 10, 1e-4].filter((mm, i) => i === 0 || mm >= 1e-4);
  let best: Repaired | undefined;
  for (const weldMm of tries) {
    const made = mended(given, { ...wish, weldMm });
    if (!best || isBetter(made.after, best.after)) best = made;
    if (made.after.watertight && made.after.volumeMl !== null) return made;
  }
  return best as Repaired;
}

function mended(given: Soup | Places, wish: RepairWish): Repaired {
  const first = weld(given);
  const before = measure(first.mesh, first.collapsed);
  const joined = weld(soupOf(first.mesh), Math.max(wish.weldMm, 1e-4));
  const { mesh: single, dropped } = withoutDoubles(joined.mesh);
  let trianglesTurned = agree(single, topologyOf(single));
  const parted = cutEdges(single);
  let mesh = parted.mesh;
  let [filled, added, left] = [0, 0, 0];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const holes = holesOf(mesh, topologyOf(mesh));
    const small = holes.filter((ring) => ringMm(mesh, ring) <= wish.holeMm);
    left = holes.length - small.length;
    if (small.length === 0) break;
    const more = small.flatMap((ring) => filling(mesh, ring));
    mesh = { positions: mesh.positions, triangles: Uint32Array.from([...mesh.triangles, ...more]) };
    filled += small.length;
    added += more.length / 3;
    trianglesTurned += agree(mesh, topologyOf(mesh));
  }
  const found = survey(mesh);
  let shellsTurned = 0;
  if (found.watertight) {
    const inverted = found.shellVolumesMm3.map((volume, i) => volume < 0 !== ((found.depth[i] as number) % 2 === 1));
    shellsTurned = inverted.filter(Boolean).length;
    for (let at = 0; at < found.shell.length; at++) if (inverted[found.shell[at] as number]) turn(mesh.triangles, at);
  }
  return {
    mesh,
    before,
    after: measure(mesh),
    changed: {
      cornersJoined: (first.mesh.positions.length - joined.mesh.positions.length) / 3,
      collapsedDropped: first.collapsed + joined.collapsed,
      doublesDropped: dropped,
      edgesCut: parted.cut,
      trianglesTurned,
      shellsTurned,
      holesFilled: filled,
      trianglesAdded: added,
      holesLeft: left,
    },
  };
}
