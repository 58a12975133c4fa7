import type { Lab65 } from 'culori';
import { Seeded } from '../seeded.ts';
import { deltaE, labOf } from './lab.ts';
import { bands, layerOver, type Optics, type Rgb } from './light.ts';

export interface Colourant extends Optics {
  id: string;
  maxMlPerL: number;
  /** What one drop of it is in this batch. */
  dropMlPerL: number;
}

interface Wish {
  /** All that is in the melt already. */
  plain: Optics;
  wanted: Lab65;
  thicknessMm: number;
  background: Rgb;
  colourants: Colourant[];
  /** How many of them at most. */
  most: number;
  wholeDrops: boolean;
  seed: number;
  isLate: () => boolean;
}

export interface Found {
  doses: { colourant: Colourant; mlPerL: number }[];
  looks: number;
  cutOff: boolean;
}

/** A set of colourants with a dose of each, and how far off it looks. */
interface Try {
  which: number[];
  mlPerL: number[];
  off: number;
}

/** Most looks at a melt, whatever the time. */
const MOST_LOOKS = 150_000;
/** How many sets are carried on to one colourant more. */
const BEAM = 14;
/** Doses that a new colourant is tried at, of the most it may take. */
const FIRST_DOSES = [0.001, 0.005, 0.02, 0.06, 0.15, 0.4, 0.9];
const STEPS = 10;
/** How many sets are tried in whole drops. */
const WHOLE_SETS = 36;
/** A colourant more has to bring it this much nearer. */
const WORTH = 0.05;
/** So little further off is not seen. */
const ALIKE = 0.2;
/** Near enough that no further look is worth its time. */
const DONE = 0.02;

class Spent extends Error {}

class Search {
  looks = 0;
  private readonly kept: Try[] = [];
  constructor(private readonly wish: Wish) {}

  /** @throws Spent when the looks or the time are used up. */
  lab(which: number[], mlPerL: number[]): Lab65 {
    if (this.looks >= MOST_LOOKS || (this.looks % 128 === 127 && this.wish.isLate())) throw new Spent();
    this.looks++;
    const { plain, colourants, thicknessMm, background } = this.wish;
    const sum = (part: 'k' | 's') =>
      bands((band) => {
        let total = plain[part][band];
        for (let i = 0; i < which.length; i++)
          total += (colourants[which[i] as number] as Colourant)[part][band] * (mlPerL[i] as number);
        return total;
      });
    return labOf(layerOver({ k: sum('k'), s: sum('s') }, thicknessMm, background));
  }

  /** How far off it looks, without keeping it: what is no whole drop may not be the answer. */
  off(which: number[], mlPerL: number[]): number {
    return deltaE(this.lab(which, mlPerL), this.wish.wanted);
  }

  keep(one: Try): void {
    this.kept.push(one);
  }

  /** The nearest of all that was kept; where others look the same, the one that takes least of the bottles. */
  get best(): Try {
    const nearest = this.kept.reduce((a, b) => (b.off < a.off ? b : a));
    const spent = ({ mlPerL }: Try) => mlPerL.reduce((sum, ml) => sum + ml, 0);
    return this.kept.filter(({ off }) => off <= nearest.off + ALIKE).reduce((a, b) => (spent(b) < spent(a) ? b : a));
  }

  private mostOf(index: number): number {
    return (this.wish.colourants[index] as Colourant).maxMlPerL;
  }

  /** Doses drawn towards the wanted colour: damped least squares in the logarithm of each dose. */
  drawn(which: number[], start: number[]): Try {
    const { wanted } = this.wish;
    const residual = (p: number[]): number[] => {
      const { l, a, b } = this.lab(which, p.map(Math.exp));
      return [l - wanted.l, a - wanted.a, b - wanted.b];
    };
    const size = (r: number[]) => r.reduce((sum, one) => sum + one * one, 0);
    const clamp = (p: number[]) =>
      p.map((one, i) => {
        const most = this.mostOf(which[i] as number);
        return Math.min(Math.log(most), Math.max(Math.log(most * 1e-6), one));
      });
    let p = clamp(start.map(Math.log));
    let r = residual(p);
    let damping = 0.1;
    for (let step = 0; step < STEPS && size(r) > 1e-6; step++) {
      const slopes = p.map((one, i) => {
        const moved = [...p];
        moved[i] = one + 1e-4;
        return residual(moved).map((value, k) => (value - (r[k] as number)) / 1e-4);
      });
      let isBetter = false;
      for (let tries = 0; tries < 3 && !isBetter; tries++) {
        const next = clamp(p.map((one, i) => one + (solved(slopes, r, damping)[i] as number)));
        const after = residual(next);
        isBetter = size(after) < size(r);
        if (isBetter) {
          [p, r] = [next, after];
          damping /= 4;
        } else damping *= 8;
      }
      if (!isBetter) break;
    }
    const mlPerL = p.map(Math.exp);
    return { which, mlPerL, off: this.off(which, mlPerL) };
  }

