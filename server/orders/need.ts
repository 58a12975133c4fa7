import type { RackRow } from '../../contract/orders.ts';
import type { PlanLine } from '../../contract/plan.ts';
import { Failure } from '../../core/failure.ts';
import { type CupNeed, cupsFor, type Level, type LineNeed, shareOut, type Wanted } from '../../core/plan/need.ts';
import { waitOf, waitsByKind } from '../../core/process/waits.ts';
import { layersByColourway } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { all } from '../db/rows.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import { steadyWaits } from '../pours/sets.ts';
import { BAGS_PACKED } from '../stock/bags.ts';
import { RACK } from '../stock/lying.ts';
import { rack } from '../stock/store.ts';
import { workshop } from '../workshop/store.ts';

/** A line of an open order, and whose it is. */
export type OpenLine = Wanted & Omit<PlanLine, 'id' | 'baits'>;

/** Lines that still want something packed, earliest due first. */
export const openLines = (db: Db): OpenLine[] => wantedLines(db).filter(({ baits }) => baits > 0);

/** Lines of all open orders, earliest due first, with what is not yet packed. */
function wantedLines(db: Db): OpenLine[] {
  return all(
    db,
    `SELECT l.id AS line_id, l.order_id, l.bait_id, l.colourway_id, o.code, customer.name AS customer, o.due_on, l.packs, l.per_pack,
      max(0, l.packs - ${BAGS_PACKED}) * l.per_pack AS baits,
      coalesce((SELECT sum(pl.baits) FROM pour_order_line pl JOIN pour ON pour.id = pl.pour_id
        WHERE pl.order_line_id = l.id AND pour.closed_at IS NULL), 0) AS in_pour
     FROM order_line l JOIN customer_order o ON o.id = l.order_id JOIN customer ON customer.id = o.customer_id
     WHERE o.sent_at IS NULL AND o.cancelled_at IS NULL AND l.taken_at IS NULL ORDER BY o.due_on, o.created_at, l.position`,
  );
}

const levels = (db: Db, at: string) =>
  all<Level>(
    db,
    `SELECT bait_id, colourway_id, sum(iif(cured_at <= @at, baits, 0)) AS ready, sum(iif(cured_at <= @at, 0, baits)) AS curing
     FROM ${RACK} WHERE grade = 'sell' GROUP BY bait_id, colourway_id`,
    { at },
  );

export type PlacedNeed = LineNeed & { orderId: string };

/**
 * What every open order line gets from the rack and from open pours, and what is short.
 * @param beside what is wanted of no order: it gets what they leave.
 */
export function allNeeds(db: Db, at: string, beside: OpenLine[] = []): PlacedNeed[] {
  const wanted = [...wantedLines(db), ...beside];
  const needs = shareOut(wanted, levels(db, at));
  return needs.map((need, index) => ({ ...need, orderId: (wanted[index] as { orderId: string }).orderId }));
}

/** Cups that make these lines good; what cannot be planned is said as short of a mold. */
export function cups(db: Db, lines: LineNeed[], at: string): CupNeed[] {
  if (!lines.some((line) => line.short > 0)) return [];
  try {
    // 'unmixed' sorts after every moment, so one comparison serves both.
    const waits = steadyWaits(db);
    const { glassMl, eveningH, injectors } = workshop(db);
    const layers = layersByColourway(
      db,
      lines.filter((line) => line.short > 0).map((line) => line.colourwayId),
    );
    const usable = usableMolds(db);
    const levels = levelsOf(db, usable, [...layers.values()].flat());
    const molds = usable.map((mold) => ({
      ...mold,
      levels: levels.get(mold.id)?.levels,
      waits: mold.readyAt !== null && mold.readyAt > at,
      waitS: waits.get(mold.id) ?? waitOf(waitsByKind(mold.kind), 0),
    }));
    return cupsFor(lines, molds, { layersOf: (id) => layers.get(id) ?? [], glassMl, eveningH, injectors });
  } catch (error) {
    if (error instanceof Failure && error.code === 'too-large') return [];
    throw error;
  }
}

/** The rack with how many of each row are promised to open orders, oldest baits promised first. */
export function promisedByRack(db: Db, at: string): RackRow[] {
  const promised = new Map<string, number>();
  for (const need of allNeeds(db, at)) {
    const key = `${need.baitId} ${need.colourwayId}`;
    promised.set(key, (promised.get(key) ?? 0) + need.fromReady + need.fromCuring);
  }
  return rack(db, at).map((row) => {
    if (row.grade !== 'sell') return { ...row, promised: 0 };
    const key = `${row.baitId} ${row.colourwayId}`;
    const mine = Math.min(row.baits, promised.get(key) ?? 0);
    promised.set(key, (promised.get(key) ?? 0) - mine);
    return { ...row, promised: mine };
  });
}
