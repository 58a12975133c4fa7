import { createHash } from 'node:crypto';
import type * as v from 'valibot';
import type { ListQuery } from '../../contract/fields.ts';
import type { KickFit, Ladder, LadderRow, Trial, WaterTest } from '../../contract/water.ts';
import { usual } from '../../core/defaults.ts';
import { type ShapeSpec, tailOf } from '../../core/shape/spec.ts';
import type { fitKickSchema } from '../../core/water/fitKick.ts';
import { END_PADDLE } from '../../core/water/kick.ts';
import { standing } from '../db/log.ts';
import type { Db } from '../db/open.ts';
import { all, mustFind } from '../db/rows.ts';
import type { Beside } from '../http/endpoint.ts';
import { page } from '../http/list.ts';
import { LAST_SHOT_AT } from '../pours/readings.ts';

type FitTrial = v.InferOutput<typeof fitKickSchema>['trials'][number];

const TESTS = {
  select: `SELECT /*sort*/ t.*, r.number AS revision_number, r.master_id, bait.name AS master_name, pour.code AS pour_code,
      (julianday(t.at) - julianday(${LAST_SHOT_AT})) * 24 AS age_h
    FROM water_test t JOIN master_revision r ON r.id = t.revision_id LEFT JOIN pour ON pour.id = t.pour_id
    JOIN master ON master.id = r.master_id JOIN bait ON bait.id = master.bait_id`,
  sorts: { time: 't.seq', master: 'bait.name' },
  order: '-time',
  search: "(bait.name || ' ' || t.place_name || ' ' || t.notes) LIKE @q",
  where: standing('water_test', 't'),
  idColumn: 't.id',
};

export const listTests = (db: Db, query: ListQuery) => page<WaterTest>(db, TESTS, query);

export const testsOf = (db: Db, masterId: string) =>
  all<WaterTest>(
    db,
    `${TESTS.select.replace('/*sort*/', '')} WHERE ${TESTS.where} AND r.master_id = ? ORDER BY t.seq DESC LIMIT 500`,
    [masterId],
  );

export const getTest = (db: Db, id: string) => {
  mustFind(db, 'water_test', id, 'water test');
  return all<WaterTest>(db, `${TESTS.select.replace('/*sort*/', '')} WHERE t.id = ?`, [id])[0] as WaterTest;
};

const LADDERS = {
  select: `SELECT /*sort*/ ladder.*, (SELECT count(*) FROM ladder_trial t WHERE t.ladder_id = ladder.id AND ${standing('ladder_trial', 't')}) AS trials FROM ladder`,
  sorts: { created: 'created_at', name: 'name' },
  order: '-created',
  search: 'name LIKE @q',
  idColumn: 'ladder.id',
};

export const listLadders = (db: Db, query: ListQuery) => page<LadderRow>(db, LADDERS, query);

const trialsOf = (db: Db, ladderId: string) =>
  all<Trial>(
    db,
    `SELECT t.id, t.step, t.hz, t.kicks_at_m_per_s, t.not_at_m_per_s, t.at FROM ladder_trial t
     WHERE t.ladder_id = ? AND ${standing('ladder_trial', 't')} ORDER BY t.seq`,
    [ladderId],
  );

/** What a trial says, without what it leaves open. */
function said({ hz, kicksAtMPerS, notAtMPerS }: Pick<Trial, 'hz' | 'kicksAtMPerS' | 'notAtMPerS'>) {
  return {
    ...(hz !== null ? { hz } : {}),
    ...(kicksAtMPerS !== null ? { kicksAtMPerS } : {}),
    ...(notAtMPerS !== null ? { notAtMPerS } : {}),
  };
}

const WATER = { plastisolDensityGPerMl: usual('plastisolGPerMl'), waterDensityGPerMl: usual('waterGPerMl') };

function ladderTrials(ladder: Omit<LadderRow, 'trials'>, trials: Trial[]): FitTrial[] {
  return trials.flatMap((trial) => {
    const step = ladder.steps[trial.step];
    return step
      ? [{ tail: END_PADDLE, scale: ladder.scale, hardness: ladder.hardness, ...step, ...WATER, ...said(trial) }]
      : [];
  });
}

/** A ladder with its trials. */
export function getLadder(db: Db, id: string): BareLadder {
  const { trials: _, ...ladder } = mustFind<LadderRow>(db, 'ladder', id, 'tail ladder');
  return { ...ladder, trials: trialsOf(db, id) };
}

export type BareLadder = Omit<Ladder, 'fit' | 'next'>;

