import * as v from 'valibot';
import { FAULTS, type Fault, INSTRUMENT_KINDS, type InstrumentKind, lineSchema } from '../core/instruments/lines.ts';
import type { Trust } from '../core/instruments/trust.ts';
import { called, count, grams, name, ownId, rowId, tappedAt, type Versioned } from './fields.ts';

export const HOWS = ['stand-in', 'lines'] as const;

export const instrumentBody = v.strictObject({
  kind: called(v.picklist(INSTRUMENT_KINDS), 'It is a'),
  name: called(name, 'Known as'),
  how: called(v.picklist(HOWS), 'It speaks'),
});

/** What it is at: a cup, a shot whose baits are weighed, an order that is packed, or nothing. */
export const aimBody = v.strictObject({
  pourId: v.nullable(rowId),
  shotId: v.optional(v.nullable(rowId), null),
  orderId: v.optional(v.nullable(rowId), null),
});
export const instrumentPatch = v.union([v.strictObject({ name }), v.strictObject({ away: v.boolean() })]);

export const lineBody = lineSchema;
/** What is done to a stand-in in place of hands: something laid into its cup or taken out of it, a fault that it is to have. */
export const standInBody = v.strictObject({
  fault: v.optional(v.picklist(FAULTS)),
  addG: v.optional(v.pipe(v.number(), v.minValue(-5000), v.maxValue(5000))),
  tare: v.optional(v.literal(true)),
});

/** A bait on the scale, of one cavity of a shot. */
export const baitWeighingBody = v.strictObject({
  id: ownId,
  cavity: count(1, 1000),
  grams: called(grams, 'Weighs'),
  instrumentId: v.optional(v.nullable(rowId), null),
  tappedAt,
});

export interface Instrument extends Versioned {
  id: string;
  kind: InstrumentKind;
  name: string;
  how: (typeof HOWS)[number];
  pourId: string | null;
  shotId: string | null;
  orderId: string | null;
  awayAt: string | null;
}

/** A step that the scale saw: nobody said yet what it was. Its id becomes that of the tap that says so. */
export interface ScaleStep {
  id: string;
  at: string;
  pourId: string | null;
  shotId: string | null;
  deltaG: number;
  toG: number;
}

/** What an instrument says now. */
export interface InstrumentNow {
  id: string;
  /** °C, g, or of full power; null: it said nothing yet. */
  value: number | null;
  at: string | null;
  trust: Trust;
  fault: Fault | null;
  steps: ScaleStep[];
}
