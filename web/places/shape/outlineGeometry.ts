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
  const { stations, wrist, tail, limbs, fin } = spec;
  const lengthMm = measuredMm ?? spec.bodyMm + wrist.lengthMm + tailReachMm(spec);
  const end = [tail.acrossMm / 2, wrist.heightMm / 2];
  const curl = tail.kind === 'curl' ? tail.lengthMm * 0.55 : 0;
  const highMm = Math.max(...stations.map((one) => one.topMm), ...end) + (fin?.heightMm ?? 0);
  const lowMm = Math.max(...stations.map((one) => one.bottomMm), ...end, curl);
  const widest = Math.max(...stations.map((one) => one.widthMm / 2), wrist.thicknessMm / 2);
  const reach = limbs.map((one) => one.lengthMm * Math.sin((one.angleDeg * Math.PI) / 180));
  const halfMm = widest + Math.max(0, ...reach);
  const scale = Math.min((widthPx - LEFT - 14) / (lengthMm * ROOM_ALONG), TALL / (highMm + lowMm + 2 * halfMm));
  const sideY = 22 + highMm * scale;
  const topY = sideY + lowMm * scale + GAP + halfMm * scale;
  return {
    lengthMm,
    scale,
    sideY,
    topY,
    rulerY: sideY + lowMm * scale + GAP / 2 - 4,
    heightPx: topY + halfMm * scale + 14,
    highMm,
    halfMm,
  };
}

export const acrossPx = ({ scale }: Pick<Geometry, 'scale'>, mm: number) => LEFT + mm * scale;
