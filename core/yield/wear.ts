import { compare } from './counts.ts';

export interface Counted {
  made: number;
  rejected: number;
}

/** Chance of a false alarm that is borne: over all cavities of a mold together, and each time its flash is looked at. */
const FALSE_ALARM = 0.05;

export const shareOf = ({ made, rejected }: Counted) => (made > 0 ? rejected / made : 0);

/**
 * Whether a cavity spoils more than the others do, and more than luck would.
 * @param cavities of the mold: the chance of a false alarm is shared out among them (Bonferroni).
 * Source: Fisher's exact test of the cavity against the rest, as in `yield.compare`.
 */
export function failing(cavity: Counted, mold: Counted, cavities: number): boolean {
  const rest = { made: mold.made - cavity.made, rejected: mold.rejected - cavity.rejected };
  if (cavity.made === 0 || rest.made <= 0 || rest.rejected < 0 || shareOf(cavity) <= shareOf(rest)) return false;
  return compare({ a: { made: cavity.made, rejected: cavity.rejected }, b: rest }).p < FALSE_ALARM / cavities;
}

/** The last pours that are held against those before them. */
const RECENT = 5;
/** So much more than before is a rise. */
const RISE = 2;

/**
 * Whether a mold's flash rises: its last five pours against all before, of which there have to be five as well.
 * @param pours in order; flash counted as rejected. @returns both shares, and whether the later is over twice the earlier
 * and more than luck would make it. Source: Fisher's exact test, as in `yield.compare`.
 */
export function flashRises(pours: Counted[]): { rises: boolean; recent: number; before: number } {
  const sum = (rows: Counted[]): Counted => ({
    made: rows.reduce((total, row) => total + row.made, 0),
    rejected: rows.reduce((total, row) => total + row.rejected, 0),
  });
  const earlier = pours.slice(0, -RECENT);
  const [late, early] = [sum(pours.slice(-RECENT)), sum(earlier)];
  const [recent, before] = [shareOf(late), shareOf(early)];
  const rises = earlier.length >= RECENT && recent > RISE * before && compare({ a: late, b: early }).p < FALSE_ALARM;
  return { rises, recent, before };
}
