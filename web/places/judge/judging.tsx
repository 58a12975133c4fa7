import type { Material } from '../../../contract/materials.ts';
import type { WaterTest } from '../../../contract/water.ts';
import { usual } from '../../../core/defaults.ts';
import type { Told } from '../../../core/failure.ts';
import type { ShapeSpec } from '../../../core/shape/spec.ts';
import type { Assumed } from '../../../core/water/assumed.ts';
import type { Judged } from '../../workers/judge.ts';
import type { Shown } from './show.ts';

export const PLASTIC = usual('plastisolGPerMl');

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

/** What stands where a figure is not known: still being worked out, or never judged. */
export const notYet = (problem: Told | null): string => (problem ? 'not judged' : '…');

export function Fact({ label, value, bad }: { label: string; value: string; bad?: boolean }) {
  return (
    <li className="py-0.5 flex justify-between gap-2">
      <span>{label}</span>
      <span className={`figure text-right ${bad ? 'heat' : ''}`}>{value}</span>
    </li>
  );
}
