import { Failure } from '../failure.ts';
import { ceilNear } from '../rounding.ts';

/** Solid skin that hot plastisol does not blow through, mm: what makers ask for everywhere. */
export const LEAST_SKIN_MM = 1.5;

/** What printed halves bear, °C: starting values, the filament's or resin's own sheet wins. */
export const PRINT_BEARS_C = { PLA: 155, PETG: 160, 'High-temperature resin': 200 } as const;

/** Usual settings: five lines of 0.4 mm, eight layers of 0.2. */
export const USUAL_PRINT: PrintSettings = { perimeters: 5, lineMm: 0.4, layers: 8, layerMm: 0.2 };

export interface PrintSettings {
  perimeters: number;
  lineMm: number;
  /** Solid layers over and under the infill. */
  layers: number;
  layerMm: number;
}

/**
 * How thick a printed mold's skin is over its hollow infill: at the sides by its perimeters, over and under by its layers.
 * @returns both in mm, which is thinner, and the fewest perimeters and layers that would do.
 * @throws Failure `invalid-input` for a line or layer without thickness.
 */
export function printSkin({ perimeters, lineMm, layers, layerMm }: PrintSettings) {
  if (!(lineMm > 0) || !(layerMm > 0))
    throw new Failure('invalid-input', 'A line and a layer have a thickness; see the slicer.', 'lineMm');
  const [sideMm, flatMm] = [perimeters * lineMm, layers * layerMm];
  return {
    sideMm,
    flatMm,
    thinnestMm: Math.min(sideMm, flatMm),
    holds: Math.min(sideMm, flatMm) >= LEAST_SKIN_MM - 1e-9,
    perimetersNeeded: ceilNear(LEAST_SKIN_MM / lineMm),
    layersNeeded: ceilNear(LEAST_SKIN_MM / layerMm),
  };
}
