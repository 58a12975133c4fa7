import { Seeded } from '../core/seeded.ts';

/** What the demo workshop is made up with: the same at every start. */
export class Random extends Seeded {
  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  whole(low: number, high: number): number {
    return Math.floor(this.between(low, high + 1));
  }

  chance(p: number): boolean {
    return this.next() < p;
  }

  pick<T>(from: readonly T[]): T {
    return from[this.whole(0, from.length - 1)] as T;
  }

  /** Roughly normal: the sum of three. */
  around(mean: number, spread: number): number {
    return mean + spread * (this.next() + this.next() + this.next() - 1.5);
  }
}
