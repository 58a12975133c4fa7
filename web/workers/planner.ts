import './refusals.ts';
import { expose } from 'comlink';
import type * as v from 'valibot';
import type { PlanAsked } from '../../contract/plan.ts';
import { type Production, type ProductionPlan, productionSchema } from '../../core/plan/production.ts';
import { produced } from '../../core/plan/productionPlan.ts';
import { promised, promiseSchema } from '../../core/plan/promise.ts';
import { check } from '../../core/validate.ts';

const planner = {
  produced: (asked: PlanAsked['asked'] & { timeLimitMs: number }, better: (plan: ProductionPlan) => void) =>
    produced(check(productionSchema, asked) as Production, { nowMs: () => performance.now(), better }),
  promised: (asked: v.InferInput<typeof promiseSchema>) => promised(check(promiseSchema, asked)),
};

export type PlannerWorker = typeof planner;
expose(planner);
