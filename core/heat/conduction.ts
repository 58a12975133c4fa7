/** What conducts: SI units. */
export interface Stuff {
  conductivityWPerMK: number;
  densityKgPerM3: number;
  cpJPerKgK: number;
}

export type Form = 'slab' | 'cylinder';

/** A bait's half section and the wall round it, cut into cells that are finest where both meet. */
export interface HalfSection {
  form: Form;
  /** Cells of the bait, from its middle; those of the wall follow. */
  bait: number;
  /** Heat capacity of each cell, J/K, for a square metre of slab or a metre of length and radian of cylinder. */
  capacity: Float64Array;
  /** Conductance between each cell and the next, W/K. */
  between: Float64Array;
  /** From the last bait cell to the interface, and from there to the first wall cell, W/K. */
  toFace: [bait: number, wall: number];
  /** From the last cell to its outer face, and through the air there, W/K together. */
  outer: number;
  /** The same from the first wall cell to the cavity's face, for an open mold. */
  inner: number;
}

/** Thicknesses of cells that shrink toward the interface, metres; they add up to `total`. */
function graded(total: number, cells: number, least: number): number[] {
  // Cells grow by a fixed share: found by halving, so that the smallest is about `least`.
  let [low, high] = [1, 3];
  const sum = (growth: number) => Array.from({ length: cells }, (_, i) => growth ** i).reduce((a, b) => a + b, 0);
  for (let turn = 0; turn < 60; turn++) {
    const growth = (low + high) / 2;
    if (least * sum(growth) < total) low = growth;
    else high = growth;
  }
  const growth = total / cells <= least ? 1 : low;
  const scale = total / sum(growth);
  return Array.from({ length: cells }, (_, i) => scale * growth ** i);
}

const CELLS = 44;

/**
 * @param halfM half the bait's thickness, or its radius. @param wallM the wall's thickness. @param outerWPerM2K to the air.
 */
export function halfSection(
  form: Form,
  halfM: number,
  wallM: number,
  bait: Stuff,
  wall: Stuff,
  outerWPerM2K: number,
): HalfSection {
  const widths = [
    ...graded(halfM, CELLS, halfM / 1500).reverse(),
    ...graded(wallM, CELLS, Math.min(wallM / CELLS, halfM / 1500, wallM / 1500)),
  ];
  const faces = [0];
  for (const width of widths) faces.push((faces.at(-1) as number) + width);
  const area = (at: number) => (form === 'slab' ? 1 : at);
  const volume = (from: number, to: number) => (form === 'slab' ? to - from : (to ** 2 - from ** 2) / 2);
  const stuff = (cell: number) => (cell < CELLS ? bait : wall);
  const middles = widths.map((width, i) => (faces[i] as number) + width / 2);
  /** Conductance of half a cell, from its middle to one of its faces: plane or round. */
  const half = (cell: number, face: number) => {
    const k = stuff(cell).conductivityWPerMK;
    const from = middles[cell] as number;
    return form === 'slab' ? k / Math.abs(face - from) : k / Math.abs(Math.log(face / from));
  };
  const inSeries = (a: number, b: number) => 1 / (1 / a + 1 / b);
  const count = widths.length;
  const outerFace = faces[count] as number;
  const cavityFace = faces[CELLS] as number;
  return {
    form,
    bait: CELLS,
    capacity: Float64Array.from(widths, (_, i) => {
      const { densityKgPerM3, cpJPerKgK } = stuff(i);
      return densityKgPerM3 * cpJPerKgK * volume(faces[i] as number, faces[i + 1] as number);
    }),
    between: Float64Array.from({ length: count - 1 }, (_, i) =>
      inSeries(half(i, faces[i + 1] as number), half(i + 1, faces[i + 1] as number)),
    ),
    toFace: [half(CELLS - 1, cavityFace), half(CELLS, cavityFace)],
    outer: inSeries(half(count - 1, outerFace), outerWPerM2K * area(outerFace)),
    inner: inSeries(half(CELLS, cavityFace), outerWPerM2K * area(cavityFace)),
  };
}

/** A field of temperatures, °C, and the steps that carry it on. */
export class Field {
  private readonly lower: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly right: Float64Array;

  /**
   * @param first the first cell that is there: 0 with a bait in, `section.bait` for a mold that stands open.
   */
  constructor(
    readonly section: HalfSection,
    readonly c: Float64Array,
    private readonly first: number,
    private readonly ambientC: number,
  ) {
    const n = c.length;
    this.lower = new Float64Array(n);
    this.diagonal = new Float64Array(n);
    this.right = new Float64Array(n);
  }

  /**
   * One step by the theta method: 1 is fully implicit, ½ Crank–Nicolson.
   * Solved by elimination from the first cell to the last, and back (Thomas).
   */
  step(dt: number, theta: number): void {
    const { capacity, between, outer, inner } = this.section;
    const { c, first, ambientC, lower, diagonal, right } = this;
    const n = c.length;
    const open = first > 0;
    for (let i = first; i < n; i++) {
      const left = i > first ? (between[i - 1] as number) : 0;
      const next = i < n - 1 ? (between[i] as number) : 0;
      const toAir = (i === n - 1 ? outer : 0) + (open && i === first ? inner : 0);
      const held = (capacity[i] as number) / dt;
      const here = c[i] as number;
      const flow =
        left * ((i > first ? (c[i - 1] as number) : here) - here) +
        next * ((i < n - 1 ? (c[i + 1] as number) : here) - here) +
        toAir * (ambientC - here);
      diagonal[i] = held + theta * (left + next + toAir);
      right[i] = held * here + (1 - theta) * flow + theta * toAir * ambientC;
      lower[i] = -theta * left;
    }
    for (let i = first + 1; i < n; i++) {
      const share = (lower[i] as number) / (diagonal[i - 1] as number);
      // What stands above the diagonal is what stands below it one row on.
      diagonal[i] = (diagonal[i] as number) - share * (lower[i] as number);
      right[i] = (right[i] as number) - share * (right[i - 1] as number);
    }
    c[n - 1] = (right[n - 1] as number) / (diagonal[n - 1] as number);
    for (let i = n - 2; i >= first; i--)
      c[i] = ((right[i] as number) - (lower[i + 1] as number) * (c[i + 1] as number)) / (diagonal[i] as number);
  }

  /** Mean of the bait by volume. */
  mean(): number {
    const { bait, capacity } = this.section;
    let [heat, held] = [0, 0];
    for (let i = 0; i < bait; i++) {
      heat += (capacity[i] as number) * (this.c[i] as number);
      held += capacity[i] as number;
    }
    return heat / held;
  }

  centre(): number {
    return this.c[0] as number;
  }

  /** Where bait and wall meet. */
  skin(): number {
    const { bait, toFace } = this.section;
    const [a, b] = toFace;
    return (a * (this.c[bait - 1] as number) + b * (this.c[bait] as number)) / (a + b);
  }
}

/** First step, s, and how much longer each is than what went before, as a share of the time since the start. */
const FIRST_S = 1e-4;
const GROWTH = 0.02;
/** Steps taken fully implicit at first: the sudden contact would ring otherwise (Rannacher 1984). */
const DAMPED = 6;

/** Carries a field on to `untilS`, growing steps; `watch` sees the time before and after each. */
export function carry(field: Field, untilS: number, watch?: (from: number, to: number) => void): void {
  for (let at = 0, n = 0; at < untilS - 1e-12; n++) {
    const to = Math.min(untilS, at + Math.max(FIRST_S, GROWTH * at));
    field.step(to - at, n < DAMPED ? 1 : 0.5);
    watch?.(at, to);
    at = to;
  }
}
