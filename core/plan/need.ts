import { usual } from '../defaults.ts';
import { type Told, tried } from '../failure.ts';
import type { Fill } from '../heat/window.ts';
import { shotMlOf } from '../plastisol/batch.ts';
import { ML_PER_CUP } from '../units/convert.ts';
import { REJECT_PRIOR, shotsFor } from '../yield/counts.ts';
import type { CupMold, Drawn } from './cup.ts';
import { cupsIn, intoGlasses } from './glasses.ts';
import { benchMin, eveningsFor, shotsMin } from './hours.ts';
import { meltsOf, type Poured, refusePushed } from './layers.ts';
import { twinsOf } from './twins.ts';

/** One order line that still wants baits, in the order in which it is due. */
export interface Wanted {
  lineId: string;
  baitId: string;
  colourwayId: string;
  /** Baits not yet packed. */
  baits: number;
  /** Baits that an open pour was laid out to make for this line. */
  inPour: number;
}

/** What lies on the rack of one bait in one colour. */
export interface Level {
  baitId: string;
  colourwayId: string;
  ready: number;
  curing: number;
}

export interface LineNeed {
  lineId: string;
  baitId: string;
  colourwayId: string;
  baits: number;
  fromReady: number;
  fromCuring: number;
  fromPour: number;
  short: number;
}

/**
 * Shares the rack out to the lines, earliest due first: ready baits, then curing ones, then those in an open pour;
 * the rest is short. No bait is promised twice.
 */
export function shareOut(wanted: Wanted[], levels: Level[]): LineNeed[] {
  const key = (baitId: string, colourwayId: string) => `${baitId} ${colourwayId}`;
  const left = new Map(levels.map((level) => [key(level.baitId, level.colourwayId), { ...level }]));
  return wanted.map(({ lineId, baitId, colourwayId, baits, inPour }) => {
    const level = left.get(key(baitId, colourwayId));
    const fromReady = Math.min(baits, Math.max(0, level?.ready ?? 0));
    const fromCuring = Math.min(baits - fromReady, Math.max(0, level?.curing ?? 0));
    const fromPour = Math.min(baits - fromReady - fromCuring, inPour);
    if (level) {
      level.ready -= fromReady;
      level.curing -= fromCuring;
    }
    return {
      lineId,
      baitId,
      colourwayId,
      baits,
      fromReady,
      fromCuring,
      fromPour,
      short: baits - fromReady - fromCuring - fromPour,
    };
  });
}

export interface MoldChoice extends CupMold {
  baitId: string;
  /** This mold's own past. */
  made: number;
  rejected: number;
  /** How long a shot waits until it is opened, s. */
  waitS: number;
  fill?: Fill;
  /** Its rubber still sets: chosen only where no other mold makes the bait. */
  waits?: boolean;
}

/** What is poured by what: the workshop's colours, glass and evenings. */
export interface Means {
  layersOf(colourwayId: string): (Poured & { recipeId: string })[];
  /** A glass to the brim, mL. */
  glassMl: number;
  /** Hours that are given to an evening. */
  eveningH: number;
  /** Left out: as many as are wanted. */
  injectors?: number;
}

interface NeededMold {
  moldId: string;
  baitId: string;
  shots: number;
  /** Its share of what is needed of the bait. */
  goodNeeded: number;
  expectedGood: number;
  shotMl: number;
  made: number;
  rejected: number;
}

/** What of it one evening holds. */
export interface Tonight {
  molds: { moldId: string; shots: number }[];
  orderLines: { orderLineId: string; baits: number }[];
  glasses: number;
}

export interface CupNeed {
  colourwayId: string;
  molds: NeededMold[];
  orderLines: { orderLineId: string; baits: number }[];
  /** Short baits that no mold here makes; where there is one, why it does not in this colour. */
  withoutMold: { baitId: string; baits: number; why: Told | null }[];
  cookMl: number;
  cookG: number;
  cups: number;
  /** At the bench; with cooking and clearing up in hours, and in how many evenings of the hours that are given. */
  minutes: number;
  hours: number;
  evenings: number;
  /** The first of them; where one holds it, all of it. Null: a single shot is more than an evening or its glasses. */
  tonight: Tonight | null;
}

/** The molds that make a bait: those with most cavities, and all twins of them. */
function moldsFor(baitId: string, molds: MoldChoice[]): MoldChoice[] {
  const makers = molds.filter((mold) => mold.baitId === baitId);
  const set = makers.filter((mold) => !mold.waits);
  const there = set.length > 0 ? set : makers.slice(0, 1);
  return twinsOf(there);
}

/** A whole number dealt out evenly, the first a little more. */
const evenly = (n: number, among: number) =>
  Array.from({ length: among }, (_, i) => Math.floor(n / among) + (i < n % among ? 1 : 0));

