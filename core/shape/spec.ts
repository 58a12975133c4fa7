import * as v from 'valibot';
import { finite } from '../bounds.ts';

const mm = (least: number, most: number) => v.pipe(finite, v.minValue(least), v.maxValue(most));
/** A place along the body: 0 at the nose, 1 where the wrist begins. */
const along = mm(0, 1);
const span = v.strictObject({ fromAt: along, toAt: along, widthMm: mm(0.2, 40), depthMm: mm(0.2, 80) });

export const TAILS = ['paddle', 'boot', 'ribbon', 'curl', 'straight', 'twin', 'beaver'] as const;
export const INSERTS = ['wire', 'tube', 'weight'] as const;

export const stationSchema = v.strictObject({
  at: along,
  /** Back over the axis, and belly under it. */
  topMm: mm(0.3, 100),
  bottomMm: mm(0.3, 100),
  /** Side to side. */
  widthMm: mm(0.6, 200),
});

/**
 * A bait in the trade's own terms. x runs from nose to tail, y to the right, z up through the back; the axis is the line
 * that the wrist ends on. All lengths in mm, angles in degrees.
 */
export const shapeSpecSchema = v.strictObject({
  /** Nose to wrist; wrist and tail come on top. */
  bodyMm: mm(8, 500),
  /** How far the nose is rounded back from its tip. */
  noseMm: mm(0, 100),
  stations: v.pipe(v.array(stationSchema), v.minLength(2), v.maxLength(12, 'too-large')),
  /** 0 round, 1 a flat belly with square edges. */
  flatBelly: mm(0, 1),
  ribs: v.nullable(
    v.strictObject({
      count: v.pipe(finite, v.integer(), v.minValue(1), v.maxValue(60)),
      depthMm: mm(0.1, 10),
      widthMm: mm(0.3, 20),
      fromAt: along,
      toAt: along,
    }),
  ),
  wrist: v.strictObject({ thicknessMm: mm(0.6, 60), heightMm: mm(0.6, 100), lengthMm: mm(0.5, 150) }),
  tail: v.strictObject({
    kind: v.picklist(TAILS),
    /** Along the bait; a paddle's is its thickness, and this is not used. */
    lengthMm: mm(1, 250),
    /** Paddle diameter, boot height, ribbon or curl height, beaver width, root of a straight or twin tail. */
    acrossMm: mm(0.6, 150),
    thicknessMm: mm(0.5, 40),
    /** Lean of a paddle or boot, wave of a ribbon, turn of a curl, spread of twins. */
    angleDeg: mm(0, 300),
  }),
  limbs: v.pipe(
    v.array(
      v.strictObject({
        kind: v.picklist(['claw', 'leg']),
        pairs: v.pipe(finite, v.integer(), v.minValue(1), v.maxValue(8)),
        at: along,
        /** Between pairs, along the body. */
        stepMm: mm(0, 60),
        lengthMm: mm(2, 150),
        thicknessMm: mm(0.6, 30),
        /** From straight back, outward: 90 stands off the side, 180 points forward. */
        angleDeg: mm(0, 180),
        /** How far they hang down. */
        dropDeg: mm(-80, 80),
      }),
    ),
    v.maxLength(6, 'too-large'),
  ),
  fin: v.nullable(v.strictObject({ fromAt: along, toAt: along, heightMm: mm(0.5, 60), thicknessMm: mm(0.5, 20) })),
  eyes: v.nullable(v.strictObject({ diameterMm: mm(0.5, 30), at: along, upMm: mm(-50, 50) })),
  bellySlot: v.nullable(span),
  topSlot: v.nullable(span),
  bore: v.nullable(
    v.strictObject({ diameterMm: mm(0.3, 60), fromAt: mm(0, 1.5), toAt: mm(0, 1.5), upMm: mm(-50, 50) }),
  ),
  inserts: v.pipe(
    v.array(
      v.strictObject({
        kind: v.picklist(INSERTS),
        massG: mm(0.001, 500),
        volumeMl: mm(0, 100),
        at: along,
        upMm: mm(-80, 80),
      }),
    ),
    v.maxLength(12, 'too-large'),
  ),
  /** Cut flat this high over the lowest of the belly, to lie on a board; null: in the round. */
  cutFlatMm: v.nullable(mm(0, 60)),
  /** What a hand does to a carving: thinner toward the tail (+), and a bend to the right (+). */
  carved: v.strictObject({ taper: mm(-0.5, 0.5), bendMm: mm(-60, 60) }),
});

export type ShapeSpec = v.InferOutput<typeof shapeSpecSchema>;
export type Station = v.InferOutput<typeof stationSchema>;

/** How far the tail reaches beyond the wrist, mm. */
export function tailReachMm({ tail }: ShapeSpec): number {
  const lean = (Math.min(tail.angleDeg, 80) * Math.PI) / 180;
  switch (tail.kind) {
    case 'paddle':
      return tail.thicknessMm * Math.cos(lean) + (tail.acrossMm * Math.sin(lean)) / 2;
    case 'boot':
      return tail.thicknessMm * Math.cos(lean) + (tail.lengthMm * Math.sin(lean)) / 2;
    default:
      return tail.lengthMm;
  }
}

/** What `bait.kick` asks for; null for a tail without a model. */
export function tailOf(spec: ShapeSpec) {
  if (spec.tail.kind !== 'paddle') return null;
  return {
    wristThicknessMm: spec.wrist.thicknessMm,
    wristHeightMm: spec.wrist.heightMm,
    wristLengthMm: spec.wrist.lengthMm,
    paddleDiameterMm: spec.tail.acrossMm,
    paddleThicknessMm: spec.tail.thicknessMm,
  };
}
