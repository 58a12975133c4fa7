import { addDays } from 'date-fns/addDays';
import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { format } from 'date-fns/format';
import { getISODay } from 'date-fns/getISODay';
import { parseISO } from 'date-fns/parseISO';
import { type PlanAsked, type PlanLine, typedLine, type WithLine, type WorkHours } from '../../contract/plan.ts';
import { type Told, tried } from '../../core/failure.ts';
import { cupFor } from '../../core/plan/cup.ts';
import { drawnOf, usableMl } from '../../core/plan/glasses.ts';
import { handsS } from '../../core/plan/hours.ts';
import { meltsOf } from '../../core/plan/layers.ts';
import { lightnessOf } from '../../core/plan/lightToDark.ts';
import { waitOf, waitsByKind } from '../../core/process/waits.ts';
import { layersByColourway } from '../colourways/store.ts';
import type { Db } from '../db/open.ts';
import { all, mustFind } from '../db/rows.ts';
import { levelsOf } from '../molds/levels.ts';
import { usableMolds } from '../molds/store.ts';
import { openLines } from '../orders/need.ts';
import { handsOf } from '../pours/hands.ts';
import { steadyWaits } from '../pours/sets.ts';
import { RACK } from '../stock/lying.ts';
import { workshop } from '../workshop/store.ts';
import { daysOff, hoursOf, pins } from './store.ts';

/** Days that are planned at least and at most. */
const [LEAST_DAYS, MOST_DAYS] = [7, 28];
const dayOf = (time: Date) => format(time, 'yyyy-MM-dd');

/** The hours of each day: of all makers together, and of the one who stays longest. */
function evenings(db: Db, from: Date, count: number, hours: WorkHours[]): PlanAsked['asked']['days'] {
  const { eveningH, glasses } = workshop(db);
  const off = daysOff(db, dayOf(from));
  // Where nobody said who works when, one pair of hands works the usual evening.
  const said = hours.filter(({ hours: mine }) => mine !== null);
  return Array.from({ length: count }, (_, n) => {
    const at = addDays(from, n);
    const day = dayOf(at);
    const closed = off.some((one) => one.day === day && one.makerId === null);
    const mine = said
      .filter(({ makerId }) => !off.some((one) => one.day === day && one.makerId === makerId))
      .map(({ hours: mine }) => 60 * (mine?.[getISODay(at) - 1] ?? 0));
    const all = closed ? [] : said.length > 0 ? mine : [60 * eveningH];
    return { day, handsMin: all.reduce((sum, one) => sum + one, 0), lengthMin: Math.max(0, ...all), glasses };
  });
}

