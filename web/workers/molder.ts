import './refusals.ts';
import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import { type BuiltMold, buildMold } from '../../core/mold/build.ts';
import type { MoldWish } from '../../core/mold/buildWish.ts';
import { isPiece, type MoldPart } from '../../core/mold/pieces.ts';
import { baitWithout } from '../../core/mold/without.ts';
import type { Mesh } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { loadModeller } from '../../core/shape/sculpt.ts';
import { meshOf, Solids } from '../../core/shape/solids.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { type Cutter, cutterFor } from '../../core/shape/toolReach.ts';
import { weld } from '../../core/shape/weld.ts';
import { type ExportFormat, write3mf, writeMesh } from '../../core/shape/write.ts';
import { broughtMeshes } from './brought.ts';
import { type Pictured, pictured, shadowOf } from './shadow.ts';
import { type Drawn, drawn } from './solid.ts';

/** What a mold is drawn as: its parts, and what comes out of it. */
export interface DrawnParts {
  parts: (Drawn & Omit<MoldPart, 'mesh'>)[];
  casting: Drawn;
}

export interface DrawnMold extends Omit<BuiltMold, 'parts' | 'casting' | 'cavity'>, DrawnParts {
  /** What comes out of it, seen from above. */
  plan: Pictured;
  /** The same, sawn through the middle of the first cavity. */
  sawn: DrawnParts;
}

const asDrawn = (parts: MoldPart[], casting: Mesh): DrawnParts => ({
  parts: parts.map(({ mesh, ...part }) => ({ ...part, ...drawn(mesh) })),
  casting: drawn(casting),
});

let built: BuiltMold | null = null;
const PLAN_COLUMNS = 1200;

const molder = {
  /** Builds the mold of a mesh file's bait, of which the spec says what may be left out; `tell` hears how far it is. */
  async build(
    bytes: Uint8Array,
    spec: ShapeSpec | null,
    wish: MoldWish,
    tell: (done: number) => void,
  ): Promise<DrawnMold> {
    const kit = await loadModeller(wasmUrl);
    const meshes = await broughtMeshes(wish.without.length > 0 ? spec : null);
    built = buildMold(kit, baitWithout(kit, weld(readMesh(bytes).places).mesh, spec, wish.without, meshes), wish, tell);
    const { parts, casting, cavity: _, ...figures } = built;
    const whole = asDrawn(parts, casting);
    const solids = new Solids(kit);
    const saw = (mesh: Mesh) => meshOf(solids.keep(solids.solid(mesh).trimByPlane([0, 1, 0], figures.sectionMm)));
    const sawn = asDrawn(
      parts.map((part) =>
        isPiece(part.name) || part.name === 'slot insert' ? { ...part, mesh: saw(part.mesh) } : part,
      ),
      saw(casting),
    );
    solids.clear();
    const moved = [whole, sawn].flatMap((one) =>
      [...one.parts, one.casting].flatMap(({ positions, normals }) => [positions.buffer, normals.buffer]),
    );
    const plan = await pictured(shadowOf(casting, 1, 1, PLAN_COLUMNS));
    return transfer({ ...figures, ...whole, sawn, plan }, [...moved, plan.picture]);
  },

  /** Which ball cutter reaches all of both halves, and what a usual one leaves; mm. */
  cutter(): Cutter {
    if (!built) throw new Error('Build the mold first.');
    return cutterFor(built.cavity, [0, 0, 1], 0);
  },

  /** A part of what was built last, as a file. */
  file(name: MoldPart['name'], format: ExportFormat): Uint8Array {
    const part = built?.parts.find((one) => one.name === name);
    if (!part) throw new Error('There is no such part; build the mold again.');
    const bytes = writeMesh(part.mesh, format, name);
    return transfer(bytes, [bytes.buffer]);
  },

  /** All parts of it beside each other, as often as the mold takes each. */
  allParts(): Uint8Array {
    if (!built) throw new Error('Build the mold first.');
    const bytes = write3mf(built.parts);
    return transfer(bytes, [bytes.buffer]);
  },
};

export type Molder = typeof molder;
expose(molder);
