import type * as v from 'valibot';
import { PLASTIC_KINDS } from '../../contract/blend.ts';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { Lot, lotBody, Material, MaterialKind } from '../../contract/materials.ts';
import type { PackWith, packWithBody } from '../../contract/packing.ts';
import { Failure } from '../../core/failure.ts';
import { dropOf, lotsInUse } from '../../core/plastisol/lots.ts';
import { isCounted } from '../../core/units/counted.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';
import { workshop } from '../workshop/store.ts';
import { learntHere, stepsByMaterial } from './colour.ts';

/** Emptied lots that are still told of, beside all that hold something. */
const EMPTIED_TOLD = 12;

const LOT = `lot.id, lot.material_id, lot.code, lot.bottle_strength, lot.drops_per_ml, lot.price_per_kg_minor, lot.created_at,
  coalesce((SELECT sum(m.grams) FROM lot_move m WHERE m.lot_id = lot.id AND m.kind = 'received'), 0) AS received_g`;

/** Lots that hold something and the last few that were emptied, oldest first, by material. */
function lotsByMaterial(db: Db, materialIds: string[]): Map<string, Lot[]> {
  const holding = all<Lot>(
    db,
    `SELECT ${LOT}, l.grams AS level_g FROM lot_level l JOIN lot ON lot.id = l.lot_id
     WHERE l.material_id IN (SELECT value FROM json_each(?)) AND (l.grams > 0 OR l.grams < 0)`,
    [JSON.stringify(materialIds)],
  );
  const lots = new Map<string, Lot[]>(materialIds.map((id) => [id, []]));
  for (const lot of holding) lots.get(lot.materialId)?.push(lot);
  for (const [id, mine] of lots) {
    const last = all<Lot>(
      db,
      `SELECT ${LOT}, coalesce(l.grams, 0) AS level_g FROM lot LEFT JOIN lot_level l ON l.lot_id = lot.id
       WHERE lot.material_id = ? ORDER BY lot.created_at DESC, lot.id DESC LIMIT ${EMPTIED_TOLD}`,
      [id],
    );
    for (const lot of last) if (lot.levelG === 0) mine.push(lot);
    mine.sort((one, other) => compare(one.createdAt, other.createdAt) || compare(one.id, other.id));
  }
  return lots;
}

const compare = (a: string, b: string) => (a < b ? -1 : Number(a > b));

type Bare = Omit<Material, 'lots' | 'levelG' | 'step' | 'learnt'>;

function withLots(db: Db, materials: Bare[]): Material[] {
  const lots = lotsByMaterial(
    db,
    materials.map((row) => row.id),
  );
  const steps = stepsByMaterial(
    db,
    materials.map((row) => row.id),
  );
  const learnt = learntHere(db);
  return materials.map((row) => {
    const mine = lots.get(row.id) ?? [];
    return {
      ...row,
      step: steps.get(row.id) ?? null,
      learnt: learnt.get(row.id) ?? null,
      lots: mine,
      levelG: mine.reduce((sum, lot) => sum + lot.levelG, 0),
    };
  });
}

const LISTING = {
  select:
    'SELECT /*sort*/ material.*, (SELECT count(*) FROM lot WHERE lot.material_id = material.id) AS lots_ever FROM material',
  sorts: { name: 'name', kind: 'kind', created: 'created_at' },
  order: 'name',
  search: 'name LIKE @q',
  idColumn: 'material.id',
};

export function listMaterials(db: Db, query: ListQuery): Page<Material> {
  const found = page<Bare>(db, LISTING, query);
  return { ...found, items: withLots(db, found.items) };
}

export function getMaterial(db: Db, id: string): Material {
  mustFind(db, 'material', id, 'material');
  const row = first<Bare>(db, `${LISTING.select.replace('/*sort*/', '')} WHERE material.id = ?`, [id]) as Bare;
  return withLots(db, [row])[0] as Material;
}

type NewLot = Omit<v.InferOutput<typeof lotBody>, 'dropsPerMl' | 'pricePerKgMinor'> & {
  dropsPerMl?: number | null;
  pricePerKgMinor?: number | null;
};

export function addLot(db: Db, materialId: string, body: NewLot, at: string): void {
  const id = newId();
  const { grams, ...lot } = body;
  insert(db, 'lot', { id, materialId, ...lot, createdAt: at });
  addLotMove(db, { lotId: id, kind: 'received', grams }, at);
}

export interface LotMove {
  id?: string | undefined;
  lotId: string;
  kind: 'received' | 'used' | 'counted' | 'reversed';
  grams: number;
  pourId?: string;
  moldId?: string;
  /** The bag that an empty one was taken for. */
  bagId?: string;
  note?: string | undefined;
}

