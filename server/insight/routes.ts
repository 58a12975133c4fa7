import type { Insight, PourFigures } from '../../contract/insight.ts';
import { all } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { firstPoursSince } from '../molds/care.ts';
import { faultCounts } from '../pours/counts.ts';
import { MEAN_READING, WITH_BALANCE } from '../pours/readings.ts';

/** The newest closed pours that the charts look at. */
const LOOKED_AT = 400;

const FIGURES = `
  SELECT pour.id, pour.code, pour.closed_at AS at, recipe.name AS recipe_name, recipe.hex, pour.wanted_scale, pour.wanted_hardness,
    b.cooked_g, b.good_g, b.returned_g, b.reject_g, b.residue_g, b.degassed_g,
    (SELECT group_concat(pm.mold_id) FROM pour_mold pm WHERE pm.pour_id = pour.id) AS mold_ids,
    ${MEAN_READING} AS hardness,
    coalesce((SELECT sum(pm.sell + pm.own + pm.remelt) FROM pour_mold pm WHERE pm.pour_id = pour.id), 0) AS made,
    coalesce((SELECT sum(pm.own + pm.remelt) FROM pour_mold pm WHERE pm.pour_id = pour.id), 0) AS rejected
  FROM pour JOIN recipe ON recipe.id = pour.recipe_id ${WITH_BALANCE}
  WHERE pour.closed_at IS NOT NULL ORDER BY pour.closed_at DESC LIMIT ${LOOKED_AT}`;

export const insightEndpoints = [
  endpoint({
    method: 'GET',
    path: '/insight',
    run: ({ db }): Insight => {
      const pours = all<Omit<PourFigures, 'moldIds'> & { moldIds: string | null }>(db, FIGURES)
        .map((row) => ({ ...row, moldIds: row.moldIds?.split(',') ?? [] }))
        .reverse();
      return { pours, faults: faultCounts(db), firstPours: firstPoursSince(db, pours[0]?.at ?? '') };
    },
  }),
];
