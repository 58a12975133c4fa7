import { Failure } from '../failure.ts';
import { type Bounds, boundsOf, corner, type Mesh, minus, triangleCount, type Vec3 } from './mesh.ts';
import { type MeshUnit, unitGuess } from './read.ts';
import { shellsOf, type Topology, topologyOf } from './topology.ts';

export interface Measured {
  triangles: number;
  /** Null unless the mesh is watertight and every part of it is the right way out. */
  volumeMl: number | null;
  areaMm2: number;
  boundsMm: Bounds;
  sizeMm: Vec3;
  centroidMm: Vec3 | null;
  /** No open edges, and neighbours agree on which side is out. */
  watertight: boolean;
  /** Edges not shared by exactly two triangles. */
  openEdges: number;
  shells: number;
  /** Neighbours disagree, or the whole or a part of it is inside out. */
  flipped: boolean;
  /** Triangles without area once near corners were joined; they are left out. */
  collapsed: number;
  /** Closed parts that lie inside another, such as a bore with both ends shut. */
  voids: number;
  /** The unit that its size looks like. */
  looksLike: MeshUnit;
  /** What is wrong, in words; empty for a sound mesh. */
  faults: string[];
}

interface ShellSum {
  volume: number;
  /** ∫ position dV, mm⁴. */
  moment: Vec3;
  any: number;
  low: Vec3;
  high: Vec3;
}

/** Volume and first moment of each shell about `origin`, by the divergence theorem. */
function sums(mesh: Mesh, shell: Int32Array, shells: number, origin: Vec3) {
  const rows = Array.from(
    { length: shells },
    (): ShellSum => ({
      volume: 0,
      moment: [0, 0, 0],
      any: 0,
      low: [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY],
      high: [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY],
    }),
  );
  const { positions: p, triangles: t } = mesh;
  const [ox, oy, oz] = origin;
  let area = 0;
  for (let i = 0, n = 0; i < t.length; i += 3, n++) {
    const row = rows[shell[n] as number] as ShellSum;
    const a = 3 * (t[i] as number);
    const b = 3 * (t[i + 1] as number);
    const c = 3 * (t[i + 2] as number);
    const ax = (p[a] as number) - ox;
    const ay = (p[a + 1] as number) - oy;
    const az = (p[a + 2] as number) - oz;
    const bx = (p[b] as number) - ox;
    const by = (p[b + 1] as number) - oy;
    const bz = (p[b + 2] as number) - oz;
    const cx = (p[c] as number) - ox;
    const cy = (p[c + 1] as number) - oy;
    const cz = (p[c + 2] as number) - oz;
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay);
    const ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az);
    const nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    area += Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    const volume = (ax * nx + ay * ny + az * nz) / 6;
    row.volume += volume;
    row.any = n;
    row.moment[0] += (volume * (ax + bx + cx)) / 4;
    row.moment[1] += (volume * (ay + by + cy)) / 4;
    row.moment[2] += (volume * (az + bz + cz)) / 4;
    if (shells > 1) {
      for (const at of [a, b, c]) {
        for (let k = 0; k < 3; k++) {
          const value = p[at + k] as number;
          if (value < (row.low[k] as number)) row.low[k] = value;
          if (value > (row.high[k] as number)) row.high[k] = value;
        }
      }
    }
  }
  return { rows, area };
}

/** Whether `point` is inside a closed shell: how often a ray that goes straight through no edge crosses it. */
function isInside(mesh: Mesh, shell: Int32Array, which: number, [x, y, z]: Vec3): boolean {
  // A direction that no drawn edge has, so that the ray meets faces, not edges.
  const [dx, dy] = [0.000731, 0.000417];
  const t = mesh.triangles;
  let crossings = 0;
  for (let n = 0; n < shell.length; n++) {
    if (shell[n] !== which) continue;
    const at = [0, 1, 2].map((k) => corner(mesh, t[3 * n + k] as number));
    const flat = at.map((q) => [q[0] - x - dx * (q[2] - z), q[1] - y - dy * (q[2] - z), q[2] - z]) as Vec3[];
    const [a, b, c] = flat as [Vec3, Vec3, Vec3];
    const w0 = b[0] * c[1] - c[0] * b[1];
    const w1 = c[0] * a[1] - a[0] * c[1];
    const w2 = a[0] * b[1] - b[0] * a[1];
    if ((w0 > 0 && w1 > 0 && w2 > 0) || (w0 < 0 && w1 < 0 && w2 < 0)) {
      if ((w0 * a[2] + w1 * b[2] + w2 * c[2]) / (w0 + w1 + w2) > 0) crossings++;
    }
  }
  return crossings % 2 === 1;
}

const boxesMeet = (a: ShellSum, b: ShellSum) =>
  [0, 1, 2].every((k) => (a.low[k] as number) < (b.high[k] as number) && (b.low[k] as number) < (a.high[k] as number));

