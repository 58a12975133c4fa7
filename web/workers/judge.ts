import { expose, transfer } from 'comlink';
import { type AirTrap, airTraps, bestTilt, type Tilt, terrainOf } from '../../core/shape/airTraps.ts';
import { type Measured, measure } from '../../core/shape/measure.ts';
import { doubleNormals, type Mesh, type Vec3 } from '../../core/shape/mesh.ts';
import { bestParting, type Parting } from '../../core/shape/parting.ts';
import { readMesh } from '../../core/shape/read.ts';
import { type Thickness, thickness } from '../../core/shape/thickness.ts';
import { type ToolReach, toolReach } from '../../core/shape/toolReach.ts';
import { weld } from '../../core/shape/weld.ts';
import { type Drawn, drawn } from './solid.ts';

/** What is known of a shape so far; parts arrive one after the other. */
export interface Judged {
  measured?: Measured;
  /** Seen from above, as drag sees it lying flat, mm². */
  planAreaMm2?: number;
  thickness?: Thickness;
  parting?: Parting;
  /** High points with the back up, and the way up that leaves least air. */
  traps?: AirTrap[];
  tilt?: Tilt;
  reach?: ToolReach;
}

export interface JudgeWish {
  ballMm: number;
  coneDeg: number;
}

/** Half of what both sides show along z. */
function planArea(mesh: Mesh): number {
  const normals = doubleNormals(mesh);
  let sum = 0;
  for (let i = 2; i < normals.length; i += 3) sum += Math.abs(normals[i] as number);
  return sum / 4;
}

const fromCorners = (positions: Float32Array): Mesh => weld(Float64Array.from(positions)).mesh;

const judge = {
  /** Reads a file's bytes for the screen. */
  read(bytes: Uint8Array): Drawn {
    const shown = drawn(weld(readMesh(bytes).soup).mesh);
    return transfer(shown, [shown.positions.buffer, shown.normals.buffer]);
  },

  /** Judges corners as drawn; `tell` gets each part as it is known. */
  async judge(
    positions: Float32Array,
    wish: JudgeWish,
    tell: (part: Judged, done: number) => Promise<void>,
  ): Promise<void> {
    const mesh = fromCorners(positions);
    await tell({ measured: measure(mesh), planAreaMm2: planArea(mesh) }, 0.05);
    const terrain = terrainOf(mesh);
    const up: Vec3 = [0, 0, 1];
    await tell({ traps: airTraps(terrain, up) }, 0.1);
    await tell({ thickness: thickness(mesh) }, 0.3);
    const { best } = bestParting(mesh);
    await tell({ parting: best }, 0.55);
    await tell({ tilt: bestTilt(terrain, up, wish.coneDeg) }, 0.65);
    await tell({ reach: toolReach(mesh, best.direction, wish.ballMm, best.planeMm) }, 1);
  },
};

export type JudgeWorker = typeof judge;
expose(judge);
