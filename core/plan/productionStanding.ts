import { Means } from './productionMeans.ts';
import { type ShotsBy, Table } from './productionPack.ts';
import { glassesFor, type Poured, type Work } from './productionWork.ts';

/** What a colour that is begun, a glass and an evening weigh beside a bait that is late for a day, while it is searched. */
const [CHANGE, GLASS, EVENING] = [0.5, 0.02, 0.1];
/** Many small changes to a day's minutes leave so much of rounding, min. */
const SLACK_MIN = 1e-6;
/** Less than this in a cup is none, mL. */
const NONE_ML = 1e-6;

/** The packing table as a day begins, and baits × days that were late by then. */
interface Morning {
  state: Float64Array;
  late: number;
}

/**
 * A plan as arrays, for many small changes: shots of each product on each day, the last "day" being those not poured.
 * What a day takes of hands, molds and glasses has its one home here.
 */
export class Standing {
  readonly count: number;
  /** Shots up to and on a day. */
  readonly by: ShotsBy;
  private readonly shots: Int32Array;
  private readonly sums: Int32Array;
  private readonly minutes: Float64Array;
  private readonly ml: Float64Array;
  private readonly used: Int32Array;
  private readonly begun: Int32Array;
  private readonly glasses: Int32Array;
  private readonly table: Table;
  private readonly mornings: Morning[];
  readonly means: Means;

  /** @param poured left out: nothing is poured yet. */
  constructor(
    private readonly work: Work,
    poured?: Poured,
  ) {
    const { products, days, baits, asked } = work;
    this.count = days.length;
    this.shots = new Int32Array(products.length * (this.count + 1));
    this.minutes = new Float64Array(this.count);
    this.ml = new Float64Array(asked.colours.length * this.count);
    this.used = new Int32Array(baits.length * this.count);
    this.begun = new Int32Array(this.count);
    this.glasses = new Int32Array(this.count);
    this.means = new Means(work);
    this.table = new Table(work);
    this.mornings = [{ state: this.table.state(), late: 0 }];
    this.sums = new Int32Array(products.length * this.count);
    this.by = (product, day) => this.sums[product * this.count + day] as number;
    products.forEach((product, p) => {
      this.shots[p * (this.count + 1) + this.count] = product.shots;
      for (let day = 0; poured && day < this.count; day++) this.move(p, this.count, day, poured[p]?.[day] as number);
    });
  }

  /** Shots of a product on a day; on the last "day" those not poured. */
  on(product: number, day: number): number {
    return this.shots[product * (this.count + 1) + day] as number;
  }

  /** Minutes of the hands that pouring takes on a day: to set up, to change colour, and the shots. */
  pourMin(day: number): number {
    return this.minutes[day] as number;
  }

  /** Millilitres of a colour, out of its fullest glass. */
  drawn(colour: number, day: number): number {
    return this.ml[colour * this.count + day] as number;
  }

  /** Shots of a bait on a day, over all colours. */
  ofBait(bait: number, day: number): number {
    return this.used[bait * this.count + day] as number;
  }

  /** Colours of a day. */
  coloursOn(day: number): number[] {
    return this.work.asked.colours.flatMap((_, colour) => (this.drawn(colour, day) > 0 ? [colour] : []));
  }

  /** Colours, counted each evening they are poured. */
  get changeovers(): number {
    return this.begun.reduce((sum, one) => sum + one, 0);
  }

  /** Shots from one day to another; nobody asks whether there is room. */
  move(p: number, from: number, to: number, shots: number): void {
    if (shots === 0) return;
    this.put(p, from, -shots);
    this.put(p, to, shots);
  }

