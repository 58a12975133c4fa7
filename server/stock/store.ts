import type { Bag, RackGrade, RackRow, Recall, StockMove } from '../../contract/orders.ts';
import { usual } from '../../core/defaults.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, nextNumber, type Row } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { takeBag, takePackedWith } from '../materials/store.ts';
import { RACK } from './lying.ts';

const LYING = `SELECT rack.bait_id, bait.name AS bait_name, bait.shape, rack.colourway_id, c.name AS colourway_name, c.hex,
      rack.pour_id, pour.code AS pour_code, rack.grade, rack.baits, rack.cured_at, rack.cured_at <= @at AS cured
  FROM ${RACK} JOIN bait ON bait.id = rack.bait_id JOIN colourway_called c ON c.id = rack.colourway_id JOIN pour ON pour.id = rack.pour_id`;
const OLDEST_FIRST = 'ORDER BY rack.cured_at, pour.code';

type Lying = Omit<RackRow, 'promised'>;

/** Everything on the rack, oldest pour first, so that the oldest is packed first. */
export const rack = (db: Db, at: string) => all<Lying>(db, `${LYING} ${OLDEST_FIRST}`, { at });

/** The same of one bait in one colour and grade. */
const rackOf = (db: Db, at: string, { baitId, colourwayId, grade }: What) =>
  all<Lying>(
    db,
    `${LYING} WHERE rack.colourway_id = @colourwayId AND rack.bait_id = @baitId AND rack.grade = @grade ${OLDEST_FIRST}`,
    {
      at,
      baitId,
      colourwayId,
      grade,
    },
  );

interface Take {
  pourId: string;
  baits: number;
}

interface What {
  baitId: string;
  colourwayId: string;
  grade: RackGrade;
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
      `${ready} of ${wanted} are cured; the rest may be packed after ${usual('cureH')} hours of cure.`,
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
  const rows = rackOf(db, at, what).filter((row) => (!what.pourId || row.pourId === what.pourId) && row.baits > 0);
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
  const { id, kind, note, baitId, colourwayId, grade } = out;
  take(db, out, out.baits, false, at).forEach(({ pourId, baits }, index) => {
    insert(db, 'stock_move', {
      id: newId(index === 0 ? id : undefined),
      kind,
      baitId,
      colourwayId,
      pourId,
      grade,
      baits: -baits,
      note,
      at,
    });
  });
}

interface Filled {
  id: string;
  baitId: string;
  colourwayId: string;
  perPack: number;
}

/** One bag for an order line, or for the lines of a set, from cured stock; its code leads back to the pours. @returns its id. */
export function fillBag(db: Db, lines: Filled[], bagsId: string | undefined, at: string): string {
  const [first] = lines as [Filled];
  const id = newId();
  insert(db, 'bag', { id, code: `B${nextNumber(db, 'bag')}`, orderLineId: first.id, at });
  lines.forEach((line, position) => {
    const { baitId, colourwayId, perPack } = line;
    const takes = take(db, { baitId, colourwayId, grade: 'sell' }, perPack, true, at);
    insert(db, 'bag_content', { bagId: id, position, baitId, colourwayId, baits: perPack });
    if (position > 0) insert(db, 'bag_line', { orderLineId: line.id, bagId: id });
    for (const { pourId, baits } of takes)
      insert(db, 'stock_move', {
        id: newId(),
        kind: 'packed',
        baitId,
        colourwayId,
        pourId,
        baits: -baits,
        bagId: id,
        at,
      });
  });
  takeBag(db, id, bagsId, at);
  takePackedWith(db, id, at);
  return id;
}

const BAG = `SELECT bag.id, bag.code, bag.order_line_id AS line_id, bag.at,
  EXISTS (SELECT 1 FROM stock_move u WHERE u.bag_id = bag.id AND u.kind = 'unpacked') AS gone FROM bag`;

type BareBag = Omit<Bag, 'pours' | 'order' | 'unpacked' | 'baits' | 'contents'> & { gone: boolean };

/** What lies in each of these bags. */
function contentsByBag(db: Db, bagIds: string[]): Map<string, Bag['contents']> {
  const contents = new Map<string, Bag['contents']>(bagIds.map((id) => [id, []]));
  for (const { bagId, ...row } of all<Bag['contents'][number] & { bagId: string }>(
    db,
    `SELECT k.bag_id, k.bait_id, bait.name AS bait_name, k.colourway_id, c.name AS colourway_name, c.hex, k.baits FROM bag_content k
     JOIN bait ON bait.id = k.bait_id JOIN colourway_called c ON c.id = k.colourway_id
     WHERE k.bag_id IN (SELECT value FROM json_each(?)) ORDER BY k.bag_id, k.position`,
    [JSON.stringify(bagIds)],
  ))
    contents.get(bagId)?.push(row);
  return contents;
}

/** The pours that bags were filled from, by bag. */
function poursByBag(db: Db, bagIds: string[]): Map<string, Bag['pours']> {
  const pours = new Map<string, Bag['pours']>(bagIds.map((id) => [id, []]));
  for (const { bagId, ...pour } of all<Bag['pours'][number] & { bagId: string }>(
    db,
    `SELECT k.bag_id, pour.id, pour.code, -k.baits AS baits FROM stock_move k JOIN pour ON pour.id = k.pour_id
     WHERE k.bag_id IN (SELECT value FROM json_each(?)) AND k.kind = 'packed' ORDER BY k.seq`,
    [JSON.stringify(bagIds)],
  ))
    pours.get(bagId)?.push(pour);
  return pours;
}

