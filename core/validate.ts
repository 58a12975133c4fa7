import * as v from 'valibot';
import { LIST_CAP, TOO_LARGE } from './bounds.ts';
import { Failure, type Figure, type Said } from './failure.ts';
import { type Kind, kindOf, lastName } from './fields.ts';
import { fieldAt, fieldTitle, type Shape } from './schema.ts';
import { isDimension } from './units/dimension.ts';
import { say } from './units/say.ts';

const pathOf = (issue: v.BaseIssue<unknown>): string[] => (issue.path ?? []).map((step) => String(step.key));

function shown(received: string): string {
  return received === 'undefined' || received === 'null' ? 'nothing' : received.slice(0, 60);
}

const figureOf = (kind: Kind): Figure['as'] | undefined =>
  isDimension(kind) || kind === 'money' || kind === 'percent' ? kind : undefined;

/** Below this nothing can be told from nothing. */
const NOTHING = 1e-5;

/** One sentence that says which field, what was wanted and what came instead. */
function sentence(issue: v.BaseIssue<unknown>, schema: v.GenericSchema, path: string[]): Said {
  const field = path.length === 0 ? 'The input' : fieldTitle(schema, path);
  const as = figureOf(kindOf(lastName(path)));
  const figure = (value: unknown) =>
    typeof value === 'number' && Number.isFinite(value) && as ? { value, as } : shown(String(value));
  const bound = (issue as { requirement?: unknown }).requirement;
  if (issue.type === 'strict_object' && issue.expected === 'never')
    return say`${path.join('.')} is not a field here; leave it out.`;
  if (issue.message === TOO_LARGE)
    return say`${field} is more than can be worked out here; the most is ${figure(bound)}.`;
  // An absent key is told as an object that lacks it.
  if (issue.type === 'strict_object' && issue.received === 'undefined' && path.length > 0)
    return say`${field} is missing.`;
  const received = shown(issue.received);
  const came = figure(issue.input);
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
        ? say`${field} is missing; give ${wanted(issue)}.`
        : say`${field} must be ${wanted(issue)}, not ${received}.`;
    case 'min_value':
      return Math.abs(Number(bound)) < NOTHING && bound !== 0
        ? say`${field} must be more than 0, not ${came}.`
        : say`${field} must be at least ${figure(bound)}, not ${came}.`;
    case 'max_value':
      return say`${field} must be at most ${figure(bound)}, not ${came}.`;
    case 'gt_value':
      return say`${field} must be more than ${bound === 0 ? '0' : figure(bound)}, not ${came}.`;
    case 'lt_value':
      return say`${field} must be less than ${figure(bound)}, not ${came}.`;
    case 'integer':
      return say`${field} must be a whole number, not ${received}.`;
    case 'finite':
      return say`${field} must be an ordinary number.`;
    case 'min_length':
    case 'non_empty':
      return say`${field} must not be empty.`;
    case 'max_length':
      return say`${field} is too long; the most is ${(issue.expected ?? '').replace('<=', '')}.`;
    case 'uuid':
      return say`${field} is not picked yet.`;
    case 'iso_date':
      return say`${field} is no date; write it as ${'2026-05-31'}.`;
    case 'union':
      return received === 'nothing'
        ? say`${field} is missing.`
        : say`${field} must be given in one of its ways, not ${received}.`;
    default:
      return path.length === 0 ? say`${capital(issue.message)}.` : say`${field}: ${issue.message}.`;
  }
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

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

export interface Fault {
  path: string[];
  said: Said;
  /** Nothing was given where something has to be. */
  missing: boolean;
  tooLarge: boolean;
}

const MISSING = /^(number|string|boolean|array|picklist|variant|strict_object|union|uuid|iso_date)$/;

/** An issue as a fault of one field, said of the field that was given where there were several ways to give it. */
function faultOf(schema: v.GenericSchema, issue: v.BaseIssue<unknown>): Fault {
  const inner = issue.type === 'union' ? nearest(issue) : undefined;
  const path = [...pathOf(issue), ...(inner ? pathOf(inner) : [])];
  const told = inner ?? issue;
  const nothing = told.input === undefined || told.input === null || told.input === '';
  return {
    path,
    said: sentence(told, schema, path),
    missing: nothing && (MISSING.test(told.type) || told.type === 'min_length'),
    tooLarge: issue.message === TOO_LARGE,
  };
}

/** Everything that is wrong with `input`, field by field; empty where it would be taken. */
export function faults(schema: v.GenericSchema, input: unknown): Fault[] {
  const result = v.safeParse(schema, input);
  return result.success ? [] : result.issues.map((issue) => faultOf(schema, issue));
}

/** What is wrong with one field by itself, whatever stands in the others; empty where nothing is given. */
export function faultsAt(schema: v.GenericSchema, path: string[], value: unknown): Fault[] {
  const field = fieldAt(schema, path);
  if (!field || value === undefined || value === null || value === '') return [];
  const result = v.safeParse(field as unknown as v.GenericSchema, value);
  if (result.success) return [];
  return result.issues.map((issue) => {
    const tooLarge = issue.message === TOO_LARGE;
    return { path, said: sentence(issue, schema, path), missing: false, tooLarge };
  });
}

/**
 * Checks `input` against `schema`.
 * @returns the input with defaults filled in.
 * @throws Failure `invalid-input`, or `too-large` where nothing else is wrong than a cap.
 */
export function check<S extends v.GenericSchema>(schema: S, input: unknown): v.InferOutput<S> {
  const misplaced = listForObject(schema as unknown as Shape, input, []);
  if (misplaced) {
    const field = misplaced.length === 0 ? 'The input' : fieldTitle(schema, misplaced);
    throw new Failure('invalid-input', `${field} must be an object, not a list.`, misplaced.join('.') || undefined);
  }
  const result = v.safeParse(schema, input);
  if (result.success) return result.output;
  const issues: v.BaseIssue<unknown>[] = result.issues;
  const issue = issues.find((one) => one.message !== TOO_LARGE) ?? (issues[0] as v.BaseIssue<unknown>);
  const { path, said, tooLarge } = faultOf(schema, issue);
  throw new Failure(tooLarge ? TOO_LARGE : 'invalid-input', said, path.join('.') || undefined);
}
