import { addDays } from 'date-fns/addDays';
import { format } from 'date-fns/format';
import { subYears } from 'date-fns/subYears';
import type * as v from 'valibot';
import type { Season, SeasonRow, StockWish, wishBody } from '../../contract/season.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { allNeeds } from '../orders/need.ts';
import { RACK } from '../stock/lying.ts';

/** Seasons before these are another workshop's. */
const YEARS = 5;
const dayOf = (time: Date) => format(time, 'yyyy-MM-dd');
type Pair = { baitId: string; colourwayId: string };
const keyOf = ({ baitId, colourwayId }: Pair) => `${baitId} ${colourwayId}`;

const orderedIn = (db: Db, from: string, to: string) =>
  all<Pair & { baits: number }>(
    db,
    `SELECT l.bait_id, l.colourway_id, sum(l.packs * l.per_pack) AS baits FROM customer_order o JOIN order_line l ON l.order_id = o.id
     WHERE o.due_on >= @from AND o.due_on < @to AND o.cancelled_at IS NULL AND o.gift = 0 AND l.taken_at IS NULL GROUP BY l.bait_id, l.colourway_id`,
    { from, to },
  );

const named = (db: Db) => ({
  baits: new Map(
    all<{ id: string; name: string; shape: string }>(db, 'SELECT id, name, shape FROM bait').map((row) => [
      row.id,
      row,
    ]),
  ),
  colours: new Map(
    all<{ id: string; name: string; hex: string }>(db, 'SELECT id, name, hex FROM colourway_called').map((row) => [
      row.id,
      row,
    ]),
  ),
});

/** Baits that open cups were laid out to make beyond what they were laid out for orders, by bait and colour. */
function comingFree(db: Db): Map<string, number> {
  const rows = all<Pair & { baits: number }>(
    db,
    `SELECT mold.bait_id, pour.colourway_id, sum(pm.shots * mold.cavities) AS baits
     FROM pour JOIN pour_mold pm ON pm.pour_id = pour.id JOIN mold ON mold.id = pm.mold_id
     WHERE pour.closed_at IS NULL AND pour.lead_id IS NULL GROUP BY mold.bait_id, pour.colourway_id`,
  );
  const pledged = new Map(
    all<Pair & { baits: number }>(
      db,
      `SELECT l.bait_id, l.colourway_id, sum(p.baits) AS baits FROM pour JOIN pour_order_line p ON p.pour_id = pour.id
       JOIN order_line l ON l.id = p.order_line_id WHERE pour.closed_at IS NULL GROUP BY l.bait_id, l.colourway_id`,
    ).map((row) => [keyOf(row), row.baits]),
  );
  return new Map(rows.map((row) => [keyOf(row), Math.max(0, row.baits - (pledged.get(keyOf(row)) ?? 0))]));
}

/** Wishes that no open cup is laid out for yet, the earliest first: what of them is still to be planned. */
export function wishesLeft(db: Db, today: string): StockWish[] {
  const coming = comingFree(db);
  return stockWishes(db, today).flatMap((wish) => {
    const there = Math.min(wish.baits, coming.get(keyOf(wish)) ?? 0);
    coming.set(keyOf(wish), (coming.get(keyOf(wish)) ?? 0) - there);
    return wish.baits > there ? [{ ...wish, baits: wish.baits - there }] : [];
  });
}

export const stockWishes = (db: Db, today: string) =>
  all<StockWish>(
    db,
    `SELECT w.id, w.bait_id, bait.name AS bait_name, w.colourway_id, c.name AS colourway_name, c.hex, w.baits, w.due_on
     FROM stock_wish w JOIN bait ON bait.id = w.bait_id JOIN colourway_called c ON c.id = w.colourway_id
     WHERE w.ended_at IS NULL AND w.due_on >= ? ORDER BY w.due_on, w.created_at LIMIT 200`,
    [today],
  );

