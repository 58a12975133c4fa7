import type { DayOff, PlanPin, WorkHours } from '../../contract/plan.ts';
import { Failure } from '../../core/failure.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, run } from '../db/rows.ts';
import { newId } from '../ids.ts';
import { makers } from '../workshop/store.ts';

export function hoursOf(db: Db): WorkHours[] {
  const rows = all<{ makerId: string; weekday: number; minutes: number }>(
    db,
    'SELECT * FROM work_hours ORDER BY weekday',
  );
  return makers(db).map(({ id, name }) => {
    const mine = rows.filter(({ makerId }) => makerId === id);
    return { makerId: id, name, hours: mine.length === 7 ? mine.map(({ minutes }) => minutes / 60) : null };
  });
}

export function setHours(db: Db, makerId: string, hours: number[]): void {
  mustFind(db, 'maker', makerId, 'maker');
  hours.forEach((each, index) => {
    run(
      db,
      `INSERT INTO work_hours (maker_id, weekday, minutes) VALUES (@makerId, @weekday, @minutes)
       ON CONFLICT (maker_id, weekday) DO UPDATE SET minutes = @minutes`,
      { makerId, weekday: index + 1, minutes: 60 * each },
    );
  });
}

export const daysOff = (db: Db, from: string): DayOff[] =>
  all(db, 'SELECT id, day, maker_id FROM day_off WHERE ended_at IS NULL AND day >= ? ORDER BY day LIMIT 400', [from]);

export const pins = (db: Db, from: string): PlanPin[] =>
  all<Omit<PlanPin, 'pours'> & { pours: number }>(
    db,
    'SELECT id, colourway_id, day, pours FROM plan_pin WHERE ended_at IS NULL AND day >= ? ORDER BY day LIMIT 400',
    [from],
  ).map((pin) => ({ ...pin, pours: Boolean(pin.pours) }));

function pinned(db: Db, colourwayId: string, day: string, pours: boolean, at: string): void {
  run(db, 'UPDATE plan_pin SET ended_at = @at WHERE colourway_id = @colourwayId AND day = @day AND ended_at IS NULL', {
    at,
    colourwayId,
    day,
  });
  insert(db, 'plan_pin', { id: newId(), colourwayId, day, pours, createdAt: at });
}

/** Puts a colour on another evening, and off the one it was on. */
export function moveCup(
  db: Db,
  { colourwayId, from, to }: { colourwayId: string; from: string; to: string },
  at: string,
): void {
  mustFind(db, 'colourway', colourwayId, 'colour');
  pinned(db, colourwayId, from, false, at);
  pinned(db, colourwayId, to, true, at);
}

/** Somebody, or everybody, is off on a day; said twice it is one. */
export function addOff(
  db: Db,
  { id, day, makerId }: { id?: string | undefined; day: string; makerId: string | null },
  at: string,
): void {
  const there = first(db, 'SELECT 1 FROM day_off WHERE day = @day AND maker_id IS @makerId AND ended_at IS NULL', {
    day,
    makerId,
  });
  if (!there) insert(db, 'day_off', { id: newId(id), day, makerId, createdAt: at });
}

/** @throws Failure `not-found` where it is no more. */
export function endRow(db: Db, table: 'plan_pin' | 'day_off', id: string, at: string): void {
  const row = first<{ endedAt: string | null }>(db, `SELECT ended_at FROM ${table} WHERE id = ?`, [id]);
  if (!row) throw new Failure('not-found', 'That is no longer there.');
  if (row.endedAt === null) run(db, `UPDATE ${table} SET ended_at = @at WHERE id = @id`, { at, id });
}

/** Lets go of all that was fixed by hand for one colour. */
export function letGo(db: Db, colourwayId: string, at: string): void {
  run(db, 'UPDATE plan_pin SET ended_at = @at WHERE colourway_id = @colourwayId AND ended_at IS NULL', {
    at,
    colourwayId,
  });
}
