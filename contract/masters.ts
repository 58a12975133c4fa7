import * as v from 'valibot';
import { usual } from '../core/defaults.ts';
import { MASTER_KINDS, type MasterKind } from '../core/mold/masterStuff.ts';
import { type ShapeSpec, shapeSpecSchema } from '../core/shape/spec.ts';
import {
  type CanBeAway,
  called,
  count,
  density,
  grams,
  lengthMm,
  name,
  note,
  ownId,
  rowId,
  type Versioned,
  volumeMl,
} from './fields.ts';
import type { MeshFacts } from './meshes.ts';
import { type Bait, shape } from './workshop.ts';

/** Measured by hand, or left out where a spec or a mesh says them. */
const dimensions = {
  lengthMm: v.optional(lengthMm),
  widthMm: v.optional(lengthMm),
  heightMm: v.optional(lengthMm),
  thickestMm: v.optional(lengthMm),
};
const solid = { spec: v.optional(shapeSpecSchema), meshId: v.optional(rowId) };

/** Whoever was asked about figures that contradict each other may keep them. */
const sure = v.optional(v.boolean(), false);

export const volumeBody = v.variant('how', [
  v.strictObject({
    id: ownId,
    how: v.literal('weighed'),
    grams: called(grams, 'Mass, without foil or wire'),
    densityGPerMl: density,
  }),
  v.strictObject({ id: ownId, how: v.literal('displaced'), ml: called(volumeMl, 'Water it pushed up') }),
]);

export const masterBody = v.strictObject({
  name: called(name, 'Name of the bait'),
  shape: called(shape, 'Drawn as'),
  kind: called(v.picklist(MASTER_KINDS), 'Made of'),
  flatBack: v.optional(v.boolean(), true),
  notes: note,
  packCount: v.optional(count(1, 1000), usual('packCount')),
  ...dimensions,
  ...solid,
  volume: v.optional(volumeBody),
  sure,
});

/** A master that was measured by hand: all four sizes, or none of it can be drawn. */
const measured = { lengthMm, widthMm: lengthMm, heightMm: lengthMm, thickestMm: lengthMm };
export const measuredBody = v.strictObject({ ...masterBody.entries, ...measured });

export const masterPatch = v.partial(
  v.strictObject({
    kind: v.picklist(MASTER_KINDS),
    flatBack: v.boolean(),
    notes: note,
    survived: v.picklist(['yes', 'mended', 'lost']),
  }),
);

export const revisionBody = v.strictObject({
  reason: called(name, 'What was changed, and why'),
  parentId: called(rowId, 'Grown from'),
  secondParentId: called(v.optional(rowId), 'And a part of'),
  /** A specimen is cast in resin, clay becomes a print; not given: as before. */
  kind: called(v.optional(v.picklist(MASTER_KINDS)), 'Made of'),
  ...dimensions,
  ...solid,
  volume: v.optional(volumeBody),
  sure,
});

export const measuredRevision = v.strictObject({ ...revisionBody.entries, ...measured });
/** A revision whose sizes come from its mesh. */
export const meshRevision = v.strictObject({ ...revisionBody.entries, meshId: rowId });

/** One more reading of a revision that is here. */
export const readingBody = v.variant('how', [
  v.strictObject({ ...volumeBody.options[0].entries, sure }),
  v.strictObject({ ...volumeBody.options[1].entries, sure }),
]);

export interface VolumeReading {
  id: string;
  how: 'weighed' | 'displaced' | 'mesh';
  grams: number | null;
  densityGPerMl: number | null;
  ml: number;
  at: string;
}

export interface Revision {
  id: string;
  masterId: string;
  number: number;
  /** What this revision is made of. */
  kind: MasterKind;
  reason: string;
  parentId: string | null;
  secondParentId: string | null;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  thickestMm: number;
  /** What it was sculpted from; null for a shape that was measured or brought as a mesh. */
  spec: ShapeSpec | null;
  meshId: string | null;
  mesh: MeshFacts | null;
  createdAt: string;
  volumes: VolumeReading[];
  /** The newest reading; null until one was taken. */
  volumeMl: number | null;
}

export interface MasterRow extends Versioned, CanBeAway {
  baitId: string;
  name: string;
  shape: Bait['shape'];
  kind: MasterKind;
  flatBack: boolean;
  notes: string;
  survived: 'yes' | 'mended' | 'lost';
  createdAt: string;
  latest: Revision;
  molds: number;
}

export interface Master extends Omit<MasterRow, 'latest'> {
  latest: Revision;
  bait: Bait;
  revisions: Revision[];
  moldList: { id: string; name: string; revisionNumber: number | null }[];
}
