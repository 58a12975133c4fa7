import './refusals.ts';
import { expose, transfer } from 'comlink';
import { Failure } from '../../core/failure.ts';
import { type Chords, chordsOf, type Look } from '../../core/shape/chords.ts';
import { readMesh } from '../../core/shape/read.ts';
import { weld } from '../../core/shape/weld.ts';

const chorder = {
  /** A mesh that is kept here, as it is seen. */
  async chords(meshId: string, columns: number, look: Look): Promise<Chords> {
    const answer = await fetch(`/api/meshes/${meshId}/file?format=stl`);
    if (!answer.ok) throw new Failure('not-found', 'The shape of this bait cannot be read.');
    const { mesh } = weld(readMesh(new Uint8Array(await answer.arrayBuffer())).places);
    const chords = chordsOf(mesh, look, columns);
    return transfer(chords, [chords.thickMm.buffer, chords.nearMm.buffer]);
  },
};

export type Chorder = typeof chorder;
expose(chorder);
