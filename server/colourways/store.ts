import type * as v from 'valibot';
import type { ColourUses, Colourway, ColourwayRow, colourwayBody, Layer } from '../../contract/colourways.ts';
import type { ListQuery, Page } from '../../contract/fields.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import { countsOfMany, totalOf } from '../pours/counts.ts';

type LayerRow = Omit<Layer, 'wanted'> & {
  revisionId: string;
  wantedScale: 'A' | '00' | null;
  wantedHardness: number | null;
};

/** Layers of many revisions at once, by revision. */
function layersByRevision(db: Db, revisionIds: string[]): Map<string, Layer[]> {
  const layers = new Map<string, Layer[]>(revisionIds.map((id) => [id, []]));
  for (const { revisionId, wantedScale, wantedHardness, ...layer } of all<LayerRow>(
    db,
    `SELECT l.revision_id, l.place, l.recipe_id, recipe.name AS recipe_name, recipe.hex, l.measure, l.amount, l.joins,
      l.wanted_scale, l.wanted_hardness
     FROM colourway_layer l JOIN recipe ON recipe.id = l.recipe_id
     WHERE l.revision_id IN (SELECT value FROM json_each(?)) ORDER BY l.revision_id, l.position`,
    [JSON.stringify(revisionIds)],
  )) {
    const wanted =
      wantedScale !== null && wantedHardness !== null ? { scale: wantedScale, value: wantedHardness } : null;
    layers.get(revisionId)?.push({ ...layer, wanted });
  }
  return layers;
}

export const layersOf = (db: Db, revisionId: string): Layer[] =>
  layersByRevision(db, [revisionId]).get(revisionId) ?? [];

const LISTING = {
  select: `SELECT /*sort*/ c.id, c.version, coalesce(c.name, r.name) AS name, coalesce(c.hex, r.hex) AS hex,
    iif(c.recipe_id IS NULL, c.notes, r.notes) AS notes, iif(c.recipe_id IS NULL, c.away_at, r.away_at) AS away_at, c.recipe_id, c.family, c.favourite,
    coalesce((SELECT sum(baits) FROM rack_level k WHERE k.colourway_id = c.id AND k.baits <> 0 AND k.grade = 'sell'), 0) AS baits
    FROM colourway c LEFT JOIN recipe r ON r.id = c.recipe_id`,
  sorts: { name: 'coalesce(c.name, r.name)', created: 'c.created_at' },
  order: 'name',
  search: 'coalesce(c.name, r.name) LIKE @q',
  idColumn: 'c.id',
};

type Bare = Omit<ColourwayRow, 'revision' | 'layers'>;
type Revision = ColourwayRow['revision'] & { colourwayId: string };

const REVISIONS = 'SELECT id, colourway_id, number, reason, created_at FROM colourway_revision v';

function latestOf(db: Db, colourwayIds: string[]): Revision[] {
  return all<Revision>(
    db,
    `${REVISIONS} WHERE colourway_id IN (SELECT value FROM json_each(?))
       AND number = (SELECT max(number) FROM colourway_revision WHERE colourway_id = v.colourway_id)`,
    [JSON.stringify(colourwayIds)],
  );
}

/** The layers of many colourways as they are now, by colourway. */
export function layersByColourway(db: Db, colourwayIds: string[]): Map<string, Layer[]> {
  const latest = latestOf(db, colourwayIds);
  const layers = layersByRevision(
    db,
    latest.map((revision) => revision.id),
  );
  return new Map(latest.map(({ id, colourwayId }) => [colourwayId, layers.get(id) ?? []]));
}

function withLayers(db: Db, rows: Bare[]): ColourwayRow[] {
  const ids = rows.map((row) => row.id);
  const latest = new Map(latestOf(db, ids).map(({ colourwayId, ...revision }) => [colourwayId, revision]));
  const layers = layersByColourway(db, ids);
  return rows.map((row) => ({
    ...row,
    revision: latest.get(row.id) as ColourwayRow['revision'],
    layers: layers.get(row.id) ?? [],
  }));
}

export function listColourways(db: Db, query: ListQuery): Page<ColourwayRow> {
  const found = page<Bare>(db, LISTING, query);
  return { ...found, items: withLayers(db, found.items) };
}

/** The newest revision of a colourway, with its layers. */
export function latestLayers(db: Db, colourwayId: string): { revisionId: string; layers: Layer[] } {
  const row = first<{ id: string }>(db, `${REVISIONS} WHERE colourway_id = ? ORDER BY number DESC LIMIT 1`, [
    colourwayId,
  ]);
  if (!row) throw new Failure('not-found', 'There is no such colour.');
  return { revisionId: row.id, layers: layersOf(db, row.id) };
}

