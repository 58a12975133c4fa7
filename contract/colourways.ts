import * as v from 'valibot';
import type { Standing } from '../core/mold/stands.ts';
import type { Accent } from '../core/plan/accents.ts';
import { JOIN_IDS, type LayerMeasure, PLACE_IDS, type Place, type Poured } from '../core/plan/layers.ts';
import {
  above0,
  type CanBeAway,
  called,
  hex,
  name,
  note,
  rowId,
  shore,
  shorePoints,
  type Versioned,
} from './fields.ts';

const common = {
  place: called(v.picklist(PLACE_IDS), 'Where in the bait'),
  recipeId: called(rowId, 'Melt'),
  /** Not of the first layer, which joins nothing. */
  joins: called(v.optional(v.nullable(v.picklist(JOIN_IDS)), null), 'How it joins'),
  /** Where it is to be of a hardness of its own. */
  wanted: v.optional(v.nullable(v.strictObject({ scale: shore, value: shorePoints })), null),
};
const share = called(v.pipe(above0(1)), 'Of each bait');
const each = called(above0(2000), 'In each bait');

const height = called(above0(1), 'Of its height');

/** The figure that each measure is told by. */
export const FIGURE_OF = {
  share: 'shareFraction',
  ml: 'eachMl',
  level: 'heightFraction',
  rest: null,
} as const satisfies Record<LayerMeasure, string | null>;
export type Figures = Record<NonNullable<(typeof FIGURE_OF)[LayerMeasure]>, number | null>;

/** A layer's own figure; nothing where it is the rest, or where none is told yet. */
export const amountOf = (layer: { measure: LayerMeasure } & Partial<Figures>): number | null => {
  const figure = FIGURE_OF[layer.measure];
  return figure === null ? null : (layer[figure] ?? null);
};

/** One layer: a share of the bait, so many mL of it, up to a level in the mold, or what the others leave. */
export const layerBody = v.pipe(
  v.variant('measure', [
    v.strictObject({ ...common, measure: v.literal('share'), shareFraction: share }),
    v.strictObject({ ...common, measure: v.literal('ml'), eachMl: each }),
    v.strictObject({ ...common, measure: v.literal('level'), heightFraction: height }),
    v.strictObject({ ...common, measure: v.literal('rest') }),
  ]),
  v.transform((layer): LayerWish => {
    const { place, recipeId, joins, wanted, measure } = layer;
    return { place, recipeId, joins, wanted, measure, amount: amountOf(layer) };
  }),
);

interface LayerWish extends Poured {
  place: Place;
  recipeId: string;
  wanted: { scale: 'A' | '00'; value: number } | null;
}

export const layersBody = v.pipe(
  v.array(layerBody),
  v.minLength(2, 'one melt alone is a colour of its own; a second layer makes it a colourway'),
  v.maxLength(12),
  v.check(
    (rows) => rows.every((row, i) => (i === 0) === (row.joins === null)),
    'say how each layer joins the one before',
  ),
  v.check((rows) => rows.filter((row) => row.measure === 'rest').length <= 1, 'only one layer can be the rest'),
  v.check(
    (rows) =>
      rows.every(({ measure }, i) => measure !== 'level' || rows.slice(0, i).every((row) => row.measure !== 'rest')),
    'what lies under a level has to be told: let the rest come after it',
  ),
  v.check((rows) => {
    const levels = rows.flatMap((row) => (row.measure === 'level' ? [row.amount ?? 0] : []));
    return levels.every((to, i) => i === 0 || to > (levels[i - 1] as number));
  }, 'each level lies higher than the one before it'),
  v.check((rows) => {
    const sum = rows.reduce((total, row) => total + (row.measure === 'share' ? (row.amount ?? 0) : 0), 0);
    const open = rows.some((row) => row.measure !== 'share');
    return open ? sum < 1 - 1e-6 : Math.abs(sum - 1) < 1e-6;
  }, 'the shares of the layers come to one whole bait; let the last be the rest'),
  v.title('Layer'),
);

export const colourwayBody = v.strictObject({
  name: called(name, 'Name of the colour'),
  hex: called(hex, 'As it looks from the side'),
  notes: note,
  layers: layersBody,
  reason: v.optional(called(name, 'What was changed, and why'), 'first layers'),
});

/** What a colour belongs with, and whether it is one of those that are always wanted. */
export const marksPatch = v.partial(
  v.strictObject({
    family: called(v.pipe(v.string(), v.trim(), v.maxLength(60), v.regex(/^[^\p{Cc}]*$/u)), 'Family'),
    favourite: called(v.boolean(), 'A favourite'),
  }),
);

/** A mold as it stands while it is filled: what of a cavity lies under each level that the layers ask for, by the level. */
export interface MoldLevels {
  moldId: string;
  stands: Standing;
  /** Of one cavity, that way up. */
  tallMm: number;
  levels: Record<string, number>;
}

export interface Layer extends LayerWish {
  recipeName: string;
  hex: string;
}

/** What is ordered, racked and bagged: one melt, or layers of melts. */
export interface ColourwayRow extends Versioned, CanBeAway {
  name: string;
  hex: string;
  notes: string;
  /** The one melt that it is; null where it is layered. */
  recipeId: string | null;
  revision: { id: string; number: number; reason: string; createdAt: string };
  layers: Layer[];
  /** What it belongs with, as it was named; empty: nothing. */
  family: string;
  favourite: boolean;
  /** On the rack, to sell. */
  baits: number;
}

export interface Colourway extends ColourwayRow {
  revisions: { id: string; number: number; reason: string; createdAt: string; layers: Layer[] }[];
  pourList: { id: string; code: string; at: string; sell: number }[];
}

/** Melts that open orders want less of than can be cooked. */
export interface Accents {
  items: Accent[];
}

/** Where a colour is used. */
export interface ColourUses {
  layered: { id: string; name: string; place: Place }[];
  orders: { id: string; code: string; customer: string; dueOn: string }[];
  rack: { id: string; name: string; baits: number }[];
}
