/** What a part counted. Those that must be 0 are named by what went wrong. */
export type Counts = Record<string, number>;

/** Names under which nothing may ever be counted. */
export const MUST_BE_NONE = [
  'lost',
  'doubled',
  'broken',
  'rows',
  'down',
  'late',
  'left',
  'taken',
  'unsaid',
  'still-full',
] as const;

export const isClean = (counts: Counts) => MUST_BE_NONE.every((name) => (counts[name] ?? 0) === 0);

/** Repeats a thing until it was done so often or the time is up. */
export async function rounds(most: number, until: number, one: (n: number) => Promise<void>): Promise<number> {
  let done = 0;
  for (; done < most && Date.now() < until; done++) await one(done);
  return done;
}

export interface Bounds {
  /** How often at most. */
  rounds: number;
  /** When to stop, ms since the epoch. */
  until: number;
}

export type Part = (bounds: Bounds) => Promise<Counts>;
