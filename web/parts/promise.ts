import type * as v from 'valibot';
import type { CostWish } from '../../contract/costs.ts';
import type { PlanAsked } from '../../contract/plan.ts';
import type { Forward, promised, promiseSchema } from '../../core/plan/promise.ts';
import { hoursText } from '../../core/units/show.ts';
import type { PlannerWorker } from '../workers/planner.ts';
import { handOf } from '../workers/useErrand.ts';
import { readDraft } from './sheet/drafts.ts';
import { useTaste } from './taste.tsx';

export type PromiseWish = v.InferInput<typeof promiseSchema>;
export type PromiseAnswer = ReturnType<typeof promised>;
/** Runs the days ahead beside the page. */
export const hirePromise = () =>
  handOf<PlannerWorker, PromiseWish, PromiseAnswer>(
    () => new Worker(new URL('../workers/planner.ts', import.meta.url), { type: 'module' }),
    (api, wish) => api.promised(wish),
  );

export const FORWARD: Record<Forward['by'], string> = {
  person: 'one more pair of hands',
  mold: 'a second mold of each bait',
  'one-colour': 'all of it in the first colour',
  remelt: 'part of it from remelt',
  bought: 'what the store lacks fetched today',
};

/** What was typed for the costs on this device, and what the store pays; what nobody typed is not known. */
export function pricesOf(asked: PlanAsked | undefined): NonNullable<PromiseWish['prices']> {
  const cost: Partial<CostWish> = readDraft<Partial<CostWish>>('cost')?.values ?? {};
  const hour = cost.wagePerHourMinor || readDraft<Partial<CostWish>>('cost/wage')?.values.wagePerHourMinor;
  return {
    ...(hour ? { hourMinor: hour } : {}),
    ...(cost.moldPriceMinor ? { moldMinor: cost.moldPriceMinor } : {}),
    materials: (asked?.materials ?? []).flatMap(({ id, pricePerKgMinor }) =>
      pricePerKgMinor === null ? [] : [{ materialId: id, perKgMinor: pricePerKgMinor }],
    ),
  };
}

/** What would keep the day, with how much of it and for how much money. */
export function useForwardWords(asked: PlanAsked | undefined): (forward: Forward) => string {
  const { text, money } = useTaste();
  const nameOf = (id: string) => asked?.materials.find((one) => one.id === id)?.name ?? '';
  return ({ by, hours, molds, grams = [], costMinor }) => {
    const many = grams.map(({ materialId, g }) => `${text(g, 'mass')} of ${nameOf(materialId)}`).join(' and ');
    const what: Record<Forward['by'], string> = {
      person: `one more pair of hands for ${hoursText(hours ?? 0)}`,
      mold: `${molds} more ${molds === 1 ? 'mold' : 'molds'}`,
      'one-colour': FORWARD['one-colour'],
      remelt: `${many} out of the remelt`,
      bought: `${many} fetched today`,
    };
    const cost = costMinor === undefined ? 'what it costs is not known' : `about ${money(Math.round(costMinor))}`;
    return costMinor === 0 ? `${what[by]}, at no cost` : `${what[by]}: ${cost}`;
  };
}
