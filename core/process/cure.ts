import { usual } from '../defaults.ts';

const HOUR_MS = 3_600_000;

/** How long a bait cures, ms; no packing, painting or hardness reading before. */
export const CURE_MS = usual('cureH') * HOUR_MS;

/**
 * When what was poured is cured: counted from the last shot, not from when the cup was weighed.
 * @param shotsAt moments of its shots, UTC ISO text, in any order. @returns UTC ISO text, or null where nothing was drawn.
 */
export function curedAt(shotsAt: string[]): string | null {
  const last = shotsAt.reduce<string | null>((latest, at) => (latest === null || at > latest ? at : latest), null);
  return last === null ? null : new Date(Date.parse(last) + CURE_MS).toISOString();
}

/** Whole days that a cure takes: what is poured in the evening may be packed so many evenings later. */
export const CURE_DAYS = Math.ceil(usual('cureH') / 24);
