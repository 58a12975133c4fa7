import { across, type Mesh, type Vec3 } from './mesh.ts';

/** A cavity as a field of depths: how far below the parting plane the mold is cut at each place. */
export interface Field {
  columns: number;
  rows: number;
  stepMm: number;
  originU: number;
  originW: number;
  /** Height of the mold's surface: 0 at the parting plane, −depth in the cavity. Row by row. */
  surface: Float32Array;
  /** The axes across the pull along which columns and rows run. */
  u: Vec3;
  w: Vec3;
}

/** Cells a ball's half-width spans beyond the cavity, so that it can stand clear of it. */
const MARGIN = 2;

/** A mesh seen along a pull: laid flat once, then drawn as a field as finely as it is asked for. */
export class Relief {
  private readonly u: Vec3;
  private readonly w: Vec3;
  /** Of each corner: along u, along w, and depth below the plane. */
  private readonly flat: Float64Array;
  /** Corners of the triangles that look along the pull: only those bound this half from above. */
  private readonly facing: Uint32Array;
  private lowU = Number.POSITIVE_INFINITY;
  private highU = Number.NEGATIVE_INFINITY;
  private lowW = Number.POSITIVE_INFINITY;
  private highW = Number.NEGATIVE_INFINITY;

  constructor({ positions, triangles: t }: Mesh, direction: Vec3, planeMm: number) {
    [this.u, this.w] = across(direction);
    this.flat = new Float64Array(positions.length);
    this.layFlat(positions, direction, planeMm);
    const facing = new Uint32Array(t.length);
    let count = 0;
    for (let i = 0; i < t.length; i += 3) {
      if (!(this.doubleArea(t[i] as number, t[i + 1] as number, t[i + 2] as number) > 1e-12)) continue;
      for (let k = 0; k < 3; k++) facing[count++] = t[i + k] as number;
    }
    this.facing = facing.slice(0, count);
  }

  private layFlat(p: Float64Array, [dx, dy, dz]: Vec3, planeMm: number): void {
    const [[ux, uy, uz], [wx, wy, wz]] = [this.u, this.w];
    const flat = this.flat;
    for (let i = 0; i < p.length; i += 3) {
      const [x, y, z] = [p[i] as number, p[i + 1] as number, p[i + 2] as number];
      const [pu, pw] = [ux * x + uy * y + uz * z, wx * x + wy * y + wz * z];
      flat[i] = pu;
      flat[i + 1] = pw;
      flat[i + 2] = dx * x + dy * y + dz * z - planeMm;
      if (pu < this.lowU) this.lowU = pu;
      if (pu > this.highU) this.highU = pu;
      if (pw < this.lowW) this.lowW = pw;
      if (pw > this.highW) this.highW = pw;
    }
  }

  private doubleArea(a: number, b: number, c: number): number {
    const { flat } = this;
    const [au, aw] = [flat[3 * a] as number, flat[3 * a + 1] as number];
    return (
      ((flat[3 * b] as number) - au) * ((flat[3 * c + 1] as number) - aw) -
      ((flat[3 * c] as number) - au) * ((flat[3 * b + 1] as number) - aw)
    );
  }

