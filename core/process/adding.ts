import { usual } from '../defaults.ts';

/** When a workshop adds its colour, and its salt. */
export const COLOUR_WHEN = { cold: 'into the cold liquid', cooked: 'once it is cooked clear' } as const;
export const SALT_WHEN = { colour: 'with the colour', last: 'last of all' } as const;
/** The usual way first. */
export const COLOUR_WHENS = ['cooked', 'cold'] as const satisfies (keyof typeof COLOUR_WHEN)[];
export const SALT_WHENS = ['last', 'colour'] as const satisfies (keyof typeof SALT_WHEN)[];
export type ColourWhen = keyof typeof COLOUR_WHEN;
export type SaltWhen = keyof typeof SALT_WHEN;

export interface Addable {
  name: string;
  kind: string;
  limitC: number | null;
  /** Flake that is wanted as the heat turns it. */
  turned?: boolean | undefined;
}

export type Moment = 'cold' | 'cooked' | 'hottest' | 'cooled' | 'last';

export interface Adding<I> {
  moment: Moment;
  items: I[];
  /** What flake in it bears, or turns at, °C. */
  c: number | null;
}

/** How each moment is said at the bench. Source: workshop practice, both schools. */
export const MOMENTS: Record<Moment, string> = {
  cold: 'Into the cold liquid, stirred until no streak is left',
  cooked: 'Once it is cooked clear, off the heat',
  hottest: 'While the cup is at its hottest, so that it turns',
  cooled: 'Only once the cup has come down',
  last: 'Last of all, slowly, stirred briskly',
};
const ORDER: Moment[] = ['cold', 'cooked', 'hottest', 'cooled', 'last'];

/** Of the plastic itself: always before it is cooked. */
const OF_THE_PLASTIC = new Set(['softener', 'hardener', 'stabilizer', 'oil']);

function momentOf({ kind, limitC, turned }: Addable, colour: ColourWhen, salt: SaltWhen): Moment {
  if (OF_THE_PLASTIC.has(kind)) return 'cold';
  if (kind === 'salt') return salt === 'last' ? 'last' : colour;
  if (kind === 'flake') {
    if (limitC !== null && turned) return 'hottest';
    // What bears less than a cup is cooked at waits until it has come down.
    return limitC !== null && limitC < usual('cookC') ? 'cooled' : 'cooked';
  }
  return colour;
}

/**
 * What goes into a cup in which order, by the school of the workshop: colour cold or cooked, salt with it or last; flake never into the
 * cold (it is cooked longest then), heat-sensitive flake by its limit.
 */
export function orderOfAdding<I extends Addable>(
  items: I[],
  school: { colourWhen: ColourWhen; saltWhen: SaltWhen },
): Adding<I>[] {
  return ORDER.flatMap((moment) => {
    const mine = items.filter((item) => momentOf(item, school.colourWhen, school.saltWhen) === moment);
    if (mine.length === 0) return [];
    // Only flake with a limit waits for the cup to cool, or wants it hot.
    const limits = mine.map(({ limitC }) => limitC as number);
    const c = moment === 'hottest' ? Math.max(...limits) : moment === 'cooled' ? Math.min(...limits) : null;
    return [{ moment, items: mine, c }];
  });
}
