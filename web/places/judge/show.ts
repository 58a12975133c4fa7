import type { Judged } from '../../workers/judge.ts';

export type Shown = 'plain' | 'thickness' | 'undercut' | 'reach' | 'air';

/** What a colour on the solid means, from heat (look here) to rest. */
export const SHOWN_WORDS: Record<Shown, string> = {
  plain: 'Plain',
  thickness: 'Thickness',
  undercut: 'Undercuts',
  reach: 'Cutter leaves',
  air: 'Air traps',
};

/** A triangle that was not looked at takes what its neighbour in the list has. */
function filled(values: Float32Array, missing: (value: number) => boolean): Float32Array {
  const out = values.slice();
  for (let i = 1; i < out.length; i++) if (missing(out[i] as number)) out[i] = out[i - 1] as number;
  return out;
}

/** Left standing at which the colour is full heat, mm. */
const MUCH_MM = 0.5;

/** A share for each triangle, 0 where it wants looking at; null: nothing to colour by. */
export function sharesOf(shown: Shown, { thickness, parting, reach }: Judged, triangles: number): Float32Array | null {
  if (shown === 'thickness' && thickness?.perTriangleMm.length === triangles) {
    const { thinnestMm, thickestMm } = thickness;
    const span = Math.max(0.1, thickestMm - thinnestMm);
    return filled(thickness.perTriangleMm, (mm) => mm === 0).map((mm) => Math.max(0, (mm - thinnestMm) / span));
  }
  if (shown === 'undercut' && parting?.caughtPerTriangle.length === triangles)
    return parting.caughtPerTriangle.map((share) => 1 - share);
  if (shown === 'reach' && reach?.perTriangleMm.length === triangles)
    return reach.perTriangleMm.map((mm) => (mm < 0 ? -1 : 1 - Math.min(1, mm / MUCH_MM)));
  return null;
}
