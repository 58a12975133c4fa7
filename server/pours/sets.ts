import type { CupOfEvening, CupOfSet, Pour, PourLayer, PourMold } from '../../contract/pours.ts';
import { shotVolumeMl } from '../../core/plan/layers.ts';
import { waitOf, waitsByKind } from '../../core/process/waits.ts';
import { layersOf } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';

/** The layers of what a cup's molds make, by the revision that it was laid out from. */
export const layersOfPour = (db: Db, revisionId: string): PourLayer[] =>
  layersOf(db, revisionId).map(({ wanted: _, ...layer }) => layer);

interface OfSet {
  id: string;
  leadId: string | null;
}

const layersFor = (layers: PourLayer[], recipeId: string) =>
  layers.flatMap((layer, index) => (layer.recipeId === recipeId ? [index] : []));

/** The cups that share their shots, the leading one first, each with the layers that it gives to. */
export const cupsWithLayers = (db: Db, { id, leadId }: OfSet, layers: PourLayer[]) =>
  all<Omit<CupOfSet, 'layers'> & { ledgerId: string }>(
    db,
    `SELECT pour.id, pour.code, pour.recipe_id, recipe.name AS recipe_name, recipe.hex, pour.closed_at, pour.ledger_id
     FROM pour JOIN recipe ON recipe.id = pour.recipe_id
     WHERE pour.id = @lead OR pour.lead_id = @lead ORDER BY pour.lead_id IS NOT NULL, pour.place, pour.code`,
    { lead: leadId ?? id },
  ).map((cup) => ({ ...cup, layers: layersFor(layers, cup.recipeId) }));

export const cupsOfSet = (db: Db, pour: OfSet, layers: PourLayer[]): CupOfSet[] =>
  cupsWithLayers(db, pour, layers).map(({ ledgerId: _, ...cup }) => cup);

/** The cups of an evening in their order; of a cup that nobody grouped, only itself. */
export function eveningOf(db: Db, pour: { id: string; eveningId: string | null }): Pour['evening'] {
  const evening = pour.eveningId
    ? first<{ roomC: number | null; version: number }>(db, 'SELECT room_c, version FROM evening WHERE id = ?', [
        pour.eveningId,
      ])
    : undefined;
  const where = evening ? 'pour.evening_id = @evening AND pour.discarded_at IS NULL' : 'pour.id = @id';
  const rows = all<Omit<CupOfEvening, 'layers'> & { colourwayRevisionId: string }>(
    db,
    `SELECT pour.id, pour.code, pour.recipe_id, recipe.name AS recipe_name, recipe.hex, pour.closed_at, pour.started_at,
      pour.lead_id, pour.cook_ml, pour.colourway_revision_id FROM pour JOIN recipe ON recipe.id = pour.recipe_id
     WHERE ${where} ORDER BY pour.place, pour.code`,
    evening ? { evening: pour.eveningId } : { id: pour.id },
  );
  const layers = new Map<string, PourLayer[]>();
  return {
    id: evening ? pour.eveningId : null,
    roomC: evening?.roomC ?? null,
    version: evening?.version ?? 0,
    cups: rows.map(({ colourwayRevisionId, ...cup }) => {
      const known = layers.get(colourwayRevisionId) ?? layersOfPour(db, colourwayRevisionId);
      layers.set(colourwayRevisionId, known);
      return { ...cup, layers: layersFor(known, cup.recipeId) };
    }),
  };
}

/** What a cup gave to shots that others lead. */
export const lentBy = (db: Db, pourId: string): Pour['lent'] =>
  first<Pour['lent']>(
    db,
    `SELECT count(DISTINCT s.id) AS shots, coalesce(sum(p.ml), 0) AS ml FROM shot_part p JOIN shot_live s ON s.id = p.shot_id
     WHERE p.pour_id = @id AND s.pour_id <> @id`,
    { id: pourId },
  ) as Pour['lent'];

type MoldRow = Omit<PourMold, 'opens' | 'layersMl' | 'cavityLayersMl' | 'layersMm' | 'stands' | 'rods' | 'inserted'> & {
  inserts: { kind: string }[] | null;
  cavityMl: number;
  sprueMl: number;
  runnerMl: number;
};

/** Its molds in their order, each with its waits and what its layers take; of a cup from before those were kept, by its kind. */
export function moldsOf(db: Db, { id, plan }: { id: string; plan: Pour['plan'] }): PourMold[] {
  const rows = all<MoldRow>(
    db,
    `SELECT mold.id AS mold_id, mold.name, mold.kind, mold.fill, bait.shape, bait.id AS bait_id, bait.name AS bait_name,
      mold.cavities, mold.columns, mold.inserts, mold.cavity_ml, mold.sprue_ml, mold.runner_ml, pm.shots,
      (SELECT due_at FROM clock WHERE kind = 'open' AND about_type = 'pour-mold' AND about_id = pm.pour_id || ' ' || mold.id
        AND ended_at IS NULL ORDER BY due_at DESC LIMIT 1) AS opens_at
     FROM pour_mold pm JOIN mold ON mold.id = pm.mold_id JOIN bait ON bait.id = mold.bait_id
     WHERE pm.pour_id = ? ORDER BY pm.position`,
    [id],
  );
  return rows.map(({ cavityMl, sprueMl, runnerMl, inserts, ...row }) => {
    const planned = plan.molds.find((mold) => mold.moldId === row.moldId);
    return {
      ...row,
      rods: (inserts ?? []).some(({ kind }) => kind === 'rod'),
      inserted: (inserts ?? []).length > 0,
      opens: planned?.opens ?? waitsByKind(row.kind),
      layersMl: planned?.layersMl ?? [shotVolumeMl({ cavities: row.cavities, cavityMl, sprueMl, runnerMl })],
      cavityLayersMl: planned?.cavityLayersMl ?? [cavityMl],
      layersMm: planned?.layersMm ?? [],
      stands: planned?.stands ?? null,
    };
  });
}

/** How long a shot of each mold waits once it is warm, as it was last worked out for it, s. */
export const steadyWaits = (db: Db): Map<string, number> =>
  new Map(
    all<{ moldId: string; plan: Pour['plan'] }>(
      db,
      `SELECT mold.id AS mold_id, pour.plan FROM mold JOIN pour ON pour.id = (SELECT max(pour_id) FROM pour_mold WHERE mold_id = mold.id)
       WHERE mold.retired_at IS NULL`,
    ).flatMap(({ moldId, plan }) => {
      const opens = plan.molds.find((mold) => mold.moldId === moldId)?.opens;
      return opens ? [[moldId, waitOf(opens, opens.waitS.length)] as [string, number]] : [];
    }),
  );