const poursOf = (db: Db, id: string) => {
  const pours = all<{ id: string; code: string; at: string }>(
    db,
    `SELECT pour.id, pour.code, pour.laid_out_at AS at FROM pour
     WHERE pour.colourway_id = ? AND pour.lead_id IS NULL ORDER BY pour.laid_out_at DESC LIMIT 12`,
    [id],
  );
  const counts = countsOfMany(
    db,
    pours.map((pour) => pour.id),
  );
  return pours.map((pour) => ({ ...pour, sell: totalOf(counts.get(pour.id) ?? [], 'sell') }));
};

export function getColourway(db: Db, id: string): Colourway {
  mustFind(db, 'colourway', id, 'colour');
  const row = first<Bare>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE c.id = ?`, [id]) as Bare;
  const revisions = all<Revision>(db, `${REVISIONS} WHERE colourway_id = ? ORDER BY number DESC LIMIT 100`, [id]);
  const layers = layersByRevision(
    db,
    revisions.map((one) => one.id),
  );
  return {
    ...(withLayers(db, [row])[0] as ColourwayRow),
    revisions: revisions.map(({ colourwayId: _, ...one }) => ({ ...one, layers: layers.get(one.id) ?? [] })),
    pourList: poursOf(db, id),
  };
}

/** One name is one colour, of one melt or of several: it is ordered by it. */
export function refuseTakenName(db: Db, name: string, except: string | null): void {
  if (first(db, 'SELECT 1 FROM colourway_called WHERE name = ? COLLATE NOCASE AND id IS NOT ?', [name, except]))
    throw new Failure(
      'already-exists',
      `There is a colour called ${name} already; give this one another name.`,
      'name',
    );
}

export function addLayers(
  db: Db,
  colourwayId: string,
  { layers, reason }: Pick<v.InferOutput<typeof colourwayBody>, 'layers' | 'reason'>,
  at: string,
): void {
  const id = newId();
  const last = first<{ n: number | null }>(
    db,
    'SELECT max(number) AS n FROM colourway_revision WHERE colourway_id = ?',
    [colourwayId],
  );
  insert(db, 'colourway_revision', { id, colourwayId, number: (last?.n ?? 0) + 1, reason, createdAt: at });
  layers.forEach(({ wanted, ...layer }, position) => {
    if (!first(db, 'SELECT 1 FROM recipe WHERE id = ?', [layer.recipeId]))
      throw new Failure(
        'invalid-input',
        'That melt is not here; write its recipe first.',
        `layers.${position}.recipeId`,
      );
    insert(db, 'colourway_layer', {
      id: newId(),
      revisionId: id,
      position,
      ...layer,
      wantedScale: wanted?.scale ?? null,
      wantedHardness: wanted?.value ?? null,
    });
  });
}

export function addColourway(db: Db, body: v.InferOutput<typeof colourwayBody>, at: string): string {
  refuseTakenName(db, body.name, null);
  const id = newId();
  insert(db, 'colourway', { id, name: body.name, hex: body.hex, notes: body.notes, createdAt: at });
  addLayers(db, id, body, at);
  return id;
}

/** Where a colour is used: colours of layers that have it as a melt, orders that are open, baits it lies on the rack in, its bins. */
export const usedIn = (db: Db, id: string): ColourUses => ({
  layered: all(
    db,
    `SELECT DISTINCT c.id, c.name, l.place FROM colourway c
     JOIN colourway_revision v ON v.colourway_id = c.id
       AND v.number = (SELECT max(number) FROM colourway_revision WHERE colourway_id = c.id)
     JOIN colourway_layer l ON l.revision_id = v.id
     WHERE l.recipe_id = ? AND c.recipe_id IS NULL AND c.away_at IS NULL ORDER BY c.name`,
    [id],
  ),
  orders: all(
    db,
    `SELECT DISTINCT o.id, o.code, customer.name AS customer, o.due_on FROM order_line l
     JOIN customer_order o ON o.id = l.order_id JOIN customer ON customer.id = o.customer_id
     WHERE l.colourway_id = ? AND l.taken_at IS NULL AND o.sent_at IS NULL AND o.cancelled_at IS NULL ORDER BY o.due_on LIMIT 40`,
    [id],
  ),
  rack: all(
    db,
    `SELECT bait.id, bait.name, sum(k.baits) AS baits FROM rack_level k JOIN bait ON bait.id = k.bait_id
     WHERE k.colourway_id = ? AND k.baits <> 0 AND k.grade = 'sell' GROUP BY bait.id ORDER BY bait.name`,
    [id],
  ),
});
