import './refusals.ts';
import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import { tried } from '../../core/failure.ts';
import { type AirTrap, airTraps, bestTilt, type Tilt, terrainOf } from '../../core/shape/airTraps.ts';
import { type Measured, measure } from '../../core/shape/measure.ts';
import { doubleNormals, type Mesh, type Vec3 } from '../../core/shape/mesh.ts';
import { bestParting, type Parting } from '../../core/shape/parting.ts';
import { readMesh } from '../../core/shape/read.ts';
import { type Thickness, thickness } from '../../core/shape/thickness.ts';
import { type Cutter, cutterFor, cutterOf, type ToolReach, toolReach } from '../../core/shape/toolReach.ts';
import { weld } from '../../core/shape/weld.ts';
import { type Pictured, pictured, shadowOf } from './shadow.ts';
import { type Drawn, drawn } from './solid.ts';

/** Cells along a picture: two a pixel where it is drawn. */
const COLUMNS = 1040;

/** What is known of a shape so far; parts arrive one after the other. */
export interface Judged {
  measured?: Measured;
  /** Seen from above, as drag sees it lying flat, mm². */
  planAreaMm2?: number;
  thickness?: Thickness;
  parting?: Parting;
  /** High points with the wished end up, and the way up that leaves least air. */
  traps?: AirTrap[];
  tilt?: Tilt;
  reach?: ToolReach;
  /** What a machined mold of it asks for: both halves, a bore kept free by a rod. */
  cutter?: Cutter;
}

export interface JudgeWish {
  ballMm: number;
  /** How far the mold can be propped, degrees. */
  coneDeg: number;
  up: Vec3;
  /** It has a bore, which a rod keeps free in a mold: the halves are cut without it. */
  bored: boolean;
}

/** Half of what both sides show along z. */
function planArea(mesh: Mesh): number {
  const normals = doubleNormals(mesh);
  let sum = 0;
  for (let i = 2; i < normals.length; i += 3) sum += Math.abs(normals[i] as number);
  return sum / 4;
}

/** Figures of all triangles as they are drawn; one that the weld left out takes that of the one before it. */
function asDrawn(values: Float32Array, from: Uint32Array, triangles: number): Float32Array {
  const out = new Float32Array(triangles).fill(Number.NaN);
  for (let t = 0; t < values.length; t++) out[from[t] as number] = values[t] as number;
  for (let t = 0, last = 0; t < triangles; t++) {
    if (Number.isNaN(out[t])) out[t] = last;
    else last = out[t] as number;
  }
  return out;
}

/** As the builder cuts it: with a rod in the bore. A bore that no rod goes into is judged as it is. */
async function cutterRound(mesh: Mesh, { direction, planeMm }: Parting, ballMm: number): Promise<Cutter> {
  const { loadModeller } = await import('../../core/shape/sculpt.ts');
  const { baitWithout } = await import('../../core/mold/without.ts');
  const kit = await loadModeller(wasmUrl);
  const { value } = tried(() => baitWithout(kit, mesh, null, ['bore']));
  return cutterFor(value ?? mesh, direction, planeMm, ballMm);
}

const judge = {
  /** Reads a file's bytes for the screen. */
  read(bytes: Uint8Array): Drawn {
    const shown = drawn(weld(readMesh(bytes).places).mesh);
    return transfer(shown, [shown.positions.buffer, shown.normals.buffer]);
  },

  /** What a file's solid covers from the side and from above. */
  async shadows(bytes: Uint8Array): Promise<{ side: Pictured; top: Pictured }> {
    const { mesh } = weld(readMesh(bytes).places);
    const [side, top] = [await pictured(shadowOf(mesh, 2, 1, COLUMNS)), await pictured(shadowOf(mesh, 1, -1, COLUMNS))];
    return transfer({ side, top }, [side.picture, top.picture]);
  },

  /** Where air stays in a file's solid held this way up, and the tilt within a cone that leaves least of it. */
  highPoints: (bytes: Uint8Array, up: Vec3, coneDeg: number): Tilt =>
    bestTilt(terrainOf(weld(readMesh(bytes).places).mesh), up, coneDeg),

  /** Judges corners as drawn; `tell` gets each part as it is known. */
  async judge(
    positions: Float32Array,
    wish: JudgeWish,
    tell: (part: Judged, done: number) => Promise<void>,
  ): Promise<void> {
    const { mesh, from } = weld(Float64Array.from(positions));
    const drawnAs = (values: Float32Array) => asDrawn(values, from, positions.length / 9);
    await tell({ measured: measure(mesh), planAreaMm2: planArea(mesh) }, 0.05);
    const terrain = terrainOf(mesh);
    await tell({ traps: airTraps(terrain, wish.up) }, 0.1);
    const walls = thickness(mesh);
    await tell({ thickness: { ...walls, perTriangleMm: drawnAs(walls.perTriangleMm) } }, 0.3);
    const { best } = bestParting(mesh);
    await tell({ parting: { ...best, caughtPerTriangle: drawnAs(best.caughtPerTriangle) } }, 0.55);
    await tell({ tilt: bestTilt(terrain, wish.up, wish.coneDeg) }, 0.65);
    const back = best.direction.map((part) => -part) as Vec3;
    const halves = [
      toolReach(mesh, best.direction, wish.ballMm, best.planeMm),
      toolReach(mesh, back, wish.ballMm, -best.planeMm),
    ] as [ToolReach, ToolReach];
    const [reach, other] = halves;
    const left = reach.perTriangleMm.map((mm, t) => Math.max(mm, other.perTriangleMm[t] as number));
    const cutter = wish.bored ? await cutterRound(mesh, best, wish.ballMm) : cutterOf(halves);
    await tell({ reach: { ...reach, perTriangleMm: drawnAs(left) }, cutter }, 1);
  },
};

export type JudgeWorker = typeof judge;
expose(judge);
