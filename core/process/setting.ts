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
  /** Until pot life or setting ends, whichever is on, minutes; 0 where nothing runs. */
  leftMin: number;
}

/**
 * Where the rubber of a mold stands: pot life and demold count from the newest mix, each half of a two-piece has its own.
 * @param plan `halves` pours; `potLifeMin` and `demoldMin`, minutes at the room's temperature
 * @param takenOut the mold was opened since: it is a mold, and nothing runs
 * Source: the rubber's data sheet, by the ten-degree rule (`mold.plan`).
 */
export function rubberNow(
  plan: { halves: number; potLifeMin: number; demoldMin: number },
  events: CastingEvent[],
  takenOut: boolean,
  nowMs: number,
): RubberNow {
  const mixes = events.filter((row) => row.kind === 'mixed');
  const mixedAt = mixes.at(-1)?.at ?? null;
  const half = Math.min(Math.max(0, mixes.length - 1), plan.halves - 1);
  if (mixedAt === null) return { stage: 'to-mix', half, mixedAt, sinceMin: 0, leftMin: 0 };
  const sinceMin = Math.max(0, (nowMs - Date.parse(mixedAt)) / 60_000);
  const at = (stage: RubberStage, untilMin = sinceMin): RubberNow => ({
    stage,
    half,
    mixedAt,
    sinceMin,
    leftMin: untilMin - sinceMin,
  });
  if (takenOut) return at('taken-out');
  if (sinceMin < plan.potLifeMin) return at('workable', plan.potLifeMin);
  if (sinceMin < plan.demoldMin) return at('setting', plan.demoldMin);
  return at(mixes.length < plan.halves ? 'next-half' : 'ready');
}
