import * as v from 'valibot';
import { finite } from '../bounds.ts';

const mm = (least: number, most: number) => v.pipe(finite, v.minValue(least), v.maxValue(most));
/** A place along the body: 0 at the nose, 1 where the wrist begins. */
const along = mm(0, 1);
const span = v.strictObject({ fromAt: along, toAt: along, widthMm: mm(0.2, 40), depthMm: mm(0.2, 80) });

export const TAILS = [
  'paddle',
  'boot',
  'heel',
  'ribbon',
  'curl',
  'straight',
  'twin',
  'fork',
  'beaver',
  'skirt',
] as const;
export const LIMBS = ['claw', 'pincer', 'leg'] as const;
export const FIN_PLACES = ['back', 'belly', 'sides'] as const;
export const TEXTURES = ['scales', 'ridges'] as const;
export const INSERTS = ['wire', 'tube', 'weight'] as const;

/** Of a skirt. */
export const USUAL_STRANDS = 10;

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
    /** Along the bait; a paddle's is its thickness, and this is not used. A boot's is heel to toe. */
    lengthMm: mm(1, 250),
    /** Paddle diameter, boot width, ribbon, curl or fork lobe height, beaver width, root of a straight or twin tail. */
    acrossMm: mm(0.6, 150),
    thicknessMm: mm(0.5, 40),
    /** Lean of a paddle or boot, wave of a ribbon, turn of a curl, spread of twins, fork and skirt. */
    angleDeg: mm(0, 300),
    /** Of a skirt. */
    strands: v.optional(v.pipe(finite, v.integer(), v.minValue(3), v.maxValue(40)), USUAL_STRANDS),
  }),
  limbs: v.pipe(
    v.array(
      v.strictObject({
        kind: v.picklist(LIMBS),
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
  /** More fins; `upMm` is how far over the axis those at the sides stand. */
  fins: v.optional(
    v.pipe(
      v.array(
        v.strictObject({
          place: v.picklist(FIN_PLACES),
          fromAt: along,
          toAt: along,
          heightMm: mm(0.5, 60),
          thicknessMm: mm(0.5, 20),
          /** How far its tip lies behind its root. */
          sweepMm: mm(0, 60),
          upMm: mm(-50, 50),
        }),
      ),
      v.maxLength(8, 'too-large'),
    ),
    [],
  ),
  /** Plates over the gills, standing proud behind. */
  gills: v.optional(v.nullable(v.strictObject({ at: along, acrossMm: mm(1, 80), raiseMm: mm(0.1, 5) })), null),
  /** A gape from the nose back. */
  mouth: v.optional(v.nullable(v.strictObject({ depthMm: mm(0.5, 60), gapMm: mm(0.3, 40), upMm: mm(-50, 50) })), null),
  /** Cut into the skin of the body. */
  texture: v.optional(
    v.nullable(
      v.strictObject({
        kind: v.picklist(TEXTURES),
        sizeMm: mm(0.8, 20),
        depthMm: mm(0.05, 3),
        fromAt: along,
        toAt: along,
      }),
    ),
    null,
  ),
  /** Empty inside; what is left all round. */
  hollow: v.optional(v.nullable(v.strictObject({ skinMm: mm(0.8, 40), fromAt: along, toAt: along })), null),
  /** Turns of the axis seen from the side, tail down (+); bent like a rod, as long as before. */
  bends: v.optional(
    v.pipe(
      v.array(v.strictObject({ fromAt: along, toAt: mm(0, 1.5), turnDeg: mm(-150, 150) })),
      v.maxLength(4, 'too-large'),
    ),
    [],
  ),
  /** A mesh that was brought, joined to it or cut out of it: turned about its own middle, then set there. */
  brought: v.optional(
    v.nullable(
      v.strictObject({
        meshId: v.pipe(v.string(), v.uuid()),
        how: v.picklist(['join', 'cut']),
        scale: mm(0.05, 20),
        turnDeg: v.strictObject({ x: mm(-180, 180), y: mm(-180, 180), z: mm(-180, 180) }),
        toMm: v.strictObject({ x: mm(-200, 700), y: mm(-200, 200), z: mm(-200, 200) }),
      }),
    ),
    null,
  ),
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
/** A shape without the parts that were added after some were kept: as those are. */
export const WITHOUT_MORE = {
  fins: [],
  gills: null,
  mouth: null,
  texture: null,
  hollow: null,
  bends: [],
  brought: null,
};
/** A kept spec as it is read now; one of an older program has no such parts. */
export const wholeSpec = (kept: ShapeSpec): ShapeSpec => ({
  ...WITHOUT_MORE,
  ...kept,
  tail: { ...kept.tail, strands: kept.tail.strands ?? USUAL_STRANDS },
});

export type Station = v.InferOutput<typeof stationSchema>;

/** A boot's heel stands over the wrist by this share of the sole; the sole lies this many thicknesses behind the wrist. */
export const HEEL = { over: 0.28, soleAt: 1.7 } as const;

/** How far the tail reaches beyond the wrist, mm. */
export function tailReachMm({ tail }: ShapeSpec): number {
  const lean = (Math.min(tail.angleDeg, 80) * Math.PI) / 180;
  switch (tail.kind) {
    case 'paddle':
      return tail.thicknessMm * Math.cos(lean) + (tail.acrossMm * Math.sin(lean)) / 2;
    case 'boot':
      return tail.thicknessMm * Math.cos(lean) + (tail.lengthMm * Math.sin(lean)) / 2;
    case 'heel':
      return HEEL.soleAt * tail.thicknessMm * Math.cos(lean) + (1 - HEEL.over) * tail.lengthMm * Math.sin(lean);
    case 'fork':
      return tail.lengthMm * Math.cos(lean) + tail.acrossMm * 0.12 * Math.sin(lean);
    case 'skirt':
      return tail.lengthMm * Math.cos(lean);
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
