import { usual } from '../defaults.ts';
import { type CupWindow, cupWindow, type Fill, type HeatLimit, type MoldKind } from '../heat/window.ts';
import { goes, type Join, PLACES, type Place } from '../plan/layers.ts';
import { durationText } from '../units/show.ts';
import type { Grade } from '../yield/grades.ts';
import { saidOf, type Ticked } from './evidence.ts';
import { type Degassing, stageOf, type Way, wayOf } from './ways.ts';

export interface NextMold {
  moldId: string;
  name: string;
  kind: MoldKind;
  fill: Fill;
  cavities: number;
  /** How many are to be drawn into it. */
  shots: number;
  /** When what is in it may be looked at, UTC ISO text; null: now. */
  opensAt: string | null;
  rods?: boolean;
}

export interface NextShot {
  id: string;
  moldId: string;
  marks: { grade: Grade | 'unmarked' }[];
  /** How many of the goes are in it; not said: all of it. */
  gone?: number;
  /** When the last of it went in. */
  at?: string;
}

/** What sinks first in a cup, and when it is to be stirred again. */
export interface Sinking {
  name: string;
  dueAt: string | null;
}

/** One of several cups that the same shots are drawn from. */
export interface SetCup {
  id: string;
  /** As it is called at the bench: its melt. */
  name: string;
  heats: { c: number; at: string; kind?: string }[];
  doses: unknown[];
  recipeItems: unknown[];
  limits: HeatLimit[];
  stir?: Sinking | null;
  foams?: Degassing | undefined;
  /** A shot was drawn from it already; not said: any shot there is. */
  drawnOf?: boolean;
}

/** What goes into a mold at once: a layer, or those that are injected together. */
export interface Go {
  /** "belly", "belly and back". */
  what: string;
  joins: Join | null;
  /** Cups that it is drawn from. */
  cups: string[];
}

/** A cup as it stands this moment. */
export interface CupNow<M extends NextMold = NextMold, S extends NextShot = NextShot> {
  molds: M[];
  shots: S[];
  heats: { c: number; at: string; kind?: string }[];
  /** How many doses are in it, and how many its recipe asks for. */
  doses: unknown[];
  recipeItems: unknown[];
  /** What flake and powder in it bear. */
  limits: HeatLimit[];
  stir?: Sinking | null;
  /** Bubbles are to be got out of it, in this way; they came with what was stirred in. */
  foams?: Degassing | undefined;
  drawnOf?: boolean;
  /** What was said by taps. */
  ticks?: Ticked[];
  nowMs: number;
  /** Where its baits are of several melts: all cups, this one among them, and what goes in after what. */
  set?: { cups: SetCup[]; goes: Go[] } | undefined;
}

export type Next<M extends NextMold = NextMold, S extends NextShot = NextShot> =
  | { do: 'heat'; say: string; why: string; kind: 'cook' | 'reheat' | 'reading'; window: CupWindow; cup?: string }
  | { do: 'dose'; say: string; why: string; cup?: string }
  | { do: 'degas'; say: string; why: string; how: Degassing; cup?: string }
  | { do: 'hold' | 'top'; say: string; why: string; shot: S; mold: M; nth: number; leftS: number }
  | { do: 'look'; say: string; why: string; shot: S; mold: M }
  | { do: 'shot'; say: string; why: string; mold: M; window: CupWindow; go: number; into?: S; layered: boolean }
  | { do: 'wait'; say: string; why: string }
  | { do: 'close'; say: string; why: string };

export const shotsOf = <S extends NextShot>({ shots }: { shots: S[] }, moldId: string) =>
  shots.filter((shot) => shot.moldId === moldId);

/** Baits of a shot that nobody has looked at yet. */
export const unmarkedIn = (shot: NextShot, mold: Pick<NextMold, 'cavities'>) =>
  mold.cavities - shot.marks.filter((mark) => mark.grade !== 'unmarked').length;

const opened = (mold: NextMold, nowMs: number) => !mold.opensAt || Date.parse(mold.opensAt) <= nowMs;

type Show = (c: number) => string;
type Heating = Extract<Next, { do: 'heat' }>;

const fits = (c: number, { lowC, highC }: CupWindow) => c >= lowC && c <= highC;

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

