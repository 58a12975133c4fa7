import * as v from 'valibot';
import type { SiliconePlan } from '../core/mold/silicone.ts';
import { type PlanInput, planSchema } from '../core/mold/silicone.ts';
import { above0, count, from0, name, ownId, rowId, type Versioned, volumeMl } from './fields.ts';
import { type Shape, shape } from './workshop.ts';

export const MOLD_KINDS = [
  'silicone-open',
  'silicone-wrap',
  'silicone-two-piece',
  'aluminium',
  'printed',
  'cast',
  'dip-rods',
] as const;
export const FILLS = ['open-pour', 'injection', 'gravity', 'dip'] as const;

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
    retired: v.boolean(),
  }),
);

export const moldEventBody = v.variant('kind', [
  v.strictObject({ id: ownId, kind: v.literal('mixed') }),
  v.strictObject({ id: ownId, kind: v.literal('topped-up'), missingDepthMm: above0(2000) }),
  v.strictObject({ id: ownId, kind: v.literal('step'), step: name }),
  v.strictObject({ id: ownId, kind: v.literal('step-undone'), step: name }),
]);

export interface MoldEvent {
  id: string;
  kind: 'mixed' | 'topped-up' | 'step' | 'step-undone';
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
  cavityMl: number;
  sprueMl: number;
  runnerMl: number;
  injectorMl: number | null;
  rubberId: string | null;
  retiredAt: string | null;
  createdAt: string;
  shots: number;
  made: number;
  rejected: number;
  plan: { input: PlanInput; output: SiliconePlan } | null;
  /** When its rubber may be demolded; 'unmixed' while it is only a plan, null once it is a mold. */
  readyAt: string | null;
}

export interface Mold extends MoldRow {
  events: MoldEvent[];
  health: CavityHealth[];
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
