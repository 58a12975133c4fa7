import * as v from 'valibot';
import type { Cut } from '../core/colour/flakes.ts';
import type { Learnt } from '../core/colour/learnt.ts';
import type { Optics } from '../core/colour/light.ts';
import {
  above0,
  type CanBeAway,
  called,
  hex,
  name,
  note,
  ownId,
  rowId,
  tappedAt,
  type Versioned,
  volumeMl,
  written,
} from './fields.ts';
import type { MaterialKind } from './materials.ts';

const unit = v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40));
const amount = above0(100000);

const items = v.pipe(
  v.array(
    v.strictObject({
      materialId: rowId,
      amount,
      unit,
      turned: called(v.optional(v.boolean(), false), 'Turned in the heat, as is wanted'),
    }),
  ),
  v.minLength(1),
  v.maxLength(40),
  v.check(
    (rows) => new Set(rows.map((row) => row.materialId)).size === rows.length,
    'a material is there twice; add the two amounts',
  ),
);

export const recipeBody = v.strictObject({
  name,
  hex,
  notes: note,
  basisMl: volumeMl,
  items,
  reason: v.optional(name, 'first recipe'),
});
export const recipePut = v.strictObject({ name, hex, notes: note, basisMl: volumeMl, items, reason: name });

/** Kinds of material that are dosed into a cup. */
export const DOSED = [
  'colourant',
  'powder',
  'flake',
  'salt',
  'softener',
  'hardener',
  'stabilizer',
  'oil',
] as const satisfies readonly MaterialKind[];

/** A recipe as it is written down: amounts as they are measured, and materials that the store does not hold yet. */
export const recipeSheet = v.strictObject({
  name: called(name, 'Name of the colour'),
  hex: called(hex, 'As it looks in the puck'),
  notes: note,
  basisMl: volumeMl,
  reason: called(name, 'What was changed, and why'),
  items: v.pipe(
    v.array(
      v.variant('known', [
        v.strictObject({
          known: v.literal(true),
          materialId: called(rowId, 'What goes in'),
          kind: called(v.picklist(DOSED), 'Kind'),
          amount: written,
          turned: called(v.boolean(), 'Turned in the heat, as is wanted'),
        }),
        v.strictObject({
          known: v.literal(false),
          newName: called(name, 'Its name'),
          kind: called(v.picklist(DOSED), 'Kind'),
          amount: written,
        }),
      ]),
    ),
    v.minLength(1),
    v.maxLength(40),
    v.title('Row'),
  ),
});

export const ledgerBody = v.strictObject({
  title: called(name, 'What you are after'),
  batchMl: called(volumeMl, 'Plastisol in the cup'),
});
/** Another working name. */
export const ledgerPatch = v.pick(ledgerBody, ['title']);
export const doseBody = v.strictObject({ id: ownId, materialId: rowId, amount, unit, tappedAt });
export const keepBody = v.strictObject({
  name: called(name, 'Keep as recipe, named'),
  hex: called(hex, 'As it looks'),
});

export interface RecipeItem {
  id: string;
  materialId: string;
  materialName: string;
  materialKind: string;
  hex: string | null;
  /** Of the house strength; drops as the bottle in use drips them. */
  amount: number;
  unit: string;
  /** Of a liquid: mL of the house strength, whatever bottle they come from. */
  ml: number | null;
  dropsPerMl: number;
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
  bottleStrength: number;
  /** The lot in use; null: none is written down. */
  lotCode: string | null;
  limitC: number | null;
  sizeMm: number | null;
  cut: Cut | null;
  /** As it was measured; null: never. */
  optics: Optics | null;
  learnt: Learnt | null;
  /** Flake that is wanted as the heat turns it. */
  turned: boolean;
  turnsHex: string | null;
}

export interface RecipeRevision {
  id: string;
  number: number;
  reason: string;
  basisMl: number;
  createdAt: string;
  items: RecipeItem[];
}

export interface RecipeRow extends Versioned, CanBeAway {
  name: string;
  hex: string;
  notes: string;
  createdAt: string;
  revision: RecipeRevision;
  pours: number;
  baits: number;
  remeltG: number;
}

export interface Recipe extends RecipeRow {
  revisions: RecipeRevision[];
  pourList: { id: string; code: string; at: string; revisionNumber: number; sell: number; hardness: string | null }[];
}

export interface Dose {
  seq: number;
  id: string;
  materialId: string;
  materialName: string;
  amount: number;
  unit: string;
  reverses: string | null;
  /** What a drop of it was; null for doses from before that was kept. */
  dropsPerMl: number | null;
  /** The bottle it came out of, where that is known. */
  lotId: string | null;
  bottleStrength: number | null;
  at: string;
}

export interface Ledger extends Versioned, CanBeAway {
  title: string;
  batchMl: number;
  recipeId: string | null;
  createdAt: string;
  doses: Dose[];
}
