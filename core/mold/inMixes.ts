import { BUBBLE_TIMES, bubbleTimes, type School } from './bubbles.ts';

/** Silicone still takes to silicone this many pot lives after it was mixed. Source: as `silicone.topUp`. */
export const BONDS_POT_LIVES = 3;

export interface InMixes {
  /** Stirring, degassing and pouring of one mix. */
  eachMin: number;
  /** From the first stir until the last mix is poured. */
  doneMin: number;
  /** Pot life of the first mix that is left then; negative: it has thickened before. */
  leftMin: number;
  /** Whether the last one still bonds to the first. */
  bonds: boolean;
}

/**
 * One half poured in several mixes, one after the other by one person: whether the last still meets the first while it flows.
 * @param mixMl of one mix. @returns times in min. Source: `bubbleTimes` for each mix.
 */
export function inMixes(wish: {
  school: School;
  mixMl: number;
  mixes: number;
  potLifeMin: number;
  pumpMin?: number;
}): InMixes {
  const { degasMin, pourMin } = bubbleTimes(wish);
  const eachMin = BUBBLE_TIMES.mixMin + degasMin + pourMin;
  const doneMin = wish.mixes * eachMin;
  return {
    eachMin,
    doneMin,
    leftMin: wish.potLifeMin - doneMin,
    bonds: doneMin < BONDS_POT_LIVES * wish.potLifeMin,
  };
}

/** Which half and which of its mixes comes after so many, counted from 0; `again` once all were made. */
export function mixTurn(mixes: number[], made: number): { half: number; mix: number; of: number; again: boolean } {
  let before = 0;
  for (const [half, of] of mixes.entries()) {
    if (made < before + of) return { half, mix: made - before, of, again: false };
    before += of;
  }
  const half = mixes.length - 1;
  const of = mixes[half] as number;
  return { half, mix: of - 1, of, again: true };
}
