import type { Clock } from '../../contract/workshop.ts';
import type { Tap } from '../api/outbox.ts';

/** A clock is seen to, or put off. */
export type ClockSaid = { ended: true } | { addMinutes: number };

export const clockTaps = (id: string): string => `/clocks/${id}/taps`;

/** The clocks with the newest of one of them; one that was seen to is among them no more. */
export const withClock = (clocks: Clock[], newest: Clock): Clock[] =>
  clocks.flatMap((clock) => (clock.id !== newest.id ? [clock] : newest.endedAt ? [] : [newest]));

/** The clocks as they will be once the taps on their way have arrived, nearest first. */
export function foldClocks(clocks: Clock[], taps: Tap[]): Clock[] {
  const folded = clocks.flatMap((clock) => {
    let dueMs = Date.parse(clock.dueAt);
    for (const { path, body, refused } of taps) {
      if (refused || path !== clockTaps(clock.id)) continue;
      if (body.ended) return [];
      dueMs = Math.max(dueMs, Date.parse(String(body.tappedAt))) + Number(body.addMinutes) * 60_000;
    }
    return [{ ...clock, dueAt: new Date(dueMs).toISOString() }];
  });
  return folded.sort((a, b) => (a.dueAt < b.dueAt ? -1 : Number(a.dueAt > b.dueAt)));
}
