/** What stands in a field: `lines.0.packs`. */
export const valueAt = (values: unknown, at: string): unknown =>
  at.split('.').reduce<unknown>((under, step) => (under as Record<string, unknown> | null | undefined)?.[step], values);

/** The same with one field changed; nothing else of it is copied or touched. */
export function changed<T>(from: T, [step, ...rest]: string[], value: unknown): T {
  if (step === undefined) return value as T;
  const copy = (Array.isArray(from) ? [...from] : { ...from }) as Record<string, unknown>;
  copy[step] = changed((from as Record<string, unknown>)[step], rest, value);
  return copy as T;
}
