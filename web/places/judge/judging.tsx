import type { Material } from '../../../contract/materials.ts';
import type { WaterTest } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import { Failure, type Told } from '../../../core/failure.ts';
import type { Vec3 } from '../../../core/shape/mesh.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { Judged } from '../../workers/judge.ts';
import type { Shown } from './show.ts';

/** Which end of the bait is up while it is poured. */
export const WAYS_UP = {
  back: [0, 0, 1],
  belly: [0, 0, -1],
  nose: [-1, 0, 0],
  tail: [1, 0, 0],
  side: [0, 1, 0],
} satisfies Record<string, Vec3>;
export type WayUp = keyof typeof WAYS_UP;

export interface DrawnHook {
  eyeXMm: number;
  shankZMm: number;
  shankMm: number;
  gapMm: number;
  eyeMm: number;
  wireMm: number;
  pointShare: number;
}

/** How far a mold is propped at most, degrees. */
export const CONE_DEG = 30;

/** What the judging assumes besides the shape: all of it can be changed beside it. */
export interface Assumed {
  scale: '00' | 'A';
  hardness: number;
  saltGPerCup: number;
  sea: boolean;
  hookMassG: number;
  hook: Omit<DrawnHook, 'pointShare'>;
  withHook: boolean;
  wantedMmPerS: number;
  ballMm: number;
  baitsWanted: number;
  /** Null: as computed for an open face. */
  waitMin: number | null;
  wayUp: WayUp;
}

export const ASSUMED: Assumed = {
  scale: '00',
  hardness: 34,
  saltGPerCup: 0,
  sea: true,
  hookMassG: 2.1,
  hook: { eyeXMm: 2, shankZMm: 0, shankMm: 44, gapMm: 12, eyeMm: 3.2, wireMm: 1.1 },
  withHook: false,
  wantedMmPerS: 60,
  ballMm: 3,
  baitsWanted: 40,
  waitMin: null,
  wayUp: 'back',
};

export const PLASTIC = usual('plastisolGPerMl');
export const POINT_SHARE = 0.4;

/** A refusal in words where a figure would stand. */
export function tried<T>(compute: () => T): { value: T; refused?: undefined } | { value?: undefined; refused: Told } {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof Failure) return { refused: error.told };
    throw error;
  }
}

export interface JudgeProps {
  spec: ShapeSpec | null;
  judged: Judged;
  done: number;
  problem: Told | null;
  assumed: Assumed;
  onAssume(part: Partial<Assumed>): void;
  shown: Shown;
  onShow(shown: Shown): void;
  tests: WaterTest[];
  materials: Material[];
}

export function Fact({ label, value, bad }: { label: string; value: string; bad?: boolean }) {
  return (
    <li className="py-0.5 flex justify-between gap-2">
      <span>{label}</span>
      <span className={`figure text-right ${bad ? 'heat' : ''}`}>{value}</span>
    </li>
  );
}
