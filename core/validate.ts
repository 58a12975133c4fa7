import * as v from 'valibot';
import { Failure } from './failure.ts';

/** Message that marks a bound as a cap on work or overflow, not a limit of the domain. */
const TOO_LARGE = 'too-large';

/** Longest list any calculator takes. */
const LIST_CAP = 1000;

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

/** A name that a row of a list goes by. */
export const id = v.pipe(v.string(), v.minLength(1), v.maxLength(200, TOO_LARGE));

/** A list with at least one row; `key` names the field that must not repeat. */
export function list<S extends v.GenericSchema>(row: S, key?: string) {
  return v.pipe(
    v.array(row),
    v.minLength(1),
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

function pathOf(issue: v.BaseIssue<unknown>): string | undefined {
  const path = (issue.path ?? []).map((step) => String(step.key)).join('.');
  return path === '' ? undefined : path;
}

function shown(received: string): string {
  return received === 'undefined' || received === 'null' ? 'nothing' : received.slice(0, 60);
}

/** One sentence that says which field, what was wanted and what came instead. */
function sentence(issue: v.BaseIssue<unknown>, path: string | undefined): string {
  const field = path ?? 'The input';
  if (issue.type === 'strict_object' && issue.expected === 'never')
    return `${field} is not a field here; leave it out.`;
  if (issue.message === TOO_LARGE)
    return `${field} is more than can be worked out here; the most is ${(issue.expected ?? '').replace(/^[<>]=/, '')}.`;
  const received = shown(issue.received);
  switch (issue.type) {
    case 'strict_object':
    case 'number':
    case 'string':
    case 'boolean':
    case 'array':
    case 'picklist':
    case 'variant':
    case 'strict_tuple':
      return received === 'nothing'
        ? `${field} is missing; give ${wanted(issue)}.`
        : `${field} must be ${wanted(issue)}, not ${received}.`;
    case 'min_value':
    case 'max_value':
    case 'gt_value':
    case 'lt_value':
      return `${field} must be ${(issue.expected ?? '').replace('>=', 'at least ').replace('<=', 'at most ').replace('>', 'more than ').replace('<', 'less than ')}, not ${received}.`;
    case 'integer':
      return `${field} must be a whole number, not ${received}.`;
    case 'finite':
      return `${field} must be an ordinary number.`;
    case 'min_length':
    case 'non_empty':
      return `${field} must not be empty.`;
    case 'max_length':
      return `${field} is too long; the most is ${(issue.expected ?? '').replace('<=', '')}.`;
    case 'union':
      return received === 'nothing'
        ? `${field} is missing.`
        : `${field} must be given in one of its ways, not ${received}.`;
    default:
      return `${field}: ${issue.message}.`;
  }
}

const WORDS: Record<string, string> = {
  number: 'a number',
  string: 'text',
  Object: 'an object',
  Array: 'a list',
  boolean: 'true or false',
};

function wanted(issue: v.BaseIssue<unknown>): string {
  const expected = issue.expected ?? 'a value';
  return WORDS[expected] ?? expected.replaceAll('|', 'or').replace(/^\((.*)\)$/, '$1');
}

/** Of several ways that all failed, the fault inside the one whose fields were given. */
function nearest(issue: v.BaseIssue<unknown>): v.BaseIssue<unknown> | undefined {
  return issue.issues?.find((one) => one.path !== undefined && one.type !== 'strict_object' && one.input !== undefined);
}

/** The inside of a schema, as far as it matters for telling a list from an object. */
interface Shape {
  type: string;
  wrapped?: Shape;
  entries?: Record<string, Shape>;
  item?: Shape;
}

/** Path of the first list that stands where an object is wanted: to the validator both are objects. */
function listForObject(shape: Shape, input: unknown, path: string[]): string[] | undefined {
  if (shape.wrapped) return input === undefined ? undefined : listForObject(shape.wrapped, input, path);
  if (shape.type === 'variant' || shape.type === 'record') return Array.isArray(input) ? path : undefined;
  if (shape.entries) {
    if (Array.isArray(input)) return path;
    if (typeof input !== 'object' || input === null) return undefined;
    for (const [key, part] of Object.entries(shape.entries)) {
      const found = listForObject(part, (input as Record<string, unknown>)[key], [...path, key]);
      if (found) return found;
    }
  }
  if (shape.item && Array.isArray(input)) {
    for (const [index, row] of input.slice(0, LIST_CAP).entries()) {
      const found = listForObject(shape.item, row, [...path, String(index)]);
      if (found) return found;
    }
  }
  return undefined;
}

/**
 * Checks `input` against `schema`.
 * @returns the input with defaults filled in.
 * @throws Failure `invalid-input`, or `too-large` where nothing else is wrong than a cap.
 */
export function check<S extends v.GenericSchema>(schema: S, input: unknown): v.InferOutput<S> {
  const misplaced = listForObject(schema as unknown as Shape, input, []);
  if (misplaced) {
    const path = misplaced.join('.') || undefined;
    throw new Failure('invalid-input', `${path ?? 'The input'} must be an object, not a list.`, path);
  }
  const result = v.safeParse(schema, input);
  if (result.success) return result.output;
  const issues: v.BaseIssue<unknown>[] = result.issues;
  const domain = issues.find((issue) => issue.message !== TOO_LARGE);
  const inside = domain?.type === 'union' ? nearest(domain) : undefined;
  if (domain && inside) {
    const path = [pathOf(domain), pathOf(inside)].filter(Boolean).join('.');
    throw new Failure('invalid-input', sentence(inside, path), path);
  }
  const issue = domain ?? (issues[0] as v.BaseIssue<unknown>);
  const path = pathOf(issue);
  throw new Failure(domain ? 'invalid-input' : TOO_LARGE, sentence(issue, path), path);
}
