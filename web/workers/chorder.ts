import './refusals.ts';
import { expose, transfer } from 'comlink';
import { Failure } from '../../core/failure.ts';
import { type Chords, chordsOf } from '../../core/shape/chords.ts';
import { readMesh } from '../../core/shape/read.ts';
import { weld } from '../../core/shape/weld.ts';

const chorder = {
  /** A mesh that is kept here, seen from the side. */
  async chords(meshId: string, columns: number): Promise<Chords> {
    const answer = await fetch(`/api/meshes/${meshId}/file?format=stl`);
    if (!answer.ok) throw new Failure('not-found', 'The shape of this bait cannot be read.');
    const { mesh } = weld(readMesh(new Uint8Array(await answer.arrayBuffer())).places);
    const chords = chordsOf(mesh, 'side', columns);
    return transfer(chords, [chords.thickMm.buffer, chords.nearMm.buffer]);
  },
};

export type Chorder = typeof chorder;
expose(chorder);