/** The same with what its trials say together with all others, and which step to draw next. */
export async function judgedLadder(ladder: BareLadder, beside: Beside): Promise<Ladder> {
  const { trials } = ladder;
  const open = ladder.steps.flatMap((_step, index) => (trials.some((trial) => trial.step === index) ? [] : [index]));
  const { all: known } = everyTrial(beside.db);
  const candidates = open.map((index) => ({
    tail: END_PADDLE,
    scale: ladder.scale,
    hardness: ladder.hardness,
    ...(ladder.steps[index] as (typeof ladder.steps)[number]),
    ...WATER,
  }));
  const fit =
    known.length > 0 ? await fitted({ trials: known, candidates, walkingMPerS: ladder.walkingMPerS }, beside) : null;
  const next = fit
    ? fit.teaches.map(({ index, bits, chanceItKicks }) => ({ step: open[index] as number, bits, chanceItKicks }))
    : // Nothing known yet: the middle step is the one in doubt.
      [...open]
        .sort((a, b) => Math.abs(a - 2) - Math.abs(b - 2))
        .map((step) => ({ step, bits: 0, chanceItKicks: 0.5 }));
  return { ...ladder, trials, fit, next };
}

interface TestedRow {
  scale: 'A' | '00';
  hardness: number;
  speeds: WaterTest['speeds'];
  spec: ShapeSpec;
}

/** A water test of a sculpted paddle at known speeds is a trial too: the slowest kick, and the fastest without one. */
function testTrial({ scale, hardness, speeds, spec }: TestedRow): FitTrial[] {
  const tail = tailOf(spec);
  const known = speeds.flatMap((one) => (one.mPerS === null ? [] : [{ ...one, mPerS: one.mPerS }]));
  if (!tail || known.length === 0) return [];
  const kicking = known.filter((one) => one.kicks !== 'no').sort((a, b) => a.mPerS - b.mPerS)[0];
  const still = known.filter((one) => one.kicks === 'no').sort((a, b) => b.mPerS - a.mPerS)[0];
  if (kicking && still && still.mPerS >= kicking.mPerS) return [];
  return [
    {
      tail: END_PADDLE,
      scale,
      hardness,
      ...tail,
      ...WATER,
      ...(kicking ? { kicksAtMPerS: kicking.mPerS } : {}),
      ...(still ? { notAtMPerS: still.mPerS } : {}),
    },
  ];
}

const inModel = (trial: FitTrial) =>
  trial.scale === 'A' ? trial.hardness >= 20 && trial.hardness <= 80 : trial.hardness >= 5 && trial.hardness <= 60;

/** Most trials that are fitted at once, the newest first. */
const MOST_TRIALS = 400;

function everyTrial(db: Db): { all: FitTrial[]; fromLadders: number; fromTests: number } {
  const ladders = all<Omit<LadderRow, 'trials'>>(db, 'SELECT * FROM ladder ORDER BY created_at DESC LIMIT 40');
  const drawn = ladders.flatMap((ladder) => ladderTrials(ladder, trialsOf(db, ladder.id))).filter(inModel);
  const tested = all<TestedRow>(
    db,
    `SELECT t.scale, t.hardness, t.speeds, r.spec FROM water_test t JOIN master_revision r ON r.id = t.revision_id
     WHERE ${TESTS.where} AND r.spec IS NOT NULL AND t.hardness IS NOT NULL AND t.scale IS NOT NULL
       AND t.ending IS NOT 'void' ORDER BY t.seq DESC LIMIT 200`,
  )
    .flatMap(testTrial)
    .filter(inModel);
  return {
    all: [...drawn, ...tested].slice(0, MOST_TRIALS),
    fromLadders: drawn.length,
    fromTests: tested.length,
  };
}

export async function kickFit(beside: Beside): Promise<KickFit> {
  const { all: trials, fromLadders, fromTests } = everyTrial(beside.db);
  const fit =
    trials.length > 0 ? await fitted({ trials, candidates: [], walkingMPerS: usual('walkingMPerS') }, beside) : null;
  return { fit, fromLadders, fromTests };
}

type Fit = NonNullable<KickFit['fit']>;

/** A fit of hundreds of trials takes a second: it is made once for what is known, beside the server. */
const fits = new Map<string, Promise<Fit>>();
const KEPT_FITS = 40;

function fitted(wish: v.InferInput<typeof fitKickSchema>, { jobs }: Beside): Promise<Fit> {
  const key = createHash('sha256').update(JSON.stringify(wish)).digest('hex');
  const known = fits.get(key);
  if (known) return known;
  const made = jobs.calculate('bait.fitKick', wish) as Promise<Fit>;
  fits.set(key, made);
  // One that was stopped is made anew for the next who asks.
  made.catch(() => fits.delete(key));
  if (fits.size > KEPT_FITS) fits.delete(fits.keys().next().value as string);
  return made;
}
