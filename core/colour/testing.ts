import { bands, type Dosed, type Optics, type Rgb } from './light.ts';

/** Plain plastic, as the examples have it. */
export const PLAIN: Optics = { k: [0.002, 0.002, 0.004], s: [0.001, 0.001, 0.001] };
export const WHITE: Rgb = [1, 1, 1];

/** Numbers from 0 to 1, the same each time. */
export function chanceOf(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1103515245) + 12345) >>> 0;
    return state / 2 ** 32;
  };
}

export interface Bottle extends Optics {
  id: string;
  dropsPerMl: number;
}

/** Fourteen made-up colourants. */
export function madeUpStore(next: () => number): Bottle[] {
  const some = (most: number): Rgb => bands(() => 0.002 + most * next() ** 2);
  return Array.from({ length: 14 }, (_, i) => ({
    id: `c${i}`,
    k: some(0.2),
    s: some(0.02),
    dropsPerMl: 18 + 8 * next(),
  }));
}

/** Some of them in whole drops of a batch, up to so many of each. */
export function someOf(
  store: Bottle[],
  count: number,
  batchMl: number,
  mostDrops: number,
  next: () => number,
): Dosed[] {
  const left = [...store];
  return Array.from({ length: count }, () => {
    const [one] = left.splice(Math.floor(next() * left.length), 1) as [Bottle];
    const drops = 2 + Math.floor(mostDrops * next());
    return { k: one.k, s: one.s, mlPerL: (drops * 1000) / (batchMl * one.dropsPerMl) };
  });
}

/** Batches and thicknesses that targets are made for, turn by turn. */
export const made = (i: number) => ({
  batchMl: [118, 237, 400][i % 3] as number,
  thicknessMm: [3, 8, 12][i % 3] as number,
});
