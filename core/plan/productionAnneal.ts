import { ceilNear } from '../rounding.ts';
import { Seeded } from '../seeded.ts';
import type { Poured, Work } from './productionWork.ts';

/** What a colour that is begun, a glass and an evening weigh beside a bait that is late for a day, while it is searched. */
const [CHANGE, GLASS, EVENING] = [0.5, 0.02, 0.1];
/** Coldest and warmest, in bait-days: a step that costs as much is taken in one of e cases. The later a plan, the warmer it begins. */
const [COLD, LEAST_WARM, MOST_WARM, OF_LATENESS] = [0.08, 1, 20, 0.01];
const SLACK = 1e-9;

/** A plan as arrays, for many small changes: shots of each product on each day, the last "day" being those not poured. */
class Standing {
  readonly count: number;
  readonly shots: Int32Array;
  private readonly minutes: Float64Array;
  private readonly ml: Float64Array;
  private readonly used: Int32Array;
  private readonly begun: Int32Array;
  private readonly lines: { product: number; due: number; baits: number; perPack: number }[];
  private readonly left: Float64Array;
  private readonly packed: Float64Array;
  private readonly ready: Float64Array;
  private readonly cured: Int32Array;

  constructor(
    private readonly work: Work,
    poured: Poured,
  ) {
    const { products, days, baits, asked } = work;
    this.count = days.length;
    this.shots = new Int32Array(products.length * (this.count + 1));
    this.minutes = new Float64Array(this.count);
    this.ml = new Float64Array(asked.colours.length * this.count);
    this.used = new Int32Array(baits.length * this.count);
    this.begun = new Int32Array(this.count);
    products.forEach((product, p) => {
      this.shots[p * (this.count + 1) + this.count] = product.shots;
      for (let day = 0; day < this.count; day++) this.move(p, this.count, day, poured[p]?.[day] as number);
    });
    const at = new Map(products.map((product, p) => [`${product.baitId} ${product.colour}`, p]));
    const colours = new Map(asked.colours.map(({ id }, index) => [id, index]));
    const first = Date.parse(days[0]?.day as string);
    this.lines = asked.lines
      .map((line) => ({
        product: at.get(`${line.baitId} ${colours.get(line.colourId)}`) as number,
        due: Math.min(this.count - 1, Math.round((Date.parse(line.due) - first) / 86_400_000)),
        baits: line.baits,
        perPack: line.perPack,
      }))
      .sort((a, b) => a.due - b.due);
    this.left = new Float64Array(this.lines.length);
    this.packed = new Float64Array(products.length);
    this.ready = new Float64Array(products.length);
    this.cured = new Int32Array(products.length);
  }

  on(product: number, day: number): number {
    return this.shots[product * (this.count + 1) + day] as number;
  }

  drawn(colour: number, day: number): number {
    return this.ml[colour * this.count + day] as number;
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
    const after = Math.abs(before + shots * ml) < 1e-6 ? 0 : before + shots * ml;
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
      if (ml > 0) glasses += ceilNear(ml / drawnMl) * (asked.colours[colour]?.melts as number);
    }
    return glasses;
  }

  /** Whether a day keeps its hands, molds and glasses. */
  fits(day: number): boolean {
    if (day === this.count) return true;
    const { days, baits } = this.work;
    const of = days[day] as Work['days'][number];
    if ((this.minutes[day] as number) > of.handsMin + SLACK) return false;
    for (let bait = 0; bait < baits.length; bait++)
      if ((this.used[bait * this.count + day] as number) > (baits[bait]?.mostShots[day] as number)) return false;
    return this.glassesOn(day) <= of.glasses;
  }

  /** What is looked for the least of: late bait-days, and what changes weigh beside them. */
  weighs(): number {
    const { products, days } = this.work;
    const { lines, left, packed, ready, cured } = this;
    for (let at = 0; at < lines.length; at++) left[at] = (lines[at] as { baits: number }).baits;
    packed.fill(0);
    cured.fill(0);
    let late = 0;
    let beside = 0;
    for (let day = 0; day < this.count; day++) {
      for (let p = 0; p < products.length; p++) {
        const one = products[p] as Work['products'][number];
        if (day >= one.lag)
          cured[p] = (cured[p] as number) + (this.shots[p * (this.count + 1) + day - one.lag] as number);
        const shots = cured[p] as number;
        const good = one.shots === 0 ? 0 : shots >= one.shots ? one.need : Math.floor(one.goodAShot * shots + SLACK);
        ready[p] = (one.stockBy[day] as number) + good - (packed[p] as number);
      }
      let minutes = (days[day]?.handsMin as number) - (this.minutes[day] as number);
      for (let at = 0; at < lines.length; at++) {
        const wants = left[at] as number;
        if (wants === 0) continue;
        const { product, due, perPack } = lines[at] as Standing['lines'][number];
        const there = ready[product] as number;
        if (there > 0) {
          const { packMin } = products[product] as Work['products'][number];
          const some = Math.min(wants, there, packMin > 0 ? Math.floor(minutes / packMin + SLACK) : wants);
          const baits = some >= wants ? wants : some - (some % perPack);
          if (baits > 0) {
            left[at] = wants - baits;
            ready[product] = there - baits;
            packed[product] = (packed[product] as number) + baits;
            minutes -= baits * packMin;
          }
        }
        if (due <= day) late += left[at] as number;
      }
      if ((this.begun[day] as number) > 0)
        beside += EVENING + CHANGE * (this.begun[day] as number) + GLASS * this.glassesOn(day);
    }
    return late + beside;
  }

  poured(): Poured {
    return this.work.products.map((_, p) => Array.from({ length: this.count }, (_, day) => this.on(p, day)));
  }
}

