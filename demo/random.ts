/** A small seeded generator (mulberry32), so that the demo workshop is the same at every start. */
export class Random {
  constructor(private state: number) {}

  /** From 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

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
