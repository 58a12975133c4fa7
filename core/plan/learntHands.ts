import { usual } from '../defaults.ts';
import { median, middleTowards } from '../median.ts';
import { fillingS } from './hours.ts';

/** From one shot of a mold to its next: how long it waited, and what hands took to look, close and fill it again. */
export interface Turn {
  waitedS: number;
  handsS: number;
}

/**
 * What hands take at a mold, by its last turns: the middle one, drawn to the starting guess where few speak. A turn longer
 * than a pause between two is no work and is left out.
 * @returns s to open and to fill, in the proportion of the guess; how often they were seen; how long it waited, as a rule.
 * Source: median, weighted with the default as three turns.
 */
export function learntHands(cavities: number, turns: Turn[]) {
  const [openS, fillS] = [usual('openBetweenS'), fillingS(cavities)];
  const guess = openS + fillS;
  const seen = turns.filter(({ handsS }) => handsS > 0 && handsS <= usual('pauseS'));
  const n = seen.length;
  const handsS = middleTowards(
    seen.map((one) => one.handsS),
    guess,
  );
  return {
    handsS,
    openS: (handsS * openS) / guess,
    fillS: (handsS * fillS) / guess,
    turns: n,
    waitedS: n === 0 ? null : median(seen.map((one) => one.waitedS)),
  };
}
