// Reads what a maker prints or hands to a shop: exported files by their layout alone, and what lies in them by rays on a grid.
import type { Manifold, ManifoldToplevel } from 'manifold-3d';

export interface Read {
  vertices: number[];
  triangles: number[];
}

/** A binary STL: 80 bytes, a count, and 50 bytes a triangle; corners that are the same to the bit are one. */
export function readStl(bytes: Uint8Array): Read {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // By the bits of each figure: a corner is known by its three.
  const corners = new Map<number, Map<number, Map<number, number>>>();
  const read: Read = { vertices: [], triangles: [] };
  const within = <V>(of: Map<number, V>, key: number, make: () => V): V => {
    let found = of.get(key);
    if (found === undefined) {
      found = make();
      of.set(key, found);
    }
    return found;
  };
  for (let t = 0; t < view.getUint32(80, true); t++)
    for (let k = 0; k < 3; k++) {
      const from = 84 + 50 * t + 12 + 12 * k;
      const [x, y, z] = [0, 4, 8].map((more) => view.getFloat32(from + more, true)) as [number, number, number];
      const line = within(
        within(corners, x, () => new Map<number, Map<number, number>>()),
        y,
        () => new Map<number, number>(),
      );
      read.triangles.push(
        within(line, z, () => {
          read.vertices.push(x, y, z);
          return read.vertices.length / 3 - 1;
        }),
      );
    }
  return read;
}

/** A file's triangles as a solid of the modeller, to be cut and compared. */
export function solidOf(kit: ManifoldToplevel, { vertices, triangles }: Read): Manifold {
  const mesh = new kit.Mesh({
    numProp: 3,
    vertProperties: Float32Array.from(vertices),
    triVerts: Uint32Array.from(triangles),
  });
  mesh.merge();
  return new kit.Manifold(mesh);
}

export interface Soundness {
  /** Edges that do not have exactly one triangle on each side. */
  open: number;
  /** Triangles of which two corners are one. */
  collapsed: number;
  /** Pieces that hang together. */
  shells: number;
}

export function soundness({ vertices, triangles }: Read): Soundness {
  const count = vertices.length / 3;
  const edges = new Map<number, number>();
  const parent = Uint32Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i] as number] as number;
      i = parent[i] as number;
    }
    return i;
  };
  let collapsed = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number];
    if (a === b || b === c || c === a) {
      collapsed += 1;
      continue;
    }
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const edge = from * count + to;
      edges.set(edge, (edges.get(edge) ?? 0) + 1);
      parent[root(from)] = root(to);
    }
  }
  let open = 0;
  for (const [edge, n] of edges) {
    const from = Math.floor(edge / count);
    if (n !== 1 || edges.get((edge - from * count) * count + from) !== 1) open += 1;
  }
  return { open, collapsed, shells: new Set(triangles.map(root)).size };
}

/** Columns along z over a rectangle. */
export interface Grid {
  x0: number;
  y0: number;
  columns: number;
  rows: number;
  cellMm: number;
}

export const gridOver = (min: number[], max: number[], cellMm: number): Grid => ({
  x0: min[0] as number,
  y0: min[1] as number,
  columns: Math.floor(((max[0] as number) - (min[0] as number)) / cellMm),
  rows: Math.floor(((max[1] as number) - (min[1] as number)) / cellMm),
  cellMm,
});

type Spans = [from: number, to: number][];

