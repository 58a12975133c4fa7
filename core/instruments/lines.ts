import * as v from 'valibot';
import { Failure } from '../failure.ts';
import { check } from '../validate.ts';

export const INSTRUMENT_KINDS = ['thermometer', 'scale', 'oven'] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

/** What a stand-in can be made to have. */
export const FAULTS = ['none', 'dropout', 'stuck', 'wild'] as const;
export type Fault = (typeof FAULTS)[number];

const at = v.optional(v.pipe(v.string(), v.isoTimestamp()));
const number = (least: number, most: number) => v.pipe(v.number(), v.finite(), v.minValue(least), v.maxValue(most));

/** What an instrument may say in one line; values far out are taken and judged, so that a fault is seen as one. */
export const lineSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('thermometer'), c: number(-1e4, 1e4), at }),
  v.strictObject({ kind: v.literal('scale'), g: number(-1e6, 1e6), stable: v.optional(v.boolean()), at }),
  v.strictObject({ kind: v.literal('oven'), on: v.boolean(), level: v.optional(number(0, 1), 1), at }),
]);
export type Line = v.InferOutput<typeof lineSchema>;

/**
 * One line of an instrument, JSON as it comes over a serial port or in a request: `{"kind":"thermometer","c":171.4}`.
 * @throws Failure `malformed-json`, `invalid-input`.
 */
export function readLine(text: string): Line {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Failure(
      'malformed-json',
      `“${text.slice(0, 60)}” is no line of an instrument. Send one JSON object a line, as {"kind":"thermometer","c":171.4}.`,
    );
  }
  return check(lineSchema, value);
}

/** The one figure of a line: °C, g, or of the oven's full power. */
export const figureOf = (line: Line): number =>
  line.kind === 'thermometer' ? line.c : line.kind === 'scale' ? line.g : line.on ? line.level : 0;
