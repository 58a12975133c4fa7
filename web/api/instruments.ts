import { useQuery } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import type { Instrument, InstrumentNow } from '../../contract/instruments.ts';
import type { Fault } from '../../core/instruments/lines.ts';
import { queries } from './queries.ts';
import { useWrite } from './write.ts';

const latest = new Map<string, InstrumentNow>();
let all: InstrumentNow[] = [];
const listeners = new Set<() => void>();

/** Over the live line, or asked for once: what an instrument says now. */
export function heard(...said: InstrumentNow[]): void {
  for (const one of said) latest.set(one.id, one);
  all = [...latest.values()];
  for (const listener of listeners) listener();
}

const subscribe = (changed: () => void) => {
  listeners.add(changed);
  return () => listeners.delete(changed);
};

/** An instrument and what it says. */
export type Speaking = Instrument & { now: InstrumentNow | null };

/** All instruments, each with what it says this moment. */
export function useInstruments(): Speaking[] {
  const { data } = useQuery(queries.instruments);
  const said = useSyncExternalStore(subscribe, () => all);
  // What they said before this page listened; from then on the live line tells it.
  const first = useQuery({ ...queries.instrumentsNow, enabled: (data?.items.length ?? 0) > 0 }).data?.items;
  const of = (id: string) => said.find((one) => one.id === id) ?? first?.find((one) => one.id === id) ?? null;
  return (data?.items ?? []).map((one) => ({ ...one, now: of(one.id) }));
}

/** Points an instrument at a cup, at the baits of a shot, or at an order that is packed; nothing is recorded by it. */
export const useAim = () =>
  useWrite<Instrument, { id: string; pourId: string | null; shotId?: string | null; orderId?: string | null }>(
    ({ id, ...body }) => ({
      path: `/instruments/${id}/aim`,
      body,
    }),
  );
/** Hands, or a fault, for a stand-in. */
export const useStandIn = () =>
  useWrite<InstrumentNow, { id: string; fault?: Fault; addG?: number; tare?: true }>(
    ({ id, ...body }) => ({ path: `/instruments/${id}/stand-in`, body }),
    (said) => heard(said),
  );
export const useNotAStep = () =>
  useWrite<InstrumentNow, { id: string; stepId: string }>(
    ({ id, stepId }) => ({ path: `/instruments/${id}/steps/${stepId}`, method: 'DELETE' }),
    (said) => heard(said),
  );
