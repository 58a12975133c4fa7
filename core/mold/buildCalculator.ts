import * as v from 'valibot';
import { nonNegative } from '../bounds.ts';
import { Failure } from '../failure.ts';
import { type Beside, closedOnly, given, meshFields } from '../shape/calculators.ts';
import type { BuiltMold } from './build.ts';
import { wishFields } from './buildWish.ts';
import { isPiece } from './pieces.ts';
import { printEstimate } from './print.ts';

export const buildSchema = v.strictObject({
  ...meshFields,
  ...wishFields,
  /** None, the usual ones, or their width; another way to say `ventMm`. */
  vents: v.optional(v.union([v.boolean(), v.strictObject({ diameterMm: nonNegative(6) })])),
});
type Input = v.InferOutput<typeof buildSchema>;

/** The mold of a file's bait, with its parts as meshes. */
export async function buildFile(input: Input, beside?: Beside): Promise<BuiltMold> {
  const { mesh: _, unit: __, vents, ...wish } = input;
  const ventMm = typeof vents === 'object' ? vents.diameterMm : vents === false ? 0 : wish.ventMm;
  if (vents === true && ventMm === 0)
    throw new Failure('invalid-input', 'Vents of no width are none; give their width.', 'ventMm');
  // The modeller is large: it is loaded when something is to be built.
  const [{ loadModeller }, { baitWithout }, { buildMold }] = await Promise.all([
    import('../shape/sculpt.ts'),
    import('./without.ts'),
    import('./build.ts'),
  ]);
  const kit = await loadModeller();
  const mesh = baitWithout(kit, closedOnly(given(input, beside)), null, wish.without);
  return buildMold(kit, mesh, { ...wish, ventMm }, beside?.progress);
}

/** What the mold of a file's bait measures, and what it takes to print it. */
export async function buildFigures(input: Input, beside?: Beside) {
  const { parts, cavity: ___, casting: _, castingCaught: __, ...figures } = await buildFile(input, beside);
  const printed = parts.filter((part) => isPiece(part.name));
  return {
    ...figures,
    ...(input.kind === 'machined' ? {} : { print: printEstimate(printed) }),
    pieces: parts.map(({ name, volumeMl, areaMm2, count }) => ({ name, volumeMl, areaMm2, count: count ?? 1 })),
  };
}
