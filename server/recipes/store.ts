import type * as v from 'valibot';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { Recipe, RecipeItem, RecipeRevision, RecipeRow, recipeBody } from '../../contract/recipes.ts';
import { usual } from '../../core/defaults.ts';
import { atField, Failure } from '../../core/failure.ts';
import { houseMl, inDropsOf, scaleLines } from '../../core/plastisol/recipe.ts';
import { BIN_GRAMS } from '../bins/store.ts';
import { refuseTakenName } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import { learntHere, stepsByMaterial } from '../materials/colour.ts';
import { bottleInUse } from '../materials/store.ts';
import { countsOfMany, totalOf } from '../pours/counts.ts';
import { LAST_READING } from '../pours/readings.ts';
import { ownUnits } from '../workshop/store.ts';

/** Flake is as it was bought unless it is said to be wanted turned. */
type Items = v.InferInput<typeof recipeBody>['items'];
type Body = Omit<v.InferOutput<typeof recipeBody>, 'items'> & { items: Items };

/** Items of many revisions at once, by revision. */
function itemsByRevision(db: Db, revisionIds: string[]): Map<string, RecipeItem[]> {
  const rows = all<
    Omit<RecipeItem, 'dropsPerMl' | 'bottleStrength' | 'lotCode' | 'optics' | 'learnt'> & { revisionId: string }
  >(
    db,
    `SELECT revision_id, recipe_item.id, material_id, material.name AS material_name, material.kind AS material_kind, material.hex,
      amount, unit, ml, material.bulk_g_per_ml, material.density_g_per_ml, material.limit_c,
      material.size_mm, material.cut, recipe_item.turned, material.turns_hex
     FROM recipe_item JOIN material ON material.id = material_id
     WHERE revision_id IN (SELECT value FROM json_each(?)) ORDER BY revision_id, position`,
    [JSON.stringify(revisionIds)],
  );
  const bottles = new Map<string, ReturnType<typeof bottleInUse>>();
  const bottleOf = (materialId: string) => {
    const known = bottles.get(materialId) ?? bottleInUse(db, materialId);
    bottles.set(materialId, known);
    return known;
  };
  const items = new Map<string, RecipeItem[]>(revisionIds.map((id) => [id, []]));
  const steps = stepsByMaterial(db, [...new Set(rows.map((row) => row.materialId))]);
  const learnt = learntHere(db);
  for (const { revisionId, ...item } of rows) {
    const { dropsPerMl, bottleStrength, lotCode } = bottleOf(item.materialId);
    items.get(revisionId)?.push({
      ...inDropsOf(item, dropsPerMl),
      dropsPerMl,
      bottleStrength,
      lotCode,
      optics: steps.get(item.materialId)?.optics ?? null,
      learnt: learnt.get(item.materialId) ?? null,
    });
  }
  return items;
}

export const itemsOf = (db: Db, revisionId: string): RecipeItem[] =>
  itemsByRevision(db, [revisionId]).get(revisionId) ?? [];

/** These items scaled to a batch, with the workshop's own measures. */
export const scaleItems = (db: Db, items: RecipeItem[], basisMl: number, batchMl: number) =>
  scaleLines(items, basisMl, batchMl, ownUnits(db));

type BareRevision = Omit<RecipeRevision, 'items'>;

function withItems<R extends BareRevision>(db: Db, revisions: R[]): (R & { items: RecipeItem[] })[] {
  const items = itemsByRevision(
    db,
    revisions.map((row) => row.id),
  );
  return revisions.map((row) => ({ ...row, items: items.get(row.id) ?? [] }));
}

const revisionsOf = (db: Db, recipeId: string, limit: number): RecipeRevision[] =>
  withItems(
    db,
    all<BareRevision>(
      db,
      'SELECT id, number, reason, basis_ml, created_at FROM recipe_revision WHERE recipe_id = ? ORDER BY number DESC LIMIT ?',
      [recipeId, limit],
    ),
  );

/** The newest revision of each recipe, by recipe. */
function latestByRecipe(db: Db, recipeIds: string[]): Map<string, RecipeRevision> {
  const rows = all<BareRevision & { recipeId: string }>(
    db,
    `SELECT recipe_id, id, number, reason, basis_ml, created_at FROM recipe_revision r
     WHERE recipe_id IN (SELECT value FROM json_each(?))
       AND number = (SELECT max(number) FROM recipe_revision WHERE recipe_id = r.recipe_id)`,
    [JSON.stringify(recipeIds)],
  );
  return new Map(withItems(db, rows).map(({ recipeId, ...revision }) => [recipeId, revision]));
}

/**
 * What goes into each mL of these colours as they are written now, g by material, beside the plastic: out of the weakest
 * bottle that holds something.
 */
