import * as v from 'valibot';
import { pathWords } from './fields.ts';

/** The inside of a schema, as far as fields are looked up in it. */
export interface Shape {
  type: string;
  wrapped?: Shape;
  entries?: Record<string, Shape>;
  item?: Shape;
  items?: Shape[];
  options?: Shape[];
  pipe?: { type: string; requirement?: unknown }[];
  default?: unknown;
}

const inside = (schema: v.GenericSchema) => schema as unknown as Shape;
const EMPTY = /^(optional|nullable|nullish|exact_optional|undefinedable)$/;

function within(shape: Shape, path: string[]): Shape | undefined {
  const [step, ...rest] = path;
  if (step === undefined) return shape;
  if (shape.wrapped) return within(shape.wrapped, path);
  if (shape.type === 'variant' || shape.type === 'union') {
    for (const option of shape.options ?? []) {
      const found = within(option, path);
      if (found) return found;
    }
    return undefined;
  }
  const next = shape.entries?.[step] ?? shape.items?.[Number(step)] ?? (/^\d+$/.test(step) ? shape.item : undefined);
  return next && within(next, rest);
}

/** What a field may hold. */
export interface FieldFacts {
  least?: number;
  /** Exclusive: more than `least`. */
  over?: boolean;
  most?: number;
  whole: boolean;
  /** It may be left out or emptied. */
  optional: boolean;
  /** What stands where nothing is given. */
  usual?: unknown;
}

/** The schema of one field, or undefined where there is none: `['lines', '0', 'baitId']`. */
export const fieldAt = (schema: v.GenericSchema, path: string[]): Shape | undefined => within(inside(schema), path);

/** Bounds and default of one field, read from its schema. */
export function factsOf(schema: v.GenericSchema, path: string[]): FieldFacts {
  const facts: FieldFacts = { whole: false, optional: false };
  let shape = fieldAt(schema, path);
  while (shape && EMPTY.test(shape.type)) {
    facts.optional = true;
    if (shape.default !== undefined) facts.usual = shape.default;
    shape = shape.wrapped;
  }
  const read = (steps: Shape['pipe']) => {
    for (const step of steps ?? []) {
      // A pipe may begin with a pipe.
      const inner = (step as Shape).pipe;
      if (inner) read(inner);
      const { type, requirement } = step;
      if (type === 'integer') facts.whole = true;
      if (typeof requirement !== 'number') continue;
      if (type === 'min_value' || type === 'gt_value') {
        facts.least = requirement;
        facts.over = type === 'gt_value';
      }
      if (type === 'max_value' || type === 'lt_value') facts.most = requirement;
    }
  };
  read(shape?.pipe);
  return facts;
}

/** A field's own title (`v.title`), where the name alone would say too little. */
export function titleAt(schema: v.GenericSchema, path: string[]): string | undefined {
  let shape = fieldAt(schema, path);
  while (shape) {
    const title = v.getTitle(shape as unknown as v.GenericSchema);
    if (title) return title;
    shape = shape.wrapped;
  }
  return undefined;
}

/** What a maker calls the field at this path. */
export const fieldTitle = (schema: v.GenericSchema, path: string[]): string =>
  pathWords(path, (upTo) => titleAt(schema, upTo));
