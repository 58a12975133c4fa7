import * as v from 'valibot';
import { finite, positive } from '../bounds.ts';

/** Heights of the back and belly over a line along the bait, mm, nose to tail. */
const outline = v.pipe(
  v.array(
    v.strictObject({
      xMm: v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
      topMm: v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
      bottomMm: v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)),
    }),
  ),
  v.minLength(2),
  v.maxLength(2000, 'too-large'),
);

export const hookSchema = v.strictObject({
  outline,
  /** Eye to the far side of the bend, along the shank. */
  shankMm: positive(500),
  /** Shank to point, across. */
  gapMm: positive(200),
  eyeMm: positive(50),
  wireMm: v.optional(positive(20), 1),
  /** Where along the bait the eye sits, and how high the shank lies. */
  eyeXMm: v.optional(v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)), 0),
  shankZMm: v.optional(v.pipe(finite, v.minValue(-1e4), v.maxValue(1e4)), 0),
  /** How far the point reaches back from the bend towards the eye, as a share of the shank. */
  pointShare: v.optional(v.pipe(finite, v.minValue(0.1), v.maxValue(0.9)), 0.4),
  boreMm: v.optional(positive(200)),
  slotMm: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(2000))),
});

function at(rows: { xMm: number; topMm: number; bottomMm: number }[], x: number) {
  const sorted = [...rows].sort((a, b) => a.xMm - b.xMm);
  const after = sorted.findIndex((row) => row.xMm >= x);
  if (after === 0 || after < 0) return undefined;
  const [a, b] = [sorted[after - 1] as (typeof rows)[number], sorted[after] as (typeof rows)[number]];
  const share = b.xMm === a.xMm ? 0 : (x - a.xMm) / (b.xMm - a.xMm);
  return { top: a.topMm + share * (b.topMm - a.topMm), bottom: a.bottomMm + share * (b.bottomMm - a.bottomMm) };
}

/**
 * A single hook laid through the bait, its shank straight along the length and its point up.
 * @returns where bend and point come to lie, the point over (+) or under (−) the back, whether the shank stays inside,
 * the slot the point needs to swing free, and what the eye has to spare in the bore; all in mm.
 * Source: geometry of the drawn hook.
 */
export function hookFit(input: v.InferOutput<typeof hookSchema>) {
  const bendX = input.eyeXMm + input.shankMm;
  const pointX = bendX - input.pointShare * input.shankMm;
  const pointZ = input.shankZMm + input.gapMm;
  const back = at(input.outline, pointX);
  const bend = at(input.outline, bendX);
  // The bend's half circle and the point with its barb have to leave through the back.
  const slotNeededMm = input.gapMm / 2 + (bendX - pointX) + input.wireMm;
  return {
    bendXMm: bendX,
    pointXMm: pointX,
    pointZMm: pointZ,
    bodyDepthMm: back ? back.top - input.shankZMm : null,
    pointOverBackMm: back ? pointZ - back.top : null,
    bendInside: bend ? input.shankZMm > bend.bottom && input.shankZMm < bend.top : false,
    slotNeededMm,
    slotSpareMm: input.slotMm === undefined ? null : input.slotMm - slotNeededMm,
    boreSpareMm: input.boreMm === undefined ? null : input.boreMm - input.eyeMm,
    /** Steel, for sink and trim: shank, bend and point as one wire. */
    wireLengthMm: input.shankMm + (Math.PI / 2) * input.gapMm + input.pointShare * input.shankMm,
  };
}
