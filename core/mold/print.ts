/** Usual settings: five perimeters of 0.4 mm, a quarter of infill, PLA, and what a printer lays down on the whole. */
export const PRINT_START = { skinMm: 2, infillFraction: 0.25, gPerMl: 1.24, mm3PerS: 8 } as const;

export interface PrintedPart {
  volumeMl: number;
  areaMm2: number;
}

/**
 * What printing parts takes: a solid skin all over them, infill within. Volumes mL, areas mm².
 * @returns plastic in grams, and hours. Source: skin = area × its thickness, never more than the part; settings are
 *   starting values, the slicer knows better.
 */
export function printEstimate(
  parts: PrintedPart[],
  { skinMm, infillFraction, gPerMl, mm3PerS }: { [K in keyof typeof PRINT_START]: number } = PRINT_START,
): { plasticMl: number; grams: number; hours: number } {
  const plasticMl = parts.reduce((sum, { volumeMl, areaMm2 }) => {
    const skinMl = Math.min(volumeMl, (areaMm2 * skinMm) / 1000);
    return sum + skinMl + infillFraction * (volumeMl - skinMl);
  }, 0);
  return { plasticMl, grams: plasticMl * gPerMl, hours: (plasticMl * 1000) / mm3PerS / 3600 };
}
