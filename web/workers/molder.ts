import './refusals.ts';
import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import { type BuiltMold, buildMold } from '../../core/mold/build.ts';
import type { MoldWish } from '../../core/mold/buildWish.ts';
import type { MoldPart } from '../../core/mold/pieces.ts';
import type { Mesh, Vec3 } from '../../core/shape/mesh.ts';
import { readMesh } from '../../core/shape/read.ts';
import { loadModeller } from '../../core/shape/sculpt.ts';
import { meshOf, Solids } from '../../core/shape/solids.ts';
import { BALLS_MM, TRIAL_BALL_MM, toolReach } from '../../core/shape/toolReach.ts';
import { weld } from '../../core/shape/weld.ts';
import { type ExportFormat, write3mf, writeMesh } from '../../core/shape/write.ts';
import { type Pictured, pictured, shadowOf } from './shadow.ts';
import { type Drawn, drawn } from './solid.ts';

/** What a mold is drawn as: its parts, and what comes out of it. */
export interface DrawnParts {
  parts: (Drawn & Omit<MoldPart, 'mesh'>)[];
  casting: Drawn;
}

export interface DrawnMold extends Omit<BuiltMold, 'parts' | 'casting'>, DrawnParts {
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
let bait: Mesh | null = null;
const PLAN_COLUMNS = 1200;

const molder = {
  /** Builds the mold of a mesh file's bait; `tell` hears how far it is. */
  async build(bytes: Uint8Array, wish: MoldWish, tell: (done: number) => void): Promise<DrawnMold> {
    const kit = await loadModeller(wasmUrl);
    bait = weld(readMesh(bytes).soup).mesh;
    built = buildMold(kit, bait, wish, tell);
    const { parts, casting, ...figures } = built;
    const whole = asDrawn(parts, casting);
    const solids = new Solids(kit);
    const saw = (mesh: Mesh) => meshOf(solids.keep(solids.solid(mesh).trimByPlane([0, 1, 0], figures.sectionMm)));
    const sawn = asDrawn(
      parts.map((part) => (/rod|electrode/.test(part.name) ? part : { ...part, mesh: saw(part.mesh) })),
      saw(casting),
    );
    solids.clear();
    const moved = [whole, sawn].flatMap((one) =>
      [...one.parts, one.casting].flatMap(({ positions, normals }) => [positions.buffer, normals.buffer]),
    );
    const plan = await pictured(shadowOf(casting, 1, 1, PLAN_COLUMNS));
    return transfer({ ...figures, ...whole, sawn, plan }, [...moved, plan.picture]);
  },

  /** Which ball cutter reaches all of both halves, and what a 3 mm one leaves; lengths in mm. */
  cutter(): { largestBallMm: number | null; smallestBallMm: number; leftoverMm: number } {
    if (!built || !bait) throw new Error('Build the mold first.');
    const { direction, planeMm } = built;
    const back = direction.map((part) => -part) as Vec3;
    const halves = [toolReach(bait, direction, TRIAL_BALL_MM, planeMm), toolReach(bait, back, TRIAL_BALL_MM, -planeMm)];
    const balls = halves.map((half) => half.largestBallMm);
    return {
      largestBallMm: balls.some((ball) => ball === null) ? null : Math.min(...(balls as number[])),
      smallestBallMm: Math.min(...BALLS_MM),
      leftoverMm: Math.max(...halves.map((half) => half.greatestMm)),
    };
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
