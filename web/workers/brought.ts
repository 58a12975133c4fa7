import { Failure } from '../../core/failure.ts';
import type { Mesh } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { weld } from '../../core/shape/weld.ts';

/** A mesh never changes under its id: read once. */
const known = new Map<string, Mesh>();

/** The mesh that a shape was joined with, as the sculptor asks for it. */
export async function broughtMeshes(spec: Pick<ShapeSpec, 'brought'> | null): Promise<ReadonlyMap<string, Mesh>> {
  const id = spec?.brought?.meshId;
  if (!id || known.has(id)) return known;
  const answer = await fetch(`/api/meshes/${id}/file?format=stl`);
  if (!answer.ok) throw new Failure('not-found', 'The mesh that it was joined with cannot be read.');
  known.set(id, weld(readMesh(new Uint8Array(await answer.arrayBuffer())).places).mesh);
  return known;
}
