import * as v from 'valibot';
import { above0, hex, name, note, ownId, rowId, tappedAt, type Versioned, volumeMl } from './fields.ts';

const unit = v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40));
const amount = above0(100000);

const items = v.pipe(
  v.array(v.strictObject({ materialId: rowId, amount, unit })),
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

export const ledgerBody = v.strictObject({ title: name, batchMl: volumeMl });
export const doseBody = v.strictObject({ id: ownId, materialId: rowId, amount, unit, tappedAt });
export const undoDoseBody = v.strictObject({ id: ownId, doseId: rowId, tappedAt });
export const keepBody = v.strictObject({ name, hex });

export interface RecipeItem {
  id: string;
  materialId: string;
  materialName: string;
  materialKind: string;
  hex: string | null;
  amount: number;
  unit: string;
  dropsPerMl: number | null;
  bulkGPerMl: number | null;
  densityGPerMl: number | null;
  bottleStrength: number;
  limitC: number | null;
}

export interface RecipeRevision {
  id: string;
  number: number;
  reason: string;
  basisMl: number;
  createdAt: string;
  items: RecipeItem[];
}

export interface RecipeRow extends Versioned {
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
  pourList: { id: string; code: string; at: string; revisionNumber: number; good: number; hardness: string | null }[];
}

export interface Dose {
  seq: number;
  id: string;
  materialId: string;
  materialName: string;
  amount: number;
  unit: string;
  reverses: string | null;
  at: string;
}

export interface Ledger extends Versioned {
  title: string;
  batchMl: number;
  recipeId: string | null;
  createdAt: string;
  doses: Dose[];
}
