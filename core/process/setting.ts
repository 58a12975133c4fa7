import { mixTurn } from '../mold/inMixes.ts';
import { RELEASE } from './making.ts';

/** What happened to a mold that is being cast, oldest first. */
export interface CastingEvent {
  kind: string;
  step?: string | null;
  at: string;
}

/** Whether the last word on the release agent is that it was brushed on: silicone bonds to silicone for good. */
export const isReleased = (events: CastingEvent[]): boolean =>
  events.findLast((row) => row.step === RELEASE)?.kind === 'step';

export type RubberStage = 'to-mix' | 'workable' | 'setting' | 'next-half' | 'ready' | 'taken-out';

export interface RubberNow {
  stage: RubberStage;
  /** Which half is poured now, from 0. */
  half: number;
  /** When the newest mix was one colour; null before the first. */
  mixedAt: string | null;
  /** Since then, minutes. */
  sinceMin: number;
  /** Of this half, how many mixes were made and how many it takes. */
  mixesMade: number;
  mixes: number;
  /** Until pot life or setting ends, whichever is on, minutes; 0 where nothing runs. */
  leftMin: number;
}

/**
 * Where the rubber of a mold stands: pot life and demold count from the newest mix, each half of a two-piece has its own.
 * @param plan `mixes` of each half that is poured; `potLifeMin` and `demoldMin`, minutes at the room's temperature
 * @param takenOut the mold was opened since: it is a mold, and nothing runs
 * Source: the rubber's data sheet, by the ten-degree rule (`mold.plan`).
 */
export function rubberNow(
  plan: { mixes: number[]; potLifeMin: number; demoldMin: number },
  events: CastingEvent[],
  takenOut: boolean,
  nowMs: number,
): RubberNow {
  const mixes = events.filter((row) => row.kind === 'mixed');
  const mixedAt = mixes.at(-1)?.at ?? null;
  const { half, mix, of } = mixTurn(plan.mixes, Math.max(0, mixes.length - 1));
  const mixesMade = mixes.length === 0 ? 0 : mix + 1;
  if (mixedAt === null) return { stage: 'to-mix', half, mixesMade, mixes: of, mixedAt, sinceMin: 0, leftMin: 0 };
  const sinceMin = Math.max(0, (nowMs - Date.parse(mixedAt)) / 60_000);
  const at = (stage: RubberStage, untilMin = sinceMin): RubberNow => ({
    stage,
    half,
    mixesMade,
    mixes: of,
    mixedAt,
    sinceMin,
    leftMin: untilMin - sinceMin,
  });
  if (takenOut) return at('taken-out');
  if (sinceMin < plan.potLifeMin) return at('workable', plan.potLifeMin);
  if (sinceMin < plan.demoldMin) return at('setting', plan.demoldMin);
  // A half whose other mix was never made is not full: it neither waits for the next nor is it ready.
  if (mixesMade < of) return at('setting');
  return at(half + 1 < plan.mixes.length ? 'next-half' : 'ready');
}
