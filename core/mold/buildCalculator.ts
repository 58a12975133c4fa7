import * as v from 'valibot';
import { type Beside, closedOnly, given, meshFields } from '../shape/calculators.ts';
import { loadModeller } from '../shape/sculpt.ts';
import { type BuiltMold, buildMold } from './build.ts';
import { wishFields } from './buildWish.ts';

export const buildSchema = v.strictObject({ ...meshFields, ...wishFields });
type Input = v.InferOutput<typeof buildSchema>;

/** The mold of a file's bait, with its parts as meshes. */
export async function buildFile(input: Input, beside?: Beside): Promise<BuiltMold> {
  const { mesh: _, unit: __, ...wish } = input;
  return buildMold(await loadModeller(), closedOnly(given(input, beside)), wish, beside?.progress);
}

/** What the mold of a file's bait measures. */
export async function buildFigures(input: Input, beside?: Beside) {
  const { parts, casting: _, castingCaught: __, ...figures } = await buildFile(input, beside);
  return { ...figures, pieces: parts.map(({ name, volumeMl }) => ({ name, volumeMl })) };
}
