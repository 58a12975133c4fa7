import jstat from 'jstat';
import { usual } from '../defaults.ts';
import { cooledC } from '../heat/newton.ts';
import { Seeded } from '../seeded.ts';
import type { Fault } from './lines.ts';

/** What happened to a cup's heat, oldest first; all that a stand-in knows of it. */
export type HeatEvent =
  | { what: 'burst'; ms: number; watts: number; level: number; seconds: number; massG: number }
  | { what: 'read'; ms: number; c: number }
  | { what: 'stir'; ms: number };

export interface CupWorld {
  roomC: number;
  tauS: number;
  /** Of the oven's power, what reaches the cup in truth. */
  efficiency: number;
}

/** A surface is colder than what is under it by up to so much, °C, and falls back so within so long after a stir, s. */
const [SKIN_C, SKIN_S] = [7, 60];

/**
 * How warm a cup is in truth, all through and at its surface.
 * @returns °C. Source: E = m·cp·ΔT for bursts, Newton's law between them; a skin of its own guess.
 */
export function cupTrueC(events: HeatEvent[], world: CupWorld, nowMs: number): { c: number; surfaceC: number } {
  let [c, atMs, stirMs] = [world.roomC, events[0]?.ms ?? nowMs, Number.NEGATIVE_INFINITY];
  const cool = (ms: number) => {
    c = cooledC(c, world.roomC, world.tauS, (ms - atMs) / 1000);
    atMs = Math.max(atMs, ms);
  };
  for (const event of events) {
    if (event.ms > nowMs) break;
    cool(event.ms);
    if (event.what === 'stir') stirMs = event.ms;
    else if (event.what === 'read') {
      // What somebody read by hand is as good a truth as there is.
      c = event.c;
      stirMs = event.ms;
    } else {
      const onS = Math.min(event.seconds, (nowMs - event.ms) / 1000);
      c += (event.watts * event.level * world.efficiency * onS) / (event.massG * usual('plastisolCpJPerGK'));
      atMs = event.ms + 1000 * onS;
    }
  }
  cool(nowMs);
  const sinceS = (nowMs - stirMs) / 1000;
  const skin = Math.min(SKIN_C, Math.max(0, c - world.roomC) / 10) * (1 - Math.exp(-Math.max(0, sinceS) / SKIN_S));
  return { c, surfaceC: c - (Number.isFinite(sinceS) ? skin : Math.min(SKIN_C, (c - world.roomC) / 10)) };
}

/** Even between 0 and 1, the same for the same seed and the same moment: a stand-in can be run again. */
export const evenly = (seed: number, ms: number): number =>
  new Seeded((seed ^ Math.imul(Math.floor(ms / 1000), 0x9e3779b1)) >>> 0).next();

/** The same as a standard normal. */
export const noise = (seed: number, ms: number): number =>
  jstat.normal.inv(Math.min(1 - 1e-12, Math.max(1e-12, evenly(seed, ms))), 0, 1);

/** A wild value comes so often, of readings. */
const WILD_EVERY = 3;

/**
 * What a stand-in shows of a true value.
 * @param last what it showed before. @returns undefined: nothing (it dropped out).
 */
export function shown(
  truth: number,
  {
    fault,
    last,
    seed,
    ms,
    sd,
    digits,
  }: { fault: Fault; last: number | undefined; seed: number; ms: number; sd: number; digits: number },
): number | undefined {
  if (fault === 'dropout') return undefined;
  if (fault === 'stuck' && last !== undefined) return last;
  if (fault === 'wild' && Math.floor(ms / 1000) % WILD_EVERY === 0) return truth > 50 ? truth + 200 : truth - 9999;
  const value = truth + sd * noise(seed, ms);
  return Math.round(value * 10 ** digits) / 10 ** digits;
}
