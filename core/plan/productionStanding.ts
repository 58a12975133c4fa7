import { type ShotsOn, Table } from './productionPack.ts';
import { glassesFor, type Poured, type Work } from './productionWork.ts';

/** What a colour that is begun, a glass and an evening weigh beside a bait that is late for a day, while it is searched. */
const [CHANGE, GLASS, EVENING] = [0.5, 0.02, 0.1];
/** Many small changes to a day's minutes leave so much of rounding, min. */
const SLACK_MIN = 1e-6;
/** Less than this in a cup is none, mL. */
const NONE_ML = 1e-6;

/**
 * A plan as arrays, for many small changes: shots of each product on each day, the last "day" being those not poured.
 * What a day takes of hands, molds and glasses has its one home here.
 */
export class Standing {
  readonly count: number;
  readonly on: ShotsOn;
  private readonly shots: Int32Array;
  private readonly minutes: Float64Array;
  private readonly ml: Float64Array;
  private readonly used: Int32Array;
  private readonly begun: Int32Array;
  private readonly table: Table;

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
    this.table = new Table(work);
    this.on = (product, day) => this.shots[product * (this.count + 1) + day] as number;
    products.forEach((product, p) => {
      this.shots[p * (this.count + 1) + this.count] = product.shots;
      for (let day = 0; poured && day < this.count; day++) this.move(p, this.count, day, poured[p]?.[day] as number);
    });
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
    const { colour, bait, ml, handsMin } = products[p] as Work['products'][number];
    const cup = colour * this.count + day;
    const before = this.ml[cup] as number;
    const after = Math.abs(before + shots * ml) < NONE_ML ? 0 : before + shots * ml;
    this.ml[cup] = after;
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
    const { asked, drawnMl } = this.work;
    let glasses = 0;
    for (let colour = 0; colour < asked.colours.length; colour++) {
      const ml = this.ml[colour * this.count + day] as number;
      if (ml > 0) glasses += glassesFor(ml, drawnMl) * (asked.colours[colour]?.melts as number);
    }
    return glasses;
  }

  /** Whether a day keeps its hands, molds and glasses. @param busyMin minutes of the hands that packing takes. */
  fits(day: number, busyMin = 0): boolean {
    if (day === this.count) return true;
    const { days, baits } = this.work;
    const of = days[day] as Work['days'][number];
    if ((this.minutes[day] as number) + busyMin > of.handsMin + SLACK_MIN) return false;
    for (let bait = 0; bait < baits.length; bait++)
      if (this.ofBait(bait, day) > (baits[bait]?.mostShots[day] as number)) return false;
    return this.glassesOn(day) <= of.glasses;
  }

  /** Whether all days do: what the solver says is checked against these sums. */
  get kept(): boolean {
    return this.work.days.every((_, day) => this.fits(day));
  }

  /** What is looked for the least of: late bait-days, and what changes weigh beside them. */
  weighs(): number {
    const { days } = this.work;
    this.table.clear();
    let sum = 0;
    for (let day = 0; day < this.count; day++) {
      const free = Math.max(0, (days[day]?.handsMin as number) - (this.minutes[day] as number));
      this.table.pack(day, free, this.on);
      sum += this.table.lateOn(day);
      const begun = this.begun[day] as number;
      if (begun > 0) sum += EVENING + CHANGE * begun + GLASS * this.glassesOn(day);
    }
    return sum;
  }

  poured(): Poured {
    return this.work.products.map((_, p) => Array.from({ length: this.count }, (_, day) => this.on(p, day)));
  }
}
