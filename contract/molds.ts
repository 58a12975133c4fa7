import * as v from 'valibot';
import { usual } from '../core/defaults.ts';
import { FILLS, MOLD_KINDS } from '../core/heat/window.ts';
import { wishSchema } from '../core/mold/buildWish.ts';
import { DIP_BOUNDS_C } from '../core/mold/dip.ts';
import { type Insert, insertSchema, STUFF_G_PER_ML, type Stuff } from '../core/mold/inserts.ts';
import { type PlanInput, planSchema, type SiliconePlan } from '../core/mold/silicone.ts';
import { STAND_IDS } from '../core/mold/stands.ts';
import {
  above0,
  called,
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
  eyeMm: called(v.optional(v.nullable(above0(50)), null), 'Eye sockets'),
  hookSlot: called(v.optional(v.picklist(HOOK_SLOTS), 'none'), 'Hook slot'),
  /** The plate or oven it is brought to before it is filled, °C; null: filled cold. */
  plateC: called(v.optional(v.nullable(cupC), null), 'Brought to, on a plate'),
  /** Null: as it is usual for the way it is filled. */
  stands: called(v.optional(v.nullable(v.picklist(STAND_IDS)), null), 'Stands, while it is filled'),
  notes: called(note, 'What to know of it'),
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
  /** Masters stand on end in their block; what was kept before lies. */
  onEnd: v.optional(v.boolean()),
  places: v.optional(v.pipe(v.array(v.strictObject({ xMm: from0(2000), yMm: from0(2000) })), v.maxLength(1000))),
});
export type MakingPlan = v.InferOutput<typeof makingSchema>;

const insertWhere = {
  cavity: called(v.nullable(count(1, 1000)), 'In'),
  stuff: called(v.picklist(Object.keys(STUFF_G_PER_ML) as Stuff[]), 'Of'),
  stays: v.boolean(),
  fromNoseMm: called(from0(2000), 'Its middle from the nose'),
  underMm: called(v.pipe(v.number(), v.minValue(-2000), v.maxValue(2000)), 'Under the middle'),
};
const across = called(above0(200), 'Thick');
/** An insert as it is written down at the mold: how far under the middle, not over it. */
export const insertSheet = v.variant('kind', [
  v.strictObject({
    kind: called(v.literal('weight'), 'What'),
    massG: called(above0(1e4), 'Weighs'),
    ...insertWhere,
  }),
  v.strictObject({ kind: v.picklist(['wire', 'rod']), diameterMm: across, lengthMm: above0(2000), ...insertWhere }),
  v.strictObject({
    kind: v.literal('tube'),
    diameterMm: across,
    lengthMm: above0(2000),
    boreMm: v.optional(above0(200)),
    ...insertWhere,
  }),
]);

const inserts = v.pipe(v.array(insertSchema), v.maxLength(60));
/** How the builder made it, so that it can be built again. */
const build = v.strictObject({
  meshId: rowId,
  wish: wishSchema,
  /** How deep the deeper half is cut; not kept by older programs. */
  depthMm: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1000))),
});

export const moldBody = v.pipe(
  v.strictObject({
    name: called(name, 'Name of the mold'),
    kind: called(v.picklist(MOLD_KINDS), 'Made of'),
    fill: called(v.picklist(FILLS), 'Filled by'),
    baitId: called(v.optional(rowId), 'Makes'),
    /** For a mold without a master here: the bait it makes. */
    newBait: v.optional(
      v.strictObject({
        name: called(name, 'Name of the bait'),
        shape: called(shape, 'Drawn as'),
        packCount: v.optional(count(1, 1000), usual('packCount')),
      }),
    ),
    revisionId: v.optional(rowId),
    cavities: count(1, 1000),
    columns: v.optional(count(1, 1000)),
    cavityMl: volumeMl,
    sprueMl: called(v.optional(from0(2000), 0), 'Sprue and runner of a shot'),
    runnerMl: v.optional(from0(2000), 0),
    injectorMl: v.optional(v.nullable(above0(5000))),
    secondInjectorMl: v.optional(v.nullable(above0(5000))),
    rubberId: v.optional(rowId),
    planInput: v.optional(planSchema),
    /** Its rubber is one colour at this moment: both clocks of it run from here. */
    mixed: v.optional(v.boolean()),
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
    secondInjectorMl: v.nullable(above0(5000)),
    fitting: fittingSchema,
    inserts,
    retired: v.boolean(),
  }),
);

/** What a maker gives of a mold that was built here; the rest is known. */
export const builtBody = v.strictObject({ name: called(name, 'Once it is made, it is called') });

/** A worn mold made again of the same revision, in the same way; it retires the old one. */
export const rebuildBody = v.strictObject({ name: called(name, 'The new one is called') });

export const weighingBody = v.strictObject({
  id: ownId,
  of: called(v.picklist(['bait', 'shot', 'sprue']), 'On the scale'),
  count: count(1, 10_000),
  grams: called(grams, 'Weighed together'),
  densityGPerMl: v.optional(density, usual('plastisolGPerMl')),
});
export const dipBody = v.strictObject({
  id: ownId,
  dips: called(count(1, 100), 'Dipped, times'),
  wallMm: called(above0(100), 'Wall it built'),
  cupC: v.pipe(cupC, v.minValue(DIP_BOUNDS_C[0]), v.maxValue(DIP_BOUNDS_C[1]), v.title('Cup was at')),
});
export const SPARK_SEEN = ['clean', 'pits', 'arc'] as const;
export const sparkBody = v.pipe(
  v.strictObject({
    id: ownId,
    electrode: name,
    pass: v.picklist(['roughing', 'finishing']),
    amps: called(above0(1000), 'Current, A'),
    fromMm: from0(500),
    toMm: above0(500),
    minutes: above0(100_000),
    /** Share of the pulses that cut, as the machine shows it. */
    efficiency: called(v.optional(v.nullable(from0(1)), null), 'Efficiency'),
    seen: v.picklist(SPARK_SEEN),
  }),
  v.forward(
    v.check((run) => run.toMm > run.fromMm, 'a run goes deeper than it began'),
    ['toMm'],
  ),
);
export const CARE_LOGS = ['weighings', 'dips', 'sparks'] as const;

export const moldEventBody = v.variant('kind', [
  v.strictObject({ id: ownId, kind: v.literal('mixed') }),
  v.strictObject({ id: ownId, kind: v.literal('bedded') }),
  /** The plain first pour: what it took leaves the store, and is no shot. */
  v.strictObject({ id: ownId, kind: v.literal('first-pour'), grams: called(grams, 'It took') }),
  v.strictObject({ id: ownId, kind: v.literal('cleaned') }),
  v.strictObject({ id: ownId, kind: v.literal('topped-up'), missingDepthMm: above0(2000) }),
  v.strictObject({
    id: ownId,
    kind: v.literal('step'),
    step: name,
    /** Done all the same, though its clock still runs. */
    sure: v.optional(v.boolean(), false),
  }),
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
  /** What the other one of two holds that are pushed together; null: as much. */
  secondInjectorMl: number | null;
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
    colourwayName: string;
    hex: string;
    at: string;
    shots: number;
    sell: number;
    own: number;
    remelt: number;
  }[];
}
