import * as v from 'valibot';
import { finite, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';

const place = v.strictTuple([finite, finite, finite]);

/** What a mold is asked to be; the mesh comes beside it. Lengths in mm, axes of the bait: nose to tail, right, back up. */
export const wishFields = {
  kind: v.picklist(['printed', 'machined', 'silicone-box']),
  count: whole(1, 24),
  /** Noses to a runner from one side of it, or from both. */
  layout: v.optional(v.picklist(['one-side', 'both-sides'])),
  /** Along which the halves are pulled apart; the best of the three axes if not given. */
  direction: v.optional(
    v.pipe(
      place,
      v.check((d) => Math.hypot(...d) > 1e-9, 'a direction cannot be [0, 0, 0]'),
    ),
  ),
  planeMm: v.optional(finite),
  shrinkFraction: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(0.2)), 0.015),
  wallMm: v.optional(v.pipe(positive(100), v.minValue(1)), usual('blockWallMm')),
  gapMm: v.optional(v.pipe(nonNegative(100), v.minValue(1)), 6),
  sprueMm: v.optional(positive(60), 12),
  runnerMm: v.optional(positive(40), 8),
  gateMm: v.optional(positive(20), 4),
  /** Across a vent; 0 makes none. */
  ventMm: v.optional(nonNegative(6), 1),
  /** Vents set by hand instead of those that are worked out: measured on the mold, from the nose's tip and to the right of the gate. */
  ventsAt: v.optional(
    v.pipe(
      v.array(
        v.strictObject({
          kind: v.picklist(['groove', 'hole']),
          fromNoseMm: nonNegative(1000),
          asideMm: v.pipe(finite, v.minValue(-500), v.maxValue(500)),
        }),
      ),
      v.maxLength(24, 'too-large'),
    ),
  ),
  pins: v.optional(
    v.strictObject({
      diameterMm: v.optional(positive(30), 6),
      clearanceMm: v.optional(nonNegative(2), 0.15),
      /** Steel dowels in holes of both halves, instead of pins that are part of the lower one. */
      dowels: v.optional(v.boolean(), false),
    }),
    {},
  ),
  /** One plane, or a seam that follows the bait's widest edge. */
  split: v.optional(v.picklist(['flat', 'wavy']), 'flat'),
  /** Two halves, or each of them sawn once more along the bait. */
  pieces: v.optional(v.picklist([2, 4]), 2),
  /** A blade from the belly's half that leaves a hook slot; its insert turned over leaves none. */
  hookSlot: v.optional(
    v.strictObject({
      fromNoseMm: nonNegative(500),
      lengthMm: v.pipe(positive(500), v.minValue(2)),
      depthMm: v.pipe(positive(100), v.minValue(0.5)),
      widthMm: v.optional(v.pipe(positive(20), v.minValue(0.5)), 1.5),
    }),
  ),
  /** Electrodes for sparking one cavity, smaller than it all round by this. */
  sparkGapMm: v.optional(v.pipe(positive(1), v.minValue(0.01))),
  /** A second pair for roughing: the gap of the higher current; smaller too by what finishing takes off. */
  sparkRoughGapMm: v.optional(v.pipe(positive(1), v.minValue(0.01))),
  /** A steel rod that keeps the bore of a tube free. */
  coreRodMm: v.optional(positive(60)),
  /** Held in the wall behind the tail, or before the nose too: by a pin through nose, gate and runner. */
  rodHeld: v.optional(v.picklist(['tail', 'both']), 'tail'),
  rodPinMm: v.optional(positive(20), 2),
  /** What of the bait is left out: it is cast solid there. */
  without: v.optional(v.array(v.picklist(['bore', 'slots'])), []),
  /** Stock that there is: length, width, height. */
  stockMm: v.optional(v.strictTuple([positive(2000), positive(2000), positive(2000)])),
} as const;

export const wishSchema = v.strictObject(wishFields);
export type MoldWish = v.InferOutput<typeof wishSchema>;
