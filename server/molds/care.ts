import type { Insight } from '../../contract/insight.ts';
import type { DipReading, MoldCare, MoldRow, SparkRun, Weighed, Weighing } from '../../contract/molds.ts';
import { meanInserts } from '../../core/mold/inserts.ts';
import { medianLife } from '../../core/mold/life.ts';
import { weighed } from '../../core/mold/weighed.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, first } from '../db/rows.ts';
import { type MoldCount, openFlash } from '../pours/counts.ts';
import { shotsSince } from '../pours/readings.ts';

/** The care logs by the name they go by outside; rows are only added, and taken back by a row of their own. */
export const LOG_TABLES = { weighings: 'mold_weighing', dips: 'dip_reading', sparks: 'spark_run' } as const;

function logOf<T>(db: Db, log: keyof typeof LOG_TABLES, columns: string, moldId: string): T[] {
  const table = LOG_TABLES[log];
  return all<T>(
    db,
    `SELECT t.id, ${columns}, t.at FROM ${table} t WHERE t.mold_id = ? AND ${standing(table, 't')} ORDER BY t.seq`,
    [moldId],
  );
}

/** What every mold weighed, by mold. */
export function weighingsByMold(db: Db): Map<string, Weighing[]> {
  const byMold = new Map<string, Weighing[]>();
  for (const { moldId, ...row } of all<Weighing & { moldId: string }>(
    db,
    `SELECT t.id, t.mold_id, t.of, t.count, t.grams, t.density_g_per_ml, t.at FROM mold_weighing t
     WHERE ${standing('mold_weighing', 't')} ORDER BY t.seq`,
  ))
    byMold.set(moldId, [...(byMold.get(moldId) ?? []), row]);
  return byMold;
}

type Held = Pick<MoldRow, 'cavityMl' | 'sprueMl' | 'runnerMl' | 'estimate' | 'weighed'>;

/** The plastic that a mold takes: as weighed where it was, less what its inserts take up of the estimate. */
export function heldBy(
  mold: Pick<MoldRow, 'cavities' | 'cavityMl' | 'sprueMl' | 'runnerMl' | 'inserts'>,
  readings: Weighing[],
): Held {
  const { cavities, cavityMl, sprueMl, runnerMl } = mold;
  const estimate = { cavityMl, sprueMl, runnerMl };
  const { staysG, takenMl } = meanInserts(mold.inserts ?? [], cavities);
  // Never nothing: inserts that fill a whole cavity are told on the mold's page.
  const plainMl = Math.max(cavityMl / 1000, cavityMl - takenMl);
  if (readings.length === 0) return { ...estimate, cavityMl: plainMl, estimate, weighed: null };
  const found = weighed({
    cavities,
    estimate: { cavityMl, channelsMl: sprueMl + runnerMl },
    insertG: staysG,
    insertMl: cavityMl - plainMl,
    readings: readings.map(({ of, count, grams, densityGPerMl }) => ({ of, count, grams, densityGPerMl })),
  });
  const { cavityFrom, channelsFrom, spread, toEstimate, problem } = found;
  const told: Weighed = { cavityFrom, channelsFrom, spread, toEstimate, problem };
  return {
    cavityMl: found.cavityMl,
    ...(channelsFrom > 0 ? { sprueMl: found.channelsMl, runnerMl: 0 } : { sprueMl, runnerMl }),
    estimate,
    weighed: told,
  };
}

const cleanedAtOf = (db: Db, moldId: string) =>
  first<{ at: string }>(
    db,
    "SELECT at FROM mold_event WHERE mold_id = ? AND kind = 'cleaned' ORDER BY seq DESC LIMIT 1",
    [moldId],
  )?.at ?? null;

