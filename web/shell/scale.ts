/** Two days on one scale: minutes near now are wide, tomorrow is narrow. */
const SPAN_S = 48 * 3600;
const KNEE_S = 240;

/** Where a moment `seconds` from now stands, 0 (now) to 1 (two days on). */
export function along(seconds: number): number {
  const s = Math.min(SPAN_S, Math.max(0, seconds));
  return Math.log1p(s / KNEE_S) / Math.log1p(SPAN_S / KNEE_S);
}

export const MARKS: [seconds: number, label: string][] = [
  [0, 'now'],
  [60, '1 min'],
  [300, '5'],
  [900, '15'],
  [3600, '1 h'],
  [4 * 3600, '4 h'],
  [12 * 3600, '12 h'],
  [24 * 3600, '1 day'],
  [48 * 3600, '2'],
];

export interface Placed<T> {
  item: T;
  /** Left edge in px. */
  x: number;
  /** Others too close to be drawn apart, gathered under this one. */
  more: T[];
}

/** Puts flags on the scale, nearest first; those that would collide are gathered behind the earlier one. */
export function placeFlags<T extends { dueS: number }>(items: T[], widthPx: number, flagPx: number): Placed<T>[] {
  const placed: Placed<T>[] = [];
  for (const item of [...items].sort((a, b) => a.dueS - b.dueS)) {
    const x = Math.min(widthPx - flagPx, along(item.dueS) * widthPx);
    const last = placed.at(-1);
    if (last && x - last.x < flagPx) last.more.push(item);
    else placed.push({ item, x, more: [] });
  }
  return placed;
}