/**
 * The same plan with its shots as early as its colours stand: what breaks or comes short can still be poured again.
 * No colour is begun for it, no glass more is cooked, and nothing becomes later.
 */
export function broughtForward(work: Work, poured: Poured): Poured {
  const standing = new Standing(work, poured);
  const { count } = standing;
  let now = standing.weighs();
  const tried = (p: number, from: number, to: number, shots: number): boolean => {
    const glasses = standing.glassesOn(from) + standing.glassesOn(to);
    standing.move(p, from, to, shots);
    if (standing.fits(to) && standing.glassesOn(from) + standing.glassesOn(to) <= glasses) {
      const weighs = standing.weighs();
      if (weighs <= now + SLACK) {
        now = weighs;
        return true;
      }
    }
    standing.move(p, to, from, shots);
    return false;
  };
  for (let to = 0; to < count; to++)
    for (let from = to + 1; from < count; from++)
      for (let p = 0; p < work.products.length; p++) {
        const { colour } = work.products[p] as Work['products'][number];
        if (standing.drawn(colour, to) === 0 || work.pins[colour]?.[to] === -1 || work.pins[colour]?.[from] === 1)
          continue;
        let shots = standing.on(p, from);
        while (shots > 0)
          shots = tried(p, from, to, shots) ? Math.min(shots, standing.on(p, from)) : Math.floor(shots / 2);
      }
  return standing.poured();
}

type Step = [product: number, from: number, to: number, shots: number];

/** Takes small steps between plans that keep each day, seldom a worse one, and less and less so. */
export class Annealing {
  private readonly random: Seeded;
  private readonly some: number[];
  private readonly standing: Standing;
  private now: number;
  private readonly warm: number;

  constructor(
    private readonly work: Work,
    poured: Poured,
    seed: number,
  ) {
    this.random = new Seeded(seed);
    this.standing = new Standing(work, poured);
    this.some = work.products.flatMap(({ shots }, p) => (shots > 0 ? [p] : []));
    this.now = this.standing.weighs();
    this.warm = Math.min(MOST_WARM, Math.max(LEAST_WARM, OF_LATENESS * this.now));
  }

  private pick(n: number): number {
    return Math.floor(this.random.next() * n);
  }

  private mayPour(p: number, day: number): boolean {
    const { lag, colour } = this.work.products[p] as Work['products'][number];
    if (day === this.standing.count) return true;
    return (
      day + lag < this.standing.count &&
      (this.work.days[day]?.handsMin as number) > 0 &&
      this.work.pins[colour]?.[day] !== -1
    );
  }

  /** A day on which some of it is poured, or the day of what is not. */
  private dayOf(p: number): number {
    const { count } = this.standing;
    const from = this.pick(count + 1);
    for (let n = 0; n <= count; n++) {
      const day = (from + n) % (count + 1);
      if (this.standing.on(p, day) > 0) return day;
    }
    return count;
  }

  /** One bait in one colour to another day; all of a colour; or two that change places. */
  private steps(): Step[] {
    const { standing, some } = this;
    const p = some[this.pick(some.length)] as number;
    const from = this.dayOf(p);
    const to = this.pick(standing.count);
    if (from === to) return [];
    const kind = this.random.next();
    if (kind < 0.2 && from < standing.count) {
      const { colour } = this.work.products[p] as Work['products'][number];
      return some.flatMap((q): Step[] =>
        this.work.products[q]?.colour === colour && standing.on(q, from) > 0
          ? [[q, from, to, standing.on(q, from)]]
          : [],
      );
    }
    const shots = standing.on(p, from);
    const taken: Step = [p, from, to, this.random.next() < 0.75 ? shots : 1 + this.pick(shots)];
    if (kind < 0.6) return [taken];
    const q = some[this.pick(some.length)] as number;
    const there = standing.on(q, to);
    return q === p || there === 0 ? [taken] : [taken, [q, to, from, there]];
  }

  private keepsPins(steps: Step[]): boolean {
    return steps.every(([p, from]) => {
      const { colour } = this.work.products[p] as Work['products'][number];
      return (
        from === this.standing.count || this.work.pins[colour]?.[from] !== 1 || this.standing.drawn(colour, from) > 0
      );
    });
  }

  /**
   * @param share how far the search is, 0 to 1: by it a worse plan is taken less and less.
   * @returns what it stands at where it is better than all before, else null.
   */
  step(share: number): number | null {
    const { standing } = this;
    const steps = this.steps();
    if (steps.length === 0 || !steps.every(([p, , to]) => this.mayPour(p, to))) return null;
    for (const [p, from, to, shots] of steps) standing.move(p, from, to, shots);
    const days = new Set(steps.flatMap(([, from, to]) => [from, to]));
    if ([...days].every((day) => standing.fits(day)) && this.keepsPins(steps)) {
      const weighs = standing.weighs();
      const heat = this.warm * (COLD / this.warm) ** share;
      if (weighs <= this.now || this.random.next() < Math.exp((this.now - weighs) / heat)) {
        this.now = weighs;
        return weighs;
      }
    }
    for (const [p, from, to, shots] of steps.reverse()) standing.move(p, to, from, shots);
    return null;
  }

  get weighs(): number {
    return this.now;
  }

  poured(): Poured {
    return this.standing.poured();
  }
}
