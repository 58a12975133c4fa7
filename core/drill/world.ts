import { stirOf } from '../colour/stir.ts';
import { usual } from '../defaults.ts';
import { cupWindow } from '../heat/window.ts';
import { cupTrueC, type HeatEvent } from '../instruments/standIn.ts';
import { doseGrams } from '../plastisol/weigh.ts';
import { saidOf, type Ticked } from '../process/evidence.ts';
import { waitOf } from '../process/waits.ts';
import { wayOf } from '../process/ways.ts';
import { type Lesson, limitsOfItems } from './lessons.ts';
import { COLD_ROOM_C, type DrawnShot } from './outcome.ts';

/** What was done in an evening of training, oldest first; `cup` counts the lesson's layers. */
export type DrillEvent =
  | { what: 'burst'; ms: number; cup: number; seconds: number; level: number }
  | { what: 'stir'; ms: number; cup: number }
  | { what: 'dose'; ms: number; cup: number; itemId: string; amount: number }
  | { what: 'draw'; ms: number; shotId: string; moldId: string; layers: number[] }
  | { what: 'open'; ms: number; shotId: string };

/** How a lesson's cup behaves; a shed with its doors open takes heat faster. */
export const DRILL_WATTS = 900;
const EFFICIENCY = 0.52;
const [COOLS_S, COOLS_IN_COLD_S] = [900, 600];
/** A cup that was so hot all through has gelled. */
const GELLED_C = 165;

const tauOf = (lesson: Lesson) => (lesson.roomC < COLD_ROOM_C ? COOLS_IN_COLD_S : COOLS_S);

export const massOf = (lesson: Lesson) => lesson.cookMl * usual('plastisolGPerMl');

const heatEvents = (lesson: Lesson, events: DrillEvent[], cup: number): HeatEvent[] =>
  events.flatMap((event): HeatEvent[] => {
    if (event.what === 'burst' && event.cup === cup)
      return [
        {
          what: 'burst',
          ms: event.ms,
          watts: DRILL_WATTS,
          level: event.level,
          seconds: event.seconds,
          massG: massOf(lesson),
        },
      ];
    return event.what === 'stir' && event.cup === cup ? [{ what: 'stir', ms: event.ms }] : [];
  });

/** A cup's heat in truth at a moment, and what its surface shows, °C. */
export const drillHeat = (lesson: Lesson, events: DrillEvent[], cup: number, ms: number) =>
  cupTrueC(heatEvents(lesson, events, cup), { roomC: lesson.roomC, tauS: tauOf(lesson), efficiency: EFFICIENCY }, ms);

/** The hottest that a cup was between two moments: where a burst ends, or at the first of them. */
function hottestIn(lesson: Lesson, events: DrillEvent[], cup: number, fromMs: number, toMs: number): number {
  const moments = [
    fromMs,
    ...events.flatMap((event) =>
      event.what === 'burst' && event.cup === cup ? [Math.min(toMs, event.ms + 1000 * event.seconds)] : [],
    ),
  ].filter((ms) => ms >= fromMs && ms <= toMs);
  return Math.max(...moments.map((ms) => drillHeat(lesson, events, cup, ms).c));
}

/** How long a stir lasts in a cup of the lesson by what is in it now; null: nothing sinks. */
export function drillStirS(lesson: Lesson, events: DrillEvent[], cup: number): number | null {
  const items = (lesson.layers[cup]?.items ?? []).map((item) => {
    const amount = events.reduce(
      (sum, event) => sum + (event.what === 'dose' && event.cup === cup && event.itemId === item.id ? event.amount : 0),
      0,
    );
    const bare = { kind: item.kind, bulkGPerMl: null, densityGPerMl: null, dropsPerMl: null };
    const { g } = doseGrams({ amount, unit: item.unit }, bare, { dropsPerMl: usual('dropsPerMl'), measures: [] });
    return { name: item.name, kind: item.kind, sizeMm: 0.9, gPerL: g / (lesson.cookMl / 1000) };
  });
  return stirOf(items)?.everyS ?? null;
}

/** The shots of an evening as they were really drawn; one that nobody opened yet counts as opened now. */
export function drawnShots(lesson: Lesson, events: DrillEvent[], ticks: Ticked[], nowMs: number): DrawnShot[] {
  const ids = [...new Set(events.flatMap((event) => (event.what === 'draw' ? [event.shotId] : [])))];
  const nths = new Map<string, number>();
  return ids.flatMap((shotId, index): DrawnShot[] => {
    const draws = events.filter((event) => event.what === 'draw').filter((event) => event.shotId === shotId);
    const moldId = draws[0]?.moldId;
    const mold = lesson.molds.find(({ id }) => id === moldId);
    if (!mold || !moldId) return [];
    const nth = (nths.get(moldId) ?? 0) + 1;
    nths.set(moldId, nth);
    const openedMs = events.find((event) => event.what === 'open' && event.shotId === shotId)?.ms ?? nowMs;
    const last = draws.at(-1)?.ms ?? nowMs;
    const cups = draws.flatMap(({ layers, ms }) => layers.map((cup) => ({ cup, ms })));
    const items = cups.flatMap(({ cup }) => lesson.layers[cup]?.items ?? []);
    const { lowC, highC } = cupWindow([mold], limitsOfItems(items));
    const tender = cups.flatMap(({ cup, ms }) =>
      (lesson.layers[cup]?.items ?? []).flatMap((item) => {
        const put = events.find((event) => event.what === 'dose' && event.cup === cup && event.itemId === item.id);
        return item.limitC !== null && put && put.ms <= ms
          ? [{ hottestC: hottestIn(lesson, events, cup, put.ms, ms), bearsC: item.limitC }]
          : [];
      }),
    )[0];
    const stirs = cups.flatMap(({ cup, ms }) => {
      const lastsS = drillStirS(lesson, events, cup);
      const stirred = events.findLast((event) => event.what === 'stir' && event.cup === cup && event.ms <= ms);
      return lastsS === null ? [] : [{ sinceS: stirred ? (ms - stirred.ms) / 1000 : 9999, lastsS }];
    });
    const of = (layer?: number) => ({ moldId, nth, ...(layer ? { layer } : {}) });
    const said = Object.fromEntries(
      ticks
        .filter((tick) => tick.moldId === moldId && tick.nth === nth)
        .map(({ what, layer }) => [what, saidOf(ticks, what, of(layer ?? 0))?.said]),
    ) as DrawnShot['said'];
    const firstMs = events[0]?.ms ?? nowMs;
    return [
      {
        index,
        cavities: mold.cavities,
        way: wayOf({ ...mold, cups: 1, layers: lesson.layers.length, rods: false }),
        roomC: lesson.roomC,
        lowC,
        highC,
        drawnC: cups.map(({ cup, ms }) => drillHeat(lesson, events, cup, ms).c),
        flake: tender ?? null,
        stir: stirs.sort((a, b) => b.sinceS / b.lastsS - a.sinceS / a.lastsS)[0] ?? null,
        hottestC: Math.max(...cups.map(({ cup, ms }) => hottestIn(lesson, events, cup, firstMs, ms))),
        cooked: cups.every(({ cup, ms }) => hottestIn(lesson, events, cup, firstMs, ms) >= GELLED_C),
        waitedS: (openedMs - last) / 1000,
        waitS: waitOf({ waitS: mold.waitS }, nth - 1),
        betweenS: draws.slice(1).map((draw, i) => (draw.ms - (draws[i]?.ms ?? draw.ms)) / 1000),
        said,
      },
    ];
  });
}