/** By cup, the newest forty, oldest first. */
function flashOf(db: Db, moldId: string): MoldCare['flash'] {
  const closed = all<MoldCare['flash'][number]>(
    db,
    `SELECT * FROM (
       SELECT pm.pour_id, pour.code, pour.laid_out_at AS at, pm.sell + pm.own + pm.remelt AS made, pm.flash
       FROM pour_mold pm JOIN pour ON pour.id = pm.pour_id WHERE pm.mold_id = ? AND pm.drawn IS NOT NULL
       ORDER BY pour.laid_out_at DESC LIMIT 40
     ) WHERE made > 0 ORDER BY at`,
    [moldId],
  );
  const open = [...openFlash(db, moldId)].map(([pourId, counted]) => ({
    ...(first(db, 'SELECT id AS pour_id, code, laid_out_at AS at FROM pour WHERE id = ?', [pourId]) as {
      pourId: string;
      code: string;
      at: string;
    }),
    ...counted,
  }));
  return [...closed, ...open].slice(-40);
}

/** How long molds of a kind lasted here. */
function lifeOf(db: Db, kind: string, counts: Map<string, MoldCount>): MoldCare['life'] {
  const molds = all<{ id: string; retiredAt: string | null }>(db, 'SELECT id, retired_at FROM mold WHERE kind = ?', [
    kind,
  ]);
  const lives = molds.map(({ id, retiredAt }) => ({ shots: counts.get(id)?.drawn ?? 0, retired: retiredAt !== null }));
  // One that never was poured did not wear out.
  return medianLife(lives.filter((one) => one.shots > 0));
}

export function careOf(db: Db, mold: Pick<MoldRow, 'id' | 'kind'>, counts: Map<string, MoldCount>): MoldCare {
  const cleanedAt = cleanedAtOf(db, mold.id);
  return {
    cleanedAt,
    shotsSinceCleaned: shotsSince(db, mold.id, cleanedAt ?? ''),
    life: lifeOf(db, mold.kind, counts),
    flash: flashOf(db, mold.id),
    weighings: logOf<Weighing>(db, 'weighings', 't.of, t.count, t.grams, t.density_g_per_ml', mold.id),
    dips: logOf<DipReading>(db, 'dips', 't.dips, t.wall_mm, t.cup_c', mold.id),
    sparks: logOf<SparkRun>(
      db,
      'sparks',
      't.electrode, t.pass, t.amps, t.from_mm, t.to_mm, t.minutes, t.efficiency, t.seen',
      mold.id,
    ),
  };
}

/** The worn molds that this one was made anew of, newest first, and what took its own place. */
export function lineOf(db: Db, mold: Pick<MoldRow, 'id' | 'rebuiltFromId'>, counts: Map<string, MoldCount>) {
  const before: { id: string; name: string; shots: number }[] = [];
  for (let id = mold.rebuiltFromId; id && before.length < 50; ) {
    const one = first<{ name: string; rebuiltFromId: string | null }>(
      db,
      'SELECT name, rebuilt_from_id FROM mold WHERE id = ?',
      [id],
    );
    if (!one) break;
    before.push({ id, name: one.name, shots: counts.get(id)?.drawn ?? 0 });
    id = one.rebuiltFromId;
  }
  const after =
    first<{ id: string; name: string }>(db, 'SELECT id, name FROM mold WHERE rebuilt_from_id = ? ORDER BY created_at', [
      mold.id,
    ]) ?? null;
  return { before, after };
}

/** Plain first pours of molds, and grams of those that were weighed; they are in no yield. */
export const firstPoursSince = (db: Db, at: string) =>
  first<Insight['firstPours']>(
    db,
    `SELECT count(DISTINCT iif(step = 'first' AND kind = 'step', mold_id, NULL)) AS count,
       count(DISTINCT iif(kind = 'first-pour', mold_id, NULL)) AS weighed,
       coalesce(sum(iif(kind = 'first-pour', detail ->> 'grams', 0)), 0) AS grams
     FROM mold_event WHERE at >= ?`,
    [at],
  ) as Insight['firstPours'];
