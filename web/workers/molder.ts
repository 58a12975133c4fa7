import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import { type BuiltMold, buildMold, type MoldPart } from '../../core/mold/build.ts';
import type { MoldWish } from '../../core/mold/buildWish.ts';
import type { Mesh } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { loadModeller } from '../../core/shape/sculpt.ts';
import { Bench, meshOf } from '../../core/shape/solids.ts';
import { weld } from '../../core/shape/weld.ts';
import { type ExportFormat, writeMesh } from '../../core/shape/write.ts';
import { type Drawn, drawn } from './solid.ts';

/** What a mold is drawn as: its parts, and what comes out of it. */
export interface DrawnParts {
  parts: (Drawn & Omit<MoldPart, 'mesh'>)[];
  casting: Drawn;
}

export interface DrawnMold extends Omit<BuiltMold, 'parts' | 'casting'>, DrawnParts {
  /** The same, sawn through the middle of the first cavity. */
  sawn: DrawnParts;
}

const asDrawn = (parts: MoldPart[], casting: Mesh): DrawnParts => ({
  parts: parts.map(({ mesh, ...part }) => ({ ...part, ...drawn(mesh) })),
  casting: drawn(casting),
});

let built: BuiltMold | null = null;

const molder = {
  /** Builds the mold of a mesh file's bait; `tell` hears how far it is. */
  async build(bytes: Uint8Array, wish: MoldWish, tell: (done: number) => void): Promise<DrawnMold> {
    const kit = await loadModeller(wasmUrl);
    built = buildMold(kit, weld(readMesh(bytes).soup).mesh, wish, tell);
    const { parts, casting, ...figures } = built;
    const whole = asDrawn(parts, casting);
    const bench = new Bench(kit);
    const saw = (mesh: Mesh) => meshOf(bench.keep(bench.solid(mesh).trimByPlane([0, 1, 0], figures.sectionMm)));
    const sawn = asDrawn(
      parts.map((part) => (part.name === 'core rod' ? part : { ...part, mesh: saw(part.mesh) })),
      saw(casting),
    );
    bench.clear();
    const moved = [whole, sawn].flatMap((one) =>
      [...one.parts, one.casting].flatMap(({ positions, normals }) => [positions.buffer, normals.buffer]),
    );
    return transfer({ ...figures, ...whole, sawn }, moved);
  },

  /** A part of what was built last, as a file. */
  file(name: MoldPart['name'], format: ExportFormat): Uint8Array {
    const part = built?.parts.find((one) => one.name === name);
    if (!part) throw new Error('There is no such part; build the mold again.');
    const bytes = writeMesh(part.mesh, format, name);
    return transfer(bytes, [bytes.buffer]);
  },
};

export type Molder = typeof molder;
expose(molder);
