/** Fewer are no rhythm. */
export const TAPS_NEEDED = 4;

/** Kicks a second from the taps of one draw: intervals over the time from first to last. */
export function hzOf(taps: number[]): number | null {
  if (taps.length < TAPS_NEEDED) return null;
  const [first, last] = [taps[0] as number, taps.at(-1) as number];
  return last > first ? ((taps.length - 1) * 1000) / (last - first) : null;
}
