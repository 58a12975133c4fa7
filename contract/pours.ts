import * as v from 'valibot';
import type { CookSchool } from '../core/heat/microwave.ts';
import type { HeatLimit } from '../core/heat/window.ts';
import type { Standing } from '../core/mold/stands.ts';
import type { PourPlan } from '../core/plan/cup.ts';
import type { Join, LayerMeasure, Place } from '../core/plan/layers.ts';
import type { Ticked } from '../core/process/evidence.ts';
import type { LearntWait } from '../core/process/learntWait.ts';
import type { Waits } from '../core/process/waits.ts';
import { GRADES, type Grade, REASON_IDS, type Reason, TRIMMED } from '../core/yield/grades.ts';
import { type Blend, blendParts, type Part } from './blend.ts';
import {
  called,
  count,
  grams,
  gramsOr0,
  listQuery,
  ownId,
  roomC,
  rowId,
  shore,
  shorePoints,
  type Versioned,
  waterC,
} from './fields.ts';
import type { MoldRow } from './molds.ts';
import type { Dose, RecipeItem } from './recipes.ts';
import type { Shape } from './workshop.ts';

export const pourBody = v.strictObject({
  /** What its molds make; of layers, one cup each is laid out. */
  colourwayId: rowId,
  /** What its plastic is made of; not said: the opened lot of the first plastisol. */
  blend: v.optional(blendParts),
  makerId: v.optional(rowId),
  molds: v.pipe(
    v.array(v.strictObject({ moldId: rowId, shots: count(1, 2000) })),
    v.minLength(1),
    v.maxLength(24),
    v.check(
      (rows) => new Set(rows.map((row) => row.moldId)).size === rows.length,
      'a mold is there twice; add its shots',
    ),
  ),
  orderLines: v.optional(
    v.pipe(
      v.array(v.strictObject({ orderLineId: rowId, baits: count(1, 100000) })),
      v.maxLength(200),
      v.check(
        (rows) => new Set(rows.map((row) => row.orderLineId)).size === rows.length,
        'an order line is there twice',
      ),
    ),
    [],
  ),
  wanted: v.optional(v.strictObject({ scale: shore, value: shorePoints })),
});

/** A list of pours, or only those still open. */
export const pourQuery = v.strictObject({ ...listQuery.entries, only: v.optional(v.picklist(['open'])) });
export type PourQuery = v.InferOutput<typeof pourQuery>;

/** What is lost of a cup, where somebody weighed it; null: not known. */
const lost = {
  residueG: v.optional(v.nullable(gramsOr0), null),
  degassedG: v.optional(v.nullable(gramsOr0), null),
};

export const weighBody = v.strictObject({
  cookedG: grams,
  goodG: gramsOr0,
  rejectG: gramsOr0,
  returnedG: gramsOr0,
  ...lost,
});
/** What is left of another cup of the same shots. */
const otherCup = v.strictObject({
  pourId: rowId,
  cookedG: grams,
  returnedG: v.optional(gramsOr0, 0),
  ...lost,
});
/** The same once, at the end of a cup: weighed again, it stays in the bin that it went to. */
export const closeBody = v.strictObject({
  ...weighBody.entries,
  /** Cups that the same shots were drawn from: baits and rejects are weighed once for all of them. */
  others: v.optional(
    v.pipe(
      v.array(otherCup),
      v.maxLength(23),
      v.check((rows) => new Set(rows.map((row) => row.pourId)).size === rows.length, 'a cup is there twice'),
    ),
    [],
  ),
  /** Where rejects and leftover go; not said: the colour's own bin. */
  binId: v.optional(rowId),
  /** What is left of this cup goes straight into another, or is kept apart; not said: with the rejects. */
  leftTo: called(v.optional(v.union([v.literal('kept'), rowId])), 'What is left goes'),
});