const cookOn = (c: number, window: CupWindow, show: Show): Heating => ({
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
function heatNext(cup: CupNow, windows: CupWindow[], show: Show): Heating | undefined {
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

/** Layers by how they go in, each with the cups that it is drawn from; nothing where one cup and one go are all of it. */
export function setOfCups<C extends SetCup>(
  layers: { place: Place; joins: Join | null }[],
  cups: (C & { layers: number[] })[],
): { cups: C[]; goes: Go[] } | undefined {
  if (layers.length < 2 && cups.length < 2) return undefined;
  return {
    cups,
    goes: goes(layers).map((together) => ({
      what: together.map((layer) => PLACES[layers[layer]?.place ?? 'whole']).join(' and '),
      joins: layers[together[0] as number]?.joins ?? null,
      cups: cups.filter((cup) => cup.layers.some((layer) => together.includes(layer))).map((cup) => cup.id),
    })),
  };
}

/** How many of the goes of a bait are in a shot, by the layers that are. */
export function goneIn(layers: { joins: Join | null }[], parts: { layer: number }[]): number {
  const there = new Set(parts.map((part) => part.layer));
  const missing = goes(layers).findIndex((together) => !together.every((layer) => there.has(layer)));
  return missing < 0 ? goes(layers).length : missing;
}

/** What keeps a layer on the one before it, said where it is poured. Source: workshop practice. */
const HOW: Record<Join, string> = {
  together: 'Injectors warm, all cups at one heat; push them alike.',
  melted: 'Only once the layer before is cold and firm: melt its surface with the heat gun, then fill. Else they peel.',
  hot: 'The mold stays hot: fill at once, so that it melts into the layer before. Else they peel.',
  cooked: 'Fill it; all layers are cooked together on the plate afterwards.',
};

interface Lane<M, S> {
  mold: M;
  shots: S[];
}

interface Spot<M, S> extends Lane<M, S> {
  go: number;
  /** The shot that it goes on with; none: a new one. */
  into?: S | undefined;
}

function draw<M extends NextMold, S extends NextShot>(
  { mold, shots, go, into }: Spot<M, S>,
  all: Go[],
  window: CupWindow,
  show: Show,
  sunk: string[],
): Next<M, S> {
  const number = into ? shots.indexOf(into) + 1 : shots.length + 1;
  const { what = '', joins = null, cups = [] } = all[go] ?? {};
  const several = all.length > 1;
  const conflict = window.conflict
    ? `${window.conflict.name} bears only ${show(window.conflict.c)} and turns at this heat; cooler, the mold does not fill.`
    : undefined;
  const stirFirst = sunk.length > 0 ? `Stir first: ${sunk.join(' and ')} has sunk since the last stir.` : undefined;
  const how = joins ? HOW[joins] : cups.length > 1 ? HOW.together : undefined;
  return {
    do: 'shot',
    mold,
    window,
    go,
    layered: several,
    ...(into ? { into } : {}),
    say: several
      ? `Fill the ${what}, shot ${number} of ${mold.shots}: ${mold.name}.`
      : cups.length > 1
        ? `Draw shot ${number} of ${mold.shots} from all ${cups.length} cups: ${mold.name}.`
        : `Draw shot ${number} of ${mold.shots}: ${mold.name}.`,
    why:
      conflict ?? stirFirst ?? how ?? 'Stir first: flake and salt sink. Keep the sprue topped until it stops sinking.',
  };
}

/** What may be filled next: what has to go into a hot mold at once, then new shots while the cup is hot, then further layers. */
function places<M extends NextMold, S extends NextShot>(lanes: Lane<M, S>[], all: Go[]): Spot<M, S>[] {
  const begun = lanes.flatMap((lane): Spot<M, S>[] => {
    const into = lane.shots.find((shot) => isOpen(shot, all.length));
    return into ? [{ ...lane, go: into.gone ?? 0, into }] : [];
  });
  const atOnce = begun.filter(({ go }) => all[go]?.joins === 'hot');
  const fresh = lanes
    .filter(({ mold, shots }) => shots.length < mold.shots && !shots.some((shot) => unmarkedIn(shot, mold) > 0))
    .map((lane): Spot<M, S> => ({ ...lane, go: 0 }));
  const first = [atOnce, fresh, begun].find((some) => some.length > 0) ?? [];
  const least = Math.min(...first.map(({ go }) => go));
  return first.filter(({ go }) => go === least);
}

const isOpen = (shot: NextShot, of: number) => (shot.gone ?? of) < of;

/** How a mold is filled in this cup, by what goes into it last. */
export function wayInto(cup: Pick<CupNow, 'set'>, mold: NextMold): Way {
  const all = cup.set?.goes ?? [];
  return wayOf({ ...mold, cups: all.at(-1)?.cups.length ?? 1, layers: all.length || 1, rods: mold.rods ?? false });
}

/** Where the newest shot of a mold stands, and which of its shots it is. */
export function shotStage(cup: CupNow, mold: NextMold, shot: NextShot & { at?: string }) {
  const nth = shotsOf(cup, mold.moldId).findIndex(({ id }) => id === shot.id) + 1;
  const way = wayInto(cup, mold);
  const sinceS = shot.at ? (cup.nowMs - Date.parse(shot.at)) / 1000 : Number.POSITIVE_INFINITY;
  const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - cup.nowMs) / 1000 : 0;
  const { stage, leftS } = stageOf(way, sinceS, opensS);
  const said = (what: 'held' | 'topped') => saidOf(cup.ticks ?? [], what, { moldId: mold.moldId, nth });
  const over = (stage === 'hold' && said('held')) || (stage === 'top-up' && said('topped'));
  return { nth, way, stage: over ? ('cool' as const) : stage, leftS: over ? opensS : leftS };
}

/** How bubbles are to be got out: some came with the last dose, and nobody said since then that they are out. */
export function foamsBy(
  { doses, ticks }: { doses: { at: string }[]; ticks: Ticked[] },
  degassing: Degassing,
): Degassing | undefined {
  if (degassing === 'none') return undefined;
  const since = doses.at(-1)?.at ?? '';
  return ticks.some(({ what, at }) => what === 'degassed' && at >= since) ? undefined : degassing;
}

const DEGAS: Record<Degassing, { say: string; why: string }> = {
  vacuum: {
    say: 'Degas it under vacuum.',
    why: `Room for ${usual('vacuumHeadroom')} times the mix: it rises, collapses by itself, then half a minute more. It cools meanwhile: read it after.`,
  },
  rest: {
    say: 'Let the bubbles rise: a hot rest.',
    why: 'Heat it on purpose, never to where it scorches, leave it alone for a minute, then draw from below the froth.',
  },
  none: { say: '', why: '' },
};

/** The cups that a go is drawn from; one without a set stands alone. */
function cupsOf<M extends NextMold, S extends NextShot>(
  cup: CupNow<M, S>,
  go: number,
): (CupNow<M, S> & { name?: string; id?: string })[] {
  const { set } = cup;
  if (!set) return [cup];
  const ids = set.goes[go]?.cups ?? [];
  return set.cups.filter(({ id }) => ids.includes(id)).map((one) => ({ ...cup, ...one }));
}

const COLOUR = { do: 'dose' as const, say: 'Put in the colour.', why: 'As scaled for this cup, or dose by eye.' };

/**
 * Exactly one next thing for who stands at the cup, in a whole sentence.
 * @param show writes a temperature (°C) in the maker's unit.
 */
export function nextOf<M extends NextMold, S extends NextShot>(cup: CupNow<M, S>, show: Show): Next<M, S> {
  const { nowMs } = cup;
  const all = cup.set?.goes ?? [{ what: '', joins: null, cups: [] }];
  const lanes = cup.molds.map((mold) => ({ mold, shots: shotsOf(cup, mold.moldId) }));
  const toLook = lanes.flatMap(({ mold, shots }) =>
    shots.filter((shot) => !isOpen(shot, all.length) && unmarkedIn(shot, mold) > 0).map((shot) => ({ mold, shot })),
  );
  const toShoot = lanes.filter(({ mold, shots }) => shots.length < mold.shots);
  const begun = lanes.some(({ shots }) => shots.some((shot) => isOpen(shot, all.length)));
  const stages = toLook.map((one) => ({ ...one, ...shotStage(cup, one.mold, one.shot) }));
  const holding = stages.find(({ stage }) => stage === 'hold');
  if (holding) {
    const { shot, mold, nth, leftS } = holding;
    return {
      do: 'hold',
      shot,
      mold,
      nth,
      leftS,
      say: `Hold light pressure: ${mold.name}.`,
      why: 'Until it stops taking any; then leave a cap on the sprue.',
    };
  }
  const ready = toLook.find(({ mold }) => opened(mold, nowMs));
  if (ready) {
    const n = unmarkedIn(ready.shot, ready.mold);
    return {
      do: 'look',
      ...ready,
      say: `Open ${ready.mold.name} and look.`,
      why: `Tap what is not to sell and say why; then the rest good. ${n} to mark.`,
    };
  }
  if (toShoot.length > 0 || begun) {
    const free = places(lanes, all);
    const go = free[0]?.go ?? 0;
    const molds = (free.length > 0 ? free : toShoot).map(({ mold }) => mold);
    const fitting = molds.map(() => true);
    let windows: CupWindow[] = [];
    for (const one of cupsOf(cup, go)) {
      const about = (next: Heating | typeof COLOUR | Extract<Next, { do: 'degas' }>): Next<M, S> =>
        cup.set && one.id ? { ...next, cup: one.id, say: `${one.name}: ${next.say}` } : next;
      const { foams } = one;
      const shared = cupWindow(molds, one.limits);
      const c = one.heats.at(-1)?.c;
      if (c !== undefined && !(one.drawnOf ?? cup.shots.length > 0) && isCooking(one, shared))
        return about(cookOn(c, shared, show));
      if (one.recipeItems.length > 0 && one.doses.length === 0 && one.heats.length > 0) return about(COLOUR);
      if (foams && one.heats.length > 0) return about({ do: 'degas', how: foams, ...DEGAS[foams] });
      windows = molds.map((mold) => cupWindow([mold], one.limits));
      const heat = heatNext(one, windows, show);
      if (heat) return about(heat);
      const nowC = c ?? 0;
      windows.forEach((window, i) => {
        if (!fits(nowC, window)) fitting[i] = false;
      });
    }
    const at = Math.max(0, fitting.indexOf(true));
    const place = free[at];
    const sunk = cupsOf(cup, go).flatMap(({ stir }) =>
      stir?.dueAt && Date.parse(stir.dueAt) <= nowMs ? [stir.name] : [],
    );
    if (place) return draw(place, all, windows[at] as CupWindow, show, [...new Set(sunk)]);
    const sinks = topUp(stages);
    if (sinks) return sinks;
    return { do: 'wait', say: 'All molds are full. Let them cool.', why: 'The nearest opens by its clock below.' };
  }
  const sinks = topUp(stages);
  if (sinks) return sinks;
  if (toLook.length > 0)
    return {
      do: 'wait',
      say: 'The last shots are cooling.',
      why: 'Open each when its clock runs down; tap its cavities then.',
    };
  return { do: 'close', say: 'Weigh what came out.', why: 'Good, rejects, and what goes back to the remelt bin.' };
}

type Staged<M, S> = ReturnType<typeof shotStage> & { mold: M; shot: S };

/** A shot that still sinks, where nothing else is to be done. */
function topUp<M extends NextMold, S extends NextShot>(stages: Staged<M, S>[]): Next<M, S> | undefined {
  const found = stages.find(({ stage }) => stage === 'top-up');
  if (!found) return undefined;
  const { mold, shot, nth, leftS, way } = found;
  return { do: 'top', shot, mold, nth, leftS, say: `Top up ${mold.name}.`, why: way.topUp };
}

/** What a cup holds, since when its reading stands, and how often it was heated. @param volume what was cooked, as text. */
export function cupText(
  volume: string,
  { heats, nowMs }: { heats: { kind: string; at: string }[]; nowMs: number },
): string {
  const last = heats.at(-1);
  // Read between the bursts of one cooking, it was heated once.
  const spent =
    heats.filter((heat) => heat.kind === 'reheat').length + Number(heats.some((heat) => heat.kind === 'cook'));
  return [
    volume,
    ...(last ? [`read ${durationText((nowMs - Date.parse(last.at)) / 1000)} ago`] : []),
    ...(spent > 1 ? [`heat ${spent}`] : []),
  ].join(' · ');
}

/** All that a tap on the next thing would mean: a target for it is another target once any of this changes. */
export function meaning(next: Next, { shots }: { shots: unknown[] }): string {
  if (next.do === 'look') return `look ${next.shot.id} ${next.shot.marks.length}`;
  if (next.do === 'shot') return `shot ${next.mold.moldId} ${shots.length} ${next.go}`;
  if (next.do === 'heat') return `heat ${next.kind} ${next.cup ?? ''}`;
  if (next.do === 'hold' || next.do === 'top') return `${next.do} ${next.shot.id}`;
  if (next.do === 'degas') return `degas ${next.cup ?? ''}`;
  return next.do === 'dose' ? `dose ${next.cup ?? ''}` : next.do;
}
