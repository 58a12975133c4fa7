import { usual } from '../defaults.ts';
import { tried } from '../failure.ts';
import { cooling, coolingAt } from '../heat/cooling.ts';
import { handsS } from '../plan/hours.ts';
import { Z95 } from '../plastisol/between.ts';

export interface CupReading {
  /** `cook` and `reheat` are read when the heat was just off; a `reading` in between. */
  kind: string;
  c: number;
  at: string;
}

/** A moment that a cup comes to, seconds from now; less than nothing: it is past. */
export interface Coming {
  inS: number;
  sdS: number;
}

/** So much earlier or later 95 of 100 such cups come to it, s. */
export const giveOrTakeS = ({ sdS }: Coming): number => Z95 * sdS;

/** The latest that they come to it, s from now; null where the readings put it at no time: it may be now. */
export function vagueUntilS(coming: Coming): number | null {
  const off = giveOrTakeS(coming);
  return off > 0 && off >= coming.inS ? coming.inS + off : null;
}

/** How a cup goes on cooling. */
export interface CupHeat {
  nowC: number;
  tauS: number;
  /** Readings since the heat was last off: from the second on it is this cup's own. */
  readings: number;
  state: 'above' | 'in' | 'below';
  enters: Coming;
  leaves: Coming;
  /** What it is at a moment, ms of the clock. */
  at(ms: number): number;
}

/** Readings since the cup was last heated, that reading among them. */
function sinceHeated<R extends CupReading>(heats: R[]): R[] {
  const from = heats.findLastIndex(({ kind }) => kind === 'cook' || kind === 'reheat');
  return heats.slice(Math.max(0, from));
}

/**
 * When a cup is in its window and when it leaves it, from its own readings since the heat was off.
 * @param roomC °C. @returns null where nobody read it yet, or where it does not cool as a cup does.
 * Source: `heat.cooling`.
 */
export function cupHeat(
  heats: CupReading[],
  { lowC, highC }: { lowC: number; highC: number },
  roomC: number,
  nowMs: number,
): CupHeat | null {
  const since = sinceHeated(heats);
  const [first] = since;
  if (!first) return null;
  const startMs = Date.parse(first.at);
  const input = {
    readings: since.map(({ c, at }) => ({ s: (Date.parse(at) - startMs) / 1000, c })),
    ambientC: roomC,
    priorTauS: usual('cupTauS'),
    priorWeightS2: usual('cupTauWeightS2'),
  };
  const { value } = tried(() => ({
    ...cooling({ ...input, targetsC: [highC, lowC] }),
    at: coolingAt(input),
  }));
  if (!value) return null;
  const nowS = (nowMs - startMs) / 1000;
  const [enters, leaves] = value.targets.map(({ atS, sdS }) => ({ inS: atS - nowS, sdS })) as [Coming, Coming];
  const nowC = value.at(nowS);
  return {
    nowC,
    tauS: value.tauS,
    readings: since.length,
    state: nowC > highC ? 'above' : nowC < lowC ? 'below' : 'in',
    enters,
    leaves,
    at: (ms) => value.at((ms - startMs) / 1000),
  };
}

/**
 * Hands' time of the shots that are still to be drawn, s: waits run beside them.
 * @param learnt what hands take at a mold here, s; where it is not known, the starting guess.
 */
export const handsLeftS = (
  molds: { moldId: string; cavities: number; shots: number; drawn: number }[],
  learnt: { moldId: string; handsS: number }[] = [],
): number =>
  molds.reduce((sum, { moldId, cavities, shots, drawn }) => {
    const each = learnt.find((one) => one.moldId === moldId)?.handsS ?? handsS(cavities);
    return sum + Math.max(0, shots - drawn) * each;
  }, 0);