/** What the next evenings are to make, of whom, with what: the calculator's question out of the records. */
export function planAsked(db: Db, now: Date, typed: WithLine[] = []): PlanAsked {
  const today = dayOf(now);
  // What is only typed is looked at for as long as anything is planned.
  const farthest = dayOf(addDays(now, MOST_DAYS - 2));
  const wanted = [
    ...openLines(db),
    ...typed.map(({ baitId, colourwayId, packs, perPack }, index) => {
      mustFind(db, 'bait', baitId, 'bait');
      mustFind(db, 'colourway', colourwayId, 'colour');
      const named = { orderId: '', code: '', customer: '', dueOn: farthest };
      return {
        lineId: typedLine(index),
        baitId,
        colourwayId,
        packs,
        perPack,
        baits: packs * perPack,
        inPour: 0,
        ...named,
      };
    }),
  ];
  const latest = [today, ...wanted.map(({ dueOn }) => dueOn)].sort().at(-1) as string;
  const count = Math.min(
    MOST_DAYS,
    Math.max(LEAST_DAYS, differenceInCalendarDays(parseISO(latest), parseISO(today)) + 2),
  );
  const { glassMl, packS } = workshop(db);
  const colourways = all<{ id: string; name: string; hex: string }>(
    db,
    `SELECT id, name, hex FROM colourway_called WHERE id IN (SELECT value FROM json_each(@ids))`,
    { ids: JSON.stringify([...new Set(wanted.map(({ colourwayId }) => colourwayId))]) },
  );
  const baits = all<{ id: string; name: string; shape: string }>(
    db,
    `SELECT id, name, shape FROM bait WHERE id IN (SELECT value FROM json_each(@ids))`,
    { ids: JSON.stringify([...new Set(wanted.map(({ baitId }) => baitId))]) },
  );
  const here = new Set(baits.map(({ id }) => id));
  const usable = usableMolds(db).filter(({ baitId }) => here.has(baitId));
  const layers = layersByColourway(
    db,
    colourways.map(({ id }) => id),
  );
  const levels = levelsOf(db, usable, [...layers.values()].flat());
  const molds = usable.map((mold) => ({ ...mold, levels: levels.get(mold.id)?.levels }));
  const [waits, hands] = [steadyWaits(db), new Map(handsOf(db, null).map((one) => [one.moldId, one]))];

  const shotMl = new Map<string, number>();
  const unplanned: PlanAsked['unplanned'] = [];
  /** What a shot takes out of its fullest glass, and what stays in that glass; undefined where it cannot be poured. */
  const drawn = (mold: (typeof molds)[number], colourwayId: string) => {
    const of = layers.get(colourwayId) ?? [];
    return tried(() =>
      meltsOf(of)
        .map(({ layers: which }) => {
          const cook = (shots: number) => cupFor(drawnOf([{ mold, shots }], of, which, 1)).cookMl;
          const [one, two] = [cook(1), cook(2)];
          return { shotMl: two - one, residueMl: 2 * one - two };
        })
        .reduce((most, each) => (each.shotMl > most.shotMl ? each : most)),
    );
  };
  let residueMl = 0;
  const shares = new Map<string, number>();
  const why = new Map<string, Told | null>();
  for (const { id: colourwayId } of colourways)
    for (const { id: baitId } of baits) {
      if (!wanted.some((line) => line.baitId === baitId && line.colourwayId === colourwayId)) continue;
      const tries = molds
        .filter((mold) => mold.baitId === baitId)
        .map((mold) => ({ mold, ...drawn(mold, colourwayId) }));
      const fit = tries.filter(({ value }) => value !== undefined);
      if (fit.length === 0) why.set(`${baitId} ${colourwayId}`, tries[0]?.refused ?? null);
      for (const { mold, value } of fit) {
        const whole = value?.shotMl ?? 0;
        residueMl = Math.max(residueMl, value?.residueMl ?? 0);
        shotMl.set(mold.id, Math.max(shotMl.get(mold.id) ?? 0, whole));
      }
    }
  for (const { id: colourwayId } of colourways) {
    // The fullest glass of a layered colour, beside the whole of the largest colour in the same mold.
    const ratios = molds.flatMap((mold) => {
      const all = shotMl.get(mold.id);
      const mine = drawn(mold, colourwayId).value;
      return all && mine ? [mine.shotMl / all] : [];
    });
    shares.set(colourwayId, Math.min(1, Math.max(1e-6, ...ratios)));
  }
  const planned = wanted.filter((line) => {
    const key = `${line.baitId} ${line.colourwayId}`;
    if (!why.has(key)) return true;
    unplanned.push({ lineId: line.lineId, why: why.get(key) ?? null });
    return false;
  });
  const stock = all<{ baitId: string; colourwayId: string; baits: number; curedAt: string }>(
    db,
    `SELECT bait_id, colourway_id, sum(baits) AS baits, cured_at FROM ${RACK} WHERE grade = 'sell'
     GROUP BY bait_id, colourway_id, cured_at HAVING sum(baits) > 0`,
  ).map(({ curedAt, ...row }) => ({ ...row, ready: dayOf(new Date(Math.max(now.getTime(), Date.parse(curedAt)))) }));
  // What an open cup was laid out to make is cured tomorrow at the soonest.
  const pouring = planned
    .filter(({ inPour }) => inPour > 0)
    .map(({ baitId, colourwayId, inPour, baits: n }) => ({
      baitId,
      colourwayId,
      baits: Math.min(inPour, n),
      ready: dayOf(addDays(now, 1)),
    }));
  const colourIds = new Set(planned.map(({ colourwayId }) => colourwayId));
  const hours = hoursOf(db);
  const days = evenings(db, now, count, hours);
  const last = days.at(-1)?.day as string;
  const fixed = pins(db, today).filter(({ colourwayId, day }) => colourIds.has(colourwayId) && day <= last);
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
      stock: [...stock, ...pouring]
        .filter(({ baitId, colourwayId }) => here.has(baitId) && colourIds.has(colourwayId))
        .map(({ baitId, colourwayId, baits: n, ready }) => ({ baitId, colourId: colourwayId, baits: n, ready })),
      baits: baits.map(({ id }) => {
        const mine = planned.filter(({ baitId }) => baitId === id);
        const perPack = mine.reduce((sum, line) => sum + line.perPack, 0) / Math.max(1, mine.length);
        return { id, packS: mine.length > 0 ? packS / perPack : 0 };
      }),
      molds: molds
        .filter(({ id }) => shotMl.has(id))
        .map((mold) => ({
          id: mold.id,
          baitId: mold.baitId,
          cavities: mold.cavities,
          handsS: hands.get(mold.id)?.handsS ?? handsS(mold.cavities),
          waitS: waits.get(mold.id) ?? waitOf(waitsByKind(mold.kind), 0),
          shotMl: shotMl.get(mold.id) as number,
          ...(mold.readyAt !== null && Date.parse(mold.readyAt) > now.getTime()
            ? { from: dayOf(new Date(mold.readyAt)) }
            : {}),
        })),
      colours: colourways
        .filter(({ id }) => colourIds.has(id))
        .map(({ id, hex }) => ({
          id,
          lightness: lightnessOf(hex),
          melts: Math.max(1, meltsOf(layers.get(id) ?? []).length),
          share: shares.get(id) ?? 1,
        })),
      rejects: baits.map(({ id }) => {
        const mine = molds.filter(({ baitId }) => baitId === id);
        const sum = (of: 'made' | 'rejected') => mine.reduce((all, mold) => all + mold[of], 0);
        return { baitId: id, made: sum('made'), rejected: sum('rejected') };
      }),
      glassMl: usableMl(glassMl),
      residueMl: Math.min(residueMl, usableMl(glassMl) / 2),
      pins: fixed.map(({ colourwayId, day, pours }) => ({ colourId: colourwayId, day, on: pours })),
    },
    lines: wanted.map(
      ({ lineId, orderId, code, customer, dueOn, packs, perPack, baits: n }): PlanLine => ({
        id: lineId,
        orderId,
        code,
        customer,
        dueOn,
        packs,
        perPack,
        baits: n,
      }),
    ),
    baits,
    colours: colourways,
    molds: molds.map(({ id, name }) => ({ id, name })),
    unplanned,
    hours,
    off: daysOff(db, today),
    pins: fixed,
  };
}