/** Most shells whose nesting is looked into; a file with more is a heap of loose parts. */
const NESTING_LIMIT = 60;

/** How many other shells each shell lies inside. */
export function nesting(mesh: Mesh, shell: Int32Array, rows: ShellSum[]): number[] {
  return rows.map((inner, i) => {
    const point = corner(mesh, mesh.triangles[3 * inner.any] as number);
    return rows.filter(
      (outer, j) =>
        j !== i &&
        point.every((value, k) => value > (outer.low[k] as number) && value < (outer.high[k] as number)) &&
        isInside(mesh, shell, j, point),
    ).length;
  });
}

const number = (n: number, thing: string) => `${n} ${thing}${n === 1 ? '' : 's'}`;

export interface Survey extends Measured {
  topology: Topology;
  shell: Int32Array;
  shellVolumesMm3: number[];
  depth: number[];
}

/** Everything `measure` reports, and what a repair needs to know besides. */
export function survey(mesh: Mesh, collapsed = 0): Survey {
  const triangles = triangleCount(mesh);
  if (triangles === 0)
    throw new Failure('bad-mesh', 'No triangle in it has any area; export it again as STL or OBJ.', 'mesh');
  const topology = topologyOf(mesh);
  const { shell, shells } = shellsOf(mesh, topology);
  const bounds = boundsOf(mesh.positions);
  const origin: Vec3 = [0, 1, 2].map((k) => ((bounds.min[k] as number) + (bounds.max[k] as number)) / 2) as Vec3;
  const { rows, area } = sums(mesh, shell, shells, origin);
  if (!(area > 1e-9))
    throw new Failure('bad-mesh', 'No triangle in it has any area; export it again as STL or OBJ.', 'mesh');
  const watertight = topology.openEdges === 0 && topology.turnedEdges === 0;
  const many = shells > NESTING_LIMIT;
  const depth = watertight && shells > 1 && !many ? nesting(mesh, shell, rows) : rows.map(() => 0);
  const wrong = watertight ? rows.filter((row, i) => row.volume < 0 !== ((depth[i] as number) % 2 === 1)).length : 0;
  // A mesh that is inside out as a whole still has the volume that it has; parts that differ from each other do not.
  const wholly = wrong === shells;
  const volume = rows.reduce((sum, row) => sum + row.volume, 0);
  const sound = watertight && (wrong === 0 || wholly) && Math.abs(volume) > 0;
  const overlapping =
    watertight && shells > 1 && !many
      ? rows.some((a, i) => rows.some((b, j) => j > i && depth[i] === 0 && depth[j] === 0 && boxesMeet(a, b)))
      : false;
  const faults = [
    topology.openEdges > 0 &&
      `${number(topology.openEdges, 'open edge')}: it has holes, or sheets without thickness, so it holds no volume.`,
    topology.turnedEdges > 0 &&
      `${number(topology.turnedEdges, 'edge')} where neighbours disagree on which side is out.`,
    wholly && 'It is inside out.',
    wrong > 0 && !wholly && `${number(wrong, 'part')} of it inside out.`,
    shells > 1 && `${shells} separate parts.`,
    overlapping && 'Some parts may overlap: what they share would be counted twice.',
    many && 'Too many parts to see which lies in which.',
    collapsed > 0 && `${number(collapsed, 'triangle')} without area left out.`,
  ].filter((fault) => fault !== false);
  const centroid = rows.reduce<Vec3>(
    (sum, row) => [sum[0] + row.moment[0], sum[1] + row.moment[1], sum[2] + row.moment[2]],
    [0, 0, 0],
  );
  const sizeMm = minus(bounds.max, bounds.min);
  return {
    triangles: triangles + collapsed,
    volumeMl: sound ? Math.abs(volume) / 1000 : null,
    areaMm2: area,
    boundsMm: bounds,
    sizeMm,
    centroidMm: sound ? (origin.map((o, k) => o + (centroid[k] as number) / volume) as Vec3) : null,
    watertight,
    openEdges: topology.openEdges,
    shells,
    flipped: topology.turnedEdges > 0 || wrong > 0 || volume < 0,
    collapsed,
    voids: wholly ? 0 : depth.filter((d) => d % 2 === 1).length,
    looksLike: unitGuess(Math.max(...sizeMm)),
    faults,
    topology,
    shell,
    shellVolumesMm3: rows.map((row) => row.volume),
    depth,
  };
}

/**
 * What a mesh measures, and what is wrong with it. A mesh that is not closed has no volume: it is reported, not guessed.
 * @param collapsed triangles that the weld left out.
 * @returns volume in mL, area in mm², lengths and places in mm.
 * @throws Failure `bad-mesh` when nothing in it has area.
 * Source: divergence theorem over the triangles, about the middle of the bounding box.
 */
export function measure(mesh: Mesh, collapsed = 0): Measured {
  const { topology: _, shell: __, shellVolumesMm3: ___, depth: ____, ...measured } = survey(mesh, collapsed);
  return measured;
}