/** One bait of a closed cup, looked at again. */
export const regradeBody = v.pipe(
  v.strictObject({
    id: ownId,
    shotId: rowId,
    cavity: count(1, 1000),
    grade: v.picklist(GRADES),
    reason: v.optional(v.nullable(v.picklist(REASON_IDS)), null),
    /** Out of a bag, from a customer: it lies on no rack. */
    cameBack: v.optional(v.boolean(), false),
  }),
  v.check(
    ({ grade, reason }) => (grade === 'sell' ? reason === null || reason === TRIMMED : reason !== null),
    'what is not to sell needs a reason; of what is, only trimmed flash is noted',
  ),
);

export const hardnessBody = v.strictObject({
  id: ownId,
  scale: called(shore, 'Shore'),
  value: called(shorePoints, 'Reading'),
  /** Of the bait when it was read. */
  c: called(v.optional(v.nullable(waterC), null), 'The bait is at'),
});
/** The room of an evening, and its cups in another order. */
export const eveningPatch = v.strictObject({
  roomC: called(v.optional(v.nullable(roomC)), 'The room'),
  order: v.optional(v.pipe(v.array(rowId), v.minLength(1), v.maxLength(200))),
});
export const laidOutPatch = v.union([
  v.strictObject({ blend: blendParts }),
  v.strictObject({ discarded: v.boolean() }),
]);

export interface Heat {
  seq: number;
  id: string;
  kind: 'cook' | 'reheat' | 'reading';
  c: number;
  /** The instrument that told it; null: it was typed. */
  instrumentId?: string | null;
  at: string;
}

export interface Mark {
  cavity: number;
  grade: Grade | 'unmarked';
  /** Why it is not to sell; of one that is, what was trimmed off. */
  reason: Reason | null;
}

/** What a shot drew of one cup, with the last dose and the last heat that were in it. */
export interface ShotPart {
  layer: number;
  pourId: string;
  doseSeq: number;
  heatSeq: number;
  ml: number;
  at: string;
}

export interface Shot {
  seq: number;
  id: string;
  moldId: string;
  parts: ShotPart[];
  /** Of its last part. */
  at: string;
  marks: Mark[];
  /** Its baits as they lay on the scale, and what of each is missing against what its cavity gives; null: it is not light. */
  weighed: BaitWeighing[];
  redone: { id: string; layer: number; cavity: number; ml: number; minutes: number | null; reason: Reason | null }[];
}

export interface BaitWeighing {
  id: string;
  cavity: number;
  grams: number;
  /** What its cavity's baits weigh, and how many weighings say so; 0: its volume alone. */
  usualG: number;
  of: number;
  /** The part that is missing, where it is light: a hollow or a bubble inside. */
  missing: number | null;
}

/** A layer of what a cup's molds make. */
export interface PourLayer {
  place: Place;
  recipeId: string;
  recipeName: string;
  hex: string;
  joins: Join | null;
  measure: LayerMeasure;
  amount: number | null;
}

/** One of the cups that the same shots are drawn from. */
export interface CupOfSet {
  id: string;
  code: string;
  recipeId: string;
  recipeName: string;
  hex: string;
  /** Layers that it is drawn for, by their place in the list. */
  layers: number[];
  closedAt: string | null;
}

export interface CupOfEvening extends CupOfSet {
  leadId: string | null;
  cookMl: number;
  startedAt: string | null;
}

export interface Balance {
  cookedG: number;
  goodG: number;
  rejectG: number;
  returnedG: number;
  /** Null: not weighed, and in what is unaccounted. */
  residueG: number | null;
  degassedG: number | null;
  yieldFraction: number;
  unaccountedG: number;
  unaccountedFraction: number;
  at: string;
}

export interface HardnessReading {
  id: string;
  scale: 'A' | '00';
  value: number;
  /** Of the bait when it was read; null: not said. */
  c: number | null;
  early: boolean;
  at: string;
}

export interface PourRow extends Versioned {
  code: string;
  colourwayId: string;
  colourwayName: string;
  /** The cup that leads its shots, where it does not itself. */
  leadId: string | null;
  recipeId: string;
  recipeName: string;
  hex: string;
  cookMl: number;
  laidOutAt: string;
  startedAt: string | null;
  closedAt: string | null;
  discardedAt: string | null;
  shots: number;
  sell: number;
  own: number;
  remelt: number;
  baits: string;
}

