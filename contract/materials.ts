import * as v from 'valibot';
import { CUTS, type Cut } from '../core/colour/flakes.ts';
import type { Learnt } from '../core/colour/learnt.ts';
import type { Optics, Rgb } from '../core/colour/light.ts';
import { usual } from '../core/defaults.ts';
import {
  above0,
  type CanBeAway,
  called,
  count,
  cupC,
  density,
  grams,
  gramsOr0,
  hex,
  money,
  name,
  ownId,
  pickedHex,
  roomC,
  rowId,
  shore,
  shorePoints,
  type Versioned,
  volumeMl,
  written,
} from './fields.ts';

export const MATERIAL_KINDS = [
  'plastisol',
  'softener',
  'hardener',
  'stabilizer',
  'colourant',
  'powder',
  'flake',
  'salt',
  'silicone',
  'oil',
  'eyes',
  'bags',
  'labels',
] as const;
export type MaterialKind = (typeof MATERIAL_KINDS)[number];

const mix = v.strictObject({
  by: v.picklist(['mass', 'volume']),
  partA: above0(1000),
  partB: above0(1000),
  densityAGPerMl: v.optional(density, usual('rubberGPerMl')),
  densityBGPerMl: v.optional(density, usual('rubberGPerMl')),
});

const facts = {
  hex: v.optional(v.nullable(hex)),
  densityGPerMl: v.optional(v.nullable(density)),
  bulkGPerMl: v.optional(v.nullable(density)),
  dropsPerMl: v.optional(v.nullable(above0(200))),
  strength: v.optional(above0(100)),
  limitC: called(v.optional(v.nullable(cupC)), 'Turns above'),
  /** Of flake and salt. */
  sizeMm: called(v.optional(v.nullable(above0(20))), 'Across'),
  cut: called(v.optional(v.nullable(v.picklist(CUTS))), 'Cut'),
  /** Of flake that turns in the heat. */
  turnsHex: called(v.optional(v.nullable(hex)), 'Turns into'),
  hardnessScale: v.optional(v.nullable(shore)),
  hardness: v.optional(v.nullable(shorePoints)),
  /** Of a softener or hardener: what each percent of it adds to a cup, points; less than nothing softens. */
  pointsPerPercent: called(
    v.optional(v.nullable(v.pipe(v.number(), v.minValue(-50), v.maxValue(50)))),
    'Points a percent',
  ),
  mix: v.optional(v.nullable(mix)),
  potLifeMin: v.optional(v.nullable(above0(10000))),
  demoldMin: v.optional(v.nullable(above0(100000))),
  ratedC: v.optional(v.nullable(roomC)),
  pricePerKgMinor: v.optional(v.nullable(money)),
  reorderG: called(v.optional(v.nullable(gramsOr0)), 'Reorder at'),
  leadDays: called(v.optional(v.nullable(count(0, 365))), 'It comes after, days'),
  cure: called(v.optional(v.nullable(v.picklist(['platinum', 'tin']))), 'Cures by'),
  tearKnPerM: v.optional(v.nullable(above0(200))),
};

export const lotBody = v.strictObject({
  code: called(name, 'Lot'),
  grams: called(grams, 'Holds'),
  bottleStrength: v.optional(above0(20), 1),
  /** Null: as the material's. */
  dropsPerMl: v.optional(v.nullable(above0(200)), null),
  /** Null: as the material's. */
  pricePerKgMinor: v.optional(v.nullable(money), null),
});
export const materialBody = v.strictObject({
  name,
  kind: called(v.picklist(MATERIAL_KINDS), 'Kind'),
  ...facts,
  lot: v.optional(lotBody),
});
/** A rubber as its tin describes it: without its times nothing could be planned. */
export const rubberBody = v.strictObject({
  ...materialBody.entries,
  mix,
  potLifeMin: above0(10000),
  demoldMin: above0(100000),
});
export const materialPatch = v.strictObject({
  name: v.optional(name),
  ...facts,
  /** The lot that is taken first; null: the oldest that holds something. */
  lotId: v.optional(v.nullable(rowId)),
});
/** A drop of this bottle, weighed or counted anew. */
export const lotPatch = v.strictObject({
  dropsPerMl: v.optional(v.nullable(above0(200))),
  bottleStrength: v.optional(above0(20)),
});

const reflected = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
const seen = v.strictTuple([reflected, reflected, reflected]);
/** A step puck of a colourant over black and over white, as reflectance in linear light. */
export const colourStepBody = v.strictObject({
  id: ownId,
  how: v.picklist(['typed', 'photo']),
  thicknessMm: called(above0(100), 'The step is thick'),
  /** Of the bottle in use; kept as of the house strength. */
  mlPerL: called(above0(1000), 'Dosed, mL in a litre'),
  overBlack: called(seen, 'Over black'),
  overWhite: called(seen, 'Over white'),
  note: v.optional(name),
});

/** A step as a maker writes it down: what went into how much, how thick it is, how it looks. */
export const stepSheet = v.strictObject({
  amount: called(written, 'Dosed'),
  plastisolMl: called(volumeMl, 'Into plain plastisol'),
  thicknessMm: called(above0(100), 'The step is thick'),
  overBlack: called(pickedHex, 'Over black'),
  overWhite: called(pickedHex, 'Over white'),
});

/** The newest step of a colourant that stands. */
export interface ColourStep {
  id: string;
  how: 'typed' | 'photo';
  thicknessMm: number;
  mlPerL: number;
  overBlack: Rgb;
  overWhite: Rgb;
  optics: Optics;
  note: string;
  at: string;
}

export const lotMoveBody = v.variant('kind', [
  v.strictObject({ id: ownId, kind: v.literal('received'), grams, note: v.optional(name) }),
  v.strictObject({ id: ownId, kind: v.literal('used'), grams, note: v.optional(name) }),
  v.strictObject({
    id: ownId,
    kind: v.literal('counted'),
    levelG: called(gramsOr0, 'It holds, weighed'),
    note: v.optional(name),
  }),
]);

export interface Lot {
  id: string;
  materialId: string;
  code: string;
  bottleStrength: number;
  dropsPerMl: number | null;
  pricePerKgMinor: number | null;
  levelG: number;
  /** What it held when it came, all deliveries together. */
  receivedG: number;
  createdAt: string;
}

export interface Material extends Versioned, CanBeAway {
  name: string;
  kind: MaterialKind;
  hex: string | null;
  densityGPerMl: number | null;
  bulkGPerMl: number | null;
  dropsPerMl: number | null;
  strength: number;
  limitC: number | null;
  turnsHex: string | null;
  sizeMm: number | null;
  cut: Cut | null;
  /** As it was measured last; null: never. */
  step: ColourStep | null;
  /** How it comes out here, over how it is foreseen; null: nobody looked yet. */
  learnt: Learnt | null;
  hardnessScale: 'A' | '00' | null;
  hardness: number | null;
  pointsPerPercent: number | null;
  mix: v.InferOutput<typeof mix> | null;
  potLifeMin: number | null;
  demoldMin: number | null;
  ratedC: number | null;
  pricePerKgMinor: number | null;
  reorderG: number | null;
  /** From the day it is ordered until it is there. */
  leadDays: number | null;
  cure: 'platinum' | 'tin' | null;
  tearKnPerM: number | null;
  lotId: string | null;
  levelG: number;
  /** What holds something, and the last few that were emptied; oldest first. */
  lots: Lot[];
  /** How many lots of it there ever were. */
  lotsEver: number;
}
