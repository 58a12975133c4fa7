import './refusals.ts';
import { expose, transfer } from 'comlink';
import { Failure } from '../../core/failure.ts';
import { type Chords, chordsOf, type Look } from '../../core/shape/chords.ts';
import { type Inward, inwardOf } from '../../core/shape/inward.ts';
import type { Mesh } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { type Section, sectionAt } from '../../core/shape/section.ts';
import { weld } from '../../core/shape/weld.ts';
import { type Drawn, drawn } from './solid.ts';

async function meshOf(meshId: string): Promise<Mesh> {
  const answer = await fetch(`/api/meshes/${meshId}/file?format=stl`);
  if (!answer.ok) throw new Failure('not-found', 'The shape of this bait cannot be read.');
  return weld(readMesh(new Uint8Array(await answer.arrayBuffer())).places).mesh;
}

/** Cells along the larger side of a section. */
const SECTION_CELLS = 120;

const chorder = {
  /** A mesh that is kept here, as it is seen. */
  async chords(meshId: string, columns: number, look: Look): Promise<Chords> {
    const mesh = await meshOf(meshId);
    const chords = chordsOf(mesh, look, columns);
    return transfer(chords, [chords.thickMm.buffer, chords.nearMm.buffer]);
  },
  /** The same mesh cut across, and as a solid with how thick it is behind its skin. */
  async solid(meshId: string, cuts: number[]): Promise<{ solid: Drawn; inward: Inward; sections: Section[] }> {
    const mesh = await meshOf(meshId);
    return {
      solid: drawn(mesh),
      inward: inwardOf(mesh),
      sections: cuts.map((at) => sectionAt(mesh, at, SECTION_CELLS)),
    };
  },
};

export type Chorder = typeof chorder;
expose(chorder);