export interface PourMold {
  moldId: string;
  name: string;
  kind: MoldRow['kind'];
  fill: MoldRow['fill'];
  shape: Shape;
  baitId: string;
  baitName: string;
  cavities: number;
  columns: number;
  shots: number;
  opensAt: string | null;
  /** How long each shot waits from being drawn to being opened. */
  opens: Waits;
  /** What each layer takes of one shot, and of one cavity, mL. */
  layersMl: number[];
  cavityLayersMl: number[];
  /** How high one that goes up to a level stands in it, mm. */
  layersMm: (number | null)[];
  /** Core rods run through its cavities. */
  rods: boolean;
  /** It has inserts that may be in or out. */
  inserted: boolean;
  /** How it stands for that; null where no layer goes up to a level. */
  stands: Standing | null;
}

export interface Pour extends Versioned {
  code: string;
  colourwayId: string;
  colourwayName: string;
  layers: PourLayer[];
  leadId: string | null;
  /** All cups that its shots are drawn from, the leading one first; alone where there is one. */
  cups: CupOfSet[];
  /** The cups of its evening in their order; only itself where nobody grouped them. */
  evening: { id: string | null; roomC: number | null; version: number; cups: CupOfEvening[] };
  /** What it gave to shots that other cups lead. */
  lent: { shots: number; ml: number };
  recipeId: string;
  recipeName: string;
  hex: string;
  recipeRevision: number;
  /** What its plastic is made of, as planned and as weighed in. */
  parts: Part[];
  blend: Blend;
  makerId: string | null;
  ledgerId: string;
  cookMl: number;
  plan: PourPlan;
  wanted: { scale: 'A' | '00'; value: number } | null;
  laidOutAt: string;
  startedAt: string | null;
  closedAt: string | null;
  /** Put away before anything was drawn. */
  discardedAt: string | null;
  curedAt: string | null;
  molds: PourMold[];
  recipeItems: RecipeItem[];
  doses: Dose[];
  /** What its doses weigh, and of which the usual density of their kind had to do. */
  /** Drawn of it so far, feed included, mL. */
  drawnMl: number;
  dosed: { g: number; byDefault: string[] };
  heats: Heat[];
  /** What flake and powder in the cup bear, of its recipe and dosed by eye. */
  limits: HeatLimit[];
  /** What sinks first in it, how long a stir lasts, and when it is to be stirred again; null: nothing sinks, or it is closed. */
  stir: { name: string; everyS: number; dueAt: string | null } | null;
  shots: Shot[];
  /** What was said by taps and still stands; of the whole evening too. */
  ticks: (Ticked & { note: string })[];
  balance: Balance | null;
  hardness: HardnessReading[];
  orders: { orderId: string; code: string; customer: string; dueOn: string; baitName: string; baits: number }[];
  lots: { materialName: string; lotCode: string; grams: number }[];
  bags: { code: string; baits: number; at: string; customer: string | null }[];
}

/** What is left of an open cup, and the empty molds that it could still fill. */
export interface Waiting {
  availableMl: number;
  molds: {
    id: string;
    name: string;
    cavities: number;
    cavityMl: number;
    sprueMl: number;
    runnerMl: number;
    secondsPerShot: number;
    mostShots: number;
    /** Baits of this melt that orders are short of. */
    wanted: number;
  }[];
}

/** What hands take at a mold here, learnt of its last shots. */
export interface Hands {
  moldId: string;
  /** To look, close it and fill it again; of that to open and to fill, s. */
  handsS: number;
  openS: number;
  fillS: number;
  /** Turns that say so; 0: the starting guess. */
  turns: number;
  /** How long a shot waited, as a rule; null: not seen. */
  waitedS: number | null;
  /** What its openings made of the wait that is worked out. */
  wait: LearntWait;
}

/** The oven, as it is told of and as bursts that were read taught. */
export interface Oven {
  watts: number;
  school: CookSchool;
  /** Of its power, what reaches a cup. */
  efficiency: number;
  /** Bursts that say so; 0: the starting guess. */
  bursts: number;
}
