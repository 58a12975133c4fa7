import * as v from 'valibot';
import { usual } from '../core/defaults.ts';
import { FILLS, MOLD_KINDS } from '../core/heat/window.ts';
import { wishSchema } from '../core/mold/buildWish.ts';
import { type Insert, insertSchema } from '../core/mold/inserts.ts';
import { type PlanInput, planSchema, type SiliconePlan } from '../core/mold/silicone.ts';
import {
  above0,
  count,
  cupC,
  density,
  from0,
  grams,
  name,
  note,
  ownId,
  rowId,
  type Versioned,
  volumeMl,
} from './fields.ts';
import { type Shape, shape } from './workshop.ts';

export const HOOK_SLOTS = ['none', 'cast', 'insert'] as const;

/** What a mold is besides its cavities. */
export const fittingSchema = v.strictObject({
  eyeMm: v.optional(v.nullable(above0(50)), null),
  hookSlot: v.optional(v.picklist(HOOK_SLOTS), 'none'),
  /** The plate or oven it is brought to before it is filled, °C; null: filled cold. */
  plateC: v.optional(v.nullable(cupC), null),
  notes: note,
});
export type Fitting = v.InferOutput<typeof fittingSchema>;

/** How masters are held in the box, where each stands, and how bubbles are kept out. */
export const makingSchema = v.strictObject({
  hold: v.picklist(['glue', 'bed', 'box-over']),
  /** A self-levelling epoxy bed: how deep, how deep the masters sink into it, its times in this room. */
  bed: v.optional(
    v.strictObject({
      depthMm: above0(200),
      sinkMm: from0(200),
      resinMl: above0(20_000),
      gramsA: above0(20_000),
      gramsB: above0(20_000),
      workMin: above0(10_000),
      firmMin: above0(100_000),
    }),
  ),
  bubbles: v.picklist(['vacuum', 'thin-stream']),
  places: v.optional(v.pipe(v.array(v.strictObject({ xMm: from0(2000), yMm: from0(2000) })), v.maxLength(1000))),
});
export type MakingPlan = v.InferOutput<typeof makingSchema>;

const inserts = v.pipe(v.array(insertSchema), v.maxLength(60));
/** How the builder made it, so that it can be built again. */
const build = v.strictObject({ meshId: rowId, wish: wishSchema });

export const moldBody = v.pipe(
  v.strictObject({
    name,
    kind: v.picklist(MOLD_KINDS),
    fill: v.picklist(FILLS),
    baitId: v.optional(rowId),
    /** For a mold without a master here: the bait it makes. */
    newBait: v.optional(v.strictObject({ name, shape, packCount: v.optional(count(1, 1000), 8) })),
    revisionId: v.optional(rowId),
    cavities: count(1, 1000),
    columns: v.optional(count(1, 1000)),
    cavityMl: volumeMl,
    sprueMl: v.optional(from0(2000), 0),
    runnerMl: v.optional(from0(2000), 0),
    injectorMl: v.optional(v.nullable(above0(5000))),
    rubberId: v.optional(rowId),
    planInput: v.optional(planSchema),
    making: v.optional(makingSchema),
    fitting: v.optional(fittingSchema),
    inserts: v.optional(inserts),
    build: v.optional(build),
  }),
  v.check(
    (mold) => Boolean(mold.baitId) !== Boolean(mold.newBait),
    'name the bait it makes: baitId or newBait, one of them',
  ),
);

export const moldPatch = v.partial(
  v.strictObject({
    name,
    cavityMl: volumeMl,
    sprueMl: from0(2000),
    runnerMl: from0(2000),
    injectorMl: v.nullable(above0(5000)),
    fitting: fittingSchema,
    inserts,
    retired: v.boolean(),
  }),
);

/** A worn mold made again of the same revision, in the same way; it retires the old one. */
export const rebuildBody = v.strictObject({ name });

export const weighingBody = v.strictObject({
  id: ownId,
  of: v.picklist(['bait', 'shot', 'sprue']),
  count: count(1, 10_000),
  grams,
  densityGPerMl: v.optional(density, usual('plastisolGPerMl')),
});
export const dipBody = v.strictObject({
  id: ownId,
  dips: count(1, 100),
  wallMm: above0(100),
  cupC: v.pipe(
    cupC,
    v.minValue(140, 'a dip cup is kept between 140 and 180 °C'),
    v.maxValue(180, 'a dip cup is kept between 140 and 180 °C'),
  ),
});
export const SPARK_SEEN = ['clean', 'pits', 'arc'] as const;
export const sparkBody = v.pipe(
  v.strictObject({
    id: ownId,
    electrode: name,
    pass: v.picklist(['roughing', 'finishing']),
    amps: above0(1000),
    fromMm: from0(500),
    toMm: above0(500),
    minutes: above0(100_000),
    /** Share of the pulses that cut, as the machine shows it. */
    efficiency: v.optional(v.nullable(from0(1)), null),
    seen: v.picklist(SPARK_SEEN),
  }),
  v.forward(
    v.check((run) => run.toMm > run.fromMm, 'a run goes deeper than it began'),
    ['toMm'],
  ),
);
export const CARE_LOGS = ['weighings', 'dips', 'sparks'] as const;
export const careBackBody = v.strictObject({ id: ownId, log: v.picklist(CARE_LOGS), rowId });

