import { useState } from 'react';
import type { Material } from '../../../contract/materials.ts';
import type { Recipe, RecipeRow } from '../../../contract/recipes.ts';
import type { Travelling } from '../../../contract/travel.ts';
import { layerOver, meltOf } from '../../../core/colour/light.ts';
import { PLAIN_PLASTIC } from '../../../core/colour/nominal.ts';
import { ApiError, NoAnswer } from '../../api/client.ts';
import { useWrite } from '../../api/write.ts';
import { lineOf } from '../../parts/plastic/melts.ts';
import { useTaste } from '../../parts/taste.tsx';
import { freeName, missingIn } from './travel.ts';

/** What is done with a recipe of the file. */
export type Choice = 'both' | 'next' | 'leave';

export interface Brought {
  one: Travelling;
  mine?: RecipeRow | undefined;
  choice: Choice;
}

/** A step that gives its measured K and S back: thin and weak, so that something of the ground shows. */
const [STEP_MM, STEP_ML_PER_L] = [1, 1];

/** An amount as it is written here: colour in drops of the bottle in use. */
function writtenHere(
  { material, kind, ml, g, tsp, turned = false }: Travelling['items'][number],
  store: Map<string, Material>,
  workshopsDrop: number,
) {
  const own = store.get(material.toLowerCase()) as Material;
  const materialId = own.id;
  if (g !== undefined) return { materialId, amount: g, unit: 'g', turned };
  if (tsp !== undefined) return { materialId, amount: tsp, unit: 'tsp', turned };
  const { dropsPerMl } = lineOf(own, { amount: 1, unit: 'drop' }, workshopsDrop);
  return kind === 'colourant'
    ? { materialId, amount: Number(((ml as number) * (dropsPerMl as number)).toPrecision(12)), unit: 'drop' }
    : { materialId, amount: ml, unit: 'mL' };
}

/** Sends what was chosen, one by one; what is here already when it breaks off is found again as the same. */
export function useBringIn(materials: Material[], recipes: RecipeRow[], onDone: (count: number) => void) {
  const { workshop } = useTaste();
  const [isBusy, setBusy] = useState(false);
  const addMaterial = useWrite<Material, Travelling['items'][number]>(
    ({ material, kind, ml: _, g: __, tsp: ___, optics: ____, turned: _____, ...facts }) => ({
      path: '/materials',
      body: { name: material, kind, ...facts },
    }),
  );
  const measure = useWrite<Material, { id: string; optics: NonNullable<Travelling['items'][number]['optics']> }>(
    ({ id, optics }) => {
      const melt = meltOf(PLAIN_PLASTIC, [{ k: [...optics.k], s: [...optics.s], mlPerL: STEP_ML_PER_L }]);
      return {
        path: `/materials/${id}/steps`,
        body: {
          how: 'typed',
          thicknessMm: STEP_MM,
          mlPerL: STEP_ML_PER_L,
          overBlack: layerOver(melt, STEP_MM, [0, 0, 0]),
          overWhite: layerOver(melt, STEP_MM, [1, 1, 1]),
          note: 'came with a recipe',
        },
      };
    },
  );
  const save = useWrite<Recipe, { path: string; method?: 'PUT'; version?: number; body: unknown }>((wish) => wish);
  const send = async (rows: Brought[]) => {
    setBusy(true);
    try {
      const wanted = rows.filter(({ choice }) => choice !== 'leave');
      const storeOf = new Map(materials.map((one) => [one.name.toLowerCase(), one]));
      for (const item of missingIn(
        wanted.map(({ one }) => one),
        materials,
      )) {
        const added = await addMaterial.mutateAsync(item);
        storeOf.set(item.material.toLowerCase(), added);
        if (item.optics && (item.kind === 'colourant' || item.kind === 'powder'))
          await measure.mutateAsync({ id: added.id, optics: item.optics });
      }
      const taken = recipes.map((one) => one.name);
      for (const { one, mine, choice } of wanted) {
        const items = one.items.map((item) => writtenHere(item, storeOf, workshop.dropsPerMl));
        const body = { hex: one.hex, notes: one.notes, basisMl: one.basisMl, items };
        if (mine && choice === 'next') {
          const reason = `brought in: ${one.reason ?? one.name}`.slice(0, 120);
          await save.mutateAsync({
            path: `/recipes/${mine.id}`,
            method: 'PUT',
            version: mine.version,
            body: { ...body, name: mine.name, reason },
          });
        } else {
          const name = mine ? freeName(one.name, taken) : one.name;
          taken.push(name);
          await save.mutateAsync({ path: '/recipes', body: { ...body, name, reason: one.reason ?? 'brought in' } });
        }
      }
      onDone(wanted.length);
    } catch (error) {
      // A refusal is shown; a fault of our own is not to be swallowed.
      if (!(error instanceof ApiError || error instanceof NoAnswer)) throw error;
    } finally {
      setBusy(false);
    }
  };
  return { send, isBusy, error: addMaterial.error ?? measure.error ?? save.error };
}