/** What lies on the rack, less all that open orders get of it. */
function freeOf(db: Db, at: string): Map<string, number> {
  const free = new Map<string, number>();
  const add = (pair: Pair, baits: number) => free.set(keyOf(pair), (free.get(keyOf(pair)) ?? 0) + baits);
  for (const row of all<Pair & { baits: number }>(
    db,
    `SELECT bait_id, colourway_id, sum(baits) AS baits FROM ${RACK} WHERE grade = 'sell' GROUP BY bait_id, colourway_id`,
  ))
    add(row, row.baits);
  for (const need of allNeeds(db, at)) add(need, -need.fromReady - need.fromCuring);
  return free;
}

/** The weeks ahead, as they were in each earlier year on record; what lies there; what lies there for nothing. */
export function seasonOf(db: Db, now: Date, weeks: number): Season {
  const [from, to] = [now, addDays(now, 7 * weeks)];
  const today = dayOf(now);
  const begun = first<{ day: string | null }>(db, 'SELECT min(due_on) AS day FROM customer_order')?.day ?? today;
  const years = Array.from({ length: YEARS }, (_, n) => n + 1).filter((n) => begun <= dayOf(subYears(from, n)));
  const past = years.map((n) => orderedIn(db, dayOf(subYears(from, n)), dayOf(subYears(to, n))));
  const ahead = new Map(orderedIn(db, today, dayOf(to)).map((row) => [keyOf(row), row.baits]));
  const free = freeOf(db, now.toISOString());
  const wishes = stockWishes(db, today);
  const { baits, colours } = named(db);
  const rows = new Map<string, SeasonRow>();
  past.forEach((sold, year) => {
    for (const { baitId, colourwayId, baits: n } of sold) {
      const key = keyOf({ baitId, colourwayId });
      const row = rows.get(key) ?? {
        baitId,
        baitName: baits.get(baitId)?.name ?? '',
        shape: baits.get(baitId)?.shape ?? 'stick',
        colourwayId,
        colourwayName: colours.get(colourwayId)?.name ?? '',
        hex: colours.get(colourwayId)?.hex ?? '#888888',
        sold: years.map(() => 0),
        ordered: ahead.get(key) ?? 0,
        free: Math.max(0, free.get(key) ?? 0),
        wished: wishes.filter((one) => keyOf(one) === key).reduce((sum, one) => sum + one.baits, 0),
      };
      row.sold[year] = n;
      rows.set(key, row);
    }
  });
  return { from: today, to: dayOf(to), rows: [...rows.values()], dead: deadOf(db, now), wishes };
}

/** What lies there and was not ordered for a year: no more of it is poured. */
function deadOf(db: Db, now: Date): Season['dead'] {
  const since = dayOf(subYears(now, 1));
  return all<Season['dead'][number]>(
    db,
    `SELECT rack.bait_id, bait.name AS bait_name, rack.colourway_id, c.name AS colourway_name, c.hex, sum(rack.baits) AS baits,
       (SELECT max(o.due_on) FROM order_line l JOIN customer_order o ON o.id = l.order_id
        WHERE l.colourway_id = rack.colourway_id AND l.bait_id = rack.bait_id AND o.cancelled_at IS NULL AND l.taken_at IS NULL) AS last_on
     FROM ${RACK} JOIN bait ON bait.id = rack.bait_id JOIN colourway_called c ON c.id = rack.colourway_id
     WHERE rack.grade = 'sell' GROUP BY rack.bait_id, rack.colourway_id HAVING sum(rack.baits) > 0 ORDER BY 6 DESC`,
  ).filter(({ lastOn }) => lastOn === null || lastOn < since);
}

export function addWish(db: Db, { id, ...wish }: v.InferOutput<typeof wishBody>, at: string): void {
  mustFind(db, 'bait', wish.baitId, 'bait');
  mustFind(db, 'colourway', wish.colourwayId, 'colour');
  if (wish.dueOn < at.slice(0, 10)) throw new Failure('invalid-input', 'That day is past.', 'dueOn');
  insert(db, 'stock_wish', { id: newId(id), ...wish, createdAt: at });
}

export function endWish(db: Db, id: string, at: string): void {
  mustFind(db, 'stock_wish', id, 'wish');
  run(db, 'UPDATE stock_wish SET ended_at = coalesce(ended_at, @at) WHERE id = @id', { at, id });
}