/** @throws Failure `invalid-input`: half a bag is none. */
function refuseHalves(db: Db, lotId: string, amount: number, field: string): void {
  const { kind } = first<{ kind: string }>(
    db,
    'SELECT material.kind FROM lot JOIN material ON material.id = lot.material_id WHERE lot.id = ?',
    [lotId],
  ) as { kind: string };
  if (isCounted(kind) && !Number.isInteger(amount))
    throw new Failure('invalid-input', 'These are counted: give a whole number of pieces.', field);
}

export function addLotMove(db: Db, { id, note, ...move }: LotMove, at: string): void {
  refuseHalves(db, move.lotId, move.grams, move.kind === 'counted' ? 'levelG' : 'grams');
  insert(db, 'lot_move', { id: newId(id), ...move, note: note ?? '', at });
}

export const levelOf = (db: Db, lotId: string) =>
  first<{ grams: number }>(db, 'SELECT grams FROM lot_level WHERE lot_id = ?', [lotId])?.grams ?? 0;

/**
 * Takes grams from a material's lots, `firstLotId` before the others, each emptied before the next is opened. What was
 * used beyond all that is recorded as held stays against the last lot: it was used, and the next count shows it.
 */
export function drawMaterial(
  db: Db,
  materialId: string,
  grams: number,
  about: { pourId?: string; moldId?: string; bagId?: string },
  at: string,
  firstLotId?: string | null,
): void {
  const lots = lotsToDraw(db, materialId).sort((a, b) => Number(b.id === firstLotId) - Number(a.id === firstLotId));
  if (firstLotId && !lots.some((lot) => lot.id === firstLotId)) lots.unshift({ id: firstLotId, levelG: 0 });
  let left = grams;
  lots.forEach((lot, index) => {
    const last = index === lots.length - 1;
    const taken = last ? left : Math.min(left, Math.max(0, lot.levelG));
    if (taken > 0) addLotMove(db, { lotId: lot.id, kind: 'used', grams: -taken, ...about }, at);
    left -= taken;
  });
}

/** Lots that hold something, in the order in which they are used, and the newest at the end, whatever it holds. */
function lotsToDraw(db: Db, materialId: string): { id: string; levelG: number }[] {
  const chosen = first<{ lotId: string | null }>(db, 'SELECT lot_id FROM material WHERE id = ?', [materialId]);
  const holding = lotsInUse(
    all<{ id: string; levelG: number; createdAt: string }>(
      db,
      `SELECT lot.id, l.grams AS level_g, lot.created_at FROM lot_level l JOIN lot ON lot.id = l.lot_id
       WHERE l.material_id = ? AND l.grams > 0`,
      [materialId],
    ),
    chosen?.lotId ?? null,
  );
  const newest = first<{ id: string }>(
    db,
    'SELECT id FROM lot WHERE material_id = ? ORDER BY created_at DESC, id DESC LIMIT 1',
    [materialId],
  );
  if (!newest || holding.some((lot) => lot.id === newest.id)) return holding;
  return [...holding, { id: newest.id, levelG: levelOf(db, newest.id) }];
}

/**
 * One empty bag of the store for a bag that is filled: of the kind that was said, or of the only kind there is. Where it
 * cannot be known which, or none is left by the record, none is taken.
 */
export function takeBag(db: Db, bagId: string, bagsId: string | undefined, at: string): void {
  const kinds = bagsInStore(db);
  const [only] = kinds;
  const chosen = bagsId ? kinds.find((row) => row.id === bagsId) : kinds.length === 1 ? only : undefined;
  if (bagsId && !first(db, "SELECT 1 FROM material WHERE id = ? AND kind = 'bags'", [bagsId]))
    throw new Failure('invalid-input', 'No such bags are in the store.', 'bagsId');
  const lot = chosen && lotsToDraw(db, chosen.id).find((one) => one.levelG >= 1);
  if (lot) addLotMove(db, { lotId: lot.id, kind: 'used', grams: -1, bagId }, at);
}

/** What leaves the store with each bag that is filled, beside the bag itself. */
export const packedWith = (db: Db) =>
  all<PackWith>(
    db,
    `SELECT p.material_id, material.name, material.kind, p.amount,
       coalesce((SELECT sum(l.grams) FROM lot_level l WHERE l.material_id = p.material_id), 0) AS left
     FROM pack_with p JOIN material ON material.id = p.material_id WHERE material.away_at IS NULL ORDER BY material.name`,
  );

/** So much of it with each bag from now on; 0: none any more. */
export function setPackedWith(db: Db, { materialId, amount }: v.InferOutput<typeof packWithBody>): void {
  const { kind } = mustFind<{ kind: string }>(db, 'material', materialId, 'material');
  if (isCounted(kind) && !Number.isInteger(amount))
    throw new Failure('invalid-input', 'These are counted: give a whole number of pieces.', 'amount');
  if (amount === 0) run(db, 'DELETE FROM pack_with WHERE material_id = ?', [materialId]);
  else
    run(
      db,
      `INSERT INTO pack_with (material_id, amount) VALUES (@materialId, @amount)
       ON CONFLICT (material_id) DO UPDATE SET amount = excluded.amount`,
      { materialId, amount },
    );
}

