import type { Accents } from '../../contract/colourways.ts';
import { usual } from '../../core/defaults.ts';
import { tried } from '../../core/failure.ts';
import { type AccentPart, accentsOf } from '../../core/plan/accents.ts';
import { layersOfShot, PLACES } from '../../core/plan/layers.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import { allNeeds, cups } from '../orders/need.ts';
import { layersByColourway } from './store.ts';

/** What all open orders want of melts that are needed in less than can be cooked. */
export function accents(db: Db, at: string): Accents {
  const needs = cups(db, allNeeds(db, at), at);
  const layers = layersByColourway(
    db,
    needs.map(({ colourwayId }) => colourwayId),
  );
  const molds = new Map(usableMolds(db).map((mold) => [mold.id, mold]));
  const levels = levelsOf(db, [...molds.values()], [...layers.values()].flat());
  const names = new Map(
    all<{ id: string; name: string }>(db, 'SELECT id, name FROM colourway_called').map((row) => [row.id, row.name]),
  );
  const parts = needs.flatMap(({ colourwayId, molds: needed }) => {
    const mine = layers.get(colourwayId) ?? [];
    if (mine.length < 2) return [];
    return needed.flatMap(({ moldId, shots }): AccentPart[] => {
      const mold = molds.get(moldId);
      if (!mold) return [];
      // A mold whose bait has no shape fills no levels: it was not planned with.
      const { value } = tried(() => layersOfShot({ ...mold, levels: levels.get(moldId)?.levels }, mine));
      return mine.map((layer, i) => ({
        recipeId: layer.recipeId,
        colourwayId,
        colourwayName: names.get(colourwayId) ?? '',
        place: PLACES[layer.place],
        baits: shots * mold.cavities,
        ml: (value?.layersMl[i] ?? 0) * shots,
      }));
    });
  });
  return { items: accentsOf(parts, { leastMl: usual('leastCupMl'), filmMl: usual('cupFilmMl') }) };
}
