import { addDays } from 'date-fns/addDays';
import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { format } from 'date-fns/format';
import { getISODay } from 'date-fns/getISODay';
import { parseISO } from 'date-fns/parseISO';
import {
  type DayOff,
  isWish,
  type PlanAsked,
  typedLine,
  type WithLine,
  type WorkHours,
  wishLine,
} from '../../contract/plan.ts';
import type { Workshop } from '../../contract/workshop.ts';
import { usual } from '../../core/defaults.ts';
import { usableMl } from '../../core/plan/glasses.ts';
import { handsS } from '../../core/plan/hours.ts';
import { meltsOf } from '../../core/plan/layers.ts';
import { lightnessOf } from '../../core/plan/lightToDark.ts';
import { waitOf, waitsByKind } from '../../core/process/waits.ts';
import { takingRemelt } from '../bins/store.ts';
import type { Db } from '../db/open.ts';
import { all, mustFind } from '../db/rows.ts';
import { type OpenLine, openLines } from '../orders/need.ts';
import { packTime } from '../orders/packing.ts';
import { handsOf } from '../pours/hands.ts';
import { openCups } from '../pours/parts.ts';
import { DRAWN_IN } from '../pours/readings.ts';
import { steadyWaits } from '../pours/sets.ts';
import { wishesLeft } from '../season/store.ts';
import { RACK } from '../stock/lying.ts';
import { workshop } from '../workshop/store.ts';
import { type Drawing, drawingOf } from './drawing.ts';
import { colourMeans, dayMeans, materialsFor, remeltFor } from './means.ts';
import { daysOff, hoursOf, pins } from './store.ts';

/** Days that are planned at least and at most. */
const [LEAST_DAYS, MOST_DAYS] = [7, 28];
const dayOf = (time: Date) => format(time, 'yyyy-MM-dd');

/** Glasses that stand at the bench or are laid out for it, and what hands they still take. */
function underWay(
  db: Db,
  hands: Map<string, number>,
  open: ReturnType<typeof openCups>,
): { minutes: number; glasses: number; baits: number } {
  const left = all<{ moldId: string; cavities: number; shots: number; all: number }>(
    db,
    `SELECT pm.mold_id, mold.cavities, max(0, pm.shots - ${DRAWN_IN}) AS shots, pm.shots AS "all"
     FROM pour JOIN pour_mold pm ON pm.pour_id = pour.id JOIN mold ON mold.id = pm.mold_id
     WHERE pour.closed_at IS NULL AND pour.lead_id IS NULL`,
  );
  const seconds = left.reduce(
    (sum, { moldId, cavities, shots }) => sum + shots * (hands.get(moldId) ?? handsS(cavities)),
    0,
  );
  return {
    minutes: seconds === 0 ? 0 : usual('setUpMin') + seconds / 60,
    glasses: open.reduce((sum, { glasses }) => sum + glasses, 0),
    baits: left.reduce((sum, row) => sum + row.all * row.cavities, 0),
  };
}

/** The hours of each day: of all makers together, and of the one who stays longest. */
function evenings(
  off: DayOff[],
  from: Date,
  count: number,
  hours: WorkHours[],
  begun: ReturnType<typeof underWay>,
  { eveningH, glasses }: Workshop,
): PlanAsked['asked']['days'] {
  // Where nobody said who works when, one pair of hands works the usual evening.
  const said = hours.filter(({ hours: mine }) => mine !== null);
  return Array.from({ length: count }, (_, n) => {
    const at = addDays(from, n);
    const day = dayOf(at);
    const closed = off.some((one) => one.day === day && one.makerId === null);
    const mine = said
      .filter(({ makerId }) => !off.some((one) => one.day === day && one.makerId === makerId))
      .map(({ hours: week }) => 60 * (week?.[getISODay(at) - 1] ?? 0));
    const given = closed ? [] : said.length > 0 ? mine : [60 * eveningH];
    // What stands there already takes its hands and its glass first.
    const [takenMin, taken] = n === 0 ? [begun.minutes, begun.glasses] : [0, 0];
    const hands = given.reduce((sum, one) => sum + one, 0);
    return {
      day,
      handsMin: Math.max(0, hands - takenMin),
      lengthMin: Math.max(0, Math.max(0, ...given) - takenMin),
      glasses: Math.max(0, glasses - taken),
    };
  });
}

