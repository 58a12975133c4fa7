import * as v from 'valibot';
import type { Measured } from '../core/shape/measure.ts';
import type { MeshFormat, MeshUnit } from '../core/shape/read.ts';
import type { Repaired } from '../core/shape/repair.ts';
import { EXPORT_FORMATS } from '../core/shape/write.ts';
import { rowId } from './fields.ts';

export const MESH_UNITS = ['mm', 'cm', 'in', 'm'] as const;

export const meshQuery = v.strictObject({
  unit: v.optional(v.picklist(MESH_UNITS), 'mm'),
  /** A name for the work, so that it can be watched and stopped. */
  job: v.optional(rowId),
});

export const exportQuery = v.strictObject({
  format: v.optional(v.picklist([...EXPORT_FORMATS, 'original']), 'stl'),
  name: v.optional(v.pipe(v.string(), v.maxLength(120))),
});

export const ladderFileQuery = v.strictObject({
  format: v.optional(v.picklist(EXPORT_FORMATS), 'stl'),
  name: v.optional(v.pipe(v.string(), v.maxLength(120))),
  step: v.optional(v.pipe(v.string(), v.regex(/^\d{1,2}$/, 'must be a whole number'))),
});

/** Makes a mesh of another: read in another unit, mended, or both. */
export const preparedBody = v.strictObject({
  unit: v.optional(v.picklist(MESH_UNITS)),
  repair: v.optional(v.boolean(), false),
  job: v.optional(rowId),
});

/** What a mesh measures; the thickest section is null while it is not closed. */
export interface MeshFacts extends Measured {
  thickestMm: number | null;
  thinnestMm: number | null;
}

/** What was mended; whether parts that reached into each other were made one. */
export type MeshChanges = Repaired['changed'] & { united?: boolean };

export interface MeshRow {
  id: string;
  hash: string;
  format: MeshFormat;
  unit: MeshUnit;
  bytes: number;
  facts: MeshFacts;
  fromId: string | null;
  changed: MeshChanges | null;
  createdAt: string;
}
