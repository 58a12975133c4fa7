import type { Bag, RackRow, RemeltRow, StockMove } from '../../contract/orders.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, nextNumber } from '../db/rows.ts';
import { newId } from '../ids.ts';

/** Everything on the rack, oldest pour first, so that the oldest is packed first. */
export function rack(db: Db, at: string): Omit<RackRow, 'promised'>[] {
  return all(
    db,
    `SELECT rack.bait_id, bait.name AS bait_name, bait.shape, rack.recipe_id, recipe.name AS recipe_name, recipe.hex,
      rack.pour_id, pour.code AS pour_code, rack.baits, rack.cured_at, rack.cured_at <= ? AS cured
     FROM rack JOIN bait ON bait.id = rack.bait_id JOIN recipe ON recipe.id = rack.recipe_id JOIN pour ON pour.id = rack.pour_id
     ORDER BY rack.cured_at, pour.code`,
    [at],
  );
}

export const remelt = (db: Db) =>
  all<RemeltRow>(
    db,
    `SELECT recipe_id, recipe.name AS recipe_name, recipe.hex, sum(grams) AS grams FROM remelt_move
     JOIN recipe ON recipe.id = recipe_id GROUP BY recipe_id HAVING sum(grams) > 0 ORDER BY grams DESC`,
  );

interface Take {
  pourId: string;
  baits: number;
}

interface What {
  baitId: string;
  recipeId: string;
  pourId?: string | undefined;
}

function shortage(rows: Omit<RackRow, 'promised'>[], wanted: number, onlyCured: boolean): Failure {
  const ready = rows.filter((row) => row.cured).reduce((sum, row) => sum + row.baits, 0);
  const curing = rows.filter((row) => !row.cured);
  const next = curing[0];
  const total = rows.reduce((sum, row) => sum + row.baits, 0);
  if (onlyCured && next && total >= wanted) {
    return new Failure(
      'not-cured',
      `${ready} of ${wanted} are cured; the rest may be packed after 24 hours of cure.`,
      undefined,
      {
        curedAt: next.curedAt,
      },
    );
  }
  return new Failure(
    'not-enough-stock',
    `Short by ${wanted - (onlyCured ? ready : total)}: the rack has ${total}, of which ${ready} are cured.`,
  );
}

/** Chooses which pours the baits come from, oldest first; a bag from one pour where one has enough. */
export function take(db: Db, what: What, wanted: number, onlyCured: boolean, at: string): Take[] {
  const rows = rack(db, at).filter(
    (row) =>
      row.baitId === what.baitId &&
      row.recipeId === what.recipeId &&
      (!what.pourId || row.pourId === what.pourId) &&
      row.baits > 0,
  );
  const usable = onlyCured ? rows.filter((row) => row.cured) : rows;
  if (usable.reduce((sum, row) => sum + row.baits, 0) < wanted) throw shortage(rows, wanted, onlyCured);
  const whole = usable.find((row) => row.baits >= wanted);
  if (whole) return [{ pourId: whole.pourId, baits: wanted }];
  const takes: Take[] = [];
  let left = wanted;
  for (const row of usable) {
    if (left === 0) break;
    const baits = Math.min(left, row.baits);
    takes.push({ pourId: row.pourId, baits });
    left -= baits;
  }
  return takes;
}

export function stockOut(
  db: Db,
  out: What & { id?: string | undefined; kind: 'fished' | 'given' | 'scrapped'; baits: number; note: string },
  at: string,
): void {
  const { id, kind, note, baitId, recipeId } = out;
  take(db, out, out.baits, false, at).forEach(({ pourId, baits }, index) => {
    insert(db, 'stock_move', {
      id: newId(index === 0 ? id : undefined),
      kind,
      baitId,
      recipeId,
      pourId,
      baits: -baits,
      note,
      at,
    });
  });
}

/** One bag for an order line, from cured stock; its code leads back to the pours. */
export function fillBag(
  db: Db,
  line: { id: string; baitId: string; recipeId: string; perPack: number },
  at: string,
): void {
  const { baitId, recipeId } = line;
  const takes = take(db, { baitId, recipeId }, line.perPack, true, at);
  const id = newId();
  insert(db, 'bag', {
    id,
    code: `B${nextNumber(db, 'bag')}`,
    baitId,
    recipeId,
    orderLineId: line.id,
    baits: line.perPack,
    at,
  });
  for (const { pourId, baits } of takes) {
    insert(db, 'stock_move', { id: newId(), kind: 'packed', baitId, recipeId, pourId, baits: -baits, bagId: id, at });
  }
}