  private put(p: number, day: number, shots: number): void {
    const { products, asked } = this.work;
    const row = p * (this.count + 1) + day;
    this.shots[row] = (this.shots[row] as number) + shots;
    if (day === this.count) return;
    for (let on = day; on < this.count; on++) {
      const at = p * this.count + on;
      this.sums[at] = (this.sums[at] as number) + shots;
    }
    const product = products[p] as Work['products'][number];
    const { colour, bait, ml, handsMin } = product;
    const cup = colour * this.count + day;
    const before = this.ml[cup] as number;
    const after = Math.abs(before + shots * ml) < NONE_ML ? 0 : before + shots * ml;
    this.ml[cup] = after;
    const { melts } = asked.colours[colour] as Work['asked']['colours'][number];
    const more = glassesFor(after, this.work.drawnMl) - glassesFor(before, this.work.drawnMl);
    this.glasses[day] = (this.glasses[day] as number) + more * melts;
    this.means.put(day, { product, shots, ml: after - before, glasses: more });
    let minutes = shots * handsMin;
    if (before === 0 && after > 0) {
      minutes += this.begun[day] === 0 ? asked.setUpMin : asked.changeMin;
      this.begun[day] = (this.begun[day] as number) + 1;
    } else if (before > 0 && after === 0) {
      this.begun[day] = (this.begun[day] as number) - 1;
      minutes -= this.begun[day] === 0 ? asked.setUpMin : asked.changeMin;
    }
    this.minutes[day] = (this.minutes[day] as number) + minutes;
    const kind = bait * this.count + day;
    this.used[kind] = (this.used[kind] as number) + shots;
  }

  glassesOn(day: number): number {
    return this.glasses[day] as number;
  }

  /** Whether a day keeps its hands, molds, glasses and other means. @param busyMin minutes of the hands that packing takes. */
  fits(day: number, busyMin = 0): boolean {
    if (day === this.count) return true;
    const { days, baits } = this.work;
    const of = days[day] as Work['days'][number];
    if ((this.minutes[day] as number) + busyMin > of.handsMin + SLACK_MIN) return false;
    for (let bait = 0; bait < baits.length; bait++)
      if (this.ofBait(bait, day) > (baits[bait]?.mostShots[day] as number)) return false;
    return this.glassesOn(day) <= of.glasses && this.means.fits(day);
  }

  /** Whether all days do: what the solver says is checked against these sums. */
  get kept(): boolean {
    return this.work.days.every((_, day) => this.fits(day));
  }

  /** What changes weigh: evenings, colours begun and glasses. */
  private changes(): number {
    let sum = 0;
    for (let day = 0; day < this.count; day++) {
      const begun = this.begun[day] as number;
      if (begun > 0) sum += EVENING + CHANGE * begun + GLASS * this.glassesOn(day);
    }
    return sum;
  }

  /** The packing table of a day as it stands now: baits that are late by its end. */
  private lateOn(day: number): number {
    const free = Math.max(0, (this.work.days[day]?.handsMin as number) - (this.minutes[day] as number));
    this.table.pack(day, free, this.by);
    return this.table.lateOn(day);
  }

  /**
   * What is looked for the least of: late bait-days, and what changes weigh beside them. Days before this one are as they
   * were when it was kept in mind last.
   * @param atMost where it is more it is not summed to its end: infinite.
   */
  weighs(from = 0, atMost = Number.POSITIVE_INFINITY): number {
    const begin = this.mornings[from] as Morning;
    this.table.backTo(begin.state);
    let sum = this.changes() + begin.late;
    for (let day = from; day < this.count && sum <= atMost; day++) sum += this.lateOn(day);
    return sum <= atMost ? sum : Number.POSITIVE_INFINITY;
  }

  /** Keeps in mind how each day begins, from one on: what is changed after this is summed from its own day on. */
  keepInMind(from = 0): void {
    const begin = this.mornings[from] as Morning;
    this.table.backTo(begin.state);
    let { late } = begin;
    for (let day = from; day < this.count - 1; day++) {
      late += this.lateOn(day);
      this.mornings[day + 1] = { state: this.table.state(), late };
    }
  }

  poured(): Poured {
    return this.work.products.map((_, p) => Array.from({ length: this.count }, (_, day) => this.on(p, day)));
  }
}
