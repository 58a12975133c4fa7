const two = (n: number) => String(n).padStart(2, '0');

/** 19:05, by this device's zone; without the formatter of dates, which the bench has no other use for. */
export function timeText(iso: string): string {
  const at = new Date(iso);
  return `${two(at.getHours())}:${two(at.getMinutes())}`;
}