/** What is wanted for the rack, as lines of no order. */
export const wishedLines = (db: Db, now: Date): OpenLine[] =>
  wishesLeft(db, dayOf(now)).map(({ id, baitId, colourwayId, baits, dueOn }) => ({
    lineId: wishLine(id),
    baitId,
    colourwayId,
    packs: 1,
    perPack: baits,
    baits,
    orderId: '',
    code: 'stock',
    customer: 'the rack',
    dueOn,
    inPour: 0,
  }));

/** Lines of open orders, and those that are only typed: looked at for as long as anything is planned. */
function wantedIn(db: Db, now: Date, typed: WithLine[]): OpenLine[] {
  const dueOn = dayOf(addDays(now, MOST_DAYS - 2));
  return [
    ...openLines(db),
    ...wishedLines(db, now),
    ...typed.map(({ baitId, colourwayId, packs, perPack }, index) => {
      mustFind(db, 'bait', baitId, 'bait');
      mustFind(db, 'colourway', colourwayId, 'colour');
      const named = { orderId: '', code: '', customer: '', dueOn, inPour: 0 };
      return { lineId: typedLine(index), baitId, colourwayId, packs, perPack, baits: packs * perPack, ...named };
    }),
  ];
}

/** What lies on the rack by when it is cured, and what open cups were laid out to make: that is cured tomorrow at the soonest. */
function stockFor(db: Db, now: Date, planned: OpenLine[]): NonNullable<PlanAsked['asked']['stock']> {
  const lying = all<{ baitId: string; colourwayId: string; baits: number; curedAt: string }>(
    db,
    `SELECT bait_id, colourway_id, sum(baits) AS baits, cured_at FROM ${RACK} WHERE grade = 'sell'
     GROUP BY bait_id, colourway_id, cured_at HAVING sum(baits) > 0`,
  ).map(({ curedAt, ...row }) => ({ ...row, ready: dayOf(new Date(Math.max(now.getTime(), Date.parse(curedAt)))) }));
  const ready = dayOf(addDays(now, 1));
  const pouring = planned
    .filter(({ inPour }) => inPour > 0)
    .map(({ baitId, colourwayId, inPour, baits }) => ({ baitId, colourwayId, baits: Math.min(inPour, baits), ready }));
  const wanted = new Set(planned.map(({ baitId, colourwayId }) => `${baitId} ${colourwayId}`));
  return [...lying, ...pouring]
    .filter(({ baitId, colourwayId }) => wanted.has(`${baitId} ${colourwayId}`))
    .map(({ baitId, colourwayId, baits, ready: from }) => ({ baitId, colourId: colourwayId, baits, ready: from }));
}

/** The molds with what a shot of each takes of hands, time and plastic. */
function moldsFor(
  db: Db,
  now: Date,
  { molds, shotMl }: Drawing,
  hands: Map<string, number>,
): PlanAsked['asked']['molds'] {
  const waits = steadyWaits(db);
  return molds
    .filter(({ id }) => shotMl.has(id))
    .map(({ id, baitId, cavities, kind, fill, readyAt }) => ({
      id,
      baitId,
      cavities,
      handsS: hands.get(id) ?? handsS(cavities),
      waitS: waits.get(id) ?? waitOf(waitsByKind(kind), 0),
      shotMl: shotMl.get(id) as number,
      injected: fill === 'injection',
      ...(readyAt !== null && Date.parse(readyAt) > now.getTime() ? { from: dayOf(new Date(readyAt)) } : {}),
    }));
}

