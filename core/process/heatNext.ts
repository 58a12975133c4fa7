import { usual } from '../defaults.ts';
import type { CupWindow, HeatLimit } from '../heat/window.ts';
import type { CupNow, Foaming, Next } from './cupNow.ts';
import type { Ticked } from './evidence.ts';
import type { Degassing } from './ways.ts';

/** Writes a temperature (°C) in the maker's unit. */
export type Show = (c: number) => string;
export type Heating = Extract<Next, { do: 'heat' }>;

export const fits = (c: number, { lowC, highC }: CupWindow) => c >= lowC && c <= highC;

/** The first reading: what has to stay out of the hottest moment is said before it is in. */
function cook({ limits }: CupNow, window: CupWindow, show: Show): Heating {
  const cookC = usual('cookC');
  const tender = limits.filter((limit) => limit.c < cookC).sort((a, b) => a.c - b.c)[0];
  return {
    do: 'heat',
    kind: 'cook',
    window,
    say: `Cook to ${show(cookC)}, stir, read.`,
    why: tender
      ? `Clear as syrup first. ${tender.name} turns above ${show(tender.c)}: stir it in once the cup has cooled to that.`
      : 'Milk, then lumps, then a clear syrup. Stir between bursts; read after stirring.',
  };
}

/** It was clear all through at least once: what is read before that is on the way there. */
export const isGelled = ({ heats }: { heats: { c: number }[] }): boolean =>
  heats.some(({ c }) => c >= usual('gelledC'));

/**
 * Still in its first cooking: read between bursts, not clear yet, whatever was put into the cold liquid. A way that is
 * poured cooler than that is first read when the cup has fallen to it: in its window it is cooked. With flake in it that turns
 * before, nobody is told to cook it on.
 */
export function isCooking(
  { heats, doses, limits }: { heats: { c: number; kind?: string }[]; doses: unknown[]; limits: HeatLimit[] },
  { lowC, highC }: Pick<CupWindow, 'lowC' | 'highC'>,
): boolean {
  const last = heats.at(-1);
  if (!last || isGelled({ heats })) return false;
  if (highC < usual('gelledC') && last.c >= lowC) return false;
  if (doses.length > 0 && limits.some(({ c }) => c < usual('cookC'))) return false;
  return doses.length === 0 || last.kind === 'cook';
}

export const cookOn = (c: number, window: CupWindow, show: Show): Heating => ({
  do: 'heat',
  kind: 'cook',
  window,
  say: `Cook on to ${show(usual('cookC'))}: it is at ${show(c)}.`,
  why: 'Not clear all through yet. The next burst, stir, scrape the wall down, read.',
});

const tooCold = (c: number, window: CupWindow, show: Show): Heating => ({
  do: 'heat',
  kind: 'reheat',
  window,
  say: `Reheat: ${show(c)} is under ${show(window.lowC)}.`,
  why: 'Short bursts at low power, stir, read again.',
});

const tooHot = (c: number, window: CupWindow, show: Show): Heating => ({
  do: 'heat',
  kind: 'reading',
  window,
  say: `Let it cool: ${show(c)} is over ${show(window.highC)}.`,
  why: window.limit
    ? `${window.limit.name} turns above that. Stir slowly and read again.`
    : `Too hot for this way of filling (${window.method}). Stir slowly and read again.`,
});

/** Why none of these windows can be drawn in now; undefined where one can. */
export function heatNext(cup: CupNow, windows: CupWindow[], show: Show): Heating | undefined {
  const last = cup.heats.at(-1);
  const first = windows[0] as CupWindow;
  if (!last) return cook(cup, first, show);
  const suits = windows.find((window) => fits(last.c, window));
  if (!suits) {
    const above = windows.filter(({ highC }) => last.c > highC);
    // Cooling costs no heat: where some are too hot and some too cold, those that want it cooler come first.
    if (above.length > 0)
      return tooHot(
        last.c,
        above.reduce((a, b) => (b.highC > a.highC ? b : a)),
        show,
      );
    return tooCold(
      last.c,
      windows.reduce((a, b) => (b.lowC < a.lowC ? b : a)),
      show,
    );
  }
  if ((cup.nowMs - Date.parse(last.at)) / 1000 <= usual('staleReadingS')) return undefined;
  return {
    do: 'heat',
    kind: 'reading',
    window: suits,
    say: 'Read the cup.',
    why: `The last reading is more than ${usual('staleReadingS') / 60} min old.`,
  };
}

/** How bubbles are to be got out: some came with the last dose, and nobody said since then that they are out. */
export function foamsBy(
  { doses, ticks }: { doses: { at: string }[]; ticks: Ticked[] },
  degassing: Degassing,
): Foaming | undefined {
  if (degassing === 'none') return undefined;
  const since = doses.at(-1)?.at ?? '';
  return ticks.some(({ what, at }) => what === 'degassed' && at >= since) ? undefined : degassing;
}

export const DEGAS: Record<Foaming, { say: string; why: string }> = {
  vacuum: {
    say: 'Degas it under vacuum.',
    why: `Room for ${usual('vacuumHeadroom')} times the mix: it rises, collapses by itself, then half a minute more. It cools meanwhile: read it after.`,
  },
  rest: {
    say: 'Let the bubbles rise: a hot rest.',
    why: 'Heat it on purpose, never to where it scorches, leave it alone for a minute, then draw from below the froth.',
  },
};
