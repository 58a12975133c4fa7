import { shotsFor } from '../yield/counts.ts';
import { type CupMold, cupFor, type Drawn } from './cup.ts';

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
  /** Its rubber still sets: chosen only where no other mold makes the bait. */
  waits?: boolean;
}

export interface CupNeed {
  colourwayId: string;
  molds: {
    moldId: string;
    baitId: string;
    shots: number;
    goodNeeded: number;
    expectedGood: number;
    shotMl: number;
    made: number;
    rejected: number;
  }[];
  orderLines: { orderLineId: string; baits: number }[];
  /** Short baits that no mold here makes. */
  withoutMold: { baitId: string; baits: number }[];
  cookMl: number;
  cookG: number;
  cups: number;
}

/** The chance with which a plan makes its good baits. */
export const CONFIDENCE = 0.9;

function moldFor(baitId: string, molds: MoldChoice[]): MoldChoice | undefined {
  return molds
    .filter((mold) => mold.baitId === baitId)
    .sort((a, b) => Number(a.waits ?? false) - Number(b.waits ?? false) || b.cavities - a.cavities)[0];
}

/**
 * One cup per colour that makes the short lines good with 90 % certainty: shots per mold from its own rejects
 * (`yield.shots`), plastisol from the shots (`batch.size`).
 */
export function cupsFor(lines: LineNeed[], molds: MoldChoice[]): CupNeed[] {
  const recipes = [...new Set(lines.filter((line) => line.short > 0).map((line) => line.colourwayId))];
  return recipes.map((colourwayId) => {
    const short = lines.filter((line) => line.colourwayId === colourwayId && line.short > 0);
    const perBait = new Map<string, number>();
    for (const line of short) perBait.set(line.baitId, (perBait.get(line.baitId) ?? 0) + line.short);
    const chosen: CupNeed['molds'] = [];
    const withoutMold: CupNeed['withoutMold'] = [];
    let cookMl = 0;
    let cookG = 0;
    let cups = 0;
    const drawn: Drawn[] = [];
    for (const [baitId, goodNeeded] of perBait) {
      const mold = moldFor(baitId, molds);
      if (!mold) {
        withoutMold.push({ baitId, baits: goodNeeded });
        continue;
      }
      const { shots, expectedGood } = shotsFor({
        goodNeeded,
        cavities: mold.cavities,
        rejects: { alpha: 1, beta: 19, rejected: mold.rejected, made: mold.made },
        confidence: CONFIDENCE,
      });
      chosen.push({
        moldId: mold.id,
        baitId,
        shots,
        goodNeeded,
        expectedGood,
        shotMl: 0,
        made: mold.made,
        rejected: mold.rejected,
      });
      drawn.push({ mold, shots });
    }
    if (drawn.length > 0) {
      const sized = cupFor(drawn);
      ({ cookMl, cookG, cups } = sized);
      sized.molds.forEach((mold, index) => {
        (chosen[index] as CupNeed['molds'][number]).shotMl = mold.shotMl;
      });
    }
    const made = new Set(chosen.map((mold) => mold.baitId));
    return {
      colourwayId,
      molds: chosen,
      orderLines: short
        .filter((line) => made.has(line.baitId))
        .map((line) => ({ orderLineId: line.lineId, baits: line.short })),
      withoutMold,
      cookMl,
      cookG,
      cups,
    };
  });
}
