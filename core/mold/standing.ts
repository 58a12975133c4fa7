import type { SiliconePlan } from './silicone.ts';

/** Where a master's footprint begins, from the box's inner corner, mm: x along the length, y across the width. */
export interface Place {
  xMm: number;
  yMm: number;
}

export interface Footprint {
  lengthMm: number;
  widthMm: number;
}

/** Rubber thinner than this between a master and a wall, or two masters, tears: what makers leave is 8–12 mm. */
export const WEAK_WALL_MM = 8;

type Boxed = Pick<SiliconePlan, 'boxLengthMm' | 'boxWidthMm' | 'columns' | 'rows'>;

/** Where a row of `n` begins, and from one to the next: as far apart as asked if there is room, else evenly spread. */
function spread(roomMm: number, sizeMm: number, n: number, gapMm: number | undefined) {
  const even = (roomMm - n * sizeMm) / (n + 1);
  const gap = gapMm === undefined || roomMm - n * sizeMm < (n - 1) * gapMm ? even : gapMm;
  return { first: (roomMm - n * sizeMm - (n - 1) * gap) / 2, step: sizeMm + gap };
}

/** Masters in the plan's rows and columns, in the middle of the box; `gapMm` apart, or evenly spread. */
export function gridPlaces(plan: Boxed, master: Footprint, count: number, gapMm?: number): Place[] {
  const x = spread(plan.boxLengthMm, master.lengthMm, plan.rows, gapMm);
  const y = spread(plan.boxWidthMm, master.widthMm, plan.columns, gapMm);
  return Array.from({ length: count }, (_, index) => ({
    xMm: x.first + Math.floor(index / plan.columns) * x.step,
    yMm: y.first + (index % plan.columns) * y.step,
  }));
}

/** A place that keeps a footprint inside the box. */
export const inside = ({ xMm, yMm }: Place, plan: Boxed, master: Footprint): Place => ({
  xMm: Math.min(Math.max(0, xMm), plan.boxLengthMm - master.lengthMm),
  yMm: Math.min(Math.max(0, yMm), plan.boxWidthMm - master.widthMm),
});

export interface Thinnest {
  mm: number;
  /** The two ends of it, for the drawing. */
  from: Place;
  to: Place;
  between: 'a wall' | 'two masters';
}

/**
 * The thinnest rubber round masters as they stand, between their footprints and the walls, or each other; mm.
 * Overlapping footprints give a negative one. Source: distances of rectangles along the box's axes.
 */
export function thinnestWall(places: Place[], plan: Boxed, { lengthMm, widthMm }: Footprint): Thinnest {
  let best: Thinnest | undefined;
  const offer = (mm: number, from: Place, to: Place, between: Thinnest['between']) => {
    if (!best || mm < best.mm - 1e-9) best = { mm, from, to, between };
  };
  places.forEach(({ xMm, yMm }, i) => {
    const [midX, midY] = [xMm + lengthMm / 2, yMm + widthMm / 2];
    const [right, far] = [xMm + lengthMm, yMm + widthMm];
    offer(xMm, { xMm: 0, yMm: midY }, { xMm, yMm: midY }, 'a wall');
    offer(plan.boxLengthMm - right, { xMm: right, yMm: midY }, { xMm: plan.boxLengthMm, yMm: midY }, 'a wall');
    offer(yMm, { xMm: midX, yMm: 0 }, { xMm: midX, yMm }, 'a wall');
    offer(plan.boxWidthMm - far, { xMm: midX, yMm: far }, { xMm: midX, yMm: plan.boxWidthMm }, 'a wall');
    for (const other of places.slice(i + 1)) {
      const [first, second] = other.xMm >= xMm ? [{ xMm, yMm }, other] : [other, { xMm, yMm }];
      const [upper, lower] = other.yMm >= yMm ? [{ xMm, yMm }, other] : [other, { xMm, yMm }];
      const apartX = second.xMm - first.xMm - lengthMm;
      const apartY = lower.yMm - upper.yMm - widthMm;
      const x = (second.xMm + first.xMm + lengthMm) / 2;
      const y = (lower.yMm + upper.yMm + widthMm) / 2;
      if (apartX > 0 && apartY > 0)
        offer(
          Math.hypot(apartX, apartY),
          { xMm: first.xMm + lengthMm, yMm: upper.yMm + widthMm },
          { xMm: second.xMm, yMm: lower.yMm },
          'two masters',
        );
      else if (apartX > apartY)
        offer(apartX, { xMm: first.xMm + lengthMm, yMm: y }, { xMm: second.xMm, yMm: y }, 'two masters');
      else offer(apartY, { xMm: x, yMm: upper.yMm + widthMm }, { xMm: x, yMm: lower.yMm }, 'two masters');
    }
  });
  return best ?? { mm: 0, from: { xMm: 0, yMm: 0 }, to: { xMm: 0, yMm: 0 }, between: 'a wall' };
}

/**
 * What a box out of level does: rubber finds its own level, so one end gets more over the masters than the other.
 * @returns how much one end stands higher than the other, and the least cover there, mm.
 */
export function outOfLevel(angleDeg: number, acrossMm: number, coverMm: number) {
  const riseMm = acrossMm * Math.tan((Math.abs(angleDeg) * Math.PI) / 180);
  return { riseMm, leastCoverMm: coverMm - riseMm / 2 };
}
