import { axisOf } from '../../../core/shape/axis.ts';
import { type ShapeSpec, tailReachMm } from '../../../core/shape/spec.ts';

/** A little air before the nose and behind the tail. */
const ROOM_ALONG = 1.03;
export const LEFT = 46;
export const GAP = 44;
/** What both views may take in height together, px. */
const TALL = 210;

/** How a shape lies on the paper: px a mm, and where the middle of each view runs. */
export interface Geometry {
  lengthMm: number;
  /** What reaches ahead of the nose: pincers and feelers, mm. */
  beforeMm: number;
  scale: number;
  sideY: number;
  topY: number;
  rulerY: number;
  heightPx: number;
  /** Above and below the middle of the side view, and to each side in the view from above, mm. */
  highMm: number;
  halfMm: number;
}

export function geometryOf(spec: ShapeSpec, widthPx: number, measuredMm: number | null): Geometry {
  const { stations, wrist, tail, limbs, fin, fins } = spec;
  const axis = axisOf(spec);
  const wholeMm = spec.bodyMm + wrist.lengthMm + tailReachMm(spec);
  const beforeMm = Math.max(
    0,
    ...limbs.map((one) => -one.at * spec.bodyMm - one.lengthMm * Math.cos((one.angleDeg * Math.PI) / 180)),
  );
  const lengthMm = measuredMm ?? axis.at(wholeMm).xMm + beforeMm;
  const end = [tail.acrossMm / 2, wrist.heightMm / 2];
  const curl = tail.kind === 'curl' ? tail.lengthMm * 0.55 : 0;
  const finsMm = (place: 'back' | 'belly') => fins.filter((one) => one.place === place).map((one) => one.heightMm);
  // Of a bent axis, each place where it comes to lie.
  const over = (at: number, mm: number) => axis.place(at, mm)[1];
  const tailOver = [spec.bodyMm + wrist.lengthMm, wholeMm].flatMap((at) => end.map((mm) => over(at, mm)));
  const tailUnder = [spec.bodyMm + wrist.lengthMm, wholeMm].flatMap((at) => [...end, curl].map((mm) => -over(at, -mm)));
  const highMm =
    Math.max(...stations.map((one) => over(one.at * spec.bodyMm, one.topMm)), ...tailOver) +
    Math.max(fin?.heightMm ?? 0, 0, ...finsMm('back'));
  const lowMm =
    Math.max(...stations.map((one) => -over(one.at * spec.bodyMm, -one.bottomMm)), ...tailUnder) +
    Math.max(0, ...finsMm('belly'));
  const widest = Math.max(...stations.map((one) => one.widthMm / 2), wrist.thicknessMm / 2);
  const reach = limbs.map((one) => one.lengthMm * Math.sin((one.angleDeg * Math.PI) / 180));
  const aside = fins.filter((one) => one.place === 'sides').map((one) => one.heightMm);
  const halfMm = Math.max(widest + Math.max(0, ...reach, ...aside), ...end.slice(0, tail.kind === 'beaver' ? 1 : 0));
  const scale = Math.min((widthPx - LEFT - 14) / (lengthMm * ROOM_ALONG), TALL / (highMm + lowMm + 2 * halfMm));
  const sideY = 22 + highMm * scale;
  const topY = sideY + lowMm * scale + GAP + halfMm * scale;
  return {
    lengthMm,
    beforeMm,
    scale,
    sideY,
    topY,
    rulerY: sideY + lowMm * scale + GAP / 2 - 4,
    heightPx: topY + halfMm * scale + 14,
    highMm,
    halfMm,
  };
}

export const acrossPx = ({ scale, beforeMm }: Pick<Geometry, 'scale' | 'beforeMm'>, mm: number) =>
  LEFT + (mm + beforeMm) * scale;

/** The other way round: from the paper to mm behind the nose. */
export const alongMm = ({ scale, beforeMm }: Pick<Geometry, 'scale' | 'beforeMm'>, px: number) =>
  (px - LEFT) / scale - beforeMm;