function withPours(db: Db, bags: BareBag[]): Bag[] {
  const ids = bags.map((bag) => bag.id);
  const [pours, contents] = [poursByBag(db, ids), contentsByBag(db, ids)];
  const orders = new Map<string, Bag['order']>();
  const orderOf = (lineId: string | null) => {
    if (lineId === null) return null;
    const known = orders.get(lineId);
    if (known !== undefined) return known;
    const found =
      first<NonNullable<Bag['order']>>(
        db,
        `SELECT o.id, o.code, customer.name AS customer FROM order_line l JOIN customer_order o ON o.id = l.order_id
         JOIN customer ON customer.id = o.customer_id WHERE l.id = ?`,
        [lineId],
      ) ?? null;
    orders.set(lineId, found);
    return found;
  };
  return bags.map(({ gone, ...bag }) => ({
    ...bag,
    contents: contents.get(bag.id) ?? [],
    baits: (contents.get(bag.id) ?? []).reduce((sum, row) => sum + row.baits, 0),
    unpacked: gone,
    pours: pours.get(bag.id) ?? [],
    order: orderOf(bag.lineId),
  }));
}

export function bagByCode(db: Db, code: string): Bag {
  const row = first<BareBag>(db, `${BAG} WHERE bag.code = ? COLLATE NOCASE`, [code]);
  if (!row) throw new Failure('not-found', `No bag bears the code ${code.slice(0, 20)}.`);
  return withPours(db, [row])[0] as Bag;
}

/** Sister bags of a bag, and what of its cups still lies on the rack: what is called back if its baits are at fault. */
export function recallOf(db: Db, { id }: Pick<Bag, 'id'>): Recall {
  const pours = `SELECT DISTINCT pour_id FROM stock_move WHERE bag_id = @id AND kind = 'packed'`;
  return {
    bags: all(
      db,
      `SELECT bag.code, -sum(k.baits) AS baits, bag.at, customer.name AS customer, o.sent_at, pour.code AS pour_code
       FROM stock_move k JOIN bag ON bag.id = k.bag_id JOIN pour ON pour.id = k.pour_id
       LEFT JOIN order_line l ON l.id = bag.order_line_id LEFT JOIN customer_order o ON o.id = l.order_id
       LEFT JOIN customer ON customer.id = o.customer_id
       WHERE k.pour_id IN (${pours}) AND bag.id <> @id GROUP BY bag.id, pour.id HAVING sum(k.baits) < 0
       ORDER BY bag.at, bag.code LIMIT 500`,
      { id },
    ),
    onRack: all(
      db,
      `SELECT pour.code AS pour_code, sum(r.baits) AS baits FROM rack_level r JOIN pour ON pour.id = r.pour_id
       WHERE r.pour_id IN (${pours}) GROUP BY pour.id HAVING sum(r.baits) > 0 ORDER BY pour.code`,
      { id },
    ),
  };
}

export const bagsOfOrder = (db: Db, orderId: string): Bag[] =>
  withPours(
    db,
    all<BareBag>(
      db,
      `${BAG} WHERE bag.order_line_id IN (SELECT id FROM order_line WHERE order_id = ?) ORDER BY bag.at, bag.id`,
      [orderId],
    ),
  );

/** Opens a bag again: its baits go back on the rack, to the pours they came from. */
export function unpack(db: Db, bag: Bag, at: string): void {
  if (bag.unpacked) throw new Failure('already-reversed', `Bag ${bag.code} was opened already.`);
  const moves = all<{ id: string; baitId: string; colourwayId: string; pourId: string; baits: number }>(
    db,
    `SELECT * FROM stock_move WHERE bag_id = ? AND kind = 'packed'`,
    [bag.id],
  );
  for (const { id, baitId, colourwayId, pourId, baits } of moves) {
    insert(db, 'stock_move', {
      id: newId(),
      kind: 'unpacked',
      baitId,
      colourwayId,
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
    `SELECT k.id, k.kind, bait.name AS bait_name, c.name AS colourway_name, c.hex, k.pour_id, pour.code AS pour_code, k.grade, k.baits,
      k.note, k.at, EXISTS (SELECT 1 FROM stock_move u WHERE u.reverses = k.id) AS gone
     FROM stock_move k JOIN bait ON bait.id = k.bait_id JOIN colourway_called c ON c.id = k.colourway_id JOIN pour ON pour.id = k.pour_id
     WHERE k.kind IN ('fished', 'given', 'scrapped') ORDER BY k.seq DESC LIMIT 30`,
  ).map(({ gone, ...move }) => ({ ...move, reversed: gone }));

/** What leaves the rack without an order comes back as many. */
export const backOnTheRack = ({ baits }: Row) => ({ kind: 'reversed', baits: -Number(baits), note: '' });

/** What was poured or packed is undone where it was done: by weighing again, by opening the bag. */
export function refuseUnlessMoved({ kind }: Row): void {
  if (!['fished', 'given', 'scrapped'].includes(String(kind)))
    throw new Failure('not-found', 'There is no such move to take back.');
}