export const moldEventBody = v.variant('kind', [
  v.strictObject({ id: ownId, kind: v.literal('mixed') }),
  v.strictObject({ id: ownId, kind: v.literal('bedded') }),
  /** The plain first pour: what it took leaves the store, and is no shot. */
  v.strictObject({ id: ownId, kind: v.literal('first-pour'), grams }),
  v.strictObject({ id: ownId, kind: v.literal('cleaned') }),
  v.strictObject({ id: ownId, kind: v.literal('topped-up'), missingDepthMm: above0(2000) }),
  v.strictObject({ id: ownId, kind: v.literal('step'), step: name }),
  v.strictObject({ id: ownId, kind: v.literal('step-undone'), step: name }),
]);

export interface MoldEvent {
  id: string;
  kind: 'mixed' | 'topped-up' | 'step' | 'step-undone' | 'bedded' | 'first-pour' | 'cleaned';
  step: string | null;
  detail: Record<string, unknown> | null;
  at: string;
}

export interface CavityHealth {
  cavity: number;
  made: number;
  rejected: number;
  reasons: { reason: string; count: number }[];
}

export interface Weighing extends Omit<v.InferOutput<typeof weighingBody>, 'id'> {
  id: string;
  at: string;
}
export interface DipReading extends Omit<v.InferOutput<typeof dipBody>, 'id'> {
  id: string;
  at: string;
}
export interface SparkRun extends Omit<v.InferOutput<typeof sparkBody>, 'id'> {
  id: string;
  at: string;
}

/** What weighing said of a mold, beside its estimate. */
export interface Weighed {
  /** How many baits, and how many shots or sprues, were weighed; 0 where the estimate stands. */
  cavityFrom: number;
  channelsFrom: number;
  spread: number | null;
  toEstimate: number;
  problem: string | null;
}

export interface MoldCare {
  cleanedAt: string | null;
  shotsSinceCleaned: number;
  /** Shots after which half of the molds of its kind were worn out here; null until half of them are. */
  life: { shots: number | null; from: number };
  /** Baits looked at and those with flash, a pour, oldest first. */
  flash: { pourId: string; code: string; at: string; made: number; flash: number }[];
  weighings: Weighing[];
  dips: DipReading[];
  sparks: SparkRun[];
}

export interface MoldRow extends Versioned {
  name: string;
  kind: (typeof MOLD_KINDS)[number];
  fill: (typeof FILLS)[number];
  baitId: string;
  baitName: string;
  shape: Shape;
  revisionId: string | null;
  cavities: number;
  columns: number;
  rows: number;
  /** Plastic a bait and a shot's sprue and runner take: as weighed, or as estimated until then; inserts are not in it. */
  cavityMl: number;
  sprueMl: number;
  runnerMl: number;
  estimate: { cavityMl: number; sprueMl: number; runnerMl: number };
  weighed: Weighed | null;
  injectorMl: number | null;
  rubberId: string | null;
  fitting: Fitting | null;
  inserts: Insert[] | null;
  making: MakingPlan | null;
  rebuiltFromId: string | null;
  retiredAt: string | null;
  createdAt: string;
  shots: number;
  made: number;
  rejected: number;
  plan: { input: PlanInput; output: SiliconePlan } | null;
  /** When its rubber may be demolded; 'unmixed' while it is only a plan, null once it is a mold. */
  readyAt: string | null;
}

/** What is known of a mold as heat goes through it; null: not known, and then a default or a guess by its kind. */
export interface MoldFacts {
  thicknessMm: number | null;
  wallMm: number | null;
}

export interface Mold extends MoldRow {
  facts: MoldFacts;
  events: MoldEvent[];
  health: CavityHealth[];
  care: MoldCare;
  build: v.InferOutput<typeof build> | null;
  /** The worn ones before it, newest first, and the one that took its place. */
  before: { id: string; name: string; shots: number }[];
  after: { id: string; name: string } | null;
  master: { masterId: string; revisionNumber: number } | null;
  pours: {
    id: string;
    code: string;
    recipeName: string;
    hex: string;
    at: string;
    shots: number;
    good: number;
    bad: number;
  }[];
}
