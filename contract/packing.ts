import * as v from 'valibot';
import type { BaitMass } from '../core/plan/packCount.ts';
import { called, from0, rowId } from './fields.ts';

/** Pieces, or grams, that leave the store with each bag; 0: none any more. */
export const packWithBody = v.strictObject({ materialId: rowId, amount: called(from0(10_000), 'With each bag') });

export interface PackWith {
  materialId: string;
  name: string;
  kind: string;
  amount: number;
  /** What the store still has of it. */
  left: number;
}

/** How long a bag takes here: learnt from bags that were packed one after another. */
export interface PackTime {
  packS: number;
  /** Bags that say so; 0: the figure that was set. */
  of: number;
}

/** What stands at the packing table beside the order itself. */
export interface Packing {
  lines: {
    lineId: string;
    /** What one of its baits weighs; null: no mold tells its volume, no bag was weighed. */
    mass: BaitMass | null;
    /** What the next bag is filled from, oldest first; none: there are too few that are cured. */
    from: { pourCode: string; baits: number }[];
  }[];
  time: PackTime;
  with: PackWith[];
}
