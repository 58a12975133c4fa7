import { addMinutes } from 'date-fns/addMinutes';
import { addSeconds } from 'date-fns/addSeconds';
import type * as v from 'valibot';
import { listQuery } from '../../contract/fields.ts';
import { type MoldRow, moldBody, moldEventBody, moldPatch } from '../../contract/molds.ts';
import { Failure } from '../../core/failure.ts';
import { mixTurn } from '../../core/mold/inMixes.ts';
import { topUp } from '../../core/mold/silicone.ts';
import { STEP_OF_LINE } from '../../core/process/clocks.ts';
import { DEMOLD, RELEASE } from '../../core/process/making.ts';
import { type CastingEvent, isReleased } from '../../core/process/setting.ts';
import { durationText } from '../../core/units/show.ts';
import { clockStep } from '../clocks/store.ts';
import type { Db } from '../db/open.ts';
import { all, first, insert, mustFind, update } from '../db/rows.ts';
import { endpoint } from '../http/endpoint.ts';
import { newId } from '../ids.ts';
import { drawMaterial } from '../materials/store.ts';
import { moldCareEndpoints } from './careRoutes.ts';
import { addMold, getMold, listMolds, refuseInserts } from './store.ts';

const touches = ['molds', 'materials', 'masters', 'baits', 'clocks', 'line', 'today'];

const planOf = (mold: MoldRow) => {
  if (!mold.plan) throw new Failure('invalid-input', 'This mold was not planned here, so there is no mix to time.');
  return mold.plan;
};

function drawRubber(db: Db, mold: MoldRow, grams: number, at: string): void {
  if (mold.rubberId) drawMaterial(db, mold.rubberId, grams, { moldId: mold.id }, at);
}

/** Both clocks run from the moment the parts meet, at the plan's own room temperature. A two-piece mold is mixed twice. */
function startRubberClocks(db: Db, mold: MoldRow, now: Date): Record<string, unknown> {
  const { potLifeMin, demoldMin, pours } = planOf(mold).output;
  const before = all<{ id: string }>(db, "SELECT id FROM mold_event WHERE mold_id = ? AND kind = 'mixed'", [mold.id]);
  const { half, mix, of, again } = mixTurn(
    pours.map((pour) => pour.mixes),
    before.length,
  );
  if (again) refuseTwice(db, mold, 'mixed', now);
  if (mix > 0 && !again) refuseAtOnce(db, mold, now);
  if (half > 0 && mix === 0) {
    const ticked = all<CastingEvent>(
      db,
      'SELECT kind, step, at FROM mold_event WHERE mold_id = ? AND step = ? ORDER BY seq',
      [mold.id, RELEASE],
    );
    if (!isReleased(ticked))
      throw new Failure(
        'invalid-input',
        'Release agent first: without it the second half bonds to the first for good. Tick that step, then mix.',
        'kind',
      );
  }
  const whole = pours.length > 1 ? `${mold.name}, ${half === 0 ? 'first' : 'second'} half` : mold.name;
  const name = of > 1 ? `${whole}, mix ${mix + 1} of ${of}` : whole;
  const step = mix > 0 && !again ? 'mixedMore' : mold.making?.bed || again ? 'mixedAnew' : 'mixed';
  clockStep(db, step, { type: 'mold', id: mold.id }, now, {
    'pot-life': { label: `Pot life of ${name}`, dueAt: addSeconds(now, potLifeMin * 60) },
    demold: { label: `Demold ${whole}`, dueAt: addMinutes(now, demoldMin) },
  });
  const pour = pours[half] as (typeof pours)[number];
  drawRubber(db, mold, (pour.gramsA + pour.gramsB) / of, now.toISOString());
  return { potLifeMin, demoldMin, half, mix };
}

/** Nobody stirs the next mix to one colour this soon after the one before: a second tap of the same glove. */
const LEAST_APART_MS = 60_000;

function refuseAtOnce(db: Db, mold: MoldRow, now: Date): void {
  const last = first<{ at: string }>(
    db,
    "SELECT at FROM mold_event WHERE mold_id = ? AND kind = 'mixed' ORDER BY seq DESC LIMIT 1",
    [mold.id],
  );
  if (last && now.getTime() - Date.parse(last.at) < LEAST_APART_MS)
    throw new Failure(
      'already-started',
      'The mix before was counted a moment ago. Tap again once the next one is one colour.',
      'kind',
    );
}

/** How long before its clock a mold is opened, for the record; asked about before it is done. */
function earlyBy(db: Db, moldId: string, sure: boolean, now: Date): { earlyS: number } | null {
  const { readyAt } = getMold(db, moldId);
  if (readyAt === null || readyAt === 'unmixed') return null;
  const earlyS = Math.round((Date.parse(readyAt) - now.getTime()) / 1000);
  if (earlyS <= 0) return null;
  if (!sure)
    throw new Failure(
      'too-early',
      `By its clock this rubber sets for ${durationText(earlyS)} more. Opened now it can tear, stay tacky or lose its shape.`,
      'step',
    );
  return { earlyS };
}

/** A second press while the pot life of the first still runs mixes nothing again. */
function refuseTwice(db: Db, mold: MoldRow, kind: 'mixed' | 'bedded', now: Date): void {
  const last = first<{ at: string; detail: Record<string, unknown> | null }>(
    db,
    'SELECT at, detail FROM mold_event WHERE mold_id = ? AND kind = ? ORDER BY seq DESC LIMIT 1',
    [mold.id, kind],
  );
  const minutes = Number(last?.detail?.potLifeMin ?? last?.detail?.workMin ?? 0);
  const running = last !== undefined && Date.parse(last.at) + minutes * 60_000 > now.getTime();
  if (!running) return;
  throw new Failure(
    'already-started',
    kind === 'mixed'
      ? 'It was mixed already and its pot life runs. Came up short? Tap that instead.'
      : 'The bed was poured already and its clock runs.',
    'kind',
  );
}