  /** Whole drops about a set of doses, one and two up and down and one against another, until nothing is nearer. */
  inDrops({ which, mlPerL }: Try): void {
    const drop = which.map((index) => (this.wish.colourants[index] as Colourant).dropMlPerL);
    const most = which.map((index, i) => Math.floor(this.mostOf(index) / (drop[i] as number) + 1e-9));
    let count = mlPerL.map((ml, i) => Math.min(most[i] as number, Math.max(0, Math.round(ml / (drop[i] as number)))));
    const at = (counts: number[]) => counts.map((n, i) => n * (drop[i] as number));
    let off = this.off(which, at(count));
    const moves = movesOf(which.length);
    for (let isBetter = true; isBetter; ) {
      isBetter = false;
      let [bestCount, bestOff] = [count, off];
      for (const move of moves) {
        const next = count.map((n, i) => n + (move[i] as number));
        if (next.some((n, i) => n < 0 || n > (most[i] as number))) continue;
        const nextOff = this.off(which, at(next));
        if (nextOff < bestOff - 1e-9) [bestCount, bestOff] = [next, nextOff];
      }
      if (bestOff < off - 1e-9) {
        [count, off, isBetter] = [bestCount, bestOff, true];
      }
    }
    this.keep({ which, mlPerL: at(count), off });
  }
}

/** A step against the residual: (JᵀJ + λ·diag)·x = −Jᵀr, by elimination; a few unknowns at most. */
function solved(slopes: number[][], r: number[], damping: number): number[] {
  const n = slopes.length;
  const dot = (a: number[], b: number[]) => a.reduce((sum, one, i) => sum + one * (b[i] as number), 0);
  const rows = slopes.map((one, i) => [
    ...slopes.map((other, j) => dot(one, other) * (i === j ? 1 + damping : 1) + (i === j ? 1e-6 : 0)),
    -dot(one, r),
  ]);
  for (let i = 0; i < n; i++) {
    const pivot = rows[i] as number[];
    for (let j = i + 1; j < n; j++) {
      const row = rows[j] as number[];
      const factor = (row[i] as number) / (pivot[i] as number);
      for (let k = i; k <= n; k++) row[k] = (row[k] as number) - factor * (pivot[k] as number);
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    const row = rows[i] as number[];
    let sum = row[n] as number;
    for (let k = i + 1; k < n; k++) sum -= (row[k] as number) * (x[k] as number);
    x[i] = Math.min(2, Math.max(-2, sum / (row[i] as number)));
  }
  return x;
}

function movesOf(n: number): number[][] {
  const moves: number[][] = [];
  const none = new Array<number>(n).fill(0);
  for (let i = 0; i < n; i++) {
    for (const by of [1, -1, 2, -2, 5, -5]) moves.push(none.map((_, k) => (k === i ? by : 0)));
    for (let j = 0; j < n; j++)
      if (i !== j)
        for (const [a, b] of [
          [1, -1],
          [2, -1],
          [1, 1],
          [-1, -1],
        ] as const)
          if (a !== b || i < j) moves.push(none.map((_, k) => (k === i ? a : k === j ? b : 0)));
  }
  return moves;
}

/** Sets of one colourant more, the nearest first. */
function widened(search: Search, from: Try[], wish: Wish): Try[] {
  const seen = new Set<string>();
  const tries: Try[] = [];
  for (const one of from) {
    for (let index = 0; index < wish.colourants.length; index++) {
      if (one.which.includes(index)) continue;
      const which = [...one.which, index];
      const key = [...which].sort((a, b) => a - b).join();
      if (seen.has(key)) continue;
      seen.add(key);
      const most = (wish.colourants[index] as Colourant).maxMlPerL;
      const starts = FIRST_DOSES.map((share) => [...one.mlPerL, share * most])
        .map((mlPerL) => ({ mlPerL, off: search.off(which, mlPerL) }))
        .sort((a, b) => a.off - b.off);
      // Light comes back of too much as of too little: two starts.
      const drawn = starts.slice(0, 2).map(({ mlPerL }) => search.drawn(which, mlPerL));
      tries.push(drawn.reduce((a, b) => (b.off < a.off ? b : a)));
    }
  }
  return tries.sort((a, b) => a.off - b.off).slice(0, BEAM);
}

/** Of four or more there is a whole family of doses that look alike: some of it from chance starts. */
function family(search: Search, one: Try, wish: Wish, chance: () => number): Try[] {
  if (one.which.length < 3) return [one];
  const others = Array.from({ length: 4 }, () =>
    search.drawn(
      one.which,
      one.mlPerL.map((ml, i) => {
        const most = (wish.colourants[one.which[i] as number] as Colourant).maxMlPerL;
        return Math.min(most, ml * Math.exp(3 * (chance() - 0.5)) + 1e-3 * most * chance());
      }),
    ),
  );
  return [one, ...others];
}

export function search(wish: Wish): Found {
  const look = new Search(wish);
  const numbers = new Seeded(wish.seed);
  const chance = () => numbers.next();
  let cutOff = false;
  try {
    const none: Try = { which: [], mlPerL: [], off: look.off([], []) };
    look.keep(none);
    const sets: Try[] = [];
    let beam: Try[] = [none];
    for (let size = 1; size <= wish.most; size++) {
      beam = widened(look, beam, wish);
      if (!wish.wholeDrops) for (const one of beam) look.keep({ ...one, off: one.off + WORTH * size });
      sets.push(...beam);
      if (!wish.wholeDrops && (beam[0]?.off ?? 0) < DONE) break;
    }
    if (wish.wholeDrops) {
      const nearest = sets.sort((a, b) => a.off + WORTH * a.which.length - b.off - WORTH * b.which.length);
      for (const one of nearest.slice(0, WHOLE_SETS)) {
        for (const near of family(look, one, wish, chance)) look.inDrops(near);
        if (look.best.off < DONE) break;
      }
    }
  } catch (error) {
    if (!(error instanceof Spent)) throw error;
    cutOff = true;
  }
  const { which, mlPerL } = look.best;
  return {
    doses: which.map((index, i) => ({
      colourant: wish.colourants[index] as Colourant,
      mlPerL: mlPerL[i] as number,
    })),
    looks: look.looks,
    cutOff,
  };
}
