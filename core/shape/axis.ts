import { Failure } from '../failure.ts';
import type { ShapeSpec } from './spec.ts';

/** Where the axis is and how far it has turned, tail down, at one place along the body. */
export interface Spot {
  xMm: number;
  zMm: number;
  turn: number;
}

export interface Axis {
  isBent: boolean;
  /** `alongMm` is the way from the nose along the axis. */
  at(alongMm: number): Spot;
  /** A place so far along, and so far over the axis, seen from the side. */
  place(alongMm: number, overMm: number): [xMm: number, zMm: number];
  /** The other way round: from a place on the paper near `alongMm`. */
  from(alongMm: number, xMm: number, zMm: number): [alongMm: number, overMm: number];
}

const STEP_MM = 0.25;
const RAD = Math.PI / 180;

/**
 * The bait's axis seen from the side. Each bend turns it evenly from one place to another, as a rod is bent: its length stays,
 * and a section stays square to it.
 * Source: a plane curve from its curvature, integrated by the middle of each step.
 */
export function axisOf({ bends, bodyMm }: Pick<ShapeSpec, 'bends' | 'bodyMm'>): Axis {
  const turns = bends.map(({ fromAt, toAt, turnDeg }) => {
    const [from, to] = [Math.min(fromAt, toAt) * bodyMm, Math.max(fromAt, toAt) * bodyMm];
    return { from, long: Math.max(1, to - from), turn: turnDeg * RAD };
  });
  const turnAt = (s: number) =>
    turns.reduce((sum, { from, long, turn }) => sum + turn * Math.min(1, Math.max(0, (s - from) / long)), 0);
  const end = Math.max(bodyMm, ...turns.map(({ from, long }) => from + long));
  const steps = Math.ceil(end / STEP_MM);
  const path: [x: number, z: number][] = [[0, 0]];
  for (let i = 0; i < steps; i++) {
    const [x, z] = path[i] as [number, number];
    const turn = turnAt((i + 0.5) * STEP_MM);
    path.push([x + STEP_MM * Math.cos(turn), z - STEP_MM * Math.sin(turn)]);
  }
  const at = (s: number): Spot => {
    const i = Math.min(steps, Math.max(0, Math.floor(s / STEP_MM)));
    const [x, z] = path[i] as [number, number];
    const [rest, turn] = [s - i * STEP_MM, turnAt(s)];
    const middle = turnAt(s - rest / 2);
    return { xMm: x + rest * Math.cos(middle), zMm: z - rest * Math.sin(middle), turn };
  };
  const place = (s: number, over: number): [number, number] => {
    const { xMm, zMm, turn } = at(s);
    return [xMm + over * Math.sin(turn), zMm + over * Math.cos(turn)];
  };
  return {
    isBent: turns.some(({ turn }) => turn !== 0),
    at,
    place,
    from: (s, x, z) => {
      const { xMm, zMm, turn } = at(s);
      const [dx, dz] = [x - xMm, z - zMm];
      return [s + dx * Math.cos(turn) - dz * Math.sin(turn), dx * Math.sin(turn) + dz * Math.cos(turn)];
    },
  };
}

/** What lies inside of a bend keeps at least this share of its length. */
const LEAST_LEFT = 0.15;

/** @throws Failure `does-not-fit` where a bend is so tight that its inner side would fold over. */
export function mustBend(
  { bends, bodyMm }: Pick<ShapeSpec, 'bends' | 'bodyMm'>,
  reachOf: (s: number) => [over: number, under: number],
): void {
  const turnPerMm = (s: number) =>
    bends.reduce((sum, { fromAt, toAt, turnDeg }) => {
      const [from, to] = [Math.min(fromAt, toAt) * bodyMm, Math.max(fromAt, toAt) * bodyMm];
      return s < from || s > to ? sum : sum + (turnDeg * RAD) / Math.max(1, to - from);
    }, 0);
  for (let s = 0; s <= 1.5 * bodyMm; s += 1) {
    const turn = turnPerMm(s);
    const [over, under] = reachOf(s);
    const inside = turn > 0 ? under : over;
    if (Math.abs(turn) * inside > 1 - LEAST_LEFT)
      throw new Failure(
        'does-not-fit',
        'A bend is tighter than the body is thick there: its inner side would fold. Turn it less, or over a longer way.',
        'bends',
      );
  }
}
