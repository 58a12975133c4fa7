import './refusals.ts';
import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import type { Grain } from '../../core/shape/grain.ts';
import { type Measured, measure } from '../../core/shape/measure.ts';
import { loadModeller, sculpt } from '../../core/shape/sculpt.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { broughtMeshes } from './brought.ts';
import { type Pictured, pictured, shadowOf } from './shadow.ts';
import { type Drawn, drawn } from './solid.ts';

export interface Sculpted extends Drawn {
  measured: Measured;
  side: Pictured;
  top: Pictured;
  /** How long the solid took here, ms. */
  tookMs: number;
}

/** Cells of a shadow along its length: while the hand moves about one a pixel, at rest two. */
const COLUMNS: Record<Grain, number> = { draft: 560, fine: 1100 };

const sculptor = {
  async sculpt(spec: ShapeSpec, grain: Grain): Promise<Sculpted> {
    const kit = await loadModeller(wasmUrl);
    const from = performance.now();
    const mesh = sculpt(kit, spec, grain, await broughtMeshes(spec));
    const shown = drawn(mesh);
    const measured = measure(mesh);
    const most = COLUMNS[grain];
    const [side, top] = [await pictured(shadowOf(mesh, 2, 1, most)), await pictured(shadowOf(mesh, 1, -1, most))];
    return transfer({ ...shown, measured, side, top, tookMs: performance.now() - from }, [
      shown.positions.buffer,
      shown.normals.buffer,
      side.picture,
      top.picture,
    ]);
  },
};

export type Sculptor = typeof sculptor;
expose(sculptor);
