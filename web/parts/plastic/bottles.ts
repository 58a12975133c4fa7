import { inUse } from '../../../contract/fields.ts';
import type { Material } from '../../../contract/materials.ts';
import { opticsOf } from '../../../core/colour/foresee.ts';
import { asLearnt } from '../../../core/colour/learnt.ts';
import type { Optics } from '../../../core/colour/light.ts';
import { usual } from '../../../core/defaults.ts';
import { ML_PER_TSP } from '../../../core/units/convert.ts';
import type { Taste } from '../taste.tsx';
import { lineOf } from './melts.ts';

/** The least a spoon measures: of powders it stands for a drop. */
const SPOON_PART = 64;

/** A colour of which there is a bottle here. */
export interface Bottle {
  material: Material;
  optics: Optics;
  bottleStrength: number;
  /** Of the house strength: a drop of a double bottle is worth two. Of a powder: 64ths of a teaspoon. */
  dropsPerMl: number;
  mostMlPerL: number;
}

/** What is in store and colours a melt, as it is measured or taken for, and as it comes out here. @param powders those too. */
export function bottlesHere(
  materials: Material[],
  taste: Taste,
  { withoutId = null, powders = false }: { withoutId?: string | null; powders?: boolean } = {},
): Bottle[] {
  return inUse(materials).flatMap((material): Bottle[] => {
    const bare = opticsOf({ ...material, optics: material.step?.optics ?? null });
    const isHere = material.lots.length === 0 || material.levelG > 0;
    if (!bare || !isHere || material.id === withoutId) return [];
    const optics = asLearnt(bare, material.learnt);
    if (material.kind === 'powder')
      return powders
        ? [
            {
              material,
              optics,
              bottleStrength: 1,
              dropsPerMl: SPOON_PART / ML_PER_TSP,
              mostMlPerL: usual('powderMostMlPerL'),
            },
          ]
        : [];
    const { dropsPerMl, bottleStrength } = lineOf(material, { amount: 1, unit: 'drop' }, taste.workshop.dropsPerMl);
    // A bottle of double strength takes half the drops: its drop is worth two.
    return [
      {
        material,
        optics,
        bottleStrength,
        dropsPerMl: (dropsPerMl as number) / bottleStrength,
        mostMlPerL: usual('colourMostMlPerL'),
      },
    ];
  });
}

/** A bottle as the search asks for it. */
export const asColourant = ({ material, optics, dropsPerMl, mostMlPerL }: Bottle) => ({
  id: material.id,
  ...optics,
  dropsPerMl,
  maxMlPerL: mostMlPerL,
});

/** So many of its drops as a recipe is written: in the house strength; of a powder as spoons. */
export const writtenAs = ({ material, bottleStrength }: Bottle, drops: number): { amount: number; unit: string } =>
  material.kind === 'powder'
    ? { amount: drops / SPOON_PART, unit: 'tsp' }
    : { amount: drops * bottleStrength, unit: 'drop' };

/** Those drops in words. */
export const dropsText = ({ material }: Pick<Bottle, 'material'>, drops: number): { figure: string; unit: string } =>
  material.kind === 'powder'
    ? { figure: `${drops}/${SPOON_PART}`, unit: 'tsp' }
    : { figure: String(drops), unit: drops === 1 ? 'drop' : 'drops' };
