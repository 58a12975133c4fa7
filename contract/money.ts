import * as v from 'valibot';
import type { SoldRow } from '../core/plan/margins.ts';
import { costWish } from './costs.ts';
import { day } from './fields.ts';

export const moneyQuery = v.strictObject({ from: v.optional(day), to: v.optional(day) });

/** Kept on the device, like what else a cost is worked out with. */
export const wageWish = v.pick(costWish, ['wagePerHourMinor']);

export interface Money {
  rows: SoldRow[];
  /** What was in them and has no price yet: their cost is too low by it. */
  unpriced: string[];
}
