import { atMost, ceilNear, floorNear } from '../rounding.ts';
import { REJECT_PRIOR, shotsFor } from '../yield/counts.ts';
import { tooFewInjectors } from './layers.ts';
import type { Lack, Production } from './production.ts';
import { twinsOf } from './twins.ts';

/** A bait in a colour: what is wanted of it, and what a shot of it takes and gives. */
export interface Product {
  baitId: string;
  colour: number;
  bait: number;
  /** Baits due up to and on each day, what is wanted before the first day on that. */
  dueBy: number[];
  /** Baits that lie there or cure, ready up to and on each day. */
  stockBy: number[];
  wanted: number;
  /** Baits that are to be poured, and shots that give them with the wanted certainty. */
  need: number;
  shots: number;
  /** Good ones that a shot is counted on to give: need ÷ shots. */
  goodAShot: number;
  /** Good baits that so many shots are counted on to give, whole ones, from none to all of them. */
  good: Int32Array;
  handsMin: number;
  /** Out of the fullest glass, a shot. */
  ml: number;
  /** Baits that a shot makes, good or not, and the days that they lie on the boards. */
  cavities: number;
  lies: number;
  packMin: number;
  /** Days from the evening it is poured until it can be packed. */
  lag: number;
  lack: Lack | null;
}

export interface BaitWork {
  id: string;
  /** The most shots of each day, over its molds: what hands and wait of each leave room for. */
  mostShots: number[];
  moldIds: string[];
  freeOn(moldId: string, day: number): number;
}

/** A line, by whose day it is packed. */
export interface LineWork {
  id: string;
  product: number;
  /** The day it is due on, by number; what is due after these days counts for the last of them. */
  due: number;
  /** The same as it was asked: before the first day, or after the last. */
  dueAt: number;
  baits: number;
  perPack: number;
}

/** What a day has, infinitely much of what nobody said a bound of. */
export interface DayWork {
  day: string;
  handsMin: number;
  glasses: number;
  ovenMin: number;
  pumpMin: number;
  boardBaits: number;
}

/** A material that there may be too little of. */
export interface Stuff {
  id: string;
  g: number;
  /** Days before this one, by number, have no more than that. */
  until: number;
  /** Of each colour, g for each mL in its fullest glass. */
  gPerMl: number[];
  /** What all that is wanted draws, out of glasses that are full. */
  wantedG: number;
}

/** A plan's question as figures: days and products by number. */
export interface Work {
  asked: Production;
  days: DayWork[];
  baits: BaitWork[];
  products: Product[];
  /** The earliest due first. */
  lines: LineWork[];
  /** What of a glass can be drawn. */
  drawnMl: number;
  /** Of each colour, of each day: 1 to be poured, -1 not to be. */
  pins: number[][];
  /** Only those that the store may not hold enough of. */
  stuffs: Stuff[];
}

const keyOf = ({ baitId, colourId }: { baitId: string; colourId: string }) => JSON.stringify([baitId, colourId]);
/** Nobody said how many there are. */
const MANY = 200;
const dayNumber = (day: string) => Math.round(Date.parse(day) / 86_400_000);

