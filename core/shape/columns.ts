import { cross, dot, type Mesh, unit, type Vec3 } from './mesh.ts';

/** Cells of the grid at most, and triangles aimed at in each. */
const MOST_CELLS = 1 << 20;
const A_CELL = 2;

/** What lies above and below a place along one direction: the triangles sorted into columns along it. */
export class Columns {
  private readonly across: Vec3;
  private readonly along: Vec3;
  private readonly direction: Vec3;
  /** Of each corner: across, along and height, mm. */
  private readonly u: Float64Array;
  private readonly v: Float64Array;
  private readonly h: Float64Array;
  private readonly triangles: Uint32Array;
  /** Of each triangle, between which heights it lies. */
  private readonly under: Float64Array;
  private readonly over: Float64Array;
  private readonly lowU: number;
  private readonly lowV: number;
  private readonly cell: number;
  private readonly wide: number;
  private readonly high: number;
  /** Triangles of cell c: list[start[c]] … list[start[c + 1] − 1]. */
  private readonly start: Uint32Array;
  private readonly list: Uint32Array;

  constructor({ positions: p, triangles: t }: Mesh, wanted: Vec3) {
    const direction = unit(wanted);
    this.direction = direction;
    this.across = unit(cross(direction, Math.abs(direction[0]) < 0.7 ? [1, 0, 0] : [0, 1, 0]));
    this.along = cross(direction, this.across);
    const count = p.length / 3;
    this.triangles = t;
    [this.u, this.v, this.h] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
    let [lowU, highU, lowV, highV] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let c = 0; c < count; c++) {
      const at: Vec3 = [p[3 * c] as number, p[3 * c + 1] as number, p[3 * c + 2] as number];
      const [u, v] = [dot(at, this.across), dot(at, this.along)];
      [this.u[c], this.v[c], this.h[c]] = [u, v, dot(at, direction)];
      if (u < lowU) lowU = u;
      if (u > highU) highU = u;
      if (v < lowV) lowV = v;
      if (v > highV) highV = v;
    }
    [this.lowU, this.lowV] = [lowU, lowV];
    [this.under, this.over] = [new Float64Array(t.length / 3), new Float64Array(t.length / 3)];
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [
        this.h[t[i] as number] as number,
        this.h[t[i + 1] as number] as number,
        this.h[t[i + 2] as number] as number,
      ];
      this.under[i / 3] = Math.min(a, b, c);
      this.over[i / 3] = Math.max(a, b, c);
    }
    const cells = Math.min(MOST_CELLS, Math.max(1, t.length / 3 / A_CELL));
    this.cell = Math.max(1e-6, Math.sqrt(((highU - lowU) * (highV - lowV)) / cells));
    this.wide = Math.floor((highU - lowU) / this.cell) + 1;
    this.high = Math.floor((highV - lowV) / this.cell) + 1;
    this.start = new Uint32Array(this.wide * this.high + 1);
    this.eachCell((cell) => {
      this.start[cell + 1] = (this.start[cell + 1] as number) + 1;
    });
    for (let c = 0; c < this.wide * this.high; c++)
      this.start[c + 1] = (this.start[c + 1] as number) + (this.start[c] as number);
    this.list = new Uint32Array(this.start[this.wide * this.high] as number);
    const next = this.start.slice();
    this.eachCell((cell, triangle) => {
      this.list[next[cell] as number] = triangle;
      next[cell] = (next[cell] as number) + 1;
    });
  }

  /** Each cell that the box round a triangle touches. */
  private eachCell(use: (cell: number, triangle: number) => void): void {
    const { triangles: t, u, v, cell, wide, high, lowU, lowV } = this;
    const column = (value: number) => Math.min(wide - 1, Math.floor((value - lowU) / cell));
    const row = (value: number) => Math.min(high - 1, Math.floor((value - lowV) / cell));
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [t[i] as number, t[i + 1] as number, t[i + 2] as number];
      const [ua, ub, uc] = [u[a] as number, u[b] as number, u[c] as number];
      const [va, vb, vc] = [v[a] as number, v[b] as number, v[c] as number];
      const toColumn = column(Math.max(ua, ub, uc));
      const toRow = row(Math.max(va, vb, vc));
      for (let y = row(Math.min(va, vb, vc)); y <= toRow; y++)
        for (let x = column(Math.min(ua, ub, uc)); x <= toColumn; x++) use(y * wide + x, i / 3);
    }
  }

  /** Whether a straight way from a point, along the direction (1) or against it (−1), meets the mesh. */
  blocked(point: Vec3, way: 1 | -1): boolean {
    const { u, v, h, triangles: t, under, over } = this;
    const [pu, pv, ph] = [dot(point, this.across), dot(point, this.along), dot(point, this.direction)];
    const [x, y] = [Math.floor((pu - this.lowU) / this.cell), Math.floor((pv - this.lowV) / this.cell)];
    if (x < 0 || y < 0 || x >= this.wide || y >= this.high) return false;
    const cell = y * this.wide + x;
    const end = this.start[cell + 1] as number;
    for (let at = this.start[cell] as number; at < end; at++) {
      const triangle = this.list[at] as number;
      // Wholly behind the place: it cannot be in the way.
      if (way > 0 ? (over[triangle] as number) <= ph : (under[triangle] as number) >= ph) continue;
      const i = 3 * triangle;
      const [a, b, c] = [t[i] as number, t[i + 1] as number, t[i + 2] as number];
      const [au, av] = [(u[a] as number) - pu, (v[a] as number) - pv];
      const [bu, bv] = [(u[b] as number) - pu, (v[b] as number) - pv];
      const [cu, cv] = [(u[c] as number) - pu, (v[c] as number) - pv];
      const wa = bu * cv - cu * bv;
      const wb = cu * av - au * cv;
      const wc = au * bv - bu * av;
      // Seen edge on a face hides nothing; on an edge it counts with either neighbour.
      if (!((wa >= 0 && wb >= 0 && wc >= 0) || (wa <= 0 && wb <= 0 && wc <= 0))) continue;
      const sum = wa + wb + wc;
      if (sum === 0) continue;
      const height = (wa * (h[a] as number) + wb * (h[b] as number) + wc * (h[c] as number)) / sum;
      if (way * (height - ph) > 0) return true;
    }
    return false;
  }
}
