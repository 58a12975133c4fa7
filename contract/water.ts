import * as v from 'valibot';
import { usual } from '../core/defaults.ts';
import type { fitKick } from '../core/water/fitKick.ts';
import type { LadderStep } from '../core/water/ladder.ts';
import {
  above0,
  type CanBeAway,
  called,
  count,
  from0,
  name,
  note,
  ownId,
  rowId,
  shore,
  shorePoints,
  type Versioned,
  waterC,
} from './fields.ts';

export const PACES = ['slow', 'medium', 'fast'] as const;
export const KICKS = ['yes', 'weak', 'no'] as const;

const speed = v.strictObject({
  pace: v.picklist(PACES),
  mPerS: v.optional(v.nullable(above0(10)), null),
  kicks: v.picklist(KICKS),
  /** Kicks a second, if counted. */
  hz: v.optional(v.nullable(above0(60)), null),
});

export const waterTestBody = v.pipe(
  v.strictObject({
    id: ownId,
    place: v.picklist(['tank', 'lake']),
    placeName: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(120)), ''),
    blend: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(120)), ''),
    finish: called(v.optional(v.pipe(v.string(), v.trim(), v.maxLength(120)), ''), 'Finish'),
    waterC: called(v.optional(v.nullable(waterC), null), 'Water'),
    /** The cup that the bait came from: its age is counted from its shots. */
    pourId: called(v.optional(v.nullable(rowId), null), 'Out of the pour'),
    scale: v.optional(v.nullable(shore), null),
    hardness: called(v.optional(v.nullable(shorePoints), null), 'Shore 00'),
    speeds: v.optional(v.pipe(v.array(speed), v.maxLength(3)), []),
    roll: v.optional(v.nullable(v.picklist(['none', 'some', 'much'])), null),
    runs: v.optional(v.nullable(v.picklist(['true', 'left', 'right'])), null),
    sinkS: v.optional(v.nullable(above0(3600)), null),
    sinkDepthMm: v.optional(v.nullable(above0(100_000)), null),
    rig: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(120)), ''),
    weightG: v.optional(v.nullable(from0(1000)), null),
    minutes: v.optional(v.nullable(from0(6000)), null),
    fish: v.optional(v.nullable(count(0, 10_000)), null),
    ending: v.optional(v.nullable(v.picklist(['whole', 'torn', 'lost', 'void'])), null),
    notes: note,
  }),
  v.check(
    (test) => (test.sinkS === null) === (test.sinkDepthMm === null),
    'a sink time needs the depth it sank, and a depth its time',
  ),
);

export interface WaterTest extends Omit<v.InferOutput<typeof waterTestBody>, 'id'> {
  id: string;
  revisionId: string;
  revisionNumber: number;
  masterId: string;
  masterName: string;
  pourCode: string | null;
  /** How old the bait was, from its last shot; null where no pour is named. */
  ageH: number | null;
  at: string;
}

export const ladderBody = v.strictObject({
  name,
  scale: shore,
  hardness: called(shorePoints, 'Hardness you will pour, Shore 00'),
  wristHeightMm: above0(60),
  wristLengthMm: above0(100),
  paddleDiameterMm: above0(100),
  paddleThicknessMm: above0(30),
  walkingMPerS: v.optional(above0(5), usual('walkingMPerS')),
});

/** Another name. */
export const ladderPatch = v.pick(ladderBody, ['name']);

export const trialBody = v.pipe(
  v.strictObject({
    id: ownId,
    step: count(0, 19),
    hz: v.optional(v.nullable(above0(60)), null),
    kicksAtMPerS: v.optional(v.nullable(above0(10)), null),
    notAtMPerS: v.optional(v.nullable(above0(10)), null),
  }),
  v.check(
    (one) => one.hz !== null || one.kicksAtMPerS !== null || one.notAtMPerS !== null,
    'it says nothing: give kicks a second, or whether it kicks at a speed',
  ),
  v.check(
    (one) => one.kicksAtMPerS === null || one.notAtMPerS === null || one.kicksAtMPerS > one.notAtMPerS,
    'it cannot kick at a slower speed than the one at which it does not',
  ),
);

export interface Trial extends Omit<v.InferOutput<typeof trialBody>, 'id'> {
  id: string;
  at: string;
}

export interface LadderRow extends Versioned, CanBeAway {
  name: string;
  scale: 'A' | '00';
  hardness: number;
  walkingMPerS: number;
  steps: LadderStep[];
  createdAt: string;
  trials: number;
}

export interface Ladder extends Omit<LadderRow, 'trials'> {
  trials: Trial[];
  fit: ReturnType<typeof fitKick> | null;
  /** Steps not yet drawn, the one that teaches most first. */
  next: { step: number; bits: number; chanceItKicks: number }[];
}

/** The kick model's two constants as this workshop's trials leave them; null until there is a trial. */
export interface KickFit {
  fit: ReturnType<typeof fitKick> | null;
  /** Trials from ladders, and water tests that say at which speed a paddle kicked. */
  fromLadders: number;
  fromTests: number;
}
