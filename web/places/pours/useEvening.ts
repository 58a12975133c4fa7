import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Pour } from '../../../contract/pours.ts';
import { type Bench, type LaidOutCup, type LaidOutLead, laidOutSession } from '../../../core/plan/laidOut.ts';
import type { SessionPlan, simulated } from '../../../core/plan/session.ts';
import { leftG } from '../../../core/plastisol/cup.ts';
import { shotsOf, unmarkedIn } from '../../../core/process/cupNow.ts';
import { serverNow } from '../../api/now.ts';
import { queries } from '../../api/queries.ts';
import { useTaste } from '../../parts/taste.tsx';
import type { EveningWorker } from '../../workers/evening.ts';
import { handOf, useAnswer } from '../../workers/useErrand.ts';

const hire = () =>
  handOf<EveningWorker, SessionPlan, ReturnType<typeof simulated>>(
    () => new Worker(new URL('../../workers/evening.ts', import.meta.url), { type: 'module' }),
    (api, plan) => api.simulated(plan),
  );

const cupOf = (pour: Pour): LaidOutCup => ({
  id: pour.id,
  leadId: pour.leadId,
  hex: pour.hex,
  massG: Math.max(1, leftG({ massG: pour.plan.cookG + pour.dosed.g, cookMl: pour.cookMl }, pour.drawnMl)),
  heats: pour.heats,
  limits: pour.limits,
});

const leadOf = (pour: Pour, nowMs: number): LaidOutLead => ({
  id: pour.id,
  layers: pour.layers,
  cups: pour.cups,
  molds: pour.molds.map((mold) => {
    const drawn = shotsOf(pour, mold.moldId);
    const full = drawn.some((shot) => unmarkedIn(shot, mold) > 0);
    const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - nowMs) / 1000 : 0;
    return {
      ...mold,
      shots: Math.max(0, mold.shots - drawn.length),
      ...(full ? { fullForS: Math.max(0, Math.round(opensS)) } : {}),
    };
  }),
});

/** The cups of an evening and how it goes at best, worked out beside the page. */
export function useEvening(id: string) {
  const { workshop, maker } = useTaste();
  const asked = useQuery(queries.pour(id));
  const cups = asked.data?.evening.cups ?? [];
  const all = useQueries({ queries: cups.map((cup) => queries.pour(cup.id)) });
  const oven = useQuery(queries.oven).data;
  const learnt = useQuery(queries.hands(maker?.id)).data?.items;
  const pours = all.flatMap(({ data }) => (data ? [data] : []));
  const whole = asked.data !== undefined && pours.length === cups.length;
  // Of the same records the same evening: nothing is worked out anew for a clock that ticks.
  const seen = JSON.stringify([
    pours.map(({ id, version, shots, heats, drawnMl }) => [id, version, shots.length, heats.length, drawnMl]),
    oven,
    workshop,
    learnt,
  ]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `seen` names all that it is made of
  const session = useMemo(() => {
    if (!whole || !oven || !learnt) return null;
    const open = pours.filter((pour) => pour.closedAt === null);
    const bench: Bench = {
      ...workshop,
      roomC: asked.data?.evening.roomC ?? workshop.roomC,
      watts: oven.watts,
      efficiency: oven.efficiency,
      school: oven.school,
      hands: new Map(learnt.map((one) => [one.moldId, one])),
    };
    return laidOutSession(
      open.map(cupOf),
      open.filter((pour) => pour.leadId === null).map((pour) => leadOf(pour, serverNow())),
      bench,
    );
  }, [seen, whole]);
  const { answer, problem } = useAnswer(session, hire);
  const moldIds = new Set(session?.molds.map(({ id }) => id));
  const here = (learnt ?? []).filter(({ moldId }) => moldIds.has(moldId));
  const turns = here.reduce((sum, one) => sum + one.turns, 0);
  const openings = here.reduce((sum, one) => sum + one.wait.openings, 0);
  return { asked, pours, whole: whole && learnt !== undefined, session, simulated: answer, problem, turns, openings };
}