const BAG = `SELECT bag.id, bag.code, bag.order_line_id AS line_id, bait.name AS bait_name, recipe.name AS recipe_name, recipe.hex,
  bag.baits, bag.at, EXISTS (SELECT 1 FROM stock_move u WHERE u.bag_id = bag.id AND u.kind = 'unpacked') AS gone
  FROM bag JOIN bait ON bait.id = bag.bait_id JOIN recipe ON recipe.id = bag.recipe_id`;

function withPours(db: Db, { gone, ...bag }: Omit<Bag, 'pours' | 'order' | 'unpacked'> & { gone: boolean }): Bag {
  return {
    ...bag,
    unpacked: gone,
    pours: all(
      db,
      `SELECT pour.id, pour.code, -k.baits AS baits FROM stock_move k JOIN pour ON pour.id = k.pour_id WHERE k.bag_id = ? AND k.kind = 'packed'`,
      [bag.id],
    ),
    order:
      first(
        db,
        `SELECT o.id, o.code, customer.name AS customer FROM order_line l JOIN customer_order o ON o.id = l.order_id
         JOIN customer ON customer.id = o.customer_id WHERE l.id = ?`,
        [bag.lineId],
      ) ?? null,
  };
}

export function bagByCode(db: Db, code: string): Bag {
  const row = first<Parameters<typeof withPours>[1]>(db, `${BAG} WHERE bag.code = ? COLLATE NOCASE`, [code]);
  if (!row) throw new Failure('not-found', `No bag bears the code ${code.slice(0, 20)}.`);
  return withPours(db, row);
}

export const bagsOfOrder = (db: Db, orderId: string) =>
  all<Parameters<typeof withPours>[1]>(
    db,
    `${BAG} WHERE bag.order_line_id IN (SELECT id FROM order_line WHERE order_id = ?) ORDER BY bag.at, bag.id`,
    [orderId],
  ).map((row) => withPours(db, row));

/** Opens a bag again: its baits go back on the rack, to the pours they came from. */
export function unpack(db: Db, bag: Bag, at: string): void {
  if (bag.unpacked) throw new Failure('already-reversed', `Bag ${bag.code} was opened already.`);
  const moves = all<{ id: string; baitId: string; recipeId: string; pourId: string; baits: number }>(
    db,
    `SELECT * FROM stock_move WHERE bag_id = ? AND kind = 'packed'`,
    [bag.id],
  );
  for (const { id, baitId, recipeId, pourId, baits } of moves) {
    insert(db, 'stock_move', {
      id: newId(),
      kind: 'unpacked',
      baitId,
      recipeId,
      pourId,
      baits: -baits,
      bagId: bag.id,
      reverses: id,
      at,
    });
  }
}

export const stockMoves = (db: Db) =>
  all<StockMove & { gone: boolean }>(
    db,
    `SELECT k.id, k.kind, bait.name AS bait_name, recipe.name AS recipe_name, recipe.hex, k.pour_id, pour.code AS pour_code, k.baits,
      k.note, k.at, EXISTS (SELECT 1 FROM stock_move u WHERE u.reverses = k.id) AS gone
     FROM stock_move k JOIN bait ON bait.id = k.bait_id JOIN recipe ON recipe.id = k.recipe_id JOIN pour ON pour.id = k.pour_id
     WHERE k.kind IN ('fished', 'given', 'scrapped') ORDER BY k.seq DESC LIMIT 30`,
  ).map(({ gone, ...move }) => ({ ...move, reversed: gone }));

/** Takes back baits that left without an order. */
export function reverseMove(db: Db, moveId: string, own: string | undefined, at: string): void {
  const move = first<{ baitId: string; recipeId: string; pourId: string; baits: number }>(
    db,
    `SELECT * FROM stock_move WHERE id = ? AND kind IN ('fished', 'given', 'scrapped')`,
    [moveId],
  );
  if (!move) throw new Failure('not-found', 'There is no such move to take back.');
  const { baitId, recipeId, pourId, baits } = move;
  insert(db, 'stock_move', {
    id: newId(own),
    kind: 'reversed',
    baitId,
    recipeId,
    pourId,
    baits: -baits,
    reverses: moveId,
    at,
  });
}
