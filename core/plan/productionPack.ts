import type { PlannedLine } from './production.ts';
import { goodOf, type Work } from './productionWork.ts';

/** Shots of a product up to and on a day, both by number. */
export type ShotsBy = (product: number, day: number) => number;

const SLACK = 1e-9;

/** The packing table as the days go by: what is ready of each product, and who still wants some, the earliest due first. */
export class Table {
  /** Baits of each line that are still to be packed. */
  readonly left: Float64Array;
  private readonly packed: Float64Array;
  /** Lines by number: asked for by every small step of a search, so they lie in arrays. */
  private readonly product: Int32Array;
  private readonly perPack: Int32Array;
  private readonly due: Int32Array;
  private readonly packMin: Float64Array;

  constructor(private readonly work: Work) {
    const { lines, products } = work;
    this.left = Float64Array.from(lines, ({ baits }) => baits);
    this.packed = new Float64Array(products.length);
    this.product = Int32Array.from(lines, ({ product }) => product);
    this.perPack = Int32Array.from(lines, ({ perPack }) => perPack);
    this.due = Int32Array.from(lines, ({ due }) => due);
    this.packMin = Float64Array.from(products, ({ packMin }) => packMin);
  }

  /** As it stands at the beginning of a day, to be gone back to. */
  state(): Float64Array {
    const { left, packed } = this;
    const state = new Float64Array(left.length + packed.length);
    state.set(left);
    state.set(packed, left.length);
    return state;
  }

  backTo(state: Float64Array): void {
    this.left.set(state.subarray(0, this.left.length));
    this.packed.set(state.subarray(this.left.length));
  }

  /** What of a product is cured by a day and not packed. */
  private ready(p: number, day: number, shotsBy: ShotsBy): number {
    const one = this.work.products[p] as Work['products'][number];
    const last = day - one.lag;
    return (one.stockBy[day] as number) + (last < 0 ? 0 : goodOf(one, shotsBy(p, last))) - (this.packed[p] as number);
  }

  /**
   * Full bags for each line in its turn, the last one of what is over, as far as baits are ready and hands are free.
   * @param minutes that hands have for it. @returns those that it took.
   */
  pack(day: number, minutes: number, shotsBy: ShotsBy, took?: (line: number, baits: number) => void): number {
    const { left, packed } = this;
    let free = minutes;
    for (let at = 0; at < left.length; at++) {
      const wants = left[at] as number;
      if (wants === 0) continue;
      const product = this.product[at] as number;
      const there = this.ready(product, day, shotsBy);
      if (there <= 0) continue;
      const packMin = this.packMin[product] as number;
      const inTime = packMin > 0 ? Math.floor(free / packMin + SLACK) : wants;
      const some = Math.min(wants, there, inTime);
      const baits = some >= wants ? wants : some - (some % (this.perPack[at] as number));
      if (baits <= 0) continue;
      left[at] = wants - baits;
      packed[product] = (packed[product] as number) + baits;
      free -= baits * packMin;
      took?.(at, baits);
    }
    return minutes - free;
  }

  /** Baits that are due by the end of a day and not packed. */
  lateOn(day: number): number {
    let late = 0;
    for (let at = 0; at < this.left.length && (this.due[at] as number) <= day; at++) late += this.left[at] as number;
    return late;
  }
}

/** What is packed when, of all that these shots give. */
export interface Packed {
  /** Of each day, baits of each line, by their number in the work. */
  days: { line: number; baits: number }[][];
  packMin: number[];
  lateBaitDays: number;
  /** Of each line: the day on which the last of it is packed, and what is not packed at all. */
  on: (number | null)[];
  left: Float64Array;
}

/** @param pourMin minutes of the hands that pouring takes on a day. */
export function packedOf(work: Work, shotsBy: ShotsBy, pourMin: (day: number) => number): Packed {
  const table = new Table(work);
  const on: (number | null)[] = work.lines.map(() => null);
  const packed: Packed = { days: [], packMin: [], lateBaitDays: 0, on, left: table.left };
  work.days.forEach(({ handsMin }, day) => {
    const rows: Packed['days'][number] = [];
    const minutes = table.pack(day, Math.max(0, handsMin - pourMin(day)), shotsBy, (line, baits) => {
      rows.push({ line, baits });
      if (table.left[line] === 0) on[line] = day;
    });
    packed.days.push(rows);
    packed.packMin.push(minutes);
    packed.lateBaitDays += table.lateOn(day);
  });
  return packed;
}

/** When each line is whole, and how many days late; of what is not, how many are missing and why. In the order they were asked. */
export function linesOf(work: Work, { on, left }: Packed): PlannedLine[] {
  const told = work.lines.map(({ id, product, dueAt }, at): [string, PlannedLine] => {
    const day = on[at] ?? null;
    const shortBaits = left[at] as number;
    const line: PlannedLine = {
      lineId: id,
      packedOn: day === null ? null : (work.days[day]?.day as string),
      lateDays: day === null ? null : Math.max(0, day - dueAt),
      shortBaits,
      why: shortBaits > 0 ? (work.products[product]?.lack ?? 'no-time') : null,
    };
    return [id, line];
  });
  const byId = new Map(told);
  return work.asked.lines.map(({ id }) => byId.get(id) as PlannedLine);
}