/** Where each column of the grid is inside a solid: it enters through faces that look down, and leaves through those that look up. */
export function spansOf({ vertices: p, triangles: t }: Read, grid: Grid): Spans[] {
  const { x0, y0, columns, rows, cellMm } = grid;
  const met: { z: number; up: boolean }[][] = Array.from({ length: columns * rows }, () => []);
  // A hair off the middle, so that no ray runs along an edge that was drawn on a round figure.
  const [ox, oy] = [0.50137, 0.50291];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * (t[i + k] as number)) as [number, number, number];
    const [ax, ay, az] = [p[a] as number, p[a + 1] as number, p[a + 2] as number];
    const [bx, by, bz] = [p[b] as number, p[b + 1] as number, p[b + 2] as number];
    const [cx, cy, cz] = [p[c] as number, p[c + 1] as number, p[c + 2] as number];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    if (area === 0) continue;
    const cell = (at: number, from: number, off: number) => (at - from) / cellMm - off;
    const fromX = Math.max(0, Math.ceil(cell(Math.min(ax, bx, cx), x0, ox)));
    const toX = Math.min(columns - 1, Math.floor(cell(Math.max(ax, bx, cx), x0, ox)));
    const fromY = Math.max(0, Math.ceil(cell(Math.min(ay, by, cy), y0, oy)));
    const toY = Math.min(rows - 1, Math.floor(cell(Math.max(ay, by, cy), y0, oy)));
    for (let row = fromY; row <= toY; row++) {
      const y = y0 + (row + oy) * cellMm;
      for (let column = fromX; column <= toX; column++) {
        const x = x0 + (column + ox) * cellMm;
        const wa = ((bx - x) * (cy - y) - (cx - x) * (by - y)) / area;
        const wb = ((cx - x) * (ay - y) - (ax - x) * (cy - y)) / area;
        const wc = 1 - wa - wb;
        if (wa >= 0 && wb >= 0 && wc >= 0)
          met[row * columns + column]?.push({ z: wa * az + wb * bz + wc * cz, up: area > 0 });
      }
    }
  }
  return met.map((hits) => {
    hits.sort((one, two) => one.z - two.z || Number(one.up) - Number(two.up));
    const spans: Spans = [];
    let depth = 0;
    for (const { z, up } of hits) {
      if (!up && depth++ === 0) spans.push([z, z]);
      else if (up && --depth === 0) (spans.at(-1) as [number, number])[1] = z;
    }
    return spans.filter(([from, to]) => to - from > 1e-4);
  });
}

export interface Spaces {
  /** What both are at once, mm³. */
  overlapMm3: number;
  /** Of each space that is left free between the lowest and the highest of both, the largest first, mL; and where it is. */
  free: { ml: number; has(x: number, y: number, z: number): boolean }[];
}

/** What two closed halves leave free, and where they are in each other's way. */
export function spacesOf(one: Spans[], two: Spans[], grid: Grid, low: number, high: number): Spaces {
  const { columns, rows, cellMm, x0, y0 } = grid;
  let overlapMm3 = 0;
  interface Gap {
    from: number;
    to: number;
    parent: Gap | null;
  }
  const gaps: Gap[][] = [];
  for (let at = 0; at < columns * rows; at++) {
    const spans = [...(one[at] as Spans), ...(two[at] as Spans)].sort((a, b) => a[0] - b[0]);
    const own: Gap[] = [];
    let until = low;
    for (const [from, to] of spans) {
      if (from < until - 1e-3) overlapMm3 += (Math.min(to, until) - from) * cellMm ** 2;
      if (from > until + 1e-3) own.push({ from: until, to: from, parent: null });
      until = Math.max(until, to);
    }
    if (high > until + 1e-3) own.push({ from: until, to: high, parent: null });
    gaps.push(own);
  }
  const root = (gap: Gap): Gap => {
    let top = gap;
    while (top.parent) {
      if (top.parent.parent) top.parent = top.parent.parent;
      top = top.parent;
    }
    return top;
  };
  const join = (here: Gap[], there: Gap[] | undefined) => {
    for (const a of here)
      for (const b of there ?? [])
        if (Math.min(a.to, b.to) - Math.max(a.from, b.from) > 0.01 && root(a) !== root(b)) root(a).parent = root(b);
  };
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const here = gaps[row * columns + column] as Gap[];
      if (column + 1 < columns) join(here, gaps[row * columns + column + 1]);
      if (row + 1 < rows) join(here, gaps[(row + 1) * columns + column]);
    }
  const volumes = new Map<Gap, number>();
  for (const gap of gaps.flat())
    volumes.set(root(gap), (volumes.get(root(gap)) ?? 0) + (gap.to - gap.from) * cellMm ** 2);
  const free = [...volumes]
    .sort((a, b) => b[1] - a[1])
    .map(([space, mm3]) => ({
      ml: mm3 / 1000,
      has: (x: number, y: number, z: number) => {
        const at = Math.floor((y - y0) / cellMm) * columns + Math.floor((x - x0) / cellMm);
        return (gaps[at] ?? []).some((gap) => z > gap.from && z < gap.to && root(gap) === space);
      },
    }));
  return { overlapMm3, free };
}
