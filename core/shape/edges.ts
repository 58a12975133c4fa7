import { corner, cross, dot, length, type Mesh, minus, plus, unit, type Vec3 } from './mesh.ts';

/** How far the two sides of a cut edge are drawn apart, mm: more than a file rounds, less than a print shows. */
const APART_MM = 0.005;

const after = (i: number) => (i % 3 === 2 ? i - 2 : i + 1);

/** Sides by their edge, where more than two share it. */
function crowded({ triangles: t }: Mesh): number[][] {
  const edges = new Map<string, number[]>();
  for (let i = 0; i < t.length; i++) {
    const [a, b] = [t[i] as number, t[after(i)] as number];
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const sides = edges.get(key);
    if (sides) sides.push(i);
    else edges.set(key, [i]);
  }
  return [...edges.values()].filter((sides) => sides.length > 2 && sides.length % 2 === 0);
}

/**
 * Sides that bound the same solid round an edge that several solids share, two by two; nothing where they do not alternate.
 * Round the edge, what lies behind a face is reached before its other face, seen along the edge as the face runs along it.
 */
function pairsRound(mesh: Mesh, sides: number[]): [number, number][] | null {
  const t = mesh.triangles;
  const first = sides[0] as number;
  const [a, b] = [t[first] as number, t[after(first)] as number];
  const along = unit(minus(corner(mesh, b), corner(mesh, a)));
  const outward = (side: number): Vec3 => {
    const third = minus(corner(mesh, t[after(after(side))] as number), corner(mesh, a));
    return plus(third, along, -dot(third, along));
  };
  const x = unit(outward(first));
  const y = cross(along, x);
  const round = sides
    .map((side) => {
      const way = outward(side);
      return { side, forward: t[side] === a, angle: Math.atan2(dot(way, y), dot(way, x)), flat: length(way) < 1e-9 };
    })
    .sort((one, other) => one.angle - other.angle);
  if (round.some(({ flat }, i) => flat || round[(i + 1) % round.length]?.forward === round[i]?.forward)) return null;
  return round.flatMap(({ side, forward }, i): [number, number][] =>
    forward ? [[side, (round[(i + round.length - 1) % round.length] as { side: number }).side]] : [],
  );
}

/**
 * Cuts solids apart that touch along an edge, so that each edge is shared by two triangles and no more: what no slicer and no
 * modeller takes otherwise. The two sides of a cut are drawn apart by a hair.
 * @returns the mesh, and how many edges were cut.
 */
export function cutEdges(mesh: Mesh): { mesh: Mesh; cut: number } {
  const shared = crowded(mesh);
  const cuts = shared.flatMap((sides) => {
    const pairs = pairsRound(mesh, sides);
    return pairs ? [{ sides, pairs }] : [];
  });
  if (cuts.length === 0) return { mesh, cut: 0 };
  const t = mesh.triangles;
  // Corners of triangles that stay one: those of neighbours across an edge.
  const parent = Array.from(t, (_, i) => i);
  const root = (i: number): number => {
    let at = i;
    while (parent[at] !== at) at = parent[at] = parent[parent[at] as number] as number;
    return at;
  };
  const join = (one: number, two: number) => {
    for (const i of [one, after(one)]) for (const j of [two, after(two)]) if (t[i] === t[j]) parent[root(i)] = root(j);
  };
  const apart = new Set(shared.flat());
  const open = new Map<string, number>();
  for (let i = 0; i < t.length; i++) {
    if (apart.has(i)) continue;
    const [a, b] = [t[i] as number, t[after(i)] as number];
    const key = a < b ? `${a} ${b}` : `${b} ${a}`;
    const other = open.get(key);
    if (other === undefined) open.set(key, i);
    else join(i, other);
  }
  for (const { pairs } of cuts) for (const [one, two] of pairs) join(one, two);
  const touched = new Set(
    cuts.flatMap(({ sides }) => sides.flatMap((side) => [t[side] as number, t[after(side)] as number])),
  );
  return { mesh: copied(mesh, root, touched), cut: cuts.length };
}

/** Each group of corners with a place of its own; those of cut edges a hair nearer to their own triangles. */
function copied(mesh: Mesh, root: (i: number) => number, touched: Set<number>): Mesh {
  const t = mesh.triangles;
  const places = new Map<number, number>();
  const towards: { from: number; sum: Vec3; n: number }[] = [];
  const triangles = Uint32Array.from(t, (at, i) => {
    const group = touched.has(at) ? root(i) : -1 - at;
    let place = places.get(group);
    if (place === undefined) {
      place = towards.length;
      places.set(group, place);
      towards.push({ from: at, sum: [0, 0, 0], n: 0 });
    }
    const first = i - (i % 3);
    const row = towards[place] as (typeof towards)[number];
    for (let k = 0; k < 3; k++) {
      row.sum = plus(row.sum, corner(mesh, t[first + k] as number));
      row.n += 1;
    }
    return place;
  });
  const positions = new Float64Array(3 * towards.length);
  towards.forEach(({ from, sum, n }, i) => {
    const at = corner(mesh, from);
    const way = minus([sum[0] / n, sum[1] / n, sum[2] / n], at);
    const moved = touched.has(from) && length(way) > 1e-9 ? plus(at, unit(way), APART_MM) : at;
    positions.set(moved, 3 * i);
  });
  return { positions, triangles };
}