export function gramsByRecipe(db: Db, recipeIds: string[]): Map<string, { materialId: string; gPerMl: number }[]> {
  type Row = Pick<
    RecipeItem,
    'materialId' | 'materialKind' | 'amount' | 'unit' | 'ml' | 'bulkGPerMl' | 'densityGPerMl'
  >;
  const rows = all<Row & { recipeId: string; basisMl: number; bottleStrength: number | null }>(
    db,
    `SELECT r.recipe_id, r.basis_ml, i.material_id, material.kind AS material_kind, i.amount, i.unit, i.ml,
       material.bulk_g_per_ml, material.density_g_per_ml,
       (SELECT min(lot.bottle_strength) FROM lot JOIN lot_level l ON l.lot_id = lot.id
        WHERE lot.material_id = material.id AND l.grams > 0) AS bottle_strength
     FROM recipe_revision r JOIN recipe_item i ON i.revision_id = r.id JOIN material ON material.id = i.material_id
     WHERE r.recipe_id IN (SELECT value FROM json_each(?))
       AND r.number = (SELECT max(number) FROM recipe_revision WHERE recipe_id = r.recipe_id)`,
    [JSON.stringify(recipeIds)],
  );
  const measures = ownUnits(db);
  const grams = new Map<string, { materialId: string; gPerMl: number }[]>();
  for (const { recipeId, basisMl, bottleStrength, ...row } of rows) {
    // How large a drop is changes nothing of what its millilitres weigh.
    const dropsPerMl = usual('dropsPerMl');
    const line = { ...inDropsOf(row, dropsPerMl), dropsPerMl, bottleStrength: bottleStrength ?? 1 };
    const [scaled] = scaleLines([line], basisMl, 1, measures);
    const mine = grams.get(recipeId) ?? [];
    grams.set(recipeId, [...mine, { materialId: row.materialId, gPerMl: scaled?.g ?? 0 }]);
  }
  return grams;
}

export function latestRevision(db: Db, recipeId: string): RecipeRevision {
  const revision = revisionsOf(db, recipeId, 1)[0];
  if (!revision) throw new Failure('not-found', 'There is no such recipe.');
  return revision;
}

const LISTING = {
  select: `SELECT /*sort*/ recipe.*, (SELECT count(*) FROM pour WHERE recipe_id = recipe.id) AS pours,
    coalesce((SELECT sum(baits) FROM rack_level k WHERE k.colourway_id = recipe.id AND k.baits <> 0 AND k.grade = 'sell'), 0) AS baits,
    ${BIN_GRAMS('recipe.id')} AS remelt_g
    FROM recipe`,
  sorts: { name: 'recipe.name', created: 'recipe.created_at' },
  order: 'name',
  search: 'recipe.name LIKE @q',
  idColumn: 'recipe.id',
};

export function listRecipes(db: Db, query: ListQuery): Page<RecipeRow> {
  const found = page<RecipeRow>(db, LISTING, query);
  const latest = latestByRecipe(
    db,
    found.items.map((row) => row.id),
  );
  return {
    ...found,
    items: found.items.map((row) => ({ ...row, revision: latest.get(row.id) as RecipeRevision })),
  };
}

const poursOf = (db: Db, recipeId: string) =>
  all<Omit<Recipe['pourList'][number], 'sell'>>(
    db,
    `SELECT pour.id, pour.code, pour.laid_out_at AS at, r.number AS revision_number,
      ${LAST_READING} AS hardness
     FROM pour JOIN recipe_revision r ON r.id = pour.recipe_revision_id
     WHERE pour.recipe_id = ? ORDER BY pour.laid_out_at DESC LIMIT 12`,
    [recipeId],
  );

export function getRecipe(db: Db, id: string): Recipe {
  mustFind(db, 'recipe', id, 'recipe');
  const row = first<RecipeRow>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE recipe.id = ?`, [id]) as RecipeRow;
  const revisions = revisionsOf(db, id, 100);
  const pours = poursOf(db, id);
  const counts = countsOfMany(
    db,
    pours.map((pour) => pour.id),
  );
  return {
    ...row,
    revision: revisions[0] as RecipeRevision,
    revisions,
    pourList: pours.map((pour) => ({ ...pour, sell: totalOf(counts.get(pour.id) ?? [], 'sell') })),
  };
}

/** A recipe is written at the house strength, in drops of the bottle in use. */
const writtenMl = (db: Db, item: Items[number], position: number) =>
  atField(`items.${position}.unit`, () =>
    houseMl(item, { ...bottleInUse(db, item.materialId), bottleStrength: 1 }, ownUnits(db)),
  );

export function addRevision(
  db: Db,
  recipeId: string,
  body: { basisMl: number; items: Items; reason: string },
  at: string,
): string {
  const id = newId();
  const number =
    (first<{ n: number }>(db, 'SELECT max(number) AS n FROM recipe_revision WHERE recipe_id = ?', [recipeId])?.n ?? 0) +
    1;
  insert(db, 'recipe_revision', { id, recipeId, number, reason: body.reason, basisMl: body.basisMl, createdAt: at });
  body.items.forEach((item, position) => {
    if (!first(db, 'SELECT 1 FROM material WHERE id = ?', [item.materialId])) {
      throw new Failure(
        'invalid-input',
        'That material is not in the store; add it first.',
        `items.${position}.materialId`,
      );
    }
    insert(db, 'recipe_item', { id: newId(), revisionId: id, position, ...item, ml: writtenMl(db, item, position) });
  });
  // Scaling to its own basis proves every unit, so that no recipe is kept that could not be poured.
  scaleItems(db, itemsOf(db, id), body.basisMl, body.basisMl);
  return id;
}

export function addRecipe(db: Db, body: Body, at: string): string {
  refuseTakenName(db, body.name, null);
  const id = newId();
  insert(db, 'recipe', { id, name: body.name, hex: body.hex, notes: body.notes, createdAt: at });
  addRevision(db, id, body, at);
  return id;
}
