import { type Grade, TRIMMED } from '../../core/yield/grades.ts';
import type { Db } from '../db/open.ts';
import { all, run } from '../db/rows.ts';

export interface MoldCount {
  moldId: string;
  drawn: number;
  sell: number;
  own: number;
  remelt: number;
}

export const NOTHING = { drawn: 0, sell: 0, own: 0, remelt: 0 };

/** All that was looked at, and what of it cannot be sold. */
export const madeOf = ({ sell, own, remelt }: Omit<MoldCount, 'moldId' | 'drawn'>) => sell + own + remelt;
export const rejectedOf = ({ own, remelt }: Pick<MoldCount, 'own' | 'remelt'>) => own + remelt;

// CROSS JOIN keeps the order of the loops: a pour's few shots first, then their marks.
const NEWEST = `
  SELECT m.shot_id, t.mold_id, m.cavity, m.grade, m.reason, max(m.seq) FROM shot_live t CROSS JOIN cavity_mark m ON m.shot_id = t.id
  WHERE t.pour_id = @pourId GROUP BY m.shot_id, m.cavity`;

const LIVE = `
  SELECT s.mold_id, count(DISTINCT s.id) AS drawn, coalesce(sum(n.grade = 'sell'), 0) AS sell,
    coalesce(sum(n.grade = 'own'), 0) AS own, coalesce(sum(n.grade = 'remelt'), 0) AS remelt
  FROM shot_live s LEFT JOIN (${NEWEST}) n ON n.shot_id = s.id
  WHERE s.pour_id = @pourId GROUP BY s.mold_id`;

/** Shots and grades of each mold of a pour, from the marks as they stand now. */
export const countMarks = (db: Db, pourId: string) => all<MoldCount>(db, LIVE, { pourId });

/** The same for pours of any age, by pour: the sums kept at its close, or the marks of one still open. */
export function countsOfMany(db: Db, pourIds: string[]): Map<string, MoldCount[]> {
  const counts = new Map<string, MoldCount[]>();
  const rows = all<MoldCount & { pourId: string }>(
    db,
    `SELECT pour_id, mold_id, drawn, sell, own, remelt FROM pour_mold
     WHERE pour_id IN (SELECT value FROM json_each(?)) AND drawn IS NOT NULL`,
    [JSON.stringify(pourIds)],
  );
  for (const { pourId, ...row } of rows) counts.set(pourId, [...(counts.get(pourId) ?? []), row]);
  for (const id of pourIds) if (!counts.has(id)) counts.set(id, countMarks(db, id));
  return counts;
}

/** All that every mold has made so far: sums of closed cups, and the marks of the open ones. */
export function countsByMold(db: Db): Map<string, MoldCount> {
  const counts = new Map(
    all<MoldCount>(db, 'SELECT mold_id, drawn, sell, own, remelt FROM mold_sum').map((row) => [row.moldId, row]),
  );
  for (const id of openPours(db)) {
    for (const row of countMarks(db, id)) {
      const sum = counts.get(row.moldId) ?? { ...NOTHING, moldId: row.moldId };
      counts.set(row.moldId, {
        ...sum,
        drawn: sum.drawn + row.drawn,
        sell: sum.sell + row.sell,
        own: sum.own + row.own,
        remelt: sum.remelt + row.remelt,
      });
    }
  }
  return counts;
}

const openPours = (db: Db) =>
  all<{ id: string }>(db, 'SELECT id FROM pour WHERE closed_at IS NULL').map((row) => row.id);

export interface Flash {
  made: number;
  flash: number;
}

/** How many of a mold's baits had flash in cups that are still open, by cup. */
export function openFlash(db: Db, moldId: string): Map<string, Flash> {
  const found = new Map<string, Flash>();
  for (const pourId of openPours(db)) {
    const rows = all<CavityCount>(db, BY_CAVITY, { pourId }).filter((row) => row.moldId === moldId);
    const made = rows.reduce((sum, row) => sum + row.count, 0);
    if (made > 0) found.set(pourId, { made, flash: flashIn(rows) });
  }
  return found;
}

const flashIn = (rows: CavityCount[]) =>
  rows.reduce((sum, { reason, count }) => sum + (reason === TRIMMED ? count : 0), 0);

export interface CavityCount {
  moldId: string;
  cavity: number;
  grade: Grade;
  reason: string;
  count: number;
}

const BY_CAVITY = `SELECT mold_id, cavity, grade, coalesce(reason, 'none') AS reason, count(*) AS count FROM (${NEWEST})
  WHERE grade <> 'unmarked' GROUP BY mold_id, cavity, grade, coalesce(reason, 'none')`;