/** The shots of a bait over its molds: as many as twins together need, by what all of them rejected. */
function shared(baitId: string, goodNeeded: number, molds: MoldChoice[]): { mold: MoldChoice; row: NeededMold }[] {
  const [first] = molds as [MoldChoice];
  const sum = (of: 'made' | 'rejected') => molds.reduce((total, mold) => total + mold[of], 0);
  const { shots, expectedGood } = shotsFor({
    goodNeeded,
    cavities: first.cavities,
    rejects: { ...REJECT_PRIOR, rejected: sum('rejected'), made: sum('made') },
    confidence: usual('confidence'),
  });
  const [each, good] = [evenly(shots, molds.length), evenly(goodNeeded, molds.length)];
  return molds.flatMap((mold, i) => {
    const n = each[i] as number;
    if (n === 0) return [];
    const { made, rejected } = mold;
    const expected = (expectedGood * n) / shots;
    const row = { moldId: mold.id, baitId, shots: n, goodNeeded: good[i] as number, expectedGood: expected, shotMl: 0 };
    return [{ mold, row: { ...row, made, rejected } }];
  });
}

type Chosen = Drawn<MoldChoice>;

/** As much of it as an evening holds by its hours and its glasses, each mold's part alike. */
function firstEvening(
  drawn: Chosen[],
  lines: LineNeed[],
  minutes: number,
  layers: (Poured & { recipeId: string })[],
  { glassMl, eveningH }: Means,
): Tonight | null {
  const whole = drawn.reduce((sum, { shots }) => sum + shots, 0);
  for (let part = Math.min(1, shotsMin(eveningH) / minutes); part * whole >= 1; part *= 0.75) {
    const some = drawn.flatMap((one) => {
      const shots = part === 1 ? one.shots : Math.floor(one.shots * part);
      return shots > 0 ? [{ ...one, shots }] : [];
    });
    const glasses = some.length > 0 ? tried(() => intoGlasses(some, layers, glassMl)).value : undefined;
    if (!glasses) continue;
    const all = some.reduce((sum, { shots }) => sum + shots, 0) === whole;
    const room = new Map<string, number>();
    for (const { mold, shots } of some) room.set(mold.baitId, (room.get(mold.baitId) ?? 0) + shots * mold.cavities);
    return {
      molds: some.map(({ mold, shots }) => ({ moldId: mold.id, shots })),
      orderLines: lines.flatMap(({ lineId, baitId, short }) => {
        const baits = all ? short : Math.min(short, room.get(baitId) ?? 0);
        room.set(baitId, (room.get(baitId) ?? 0) - baits);
        return baits > 0 ? [{ orderLineId: lineId, baits }] : [];
      }),
      glasses: glasses.groups.length * glasses.ofEach * meltsOf(layers).length,
    };
  }
  return null;
}

/**
 * What makes the short lines of each colour good with 90 % certainty: shots from the molds' own rejects (`yield.shots`),
 * shared by twins, plastisol from the shots (`batch.size`), hours from hands and waits.
 */
export function cupsFor(lines: LineNeed[], molds: MoldChoice[], means: Means): CupNeed[] {
  const colourwayIds = [...new Set(lines.filter((line) => line.short > 0).map((line) => line.colourwayId))];
  return colourwayIds.map((colourwayId) => {
    const short = lines.filter((line) => line.colourwayId === colourwayId && line.short > 0);
    const perBait = new Map<string, number>();
    for (const line of short) perBait.set(line.baitId, (perBait.get(line.baitId) ?? 0) + line.short);
    const layers = means.layersOf(colourwayId);
    const tries = molds.map((mold) => ({
      mold,
      ...tried(() => {
        if (mold.fill === 'injection') refusePushed(layers, means.injectors);
        return intoGlasses([{ mold, shots: 1 }], layers, means.glassMl);
      }),
    }));
    const fit = tries.flatMap(({ mold, value }) => (value ? [mold] : []));
    const withoutMold: CupNeed['withoutMold'] = [];
    const chosen = [...perBait].flatMap(([baitId, baits]) => {
      const makers = moldsFor(baitId, fit);
      if (makers.length > 0) return shared(baitId, baits, makers);
      withoutMold.push({ baitId, baits, why: tries.find(({ mold }) => mold.baitId === baitId)?.refused ?? null });
      return [];
    });
    const made = new Set(chosen.map(({ row }) => row.baitId));
    const mine = short.filter((line) => made.has(line.baitId));
    const drawn = chosen.map(({ mold, row }): Chosen => ({ mold, shots: row.shots }));
    const minutes = benchMin(drawn.map(({ mold, shots }) => ({ shots, cavities: mold.cavities, waitS: mold.waitS })));
    // What is more than one laying out is summed up as if each melt had a glass for it all.
    const whole = drawn.length > 0 ? { groups: [drawn], ofEach: 1 } : { groups: [], ofEach: 1 };
    const cups = cupsIn(tried(() => intoGlasses(drawn, layers, means.glassMl)).value ?? whole, layers);
    const cookMl = cups.reduce((sum, cup) => sum + cup.cookMl, 0);
    return {
      colourwayId,
      molds: chosen.map(({ row }, index) => ({
        ...row,
        shotMl: shotMlOf({ ...(drawn[index] as Chosen).mold, share: 1 }, usual('feedFraction')),
      })),
      orderLines: mine.map((line) => ({ orderLineId: line.lineId, baits: line.short })),
      withoutMold,
      cookMl,
      cookG: cups.reduce((sum, cup) => sum + cup.cookG, 0),
      cups: cookMl / ML_PER_CUP,
      minutes,
      ...eveningsFor(minutes, means.eveningH),
      tonight: drawn.length > 0 ? firstEvening(drawn, mine, minutes, layers, means) : null,
    };
  });
}
