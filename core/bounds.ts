import * as v from 'valibot';

/** Message that marks a bound as a cap on work or overflow, not a limit of the domain. */
export const TOO_LARGE = 'too-large' as const;

/** Longest list any calculator takes. */
export const LIST_CAP = 1000;

/** Any finite number; its range has an error of its own. */
export const finite = v.pipe(v.number(), v.finite());

/** A number above 0 and at most `cap` (a cap on overflow: beyond it the error is `too-large`). */
export const positive = (cap: number) => v.pipe(finite, v.gtValue(0), v.maxValue(cap, TOO_LARGE));

/** A number of 0 or more and at most `cap`. */
export const nonNegative = (cap: number) => v.pipe(finite, v.minValue(0), v.maxValue(cap, TOO_LARGE));

/** Any finite number whose size is at most `cap`. */
export const signed = (cap: number) => v.pipe(finite, v.minValue(-cap, TOO_LARGE), v.maxValue(cap, TOO_LARGE));

/** A whole number from `min` to `cap`. */
export const whole = (min: number, cap: number) =>
  v.pipe(finite, v.integer(), v.minValue(min), v.maxValue(cap, TOO_LARGE));

/** A number from 0 to 1. */
export const fraction = v.pipe(finite, v.minValue(0), v.maxValue(1));

/** A number strictly between 0 and 1. */
export const openFraction = v.pipe(finite, v.gtValue(0), v.ltValue(1));

/** °C, from absolute zero up. */
export const celsius = v.pipe(finite, v.minValue(-273.15), v.maxValue(1e4, TOO_LARGE));

/** A calendar day, yyyy-mm-dd, that there is. */
export const isoDay = v.pipe(
  v.string(),
  v.isoDate(),
  // The 30th of February is read as a day in March.
  v.check((text) => {
    const time = Date.parse(text);
    // What is written as no date at all is refused above, and an empty one is missing.
    return Number.isNaN(time) || new Date(time).toISOString().slice(0, 10) === text;
  }, 'is no date'),
);

/** A name that a row of a list goes by. */
export const id = v.pipe(v.string(), v.minLength(1), v.maxLength(200, TOO_LARGE));

/** A list with at least `least` rows; `key` names the field that must not repeat. */
export function list<S extends v.GenericSchema>(row: S, key?: string, least = 1) {
  return v.pipe(
    v.array(row),
    v.minLength(least),
    v.maxLength(LIST_CAP, TOO_LARGE),
    v.rawCheck(({ dataset, addIssue }) => {
      if (!dataset.typed || !key) return;
      const seen = new Set<unknown>();
      dataset.value.forEach((value, index) => {
        const name = (value as Record<string, unknown>)[key];
        if (seen.has(name)) {
          const row = { type: 'array', origin: 'value', input: dataset.value, key: index, value } as const;
          const field = {
            type: 'object',
            origin: 'value',
            input: value as Record<string, unknown>,
            key,
            value: name,
          } as const;
          addIssue({ message: `"${String(name)}" is there twice; give each row its own ${key}`, path: [row, field] });
        }
        seen.add(name);
      });
    }),
  );
}
