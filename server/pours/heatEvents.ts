import type { HeatEvent } from '../../core/instruments/standIn.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';

/** What happened to a cup's heat, for what stands in for its thermometer. */
export function heatEventsOf(db: Db, pourId: string): HeatEvent[] {
  const bursts = all<{ at: string; watts: number; level: number; seconds: number; massG: number }>(
    db,
    `SELECT at, watts, level, seconds, mass_g FROM burst b WHERE pour_id = ? AND ${standing('burst', 'b')}`,
    [pourId],
  ).map(({ at, ...burst }): HeatEvent => ({ what: 'burst', ms: Date.parse(at), ...burst }));
  // What the instrument itself told is no new truth; what was typed is.
  const reads = all<{ at: string; c: number }>(
    db,
    `SELECT at, c FROM heat h WHERE pour_id = ? AND instrument_id IS NULL AND ${standing('heat', 'h')}`,
    [pourId],
  ).map(({ at, c }): HeatEvent => ({ what: 'read', ms: Date.parse(at), c }));
  const stirs = all<{ at: string }>(db, `SELECT at FROM stir s WHERE pour_id = ? AND ${standing('stir', 's')}`, [
    pourId,
  ]).map(({ at }): HeatEvent => ({ what: 'stir', ms: Date.parse(at) }));
  return [...bursts, ...reads, ...stirs].sort((a, b) => a.ms - b.ms);
}

/** What stands on a scale that a cup is put on: it and its plastic, g. */
export function cupMassG(db: Db, pourId: string): number {
  const row = first<{ cookG: number }>(db, `SELECT json_extract(plan, '$.cookG') AS cook_g FROM pour WHERE id = ?`, [
    pourId,
  ]);
  return row?.cookG ?? 0;
}
