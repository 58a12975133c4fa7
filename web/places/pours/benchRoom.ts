import { useQuery } from '@tanstack/react-query';
import { createContext, useContext } from 'react';
import type { Hands, Oven } from '../../../contract/pours.ts';
import type { Clock } from '../../../contract/workshop.ts';
import { type Speaking, useInstruments } from '../../api/instruments.ts';
import { useNow } from '../../api/now.ts';
import { type Tap, tap, useTaps } from '../../api/outbox.ts';
import { queries } from '../../api/queries.ts';

/** What a bench stands in: the workshop itself, or an evening of training that nobody else sees. */
export interface BenchRoom {
  /** No plastisol: what is tapped stays on this page. */
  dry: boolean;
  useTaps(): Tap[];
  tap: typeof tap;
  useNow(): number;
  useInstruments(): Speaking[];
  useOven(): Oven | undefined;
  useClocks(): Clock[];
  /** What hands take here, by mold. */
  useHands(): Hands[];
  /** Weighed and done. */
  close?: () => void;
}

const WORKSHOP: BenchRoom = {
  dry: false,
  useTaps,
  tap,
  useNow,
  useInstruments,
  useOven: () => useQuery(queries.oven).data,
  useClocks: () => useQuery(queries.clocks).data?.items ?? [],
  useHands: () => useQuery(queries.hands()).data?.items ?? [],
};

export const BenchRoomContext = createContext<BenchRoom>(WORKSHOP);
export const useBenchRoom = () => useContext(BenchRoomContext);