  /** @param stepMm the cells' width. */
  field(stepMm: number): Field {
    const { u, w, flat, facing, lowU, highU, lowW, highW } = this;
    // An odd count, so that the middle, where grooves tend to be, is a cell and not a border.
    const along = (lengthMm: number) => 2 * (Math.ceil(lengthMm / 2 / stepMm) + MARGIN) + 1;
    const [columns, rows] = [along(highU - lowU), along(highW - lowW)];
    // Cells lie the same on both sides of the middle, so that a wall is met at the same distance from either.
    const originU = (lowU + highU) / 2 - ((columns - 1) / 2) * stepMm;
    const originW = (lowW + highW) / 2 - ((rows - 1) / 2) * stepMm;
    const surface = new Float32Array(columns * rows);
    for (let i = 0; i < facing.length; i += 3) {
      const [a, b, c] = [3 * (facing[i] as number), 3 * (facing[i + 1] as number), 3 * (facing[i + 2] as number)];
      const [au, bu, cu] = [flat[a] as number, flat[b] as number, flat[c] as number];
      const fromU = Math.max(0, Math.ceil((Math.min(au, bu, cu) - originU) / stepMm - 1e-9));
      const toU = Math.min(columns - 1, Math.floor((Math.max(au, bu, cu) - originU) / stepMm + 1e-9));
      // Of a fine mesh most triangles lie between two cells.
      if (fromU > toU) continue;
      const [aw, bw, cw] = [flat[a + 1] as number, flat[b + 1] as number, flat[c + 1] as number];
      const fromW = Math.max(0, Math.ceil((Math.min(aw, bw, cw) - originW) / stepMm - 1e-9));
      const toW = Math.min(rows - 1, Math.floor((Math.max(aw, bw, cw) - originW) / stepMm + 1e-9));
      if (fromW > toW) continue;
      const [ah, bh, ch] = [flat[a + 2] as number, flat[b + 2] as number, flat[c + 2] as number];
      const area = (bu - au) * (cw - aw) - (cu - au) * (bw - aw);
      for (let y = fromW; y <= toW; y++) {
        const pw = originW + y * stepMm;
        for (let x = fromU; x <= toU; x++) {
          const pu = originU + x * stepMm;
          const wa = ((bu - pu) * (cw - pw) - (cu - pu) * (bw - pw)) / area;
          const wb = ((cu - pu) * (aw - pw) - (au - pu) * (cw - pw)) / area;
          const wc = 1 - wa - wb;
          if (wa < -1e-7 || wb < -1e-7 || wc < -1e-7) continue;
          const depth = wa * ah + wb * bh + wc * ch;
          const at = y * columns + x;
          if (-depth < (surface[at] as number)) surface[at] = -depth;
        }
      }
    }
    return { columns, rows, stepMm, originU, originW, surface, u, w };
  }
}

/**
 * The lowest that a ball's centre may stand over a cell: the field dilated by the ball. Worked out cell by cell as it is
 * asked for, since most places of a bait need none. Cells outside are stock at the parting plane.
 */
export class Centres {
  private readonly padded: Float32Array;
  private readonly known: Float32Array;
  private readonly offsets: Int32Array;
  private readonly rises: Float32Array;
  private readonly reach: number;
  private readonly wide: number;

  constructor(
    readonly field: Field,
    readonly radius: number,
  ) {
    const { columns, rows, surface, stepMm } = field;
    const reach = Math.round(radius / stepMm);
    const wide = columns + 2 * reach;
    this.padded = new Float32Array(wide * (rows + 2 * reach));
    for (let y = 0; y < rows; y++)
      this.padded.set(surface.subarray(y * columns, (y + 1) * columns), (y + reach) * wide + reach);
    this.known = new Float32Array(columns * rows).fill(Number.NaN);
    const offsets: number[] = [];
    const rises: number[] = [];
    for (let dy = -reach; dy <= reach; dy++) {
      for (let dx = -reach; dx <= reach; dx++) {
        const d2 = (dx * dx + dy * dy) * stepMm * stepMm;
        if (d2 > radius * radius * (1 + 1e-9)) continue;
        offsets.push(dy * wide + dx);
        rises.push(Math.sqrt(Math.max(0, radius * radius - d2)));
      }
    }
    this.offsets = Int32Array.from(offsets);
    this.rises = Float32Array.from(rises);
    this.reach = reach;
    this.wide = wide;
  }

  at(x: number, y: number): number {
    const cell = y * this.field.columns + x;
    const known = this.known[cell] as number;
    if (!Number.isNaN(known)) return known;
    const { padded, offsets, rises } = this;
    const middle = (y + this.reach) * this.wide + this.reach + x;
    let high = Number.NEGATIVE_INFINITY;
    for (let i = 0; i < offsets.length; i++) {
      const one = (padded[middle + (offsets[i] as number)] as number) + (rises[i] as number);
      if (one > high) high = one;
    }
    this.known[cell] = high;
    return high;
  }
}
