import type { Production } from './production.ts';
import type { Product, Work } from './productionWork.ts';

/** Sums of many small amounts are off by no more than that. */
const [SLACK_MIN, SLACK_G] = [1e-6, 1e-3];

/** What is poured more on a day, or less: of one product, and what that changes in its colour's cups. */
interface Change {
  product: Product;
  shots: number;
  /** Out of its fullest glass, mL. */
  ml: number;
  /** Of each of its melts. */
  glasses: number;
}

/** What evenings share beside hands, molds and glasses: oven, pump, boards and the store. */
export class Means {
  private readonly oven: Float64Array;
  private readonly pump: Float64Array;
  private readonly lying: Int32Array;
  /** Of each material that there may be too little of, g on days before more of it comes. */
  private readonly grams: Float64Array;
  private readonly longest: number;

  constructor(private readonly work: Work) {
    const { days, products, stuffs } = work;
    this.oven = new Float64Array(days.length);
    this.pump = new Float64Array(days.length);
    this.lying = new Int32Array(days.length);
    this.grams = new Float64Array(stuffs.length);
    this.longest = Math.max(1, ...products.map(({ lies }) => lies));
  }

  put(day: number, { product, shots, ml, glasses }: Change): void {
    const { asked, stuffs } = this.work;
    const { cavities, lies, colour } = product;
    const end = Math.min(this.lying.length, day + lies);
    for (let at = day; at < end; at++) this.lying[at] = this.lie(at) + shots * cavities;
    const { melts, ovenMin, pumpMin } = asked.colours[colour] as Production['colours'][number];
    this.oven[day] = this.ovenMin(day) + glasses * melts * ovenMin;
    this.pump[day] = this.pumpMin(day) + glasses * melts * pumpMin;
    for (let at = 0; at < stuffs.length; at++) {
      const { until, gPerMl } = stuffs[at] as Work['stuffs'][number];
      if (day < until) this.grams[at] = this.taken(at) + (gPerMl[colour] as number) * (ml + glasses * asked.residueMl);
    }
  }

  /** Baits that lie and cure at a day's end. */
  lie(day: number): number {
    return this.lying[day] as number;
  }

  ovenMin(day: number): number {
    return this.oven[day] as number;
  }

  pumpMin(day: number): number {
    return this.pump[day] as number;
  }

  /** Grams that are cooked of a material, by its number, on days before more of it comes. */
  taken(at: number): number {
    return this.grams[at] as number;
  }

  /** Whether what is left of a material is less than a shot, in a glass of its own, of any colour that takes it. */
  shortOf(at: number): boolean {
    const { products, asked, stuffs } = this.work;
    const { gPerMl, g } = stuffs[at] as Work['stuffs'][number];
    const shots = products.flatMap(({ colour, ml, shots: some }) => {
      const each = gPerMl[colour] as number;
      return some > 0 && each > 0 ? [each * (ml + asked.residueMl)] : [];
    });
    return this.taken(at) + Math.min(...shots) > g + SLACK_G;
  }

  /** Whether a day, and those on which its baits lie, keep all of these. */
  fits(day: number): boolean {
    const { days, stuffs } = this.work;
    const of = days[day] as Work['days'][number];
    if (this.ovenMin(day) > of.ovenMin + SLACK_MIN || this.pumpMin(day) > of.pumpMin + SLACK_MIN) return false;
    for (let at = day; at < Math.min(days.length, day + this.longest); at++)
      if (this.lie(at) > (days[at] as Work['days'][number]).boardBaits) return false;
    return stuffs.every(({ until, g }, at) => day >= until || this.taken(at) <= g + SLACK_G);
  }
}
