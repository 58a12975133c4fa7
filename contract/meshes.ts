import * as v from 'valibot';
import { finite } from '../core/bounds.ts';
import type { Lie } from '../core/shape/lies.ts';
import type { Measured } from '../core/shape/measure.ts';
import type { Vec3 } from '../core/shape/mesh.ts';
import type { MeshFormat, MeshUnit } from '../core/shape/read.ts';
import type { Repaired } from '../core/shape/repair.ts';
import type { Turn } from '../core/shape/turn.ts';
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
const degrees = v.pipe(finite, v.minValue(-180), v.maxValue(180));

export const preparedBody = v.strictObject({
  unit: v.optional(v.picklist(MESH_UNITS)),
  repair: v.optional(v.boolean(), false),
  /** Holes that are closed: those a scan leaves, or all. */
  holes: v.optional(v.picklist(['small', 'all']), 'small'),
  /** Its skin drawn anew round all that it encloses: the last thing that mends. */
  skin: v.optional(v.boolean(), false),
  /** Degrees about x, then y, then z. */
  turn: v.optional(v.strictObject({ x: degrees, y: degrees, z: degrees })),
  scale: v.optional(v.pipe(finite, v.minValue(0.01), v.maxValue(100)), 1),
  job: v.optional(rowId),
});

/** What a mesh measures; the thickest section is null while it is not closed. */
export interface MeshFacts extends Measured {
  /** Where it runs through itself; not known of meshes that were measured before it was looked for. */
  crossesAtMm?: Vec3[];
  /** How it lies in its file; the same holds of it. */
  lie?: Lie;
  thickestMm: number | null;
  thinnestMm: number | null;
}

/** What was mended; whether parts that reached into each other were made one. */
export type MeshChanges = Partial<Repaired['changed']> & {
  united?: boolean;
  /** Cell of the skin that was drawn anew. */
  skinMm?: number;
  turned?: Turn;
  scaled?: number;
};

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
