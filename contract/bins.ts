import * as v from 'valibot';
import type { Optics } from '../core/colour/light.ts';
import type { Layer } from '../core/plastisol/bin.ts';
import { type Known, puckFields } from '../core/plastisol/know.ts';
import {
  above0,
  type CanBeAway,
  called,
  count,
  grams,
  gramsOr0,
  hex,
  name,
  note,
  ownId,
  rowId,
  shore,
  type Versioned,
} from './fields.ts';

export const binBody = v.strictObject({
  name: called(name, 'Name of the bin'),
  hex: called(hex, 'Its colour'),
});
export const binPatch = v.partial(binBody);

export const binMoveBody = v.variant('kind', [
  /** Given, or used baits: looked through before anything of it is cooked. */
  v.strictObject({
    id: ownId,
    kind: v.literal('given'),
    grams: called(grams, 'Sorted and weighed'),
    heats: called(v.nullable(count(0, 50)), 'Cooked so often, empty: not known'),
    saltG: called(v.nullable(gramsOr0), 'Salt in it, empty: not known'),
    note: called(note, 'From whom'),
    looked: v.pipe(
      v.boolean(),
      v.literal(true, 'look it through first: dry, no hooks or lead, no other rubber'),
      v.title('Dry, no hooks or lead, no other rubber'),
    ),
  }),
  v.strictObject({ id: ownId, kind: v.literal('counted'), grams: called(gramsOr0, 'In it, weighed'), note }),
]);

/** A puck cooked of what is in a bin. */
export const puckBody = v.strictObject({ id: ownId, ...puckFields });

/** A puck as a maker writes it down: looks as a colour picker reads them, readings beside each other. */
export const puckSheet = v.strictObject({
  massG: puckFields.massG,
  inWaterG: called(v.nullable(gramsOr0), 'Hung in water it weighs'),
  volumeMl: called(v.nullable(above0(1000)), 'Or: the water rises by'),
  flake: puckFields.flake,
  bubbles: puckFields.bubbles,
  scale: called(shore, 'Pressed on the scale'),
  pressed: called(
    v.pipe(v.string(), v.maxLength(200), v.regex(/^[\d.,;/ ]*$/, 'write readings beside each other, such as 48 51 50')),
    'Readings',
  ),
  thicknessMm: called(v.nullable(above0(100)), 'The puck is thick'),
  overBlack: called(v.union([hex, v.literal('')]), 'Over black'),
  overWhite: called(v.union([hex, v.literal('')]), 'Over white'),
});

/** What the newest puck of a bin told. */
export interface BinPuck {
  id: string;
  output: Known;
  at: string;
}

/** Grams of two bins or more, stirred together: a third colour, named and kept. */
export const binMixBody = v.strictObject({
  ...binBody.entries,
  from: v.pipe(
    v.array(v.strictObject({ binId: called(rowId, 'Bin'), grams: called(grams, 'Of it') })),
    v.minLength(2),
    v.maxLength(12),
    v.check((rows) => new Set(rows.map((row) => row.binId)).size === rows.length, 'a bin is there twice; add the two'),
  ),
});

export interface Bin extends Versioned, CanBeAway {
  name: string;
  hex: string;
  /** The colour that it is kept for; null: mixed. */
  colourwayId: string | null;
  /** Below nothing: more was taken out than was written in, and it wants weighing. */
  grams: number;
  /** By how often it was cooked, the fresh first. */
  layers: Layer[];
  /** The most heats that a fifth of it has seen; null where it is empty. */
  heats: number | null;
  unknownFraction: number;
  /** What it does to light, and of which share of it nobody knows the colour; null where nobody knows any. */
  colour: { optics: Optics; unknownFraction: number } | null;
}

/** One bin with what last came and went. */
export interface BinWithMoves extends Bin {
  puck: BinPuck | null;
  moves: {
    id: string;
    kind: string;
    grams: number;
    heats: number | null;
    pourCode: string | null;
    note: string;
    at: string;
    reversed: boolean;
  }[];
}
