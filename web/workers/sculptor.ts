import { expose, transfer } from 'comlink';
import wasmUrl from 'manifold-3d/manifold.wasm?url';
import { type Measured, measure } from '../../core/shape/measure.ts';
import { type Grain, loadModeller, sculpt } from '../../core/shape/sculpt.ts';
import type { ShapeSpec } from '../../core/shape/spec.ts';
import { type Shadow, shadowOf } from './shadow.ts';
import { type Drawn, drawn } from './solid.ts';

export interface Sculpted extends Drawn {
  measured: Measured;
  side: Shadow;
  top: Shadow;
  /** How long the solid took here, ms. */
  tookMs: number;
}

const sculptor = {
  async sculpt(spec: ShapeSpec, grain: Grain): Promise<Sculpted> {
    const kit = await loadModeller(wasmUrl);
    const from = performance.now();
    const mesh = sculpt(kit, spec, grain);
    const shown = drawn(mesh);
    const measured = measure(mesh);
    const [side, top] = [shadowOf(mesh, 2, 1), shadowOf(mesh, 1, -1)];
    return transfer({ ...shown, measured, side, top, tookMs: performance.now() - from }, [
      shown.positions.buffer,
      shown.normals.buffer,
      side.pixels.buffer,
      top.pixels.buffer,
    ]);
  },
};

export type Sculptor = typeof sculptor;
expose(sculptor);
