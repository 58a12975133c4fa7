import { useQuery } from '@tanstack/react-query';
import { useEffect, useSyncExternalStore } from 'react';
import type { Instrument, InstrumentNow } from '../../contract/instruments.ts';
import { call } from './client.ts';
import { queries } from './queries.ts';

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
  const some = (data?.items.length ?? 0) > 0;
  useEffect(() => {
    // What they said before this page listened; without an answer the live line tells soon enough.
    if (some)
      call<{ items: InstrumentNow[] }>('/instruments/now').then(
        ({ items }) => heard(...items),
        () => {},
      );
  }, [some]);
  return (data?.items ?? []).map((one) => ({ ...one, now: said.find(({ id }) => id === one.id) ?? null }));
}

/** Points an instrument at a cup, or at the baits of a shot; nothing is recorded by it. */
export const aim = (id: string, pourId: string | null, shotId: string | null = null) =>
  call(`/instruments/${id}/aim`, { method: 'POST', body: { pourId, shotId } });
export const standIn = (id: string, body: { fault?: string; addG?: number; tare?: true }) =>
  call<InstrumentNow>(`/instruments/${id}/stand-in`, { method: 'POST', body }).then(heard);
export const notAStep = (id: string, stepId: string) =>
  call<InstrumentNow>(`/instruments/${id}/steps/${stepId}`, { method: 'DELETE' }).then(heard);
