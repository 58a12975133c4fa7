import * as v from 'valibot';
import type { Told } from '../core/failure.ts';
import { LINE_MOST } from '../core/plan/orderBounds.ts';
import type { productionSchema } from '../core/plan/production.ts';
import { called, count, day, from0, ownId, rowId } from './fields.ts';
import type { MaterialKind } from './materials.ts';
import type { PackTime } from './packing.ts';

/** Hours from Monday to Sunday. */
const week = v.pipe(v.array(called(from0(24), 'Hours')), v.length(7));
export const hoursBody = v.strictObject({ makerId: rowId, hours: week });
export const offBody = v.strictObject({
  id: ownId,
  day,
  makerId: v.optional(v.nullable(v.union([rowId, v.literal('')])), null),
});
/** A cup is put on another evening: it is poured there and not where it was. */
export const movedBody = v.pipe(
  v.strictObject({ colourwayId: rowId, from: day, to: day }),
  v.forward(
    v.check(({ from, to }) => from !== to, 'is the evening it is on already'),
    ['to'],
  ),
);

/** Lines that are being typed, asked about before they are promised; as JSON in the address. */
export const withLines = v.pipe(
  v.array(
    v.strictObject({
      baitId: rowId,
      colourwayId: rowId,
      packs: count(1, LINE_MOST.packs),
      perPack: count(1, LINE_MOST.perPack),
    }),
  ),
  v.maxLength(100),
);
export type WithLine = v.InferOutput<typeof withLines>[number];
/** What such a line goes by in the plan. */
export const typedLine = (index: number) => `new ${index + 1}`;

export interface WorkHours {
  makerId: string;
  name: string;
  /** From Monday to Sunday; null: nothing was said, the usual evening is taken. */
  hours: number[] | null;
}

export interface DayOff {
  id: string;
  day: string;
  makerId: string | null;
}

export interface PlanPin {
  id: string;
  colourwayId: string;
  day: string;
  pours: boolean;
}

/** What a wish for the rack goes by in the plan. */
export const wishLine = (id: string) => `stock ${id}`;
export const isWish = (lineId: string) => lineId.startsWith('stock ');

/** A line of an open order, as the plan names it; of no order: a wish for the rack, or what is being typed. */
export interface PlanLine {
  id: string;
  orderId: string;
  code: string;
  customer: string;
  dueOn: string;
  packs: number;
  perPack: number;
  /** Still to be packed. */
  baits: number;
}

/** What the evenings are planned from: the calculator's own question, and what its names mean. */
export interface PlanAsked {
  asked: v.InferInput<typeof productionSchema>;
  lines: PlanLine[];
  baits: { id: string; name: string; shape: string }[];
  colours: { id: string; name: string; hex: string }[];
  molds: { id: string; name: string }[];
  /** Lines that no mold here makes in their colour, and why. */
  unplanned: { lineId: string; why: Told | null }[];
  /** What these colours take and the store holds, g, plastic of all kinds as one; without those no lot was ever written down of. */
  materials: {
    id: string;
    name: string;
    kind: MaterialKind;
    g: number;
    leadDays: number | null;
    comesOn: string;
    pricePerKgMinor: number | null;
  }[];
  /** In the bins, g, and how much of a cup was remelt where it took some. */
  remelt: { materialId: string; g: number; share: number };
  /** What a bag takes, and how many bags say so. */
  packing: PackTime;
  hours: WorkHours[];
  off: DayOff[];
  pins: PlanPin[];
}
