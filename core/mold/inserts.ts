import * as v from 'valibot';
import { positive, signed, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';

/** g/mL, handbook values of the metals and of soda-lime glass. */
export const STUFF_G_PER_ML = {
  steel: 7.85,
  stainless: usual('stainlessGPerMl'),
  brass: 8.5,
  lead: usual('leadGPerMl'),
  tin: 7.29,
  tungsten: 19.25,
  'tungsten putty': 9.5,
  glass: 2.5,
  plastic: usual('tubeGPerMl'),
} as const;
export type Stuff = keyof typeof STUFF_G_PER_ML;

export interface InsertSize {
  kind: 'wire' | 'tube' | 'weight' | 'rod';
  stuff: Stuff;
  /** A weight's own mass; of the others it is worked out. */
  massG?: number | undefined;
  diameterMm?: number | undefined;
  lengthMm?: number | undefined;
  /** A tube's inside. */
  boreMm?: number | undefined;
}

/**
 * What an insert weighs (g) and the room it takes (mL). A tube's bore stays empty of plastic: its room is that of its outside.
 * @throws Failure `invalid-input` when its size is missing, or a bore is no smaller than its tube.
 * Source: volume of a cylinder × density of the material.
 */
export function insertSize({ kind, stuff, massG, diameterMm, lengthMm, boreMm }: InsertSize) {
  const density = STUFF_G_PER_ML[stuff];
  if (kind === 'weight') {
    if (!massG) throw new Failure('invalid-input', 'A weight has a mass: weigh it.', 'massG');
    return { massG, volumeMl: massG / density };
  }
  if (!diameterMm || !lengthMm)
    throw new Failure(
      'invalid-input',
      `A ${kind} has a diameter and a length.`,
      diameterMm ? 'lengthMm' : 'diameterMm',
    );
  const bore = kind === 'tube' ? (boreMm ?? 0) : 0;
  if (bore >= diameterMm) throw new Failure('invalid-input', 'A tube’s bore is narrower than the tube.', 'boreMm');
  const outsideMl = (Math.PI / 4) * diameterMm ** 2 * lengthMm * 1e-3;
  return { massG: density * (outsideMl - (Math.PI / 4) * bore ** 2 * lengthMm * 1e-3), volumeMl: outsideMl };
}

export const insertSchema = v.pipe(
  v.strictObject({
    /** One cavity by its number, or every one. */
    cavity: v.nullable(whole(1, 1000)),
    kind: v.picklist(['wire', 'tube', 'weight', 'rod']),
    stuff: v.picklist(Object.keys(STUFF_G_PER_ML) as Stuff[]),
    massG: v.optional(positive(1e4)),
    diameterMm: v.optional(positive(200)),
    lengthMm: v.optional(positive(2000)),
    boreMm: v.optional(positive(200)),
    /** A rod that is drawn out again leaves its room empty. */
    stays: v.boolean(),
    fromNoseMm: v.pipe(signed(2000), v.minValue(-2000)),
    /** Over the bait's middle; under it negative. */
    upMm: signed(2000),
  }),
  v.check((one) => {
    try {
      return insertSize(one).massG > 0;
    } catch {
      return false;
    }
  }, 'a weight needs its mass; a wire, tube or rod its diameter and length, and a bore narrower than the tube'),
);
export type Insert = v.InferOutput<typeof insertSchema>;

/** What lies in one cavity, and what stays of it in the bait: grams and mL. */
export function insertsOf(inserts: Insert[], cavity: number) {
  let [staysG, staysMl, takenMl] = [0, 0, 0];
  for (const insert of inserts) {
    if (insert.cavity !== null && insert.cavity !== cavity) continue;
    const { massG, volumeMl } = insertSize(insert);
    takenMl += volumeMl;
    if (insert.stays) [staysG, staysMl] = [staysG + massG, staysMl + volumeMl];
  }
  return { staysG, staysMl, takenMl };
}

/** Over all cavities, a bait: the plan of a mold whose cavities differ goes by their mean. */
export function meanInserts(inserts: Insert[], cavities: number) {
  const each = Array.from({ length: cavities }, (_, i) => insertsOf(inserts, i + 1));
  const mean = (key: keyof (typeof each)[number]) => each.reduce((sum, one) => sum + one[key], 0) / cavities;
  return { staysG: mean('staysG'), staysMl: mean('staysMl'), takenMl: mean('takenMl') };
}
