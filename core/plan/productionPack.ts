import type { PlannedLine } from './production.ts';
import { goodOf, type Work } from './productionWork.ts';

/** Shots of a product on a day, both by number. */
export type ShotsOn = (product: number, day: number) => number;

const SLACK = 1e-9;

/** The packing table as the days go by: what is ready of each product, and who still wants some, the earliest due first. */
export class Table {
  /** Baits of each line that are still to be packed. */
  readonly left: Float64Array;
  private readonly packed: Float64Array;
  private readonly ready: Float64Array;
  private readonly cured: Float64Array;

  constructor(private readonly work: Work) {
    this.left = Float64Array.from(work.lines, ({ baits }) => baits);
    this.packed = new Float64Array(work.products.length);
    this.ready = new Float64Array(work.products.length);
    this.cured = new Float64Array(work.products.length);
  }

  clear(): void {
    this.work.lines.forEach(({ baits }, at) => {
      this.left[at] = baits;
    });
    this.packed.fill(0);
    this.cured.fill(0);
  }

  /** What of each product can be packed on a day: each day is asked for once, in turn. */
  private comesReady(day: number, shotsOn: ShotsOn): void {
    const { products } = this.work;
    for (let p = 0; p < products.length; p++) {
      const one = products[p] as Work['products'][number];
      const last = day - one.lag;
      // The last of those days may still be poured: it is read anew once it is over.
      if (last > 0) this.cured[p] = (this.cured[p] as number) + shotsOn(p, last - 1);
      const shots = (this.cured[p] as number) + (last >= 0 ? shotsOn(p, last) : 0);
      this.ready[p] = (one.stockBy[day] as number) + goodOf(one, shots) - (this.packed[p] as number);
    }
  }

  /**
   * Full bags for each line in its turn, the last one of what is over, as far as baits are ready and hands are free.
   * @param minutes that hands have for it. @returns those that it took.
   */
  pack(day: number, minutes: number, shotsOn: ShotsOn, took?: (line: number, baits: number) => void): number {
    this.comesReady(day, shotsOn);
    const { lines, products } = this.work;
    const { left, ready, packed } = this;
    let free = minutes;
    for (let at = 0; at < lines.length; at++) {
      const wants = left[at] as number;
      if (wants === 0) continue;
      const { product, perPack } = lines[at] as Work['lines'][number];
      const there = ready[product] as number;
      if (there <= 0) continue;
      const { packMin } = products[product] as Work['products'][number];
      const inTime = packMin > 0 ? Math.floor(free / packMin + SLACK) : wants;
      const some = Math.min(wants, there, inTime);
      const baits = some >= wants ? wants : some - (some % perPack);
      if (baits <= 0) continue;
      left[at] = wants - baits;
      ready[product] = there - baits;
      packed[product] = (packed[product] as number) + baits;
      free -= baits * packMin;
      took?.(at, baits);
    }
    return minutes - free;
  }

  /** Baits that are due by the end of a day and not packed. */
  lateOn(day: number): number {
    const { lines } = this.work;
    let late = 0;
    for (let at = 0; at < lines.length; at++)
      if ((lines[at] as Work['lines'][number]).due <= day) late += this.left[at] as number;
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
export function packedOf(work: Work, shotsOn: ShotsOn, pourMin: (day: number) => number): Packed {
  const table = new Table(work);
  const on: (number | null)[] = work.lines.map(() => null);
  const packed: Packed = { days: [], packMin: [], lateBaitDays: 0, on, left: table.left };
  work.days.forEach(({ handsMin }, day) => {
    const rows: Packed['days'][number] = [];
    const minutes = table.pack(day, Math.max(0, handsMin - pourMin(day)), shotsOn, (line, baits) => {
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