/** Takes what goes into or onto a bag that was filled. */
export function takePackedWith(db: Db, bagId: string, at: string): void {
  for (const { materialId, amount } of packedWith(db)) drawMaterial(db, materialId, amount, { bagId }, at);
}

export interface Held {
  id: string;
  name: string;
  kind: MaterialKind;
  g: number;
  leadDays: number | null;
  pricePerKgMinor: number | null;
}

/** What is left of these, and of every plastisol; of none that no lot was ever written down of. */
export const heldOf = (db: Db, ids: string[]): Held[] =>
  all(
    db,
    `SELECT material.id, material.name, material.kind, material.lead_days, material.price_per_kg_minor,
       sum(max(0, l.grams)) AS g
     FROM material JOIN lot_level l ON l.material_id = material.id
     WHERE material.away_at IS NULL AND (material.kind = 'plastisol' OR material.id IN (SELECT value FROM json_each(@ids)))
     GROUP BY material.id ORDER BY material.name`,
    { ids: JSON.stringify(ids) },
  );

/** Kinds of bags that are in use and not all gone. */
export const bagsInStore = (db: Db) =>
  all<{ id: string; name: string; left: number }>(
    db,
    `SELECT material.id, material.name, sum(l.grams) AS left FROM material JOIN lot_level l ON l.material_id = material.id
     WHERE material.kind = 'bags' AND material.away_at IS NULL GROUP BY material.id HAVING sum(l.grams) >= 1 ORDER BY material.name`,
  );

export interface OpenLot {
  id: string;
  materialId: string;
  code: string;
  bottleStrength: number;
  dropsPerMl: number | null;
}

/** The lot in use: the one that was chosen, else the oldest that still holds something. */
export function openLot(db: Db, materialId: string): OpenLot | undefined {
  const [next] = lotsToDraw(db, materialId);
  return (
    next &&
    first<OpenLot>(db, 'SELECT id, material_id, code, bottle_strength, drops_per_ml FROM lot WHERE id = ?', [next.id])
  );
}

export interface Bottle {
  kind: string;
  lotId: string | null;
  lotCode: string | null;
  dropsPerMl: number;
  bottleStrength: number;
}

/** How the bottle in use drips and how strong it is. */
export function bottleInUse(db: Db, materialId: string): Bottle {
  const lot = openLot(db, materialId);
  const { kind, dropsPerMl } = first<{ kind: string; dropsPerMl: number | null }>(
    db,
    'SELECT kind, drops_per_ml FROM material WHERE id = ?',
    [materialId],
  ) as { kind: string; dropsPerMl: number | null };
  return {
    kind,
    lotId: lot?.id ?? null,
    lotCode: lot?.code ?? null,
    dropsPerMl: dropOf(lot?.dropsPerMl ?? null, dropsPerMl, workshop(db).dropsPerMl).perMl,
    bottleStrength: lot?.bottleStrength ?? 1,
  };
}

/** The lot that is taken first has to be one of its own. */
export function refuseStrangeLot(db: Db, materialId: string, lotId: string | null | undefined): void {
  if (lotId && !first(db, 'SELECT 1 FROM lot WHERE id = ? AND material_id = ?', [lotId, materialId]))
    throw new Failure('invalid-input', 'That lot is not one of this material.', 'lotId');
}

/** Grams of plastisol, softener and their like that closed cups took, by material. */
export const plasticOfPours = (db: Db, pourIds: string[]) =>
  all<{ pourId: string; materialId: string; kind: MaterialKind; g: number }>(
    db,
    `SELECT m.pour_id, lot.material_id, material.kind, -sum(m.grams) AS g FROM lot_move m JOIN lot ON lot.id = m.lot_id
     JOIN material ON material.id = lot.material_id WHERE m.pour_id IN (SELECT value FROM json_each(?))
     AND material.kind IN (SELECT value FROM json_each(?)) GROUP BY m.pour_id, lot.material_id HAVING sum(m.grams) < 0`,
    [JSON.stringify(pourIds), JSON.stringify(PLASTIC_KINDS)],
  );

/** What a pour took, by lot. */
export const lotsOfPour = (db: Db, pourId: string) =>
  all<{ materialName: string; lotCode: string; grams: number }>(
    db,
    `SELECT material.name AS material_name, lot.code AS lot_code, -sum(m.grams) AS grams FROM lot_move m
     JOIN lot ON lot.id = m.lot_id JOIN material ON material.id = lot.material_id WHERE m.pour_id = ? GROUP BY lot.id`,
    [pourId],
  );
