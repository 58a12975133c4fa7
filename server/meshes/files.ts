import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { MeshChanges, MeshFacts, MeshRow } from '../../contract/meshes.ts';
import { Failure } from '../../core/failure.ts';
import type { Silhouette } from '../../core/shape/silhouette.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import type { DataFolder } from '../backup/data.ts';
import { putFile } from '../backup/flush.ts';
import type { Db } from '../db/open.ts';
import { insert, mustFind } from '../db/rows.ts';
import { newId } from '../ids.ts';
import type { Preparing } from '../jobs/calcWork.ts';
import type { Jobs } from '../jobs/jobs.ts';
import type { Asking } from '../jobs/lane.ts';

/** A mesh whose file is in place, ready to be recorded. */
export type NewMesh = Omit<MeshRow, 'id' | 'createdAt'> & { outline: Silhouette | null };

/** Puts bytes beside the database under the hash of their content; the same content is there once. */
export function storeBytes(data: DataFolder, bytes: Uint8Array): string {
  const hash = createHash('sha256').update(bytes).digest('hex');
  const stored = join(data.files, hash);
  // A shorter one was torn by a power cut under an earlier program.
  if (existsSync(stored) && statSync(stored).size === bytes.length) return hash;
  // Written elsewhere: what a power cut leaves half is swept at the next start and is in no backup.
  const part = data.scratch('part');
  try {
    writeFileSync(part, bytes);
    putFile(part, data.files, hash);
  } finally {
    rmSync(part, { force: true });
  }
  return hash;
}

export function addMesh(db: Db, { outline, ...mesh }: NewMesh, at: string): string {
  const id = newId();
  insert(db, 'mesh', { id, ...mesh, createdAt: at });
  if (outline) addOutline(db, id, outline);
  return id;
}

export const addOutline = (db: Db, meshId: string, outline: Silhouette) =>
  insert(db, 'mesh_outline', { meshId, ...outline });

export const getMesh = (db: Db, id: string) => mustFind<MeshRow>(db, 'mesh', id, 'mesh');

export function meshBytes(folder: string, { hash }: Pick<MeshRow, 'hash'>): Uint8Array {
  const path = join(folder, hash);
  if (!existsSync(path)) throw new Failure('not-found', 'The file of this mesh is not there; restore a backup.');
  return readFileSync(path);
}

/** What endpoints need that work with meshes. */
export interface Meshes {
  data: DataFolder;
  jobs: Jobs;
}

/** The solid that a spec describes, made here: what is kept is what the figures say. */
export async function sculpted({ data, jobs }: Meshes, spec: ShapeSpec, asking?: Asking): Promise<NewMesh> {
  const brought = spec.brought && meshBytes(data.files, closedMesh(data.db, spec.brought.meshId));
  const { bytes, facts, outline } = await jobs.solid<Made>(
    { kind: 'sculpt', spec, ...(brought ? { brought } : {}) },
    asking,
  );
  const hash = storeBytes(data, bytes);
  return { hash, format: 'stl', unit: 'mm', bytes: bytes.length, facts, outline, fromId: null, changed: null };
}

interface Made {
  bytes: Uint8Array;
  facts: MeshFacts;
  outline: Silhouette | null;
}

/** A mesh that can be joined with a shape: it has an inside, and is in millimetres. */
function closedMesh(db: Db, id: string): MeshRow {
  const mesh = getMesh(db, id);
  if (mesh.facts.volumeMl === null || mesh.facts.flipped || mesh.unit !== 'mm')
    throw new Failure('bad-mesh', 'The mesh to be joined is no solid in millimetres yet: mend it first.', 'brought');
  return mesh;
}

export async function prepared(
  { data, jobs }: Meshes,
  from: MeshRow,
  wish: { unit: MeshRow['unit'] } & Preparing,
  asking?: Asking,
): Promise<NewMesh> {
  const made = await jobs.solid<Made & { changed: MeshChanges | null }>(
    { kind: 'prepare', bytes: meshBytes(data.files, from), ...wish },
    asking,
  );
  const hash = storeBytes(data, made.bytes);
  return {
    hash,
    format: 'stl',
    unit: 'mm',
    bytes: made.bytes.length,
    facts: made.facts,
    outline: made.outline,
    fromId: from.id,
    changed: made.changed,
  };
}
