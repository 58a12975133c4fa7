import { Seeded } from '../seeded.ts';
import { Standing } from './productionStanding.ts';
import type { Poured, Work } from './productionWork.ts';

/** Coldest and warmest, in bait-days: a step that costs as much is taken in one of e cases. The later a plan, the warmer it begins. */
const [COLD, LEAST_WARM, MOST_WARM, OF_LATENESS] = [0.08, 6, 20, 0.01];
/** A step that makes it no worse than by rounding, bait-days. */
const SLACK = 1e-9;

type Step = [product: number, from: number, to: number, shots: number];

/** Each colour of an evening as a whole, to be tried on an earlier one. */
function wholeColours(work: Work, standing: Standing, from: number, to: number, tried: (steps: Step[]) => void): void {
  if ((work.days[to]?.handsMin as number) === 0) return;
  for (const colour of standing.coloursOn(from)) {
    if (work.pins[colour]?.[to] === -1 || work.pins[colour]?.[from] === 1) continue;
    const steps = work.products.flatMap((product, p): Step[] => {
      const shots = product.colour === colour ? standing.on(p, from) : 0;
      return shots > 0 ? [[p, from, to, shots]] : [];
    });
    tried(steps);
  }
}

/**
 * The same plan with its shots as early as its colours stand: what breaks or comes short can still be poured again.
 * No colour is begun for it, no glass more is cooked, and nothing becomes later.
 */
export function broughtForward(work: Work, poured: Poured): Standing {
  const standing = new Standing(work, poured);
  const { count } = standing;
  standing.keepInMind();
  let now = standing.weighs();
  const tried = (steps: Step[]): boolean => {
    const [, from, to] = steps[0] as Step;
    const glasses = standing.glassesOn(from) + standing.glassesOn(to);
    for (const [p, , , shots] of steps) standing.move(p, from, to, shots);
    if (standing.fits(to) && standing.glassesOn(from) + standing.glassesOn(to) <= glasses) {
      const weighs = standing.weighs(to, now + SLACK);
      if (weighs <= now + SLACK) {
        standing.keepInMind(to);
        now = weighs;
        return true;
      }
    }
    for (const [p, , , shots] of steps) standing.move(p, to, from, shots);
    return false;
  };
  for (let to = 0; to < count; to++)
    for (let from = to + 1; from < count; from++) {
      wholeColours(work, standing, from, to, (steps) => tried(steps));
      for (let p = 0; p < work.products.length; p++) {
        const { colour } = work.products[p] as Work['products'][number];
        if (standing.drawn(colour, to) === 0 || work.pins[colour]?.[to] === -1 || work.pins[colour]?.[from] === 1)
          continue;
        let shots = standing.on(p, from);
        while (shots > 0)
          shots = tried([[p, from, to, shots]]) ? Math.min(shots, standing.on(p, from)) : Math.floor(shots / 2);
      }
    }
  return standing;
}

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
    this.standing.keepInMind();
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
      const heat = this.warm * (COLD / this.warm) ** share;
      // Chance is asked first: what it would not take is not summed to its end.
      const atMost = this.now - heat * Math.log(1 - this.random.next());
      const from = Math.min(...days);
      const weighs = standing.weighs(from, atMost);
      if (weighs <= atMost) {
        standing.keepInMind(from);
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