/** Resin is worked until it thickens, and holds once it is firm. */
function startBedClocks(db: Db, mold: MoldRow, now: Date): Record<string, unknown> {
  const bed = mold.making?.bed;
  if (!bed) throw new Failure('invalid-input', 'This mold was not planned with a bed, so there is no resin to time.');
  const { workMin, firmMin } = bed;
  refuseTwice(db, mold, 'bedded', now);
  clockStep(db, 'bedded', { type: 'mold', id: mold.id }, now, {
    'pot-life': { label: `Straighten the masters of ${mold.name}`, dueAt: addSeconds(now, workMin * 60) },
    demold: { label: `Bed of ${mold.name} is firm`, dueAt: addSeconds(now, firmMin * 60) },
  });
  return { workMin, firmMin };
}

/** Plastic of the plain first pour leaves the store; it is no shot, so it is in no yield. */
function firstPourOf(db: Db, mold: MoldRow, grams: number, at: string): Record<string, unknown> {
  const plastisol = first<{ id: string; name: string }>(
    db,
    "SELECT id, name FROM material WHERE kind = 'plastisol' ORDER BY created_at LIMIT 1",
  );
  if (plastisol) drawMaterial(db, plastisol.id, grams, { moldId: mold.id }, at);
  return { grams, of: plastisol?.name ?? null };
}

function topUpOf(db: Db, mold: MoldRow, missingDepthMm: number, now: Date): Record<string, unknown> {
  const { input, output } = planOf(mold);
  const mixed = first<{ at: string }>(
    db,
    `SELECT at FROM mold_event WHERE mold_id = ? AND kind = 'mixed' ORDER BY seq DESC`,
    [mold.id],
  );
  if (!mixed) throw new Failure('invalid-input', 'Tap "Mixed" first, so that the time since then is known.');
  const top = topUp({
    mix: input.mix,
    boxLengthMm: output.boxLengthMm,
    boxWidthMm: output.boxWidthMm,
    missingDepthMm,
    wasteFraction: input.wasteFraction,
    minutesSinceMixed: (now.getTime() - Date.parse(mixed.at)) / 60000,
    potLifeMin: output.potLifeMin,
  });
  drawRubber(db, mold, top.gramsA + top.gramsB, now.toISOString());
  return { missingDepthMm, ...top };
}

/** What each kind of event starts, draws or works out; it is kept beside it. */
function follow(db: Db, mold: MoldRow, body: v.InferOutput<typeof moldEventBody>, now: Date) {
  switch (body.kind) {
    case 'mixed':
      return startRubberClocks(db, mold, now);
    case 'topped-up':
      return topUpOf(db, mold, body.missingDepthMm, now);
    case 'bedded':
      return startBedClocks(db, mold, now);
    case 'first-pour':
      return firstPourOf(db, mold, body.grams, now.toISOString());
    case 'step':
      return body.step === DEMOLD ? earlyBy(db, mold.id, body.sure, now) : null;
    default:
      return null;
  }
}

/** One event of a mold with all that follows from it. */
function addEvent(db: Db, moldId: string, body: v.InferOutput<typeof moldEventBody>, now: Date): void {
  const mold = mustFind<MoldRow>(db, 'mold', moldId, 'mold');
  const detail = follow(db, mold, body, now);
  const row = { moldId, at: now.toISOString() };
  if (body.kind === 'first-pour')
    insert(db, 'mold_event', { ...row, id: newId(), kind: 'step', step: 'first', detail: null });
  const step = 'step' in body ? body.step : null;
  const ticked = body.kind === 'step' ? STEP_OF_LINE[body.step] : undefined;
  if (ticked) clockStep(db, ticked, { type: 'mold', id: moldId }, now);
  insert(db, 'mold_event', { ...row, id: newId(body.id), kind: body.kind, step, detail });
}

export const moldEndpoints = [
  ...moldCareEndpoints,
  endpoint({ method: 'GET', path: '/molds', query: listQuery, run: ({ db, query }) => listMolds(db, query) }),
  endpoint({ method: 'GET', path: '/molds/:id', run: ({ db, params }) => getMold(db, params.id as string) }),
  endpoint({
    method: 'POST',
    path: '/molds',
    body: moldBody,
    touches,
    run: ({ db, body, now, at }) => {
      const id = addMold(db, body, at);
      if (body.mixed) addEvent(db, id, { kind: 'mixed' }, now);
      return getMold(db, id);
    },
  }),
  endpoint({
    method: 'PATCH',
    path: '/molds/:id',
    body: moldPatch,
    versioned: true,
    touches,
    run: ({ db, body, params, version, at }) => {
      const { retired, ...values } = body;
      if (body.inserts)
        refuseInserts(body.inserts, mustFind<MoldRow>(db, 'mold', params.id as string, 'mold').cavities);
      const retirement = retired === undefined ? {} : { retiredAt: retired ? at : null };
      update(db, 'mold', params.id as string, version, { ...values, ...retirement }, 'mold');
      return getMold(db, params.id as string);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/molds/:id/events',
    body: moldEventBody,
    touches,
    run: ({ db, body, params, now }) => {
      addEvent(db, params.id as string, body, now);
      return getMold(db, params.id as string);
    },
  }),
];