/** What came of every cavity so far: the sums of closed cups, then the marks of each open one. Reasons may be there twice. */
export function countsByCavity(db: Db, moldId: string): CavityCount[] {
  const closed = all<CavityCount>(
    db,
    'SELECT mold_id, cavity, grade, reason, count FROM cavity_sum WHERE mold_id = ?',
    [moldId],
  );
  const open = openPours(db).flatMap((pourId) => all<CavityCount>(db, BY_CAVITY, { pourId }));
  return [...closed, ...open.filter((row) => row.moldId === moldId)];
}

/** How often baits could not be sold for each reason, most often first. */
export function faultCounts(db: Db): { reason: string; count: number }[] {
  const counts = new Map<string, number>();
  const add = ({ reason, count }: { reason: string; count: number }) =>
    counts.set(reason, (counts.get(reason) ?? 0) + count);
  for (const row of all<CavityCount>(
    db,
    `SELECT reason, sum(count) AS count FROM cavity_sum WHERE grade <> 'sell' GROUP BY reason`,
  ))
    add(row);
  for (const pourId of openPours(db))
    for (const row of all<CavityCount>(db, BY_CAVITY, { pourId })) if (row.grade !== 'sell') add(row);
  return [...counts].map(([reason, count]) => ({ reason, count })).sort((a, b) => b.count - a.count);
}

/** Keeps what a cup came to, now that none of its marks changes any more. */
export function keepCounts(db: Db, pourId: string): void {
  run(
    db,
    `INSERT INTO cavity_sum (mold_id, cavity, grade, reason, count) SELECT * FROM (${BY_CAVITY}) WHERE 1
     ON CONFLICT DO UPDATE SET count = count + excluded.count`,
    { pourId },
  );
  const rows = all<CavityCount>(db, BY_CAVITY, { pourId });
  for (const counted of countMarks(db, pourId)) {
    const flash = flashIn(rows.filter((row) => row.moldId === counted.moldId));
    const sql = `UPDATE pour_mold SET drawn = @drawn, sell = @sell, own = @own, remelt = @remelt, flash = @flash
      WHERE pour_id = @pourId AND mold_id = @moldId`;
    run(db, sql, { pourId, ...counted, flash });
  }
}

interface Marked {
  grade: Grade;
  reason: string | null;
}

/** What was kept at the closing is put right: of the cup, of the mold, of the cavity, and its flash. */
export function correctCounts(
  db: Db,
  { pourId, moldId, cavity }: { pourId: string; moldId: string; cavity: number },
  was: Marked,
  is: Marked,
): void {
  for (const [{ grade, reason }, by] of [
    [was, -1],
    [is, 1],
  ] as const) {
    const flash = reason === TRIMMED ? by : 0;
    const ofCup = `UPDATE pour_mold SET ${grade} = ${grade} + @by, flash = flash + @flash WHERE pour_id = @pourId AND mold_id = @moldId`;
    run(db, ofCup, { by, flash, pourId, moldId });
    run(db, `UPDATE mold_sum SET ${grade} = ${grade} + @by WHERE mold_id = @moldId`, { by, moldId });
    const ofCavity = `INSERT INTO cavity_sum (mold_id, cavity, grade, reason, count) VALUES (@moldId, @cavity, @grade, @reason, @by)
      ON CONFLICT DO UPDATE SET count = count + excluded.count`;
    run(db, ofCavity, { moldId, cavity, grade, reason: reason ?? 'none', by });
  }
}

/**
 * Baits that were sold and found wrong later are rejects of their mold and their cup; which cavity they came from nobody
 * knows: it stands as the cavity 0, which no mold has.
 * @param by how many; less than nothing takes it back.
 */
export function countComplaint(
  db: Db,
  { pourId, moldId, reason }: { pourId: string; moldId: string; reason: string },
  by: number,
): void {
  const ofCup =
    'UPDATE pour_mold SET sell = sell - @by, remelt = remelt + @by WHERE pour_id = @pourId AND mold_id = @moldId';
  run(db, ofCup, { by, pourId, moldId });
  run(db, 'UPDATE mold_sum SET sell = sell - @by, remelt = remelt + @by WHERE mold_id = @moldId', { by, moldId });
  const ofReason = `INSERT INTO cavity_sum (mold_id, cavity, grade, reason, count) VALUES (@moldId, 0, 'remelt', @reason, @by)
    ON CONFLICT DO UPDATE SET count = count + excluded.count`;
  run(db, ofReason, { moldId, reason, by });
}

export const totalOf = (counts: MoldCount[], of: Exclude<keyof MoldCount, 'moldId'>) =>
  counts.reduce((sum, row) => sum + row[of], 0);