/** Reads a plan's question once: who makes what, how many shots, from when on it can be packed. */
export function workOf(asked: Production): Work {
  const first = dayNumber(asked.days[0]?.day as string);
  const count = asked.days.length;
  const at = (day: string) => dayNumber(day) - first;
  const endless = Number.POSITIVE_INFINITY;
  const days = asked.days.map(
    ({ glasses = MANY, ovenMin = endless, pumpMin = endless, boardBaits = endless, day, handsMin }): DayWork => ({
      day,
      handsMin,
      glasses,
      ovenMin,
      pumpMin,
      boardBaits,
    }),
  );
  const lengths = asked.days.map(({ handsMin, lengthMin }) => lengthMin ?? handsMin);
  const sets = new Map(asked.baits.map(({ id }) => [id, twinsOf(asked.molds.filter(({ baitId }) => baitId === id))]));
  const baits = asked.baits.map(({ id }): BaitWork => {
    const molds = sets.get(id) as Production['molds'];
    const freeOn = (moldId: string, day: number) => {
      const mold = molds.find((one) => one.id === moldId);
      if (!mold || (mold.from && at(mold.from) > day) || (mold.until && at(mold.until) < day)) return 0;
      return Math.max(0, floorNear((60 * ((lengths[day] as number) - asked.setUpMin)) / (mold.handsS + mold.waitS)));
    };
    return {
      id,
      moldIds: molds.map((mold) => mold.id),
      freeOn,
      mostShots: days.map((_, day) => molds.reduce((sum, mold) => sum + freeOn(mold.id, day), 0)),
    };
  });
  const drawnMl = asked.glassMl - asked.residueMl;
  const cumulative = (rows: { on: number; baits: number }[]) =>
    days.map((_, day) => rows.filter(({ on }) => on <= day).reduce((sum, row) => sum + row.baits, 0));
  const keys = [...new Set(asked.lines.map(keyOf))];
  const products = keys.map((key): Product => {
    const [baitId, colourId] = JSON.parse(key) as [string, string];
    const mine = <T extends { baitId: string; colourId: string }>(rows: T[]) =>
      rows.filter((row) => row.baitId === baitId && row.colourId === colourId);
    const [lines, stock] = [mine(asked.lines), mine(asked.stock)];
    const bait = asked.baits.find(({ id }) => id === baitId) as Production['baits'][number];
    const colour = asked.colours.findIndex(({ id }) => id === colourId);
    const mix = asked.colours[colour] as Production['colours'][number];
    const set = sets.get(baitId) as Production['molds'];
    const wanted = lines.reduce((sum, line) => sum + line.baits, 0);
    const inTime = stock.filter((row) => at(row.ready) < count);
    const need = Math.max(0, wanted - inTime.reduce((sum, row) => sum + row.baits, 0));
    const past = asked.rejects.find((row) => row.baitId === baitId) ?? { rejected: 0, made: 0 };
    const [mold] = set;
    const ml = Math.max(0, ...set.map(({ shotMl }) => shotMl)) * mix.share;
    const lack = !mold
      ? 'no-mold'
      : lackOf(
          asked,
          mix,
          set.some(({ injected }) => injected),
          atMost(ml, drawnMl),
        );
    const shots =
      mold && !lack && need > 0
        ? shotsFor({
            goodNeeded: need,
            cavities: mold.cavities,
            rejects: { ...REJECT_PRIOR, rejected: past.rejected, made: past.made },
            confidence: asked.confidence,
          }).shots
        : 0;
    return {
      baitId,
      colour,
      bait: asked.baits.findIndex(({ id }) => id === baitId),
      // What is due after these days is wanted on the last of them: none of it is forgotten.
      dueBy: cumulative(lines.map((line) => ({ on: Math.min(at(line.due), count - 1), baits: line.baits }))),
      stockBy: cumulative(inTime.map((row) => ({ on: at(row.ready), baits: row.baits }))),
      wanted,
      need,
      ...counted(need, shots),
      handsMin: mold ? set.reduce((sum, one) => sum + one.handsS, 0) / set.length / 60 : 0,
      ml,
      cavities: mold?.cavities ?? 1,
      lies: Math.max(1, ceilNear(bait.cureH / 24)),
      packMin: (bait.packS + bait.finishS) / 60,
      lag: ceilNear((bait.cureH + bait.dryH) / 24),
      lack: need > 0 ? lack : null,
    };
  });
  const pins = asked.colours.map(({ id }) => {
    const mine = asked.pins.filter((pin) => pin.colourId === id);
    // On a day that nobody works nothing can be fixed.
    const on = days.map(({ day, handsMin }) => handsMin > 0 && mine.some((pin) => pin.on && pin.day === day));
    const last = on.lastIndexOf(true);
    return days.map(({ day }, at) =>
      on[at] ? 1 : at < last || mine.some((pin) => !pin.on && pin.day === day) ? -1 : 0,
    );
  });
  const numbers = new Map(keys.map((key, at) => [key, at]));
  const lines = asked.lines
    .map(({ id, baitId, colourId, due, baits: n, perPack }) => ({
      id,
      product: numbers.get(keyOf({ baitId, colourId })) as number,
      due: Math.min(at(due), count - 1),
      dueAt: at(due),
      baits: n,
      perPack,
    }))
    // Of one day, as they were asked.
    .sort((a, b) => a.due - b.due);
  return { asked, days, baits, products, lines, drawnMl, pins, stuffs: stuffsOf(asked, products, drawnMl, at) };
}

function lackOf(
  asked: Production,
  { pushed }: Production['colours'][number],
  injected: boolean,
  held: boolean,
): Lack | null {
  if (!held) return 'too-large-for-a-glass';
  return injected && tooFewInjectors(pushed, asked.injectors) ? 'too-few-injectors' : null;
}

/** What all that is wanted could take more of than there is. */
function stuffsOf(asked: Production, products: Product[], drawnMl: number, at: (day: string) => number): Stuff[] {
  return asked.materials.flatMap(({ id, g, from }) => {
    const gPerMl = asked.colours.map(({ takes }) =>
      takes.reduce((sum, row) => sum + (row.materialId === id ? row.gPerMl : 0), 0),
    );
    const until = Math.min(asked.days.length, Math.max(0, from === undefined ? asked.days.length : at(from)));
    const sum = (glassesOf: (shots: number, ml: number) => number) =>
      gPerMl.reduce((grams, each, colour) => {
        const mine = products.filter((one) => one.colour === colour);
        const [shots, ml] = [
          mine.reduce((n, one) => n + one.shots, 0),
          mine.reduce((n, one) => n + one.shots * one.ml, 0),
        ];
        return grams + each * (ml + glassesOf(shots, ml) * asked.residueMl);
      }, 0);
    const wantedG = sum((_, ml) => glassesFor(ml, drawnMl));
    // At the worst each shot stands in a glass of its own.
    const mostG = sum((shots) => shots);
    return until > 0 && mostG > g ? [{ id, g, until, gPerMl, wantedG }] : [];
  });
}

/** What so many shots are counted on to give. @param shots that give what is needed. */
export const counted = (need: number, shots: number): Pick<Product, 'shots' | 'goodAShot' | 'good'> => ({
  shots,
  goodAShot: shots > 0 ? need / shots : 0,
  good: Int32Array.from({ length: shots + 1 }, (_, n) =>
    n > 0 && n === shots ? need : floorNear((need * n) / Math.max(1, shots)),
  ),
});

/** Good baits that so many shots of a product are counted on to give. */
export const goodOf = ({ shots, good }: Product, poured: number): number => good[Math.min(poured, shots)] as number;

/** Glasses that hold these millilitres, each to be drawn but for what stays in it. */
export const glassesFor = (ml: number, drawnMl: number): number => ceilNear(ml / drawnMl);

/** What the store is short of, for all that is wanted. */
export const shortIn = ({ stuffs }: Work): { materialId: string; wantedG: number; shortG: number }[] =>
  stuffs.flatMap(({ id, g, wantedG }) => (wantedG > g ? [{ materialId: id, wantedG, shortG: wantedG - g }] : []));

/** Shots of each product on each day. */
export type Poured = number[][];
