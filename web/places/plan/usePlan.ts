import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { PlanAsked } from '../../../contract/plan.ts';
import type { Told } from '../../../core/failure.ts';
import type { ProductionPlan } from '../../../core/plan/production.ts';
import { queries } from '../../api/queries.ts';
import type { PlannerWorker } from '../../workers/planner.ts';
import { handOf, useErrand } from '../../workers/useErrand.ts';

/** How long it is looked for a better plan, ms; whoever looks on may stop it sooner. */
const LOOKED_MS = 20_000;

type Wish = PlanAsked['asked'] & { timeLimitMs: number };
const hire = () =>
  handOf<PlannerWorker, Wish, ProductionPlan, ProductionPlan>(
    () => new Worker(new URL('../../workers/planner.ts', import.meta.url), { type: 'module' }),
    async (api, wish, tell) => {
      const { proxy } = await import('comlink');
      return api.produced(wish, proxy(tell));
    },
  );

interface Looked {
  of: Wish;
  plan: ProductionPlan | null;
  problem: Told | null;
  over: boolean;
}

/** A plan for this question, better and better as it is found; null until there is one. */
function useProduced(wish: Wish | null): { looked: Looked | null; stop(): void } {
  const [state, setState] = useState<Looked | null>(null);
  const [stopped, setStopped] = useState<Wish | null>(null);
  useErrand<Wish, ProductionPlan, ProductionPlan>(
    wish === stopped ? null : wish,
    hire,
    {
      begins: (of) => setState({ of, plan: null, problem: null, over: false }),
      part: (of, plan) => setState({ of, plan, problem: null, over: false }),
      answer: (of, plan) => setState({ of, plan, problem: null, over: true }),
      // A worker that is gone takes no plan along that stood already.
      problem: (of, problem) =>
        setState((before) => ({ of, plan: before?.of === of ? before.plan : null, problem, over: true })),
    },
    { newer: 'ends' },
  );
  const looked = state !== null && state.of === wish ? { ...state, over: state.over || wish === stopped } : null;
  return { looked, stop: () => setStopped(wish) };
}

export function usePlan() {
  const asked = useQuery(queries.plan).data;
  const key = JSON.stringify(asked?.asked);
  // Of the same records the same plan: nothing is looked for anew for an answer that says the same.
  const wish = useMemo((): Wish | null => {
    const question = key ? (JSON.parse(key) as PlanAsked['asked']) : null;
    return question && question.lines.length > 0 ? { ...question, timeLimitMs: LOOKED_MS } : null;
  }, [key]);
  const { looked, stop } = useProduced(wish);
  // What was fixed by hand is compared with the plan that nobody touched, once that one stands.
  const free = useMemo(
    (): Wish | null =>
      looked?.over && wish && (wish.pins?.length ?? 0) > 0 ? { ...wish, pins: [], timeLimitMs: LOOKED_MS / 2 } : null,
    [looked?.over, wish],
  );
  const untouched = useProduced(free).looked;
  return { asked, looked, stop, untouched };
}
