import type * as v from 'valibot';
import type { Beside } from '../shape/calculators.ts';
import { check } from '../validate.ts';

export interface Calculator {
  name: string;
  /** What a maker would call it. */
  title: string;
  /** The question it answers, in one line. */
  asks: string;
  /** The formula in words. */
  formula: string;
  source: string;
  /** Where it stops being right. */
  limits: string;
  schema: v.GenericSchema;
  example: Record<string, unknown>;
  /** Takes the bytes of an STL or OBJ file beside its input, and may take seconds. */
  takesMesh?: boolean;
  run(input: unknown, beside?: Beside): unknown;
}

type About = Omit<Calculator, 'schema' | 'run'>;

export function define<S extends v.GenericSchema>(
  schema: S,
  compute: (input: v.InferOutput<S>, beside?: Beside) => unknown,
  about: About,
): Calculator {
  return { ...about, schema, run: (input, beside) => compute(check(schema, input), beside) };
}
