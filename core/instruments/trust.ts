import { usual } from '../defaults.ts';
import { median } from '../median.ts';
import type { InstrumentKind } from './lines.ts';

/** A figure of an instrument, as it came. */
export interface Sample {
  ms: number;
  value: number;
}

export type Trust = 'fine' | 'silent' | 'stuck' | 'wild';

/** What no instrument at a bench can truly read: °C, g, of full power. */
const BOUNDS: Record<InstrumentKind, [low: number, high: number]> = {
  thermometer: [-20, 260],
  scale: [-2000, 20_000],
  oven: [0, 1],
};
/** Readings that a jump is held against. */
const BEFORE = 5;

/**
 * Whether the newest figure of an instrument can be believed. A thermometer that says the very same for long is stuck, since a
 * cup cools and a true one flickers; a scale may stand still.
 * @param samples oldest first. @param realMs the moment now by the same clock.
 * Source: workshop practice; limits as starting values.
 */
export function trustOf(kind: InstrumentKind, samples: Sample[], nowMs: number): Trust {
  const last = samples.at(-1);
  if (!last || nowMs - last.ms > 1000 * usual('silentS')) return 'silent';
  const [low, high] = BOUNDS[kind];
  if (last.value < low || last.value > high) return 'wild';
  if (kind !== 'thermometer') return 'fine';
  const before = samples.slice(-1 - BEFORE, -1);
  // Heard seldom, a cup may have been in the oven meanwhile.
  const sinceS = (last.ms - (before[0]?.ms ?? last.ms)) / 1000;
  const most = usual('wildC') + usual('warmsCPerS') * Math.max(0, sinceS - BEFORE);
  if (before.length >= 3 && Math.abs(last.value - median(before.map(({ value }) => value))) > most) return 'wild';
  const same = samples.length - 1 - samples.findLastIndex(({ value }) => value !== last.value);
  return same >= usual('stuckReadings') ? 'stuck' : 'fine';
}

/** Said beside a figure that is not believed. */
export const TRUST_WORDS: Record<Trust, string> = {
  fine: '',
  silent: 'says nothing: see its battery and its line, or type it',
  stuck: 'has said the very same for long: it is stuck; type it',
  wild: 'jumps to what cannot be: not believed; read it again, or type it',
};
