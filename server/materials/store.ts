import type * as v from 'valibot';
import type { ListQuery, Page } from '../../contract/fields.ts';
import type { Lot, lotBody, Material } from '../../contract/materials.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind } from '../db/rows.ts';
import { page } from '../http/list.ts';
import { newId } from '../ids.ts';

export function lotsOf(db: Db, materialId: string): Lot[] {
  return all<Lot>(
    db,
    `SELECT lot.*, coalesce((SELECT sum(grams) FROM lot_move WHERE lot_id = lot.id), 0) AS level_g
     FROM lot WHERE material_id = ? ORDER BY created_at, id`,
    [materialId],
  );
}

function withLots(db: Db, material: Omit<Material, 'lots' | 'levelG'>): Material {
  const lots = lotsOf(db, material.id);
  return { ...material, lots, levelG: lots.reduce((sum, lot) => sum + lot.levelG, 0) };
}

const LISTING = {
  select: 'SELECT /*sort*/ material.* FROM material',
  sorts: { name: 'name', kind: 'kind', created: 'created_at' },
  order: 'name',
  search: 'name',
  idColumn: 'material.id',
};

export function listMaterials(db: Db, query: ListQuery): Page<Material> {
  const found = page<Material>(db, LISTING, query);
  return { ...found, items: found.items.map((row) => withLots(db, row)) };
}

export const getMaterial = (db: Db, id: string) => withLots(db, mustFind<Material>(db, 'material', id, 'material'));

export function addLot(db: Db, materialId: string, body: v.InferOutput<typeof lotBody>, at: string): void {
  const id = newId();
  insert(db, 'lot', { id, materialId, code: body.code, bottleStrength: body.bottleStrength, createdAt: at });
  addLotMove(db, { lotId: id, kind: 'received', grams: body.grams }, at);
}

export interface LotMove {
  id?: string | undefined;
  lotId: string;
  kind: 'received' | 'used' | 'counted' | 'reversed';
  grams: number;
  pourId?: string;
  moldId?: string;
  note?: string | undefined;
}

export function addLotMove(db: Db, { id, note, ...move }: LotMove, at: string): void {
  insert(db, 'lot_move', { id: newId(id), ...move, note: note ?? '', at });
}

export const levelOf = (db: Db, lotId: string) =>
  first<{ g: number }>(db, 'SELECT coalesce(sum(grams), 0) AS g FROM lot_move WHERE lot_id = ?', [lotId])?.g ?? 0;

/**
 * Takes grams from a material's lots, `firstLotId` before the others, each emptied before the next is opened. What was
 * used beyond all that is recorded as held stays against the last lot: it was used, and the next count shows it.
 */
export function drawMaterial(
  db: Db,
  materialId: string,
  grams: number,
  about: { pourId?: string; moldId?: string },
  at: string,
  firstLotId?: string | null,
): void {
  const lots = lotsOf(db, materialId).sort((a, b) => Number(b.id === firstLotId) - Number(a.id === firstLotId));
  let left = grams;
  lots.forEach((lot, index) => {
    const last = index === lots.length - 1;
    const taken = last ? left : Math.min(left, Math.max(0, lot.levelG));
    if (taken > 0) addLotMove(db, { lotId: lot.id, kind: 'used', grams: -taken, ...about }, at);
    left -= taken;
  });
}

/** The oldest lot that still holds something: bottles are finished in the order they were opened. */
export function openLot(db: Db, materialId: string): Lot | undefined {
  const lots = lotsOf(db, materialId);
  return lots.find((lot) => lot.levelG > 0) ?? lots.at(-1);
}
