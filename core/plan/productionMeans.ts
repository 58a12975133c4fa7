import type { Production } from './production.ts';
import { glassesFor, type Product, type Work } from './productionWork.ts';

/** Sums of many small amounts are off by so much at most, in minutes and grams. */
const SLACK = 1e-6;

/** What is drawn of a colour on a day, mL out of its fullest glass. */
type Drawn = (colour: number, day: number) => number;

/** What evenings share beside hands, molds and glasses: oven, pump, boards and the store. */
export class Means {
  private readonly lying: Int32Array;
  private readonly longest: number;
  private readonly limited: Record<'oven' | 'vacuum' | 'boards', boolean>;

  constructor(
    private readonly work: Work,
    private readonly drawn: Drawn,
  ) {
    const { days, products } = work;
    this.lying = new Int32Array(days.length);
    this.longest = Math.max(1, ...products.map(({ lies }) => lies));
    this.limited = {
      oven: days.some(({ ovenMin }) => Number.isFinite(ovenMin)),
      vacuum: days.some(({ pumpMin }) => Number.isFinite(pumpMin)),
      boards: days.some(({ boardBaits }) => Number.isFinite(boardBaits)),
    };
  }

  /** Shots that are poured on a day, or less than nothing: no more. */
  put({ cavities, lies }: Product, day: number, shots: number): void {
    if (!this.limited.boards) return;
    const end = Math.min(this.lying.length, day + lies);
    for (let at = day; at < end; at++) this.lying[at] = (this.lying[at] as number) + shots * cavities;
  }

  /** Baits that lie and cure at a day's end. */
  lie(day: number): number {
    return this.lying[day] as number;
  }

  private perGlass(day: number, of: 'ovenMin' | 'pumpMin'): number {
    const { asked, drawnMl } = this.work;
    let minutes = 0;
    for (let colour = 0; colour < asked.colours.length; colour++) {
      const ml = this.drawn(colour, day);
      if (ml === 0) continue;
      const mix = asked.colours[colour] as Production['colours'][number];
      minutes += glassesFor(ml, drawnMl) * mix.melts * mix[of];
    }
    return minutes;
  }

  ovenMin(day: number): number {
    return this.perGlass(day, 'ovenMin');
  }

  pumpMin(day: number): number {
    return this.perGlass(day, 'pumpMin');
  }

  /** Grams that are cooked of a material, on days before more of it comes. */
  taken({ until, gPerMl }: Work['stuffs'][number]): number {
    const { asked, drawnMl } = this.work;
    let grams = 0;
    for (let colour = 0; colour < gPerMl.length; colour++) {
      const each = gPerMl[colour] as number;
      if (each === 0) continue;
      for (let day = 0; day < until; day++) {
        const ml = this.drawn(colour, day);
        if (ml > 0) grams += each * (ml + glassesFor(ml, drawnMl) * asked.residueMl);
      }
    }
    return grams;
  }

  /** Whether what is left of it is less than a shot, in a glass of its own, of any colour that takes it. */
  shortOf(stuff: Work['stuffs'][number]): boolean {
    const shots = this.work.products.flatMap(({ colour, ml, shots: some }) => {
      const each = stuff.gPerMl[colour] as number;
      return some > 0 && each > 0 ? [each * (ml + this.work.asked.residueMl)] : [];
    });
    return this.taken(stuff) + Math.min(...shots) > stuff.g + SLACK;
  }

  /** Whether a day, and those on which its baits lie, keep all of these. */
  fits(day: number): boolean {
    const { days, stuffs } = this.work;
    const of = days[day] as Work['days'][number];
    if (this.limited.oven && this.ovenMin(day) > of.ovenMin + SLACK) return false;
    if (this.limited.vacuum && this.pumpMin(day) > of.pumpMin + SLACK) return false;
    if (this.limited.boards)
      for (let at = day; at < Math.min(days.length, day + this.longest); at++)
        if (this.lie(at) > (days[at] as Work['days'][number]).boardBaits) return false;
    return stuffs.every((stuff) => day >= stuff.until || this.taken(stuff) <= stuff.g + SLACK);
  }
}
