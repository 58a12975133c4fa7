import type { Fill, MoldKind } from '../heat/window.ts';

/** What becomes of a bait that was looked at: sold, kept for own water, or melted again. */
export const GRADES = ['sell', 'own', 'remelt'] as const;
export type Grade = (typeof GRADES)[number];

/** Why a bait is not to sell, in the words of the bench. */
export const REASONS = {
  bubble: 'air bubble',
  short: 'short fill',
  hollow: 'hollow nose',
  flash: 'flash',
  dent: 'dents',
  ripple: 'ripples',
  'open-tail': 'tail not closed',
  bent: 'bent',
  tear: 'torn, brittle',
  peel: 'layers peel',
  bleed: 'colours bled',
  clump: 'clumps of salt',
  sticky: 'sticky or oily',
  yellow: 'scorched yellow',
  'washed-out': 'washed-out thin parts',
  'flake-sank': 'flake at one side',
  'flake-turned': 'flake changed colour',
  'flake-ran': 'flake ran off',
  cut: 'broke at cutting',
  lines: 'print lines',
  'blown-through': 'blown through the print',
  colour: 'tone is off',
  other: 'something else',
} as const;
export type Reason = keyof typeof REASONS;
export const REASON_IDS = Object.keys(REASONS) as [Reason, ...Reason[]];

/** What may be said of a bait that is sold all the same: flash that was trimmed off is no reject. */
export const TRIMMED: Reason = 'flash';

const ANYWHERE: Reason[] = ['bubble', 'short', 'bent', 'colour'];
/** What goes wrong most by the way into the mold. Source: workshop practice. */
const BY_FILL: Record<Fill, Reason[]> = {
  'open-pour': ['open-tail', 'dent', 'ripple', 'flake-sank'],
  injection: ['hollow', 'flash', 'tear', 'washed-out'],
  gravity: ['hollow', 'flash', 'dent', 'flake-sank'],
  dip: ['flake-ran', 'cut', 'clump', 'tear'],
};

/** All reasons, those that are usual in this mold first; how many those are. */
export function reasonsFor({ kind, fill }: { kind: MoldKind; fill: Fill }): { all: Reason[]; usual: number } {
  const first = [
    ...new Set([...ANYWHERE, ...BY_FILL[fill], ...(kind === 'printed' ? (['lines', 'blown-through'] as const) : [])]),
  ];
  return { all: [...first, ...REASON_IDS.filter((reason) => !first.includes(reason))], usual: first.length };
}

export interface Graded {
  cavity: number;
  grade: Grade | 'unmarked';
  reason?: Reason | undefined;
}

/** A mark as it was tapped; earlier pages still send good or bad. */
export interface Tapped {
  cavity: number;
  grade?: Grade | 'unmarked' | undefined;
  result?: 'good' | 'bad' | 'unmarked' | undefined;
  reason?: Reason | undefined;
}
const AS_GRADE = { good: 'sell', bad: 'remelt', unmarked: 'unmarked' } as const;

/** The grade of a tap of either form: good is to sell, bad goes to remelt. */
export function graded<T extends Tapped>({
  result,
  grade,
  ...rest
}: T): Omit<T, 'result' | 'grade'> & Pick<Graded, 'grade'> {
  return { ...rest, grade: grade ?? AS_GRADE[result ?? 'unmarked'] };
}

/** How many of these marks are of each grade. */
export const countGrades = (marks: { grade: Grade | 'unmarked' }[]): Record<Grade, number> => ({
  sell: marks.filter((mark) => mark.grade === 'sell').length,
  own: marks.filter((mark) => mark.grade === 'own').length,
  remelt: marks.filter((mark) => mark.grade === 'remelt').length,
});