/** What the next evenings are to make, of whom, with what: the calculator's question out of the records. */
export function planAsked(db: Db, now: Date, typed: WithLine[] = []): PlanAsked {
  const today = dayOf(now);
  const wanted = wantedIn(db, now, typed);
  const latest = [today, ...wanted.map(({ dueOn }) => dueOn)].sort().at(-1) as string;
  const far = differenceInCalendarDays(parseISO(latest), parseISO(today)) + 2;
  const [hours, off] = [hoursOf(db), daysOff(db, today)];
  const hands = new Map(handsOf(db, null).map((one) => [one.moldId, one.handsS]));
  const open = openCups(db);
  const [shop, remelt, begun] = [workshop(db), takingRemelt(db), underWay(db, hands, open)];
  const count = Math.min(MOST_DAYS, Math.max(LEAST_DAYS, far));
  const days = dayMeans(db, now, evenings(off, now, count, hours, begun, shop), begun.baits, shop);
  const drawing = drawingOf(db, wanted);
  const { baits, colours, molds, layers, without } = drawing;
  const keyOf = (line: OpenLine) => `${line.baitId} ${line.colourwayId}`;
  const planned = wanted.filter((line) => !without.has(keyOf(line)));
  const colourIds = new Set(planned.map(({ colourwayId }) => colourwayId));
  const last = days.at(-1)?.day as string;
  const fixed = pins(db, today).filter(({ colourwayId, day }) => colourIds.has(colourwayId) && day <= last);
  const { glassMl, injectors } = shop;
  const means = colourMeans(db, drawing, { shop, remelt, hands, open });
  const packing = packTime(db);
  const { packS } = packing;
  const perPackOf = (baitId: string) => {
    // What goes onto the rack is packed with the order that takes it.
    const mine = planned.filter((line) => line.baitId === baitId && !isWish(line.lineId));
    return mine.length > 0 ? mine.reduce((sum, { perPack }) => sum + perPack, 0) / mine.length : null;
  };
  const pouredColours = colours
    .filter(({ id }) => colourIds.has(id))
    .map(({ id, hex }) => ({
      id,
      lightness: lightnessOf(hex),
      melts: Math.max(1, meltsOf(layers.get(id) ?? []).length),
      share: drawing.shares.get(id) ?? 1,
      ...means.of.get(id),
    }));
  const materials = materialsFor(db, now, pouredColours, means.taken);
  return {
    asked: {
      days,
      lines: planned.map(({ lineId, baitId, colourwayId, baits: n, perPack, dueOn }) => ({
        id: lineId,
        baitId,
        colourId: colourwayId,
        baits: n,
        perPack,
        due: dueOn,
      })),
      stock: stockFor(db, now, planned),
      baits: baits.map(({ id, finishS, dryH }) => {
        const perPack = perPackOf(id);
        return { id, packS: perPack === null ? 0 : packS / perPack, finishS, dryH };
      }),
      molds: moldsFor(db, now, drawing, hands),
      colours: pouredColours,
      materials: materials.map(({ id, g, comesOn }) => ({ id, g, from: comesOn })),
      injectors,
      rejects: baits.map(({ id }) => {
        const mine = molds.filter(({ baitId }) => baitId === id);
        const sum = (of: 'made' | 'rejected') => mine.reduce((total, mold) => total + mold[of], 0);
        return { baitId: id, made: sum('made'), rejected: sum('rejected') };
      }),
      glassMl: usableMl(glassMl),
      residueMl: Math.min(drawing.residueMl, usableMl(glassMl) / 2),
      pins: fixed.map(({ colourwayId, day, pours }) => ({ colourId: colourwayId, day, on: pours })),
    },
    lines: wanted.map(({ lineId, inPour: _, baitId: _b, colourwayId: _c, ...line }) => ({ id: lineId, ...line })),
    baits,
    colours,
    molds: molds.map(({ id, name }) => ({ id, name })),
    unplanned: wanted.flatMap((line) =>
      without.has(keyOf(line)) ? [{ lineId: line.lineId, why: without.get(keyOf(line)) ?? null }] : [],
    ),
    materials,
    remelt: remeltFor(db, remelt.share),
    packing,
    hours,
    off,
    pins: fixed,
  };
}
