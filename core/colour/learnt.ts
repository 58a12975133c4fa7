import { usual } from '../defaults.ts';
import { posterior } from '../ridge.ts';
import { bands, type Optics, type Rgb, reflectance } from './light.ts';

/** What was foreseen of a melt, and what of its absorption comes from each of its colours. */
export interface ForeseenMelt {
  optics: Optics;
  parts: { materialId: string; k: Rgb }[];
}

/** One look at a melt over white paper, beside what was foreseen of it. */
export interface Looked {
  foreseen: ForeseenMelt;
  thicknessMm: number;
  /** Reflectance. */
  seen: Rgb;
}

/** How a colour comes out here, over how it was foreseen. */
export interface Learnt {
  /** Times its absorption, in each band. */
  factor: Rgb;
  /** How sure that is: standard deviation of its logarithm. */
  sdLn: Rgb;
  /** Looks that tell of it. */
  looks: number;
}

/** A look tells of at most so many times more or less: beyond it something else was in the cup. */
const MOST_TIMES = 8;
const WHITE_PAPER = 1;

/** How many times its absorption a layer must have to look so; its scatter stays. Light falls with every bit of absorption. */
function timesOf(seen: number, { k, s }: { k: number; s: number }, mm: number): number {
  let [low, high] = [Math.log(1 / MOST_TIMES), Math.log(MOST_TIMES)];
  for (let n = 0; n < 50; n++) {
    const middle = (low + high) / 2;
    if (reflectance(k * Math.exp(middle), s, mm, WHITE_PAPER) > seen) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How far that may be off: a reading’s own scatter counts for more where more absorption hardly changes the look. */
function sdOf(lnTimes: number, { k, s }: { k: number; s: number }, mm: number): number {
  const at = (ln: number) => reflectance(k * Math.exp(ln), s, mm, WHITE_PAPER);
  const slope = Math.abs(at(lnTimes + 0.05) - at(lnTimes - 0.05)) / 0.1;
  return Math.hypot(usual('lookSdLn'), usual('readingSdOfOne') / Math.max(slope, 1e-6));
}

/**
 * What this workshop's looks teach of its colours: each band's absorption as a factor, drawn to 1 where few looks speak of it.
 * A look tells of a colour as much as the colour has of the melt's absorption.
 * @returns by colour. Source: Kubelka–Munk solved for K at the foreseen S; ridge regression of the logarithms.
 */
export function learntOf(looks: Looked[]): Map<string, Learnt> {
  const ids = [...new Set(looks.flatMap(({ foreseen }) => foreseen.parts.map((part) => part.materialId)))];
  if (ids.length === 0) return new Map();
  const of = bands0((band) =>
    posterior(
      looks.flatMap(({ foreseen, thicknessMm, seen }) => {
        const whole = { k: foreseen.optics.k[band], s: foreseen.optics.s[band] };
        if (!(whole.k > 0)) return [];
        const value = timesOf(seen[band], whole, thicknessMm);
        const shares = ids.map((id) =>
          foreseen.parts.reduce((sum, part) => sum + (part.materialId === id ? part.k[band] / whole.k : 0), 0),
        );
        return [{ shares, value, sd: sdOf(value, whole, thicknessMm) }];
      }),
      ids.map(() => ({ value: 0, sd: usual('drawnToLn') })),
    ),
  );
  return new Map(
    ids.map((id, i) => [
      id,
      {
        factor: bands((band) => Math.exp(of[band][i]?.value as number)),
        sdLn: bands((band) => of[band][i]?.sd as number),
        looks: looks.filter(({ foreseen }) => foreseen.parts.some((part) => part.materialId === id)).length,
      },
    ]),
  );
}

const bands0 = <T>(of: (band: 0 | 1 | 2) => T): [T, T, T] => [of(0), of(1), of(2)];

/** A colour’s effect on light as it comes out here. */
export const asLearnt = ({ k, s }: Optics, learnt: Pick<Learnt, 'factor'> | null): Optics =>
  learnt ? { k: bands((i) => k[i] * learnt.factor[i]), s } : { k, s };
