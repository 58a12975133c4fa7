import * as v from 'valibot';
import { called, from0, grams, ownId, rowId, tappedAt } from './fields.ts';
import type { MaterialKind } from './materials.ts';

/** Kinds of material that a cup's plastic is made of, besides remelt. */
export const ADDITIVE_KINDS = ['softener', 'hardener', 'stabilizer'] as const satisfies MaterialKind[];
export const PLASTIC_KINDS = ['plastisol', ...ADDITIVE_KINDS] as const satisfies MaterialKind[];

/** Whether it changes the plastic rather than being one. */
export const isAdditive = (kind: string) => (ADDITIVE_KINDS as readonly string[]).includes(kind);

const blendPart = v.pipe(
  v.strictObject({
    /** One lot, or a material: its opened lot is taken. */
    lotId: v.optional(rowId),
    materialId: v.optional(rowId),
    /** Remelt out of a bin. */
    binId: v.optional(rowId),
    share: called(v.pipe(from0(1), v.gtValue(0)), 'Share of the cup'),
  }),
  v.check(
    (part) => [part.lotId, part.materialId, part.binId].filter((one) => one !== undefined).length === 1,
    'name a lot, a material or a bin, one of the three',
  ),
);

const key = (part: v.InferOutput<typeof blendPart>) => part.lotId ?? part.materialId ?? part.binId;

export const blendParts = v.pipe(
  v.array(blendPart),
  v.minLength(1),
  v.maxLength(12),
  v.check((parts) => new Set(parts.map(key)).size === parts.length, 'a part is there twice; add its shares'),
  v.check(
    (parts) => Math.abs(parts.reduce((sum, part) => sum + part.share, 0) - 1) < 1e-6,
    'the shares of a cup add up to a whole',
  ),
);
export type BlendWish = v.InferOutput<typeof blendParts>;

/** What of a part went onto the scale. */
export const weighInBody = v.strictObject({ id: ownId, partId: rowId, grams: called(grams, 'Weighed in'), tappedAt });

/** One part of a cup's plastic. */
export interface Part {
  id: string;
  kind: MaterialKind | 'remelt';
  materialId: string | null;
  lotId: string | null;
  binId: string | null;
  /** What was left of another cup. */
  fromPourId: string | null;
  name: string;
  lotCode: string | null;
  share: number;
  /** A mL of it, and whether nobody weighed one. */
  gPerMl: number;
  gPerMlByDefault: boolean;
  plannedG: number;
  weighedG: number | null;
  /** The row to take back. */
  weighingId: string | null;
}

/** What the parts are together. */
export interface Blend {
  /** Once this cup is cooked; of the grams whose heats are known. */
  heats: number;
  remeltFraction: number;
  unknownFraction: number;
  saltUnknownFraction: number;
  /** By this workshop's own readings; null where a part's hardness is not known. */
  hardness: { scale: 'A' | '00'; value: number; sd: number; n: number } | null;
}

/** A plastisol as this workshop's own cured readings find it. */
export interface Plastic {
  materialId: string;
  name: string;
  /** By its label; null: not written down. */
  nominal: number | null;
  hardness: number | null;
  sd: number | null;
  pricePerKgMinor: number | null;
  levelG: number;
}

export interface Plastics {
  scale: 'A' | '00';
  /** Cured readings that speak of it, and those that do not: of remelt, salted or softened cups. */
  n: number;
  leftOut: number;
  residualSd: number | null;
  items: Plastic[];
  additives: Additive[];
}

/** What softens or hardens the plastisols, where it is known by how much. */
export interface Additive {
  materialId: string;
  name: string;
  pointsPerPercent: number;
  pricePerKgMinor: number | null;
  levelG: number;
}
