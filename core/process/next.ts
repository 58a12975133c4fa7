import { usual } from '../defaults.ts';
import { type CupWindow, cupWindow, type Fill, type HeatLimit, type MoldKind } from '../heat/window.ts';
import { durationText } from '../units/show.ts';
import type { Grade } from '../yield/grades.ts';

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
}

export interface NextShot {
  id: string;
  moldId: string;
  marks: { grade: Grade | 'unmarked' }[];
}

/** A cup as it stands this moment. */
export interface CupNow<M extends NextMold = NextMold, S extends NextShot = NextShot> {
  molds: M[];
  shots: S[];
  heats: { c: number; at: string }[];
  /** How many doses are in it, and how many its recipe asks for. */
  doses: unknown[];
  recipeItems: unknown[];
  /** What flake and powder in it bear. */
  limits: HeatLimit[];
  nowMs: number;
}

export type Next<M extends NextMold = NextMold, S extends NextShot = NextShot> =
  | { do: 'heat'; say: string; why: string; kind: 'cook' | 'reheat' | 'reading'; window: CupWindow }
  | { do: 'dose'; say: string; why: string }
  | { do: 'look'; say: string; why: string; shot: S; mold: M }
  | { do: 'shot'; say: string; why: string; mold: M; window: CupWindow }
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

const draw = <M extends NextMold, S extends NextShot>(
  cup: CupNow<M, S>,
  mold: M,
  window: CupWindow,
  show: Show,
): Next<M, S> => ({
  do: 'shot',
  mold,
  window,
  say: `Draw shot ${shotsOf(cup, mold.moldId).length + 1} of ${mold.shots}: ${mold.name}.`,
  why: window.conflict
    ? `${window.conflict.name} bears only ${show(window.conflict.c)} and turns at this heat; cooler, the mold does not fill.`
    : 'Stir first: flake and salt sink. Keep the sprue topped until it stops sinking.',
});

/**
 * Exactly one next thing for who stands at the cup, in a whole sentence.
 * @param show writes a temperature (°C) in the maker's unit.
 */
export function nextOf<M extends NextMold, S extends NextShot>(cup: CupNow<M, S>, show: Show): Next<M, S> {
  const { nowMs } = cup;
  const lanes = cup.molds.map((mold) => ({ mold, shots: shotsOf(cup, mold.moldId) }));
  const toLook = lanes.flatMap(({ mold, shots }) =>
    shots.filter((shot) => unmarkedIn(shot, mold) > 0).map((shot) => ({ mold, shot })),
  );
  const toShoot = lanes.filter(({ mold, shots }) => shots.length < mold.shots);
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
  if (toShoot.length > 0) {
    if (cup.recipeItems.length > 0 && cup.doses.length === 0 && cup.heats.length > 0)
      return { do: 'dose', say: 'Put in the colour.', why: 'As scaled for this cup, or dose by eye.' };
    const free = toShoot.filter(({ shots, mold }) => !shots.some((shot) => unmarkedIn(shot, mold) > 0));
    const windows = (free.length > 0 ? free : toShoot).map(({ mold }) => cupWindow([mold], cup.limits));
    const heat = heatNext(cup, windows, show);
    if (heat) return heat;
    const c = cup.heats.at(-1)?.c ?? 0;
    const at = windows.findIndex((window) => fits(c, window));
    const lane = free[at];
    if (lane) return draw(cup, lane.mold, windows[at] as CupWindow, show);
    return { do: 'wait', say: 'All molds are full. Let them cool.', why: 'The nearest opens by its clock below.' };
  }
  if (toLook.length > 0)
    return {
      do: 'wait',
      say: 'The last shots are cooling.',
      why: 'Open each when its clock runs down; tap its cavities then.',
    };
  return { do: 'close', say: 'Weigh what came out.', why: 'Good, rejects, and what goes back to the remelt bin.' };
}

/** What a cup holds, since when its reading stands, and how often it was heated. @param volume what was cooked, as text. */
export function cupText(
  volume: string,
  { heats, nowMs }: { heats: { kind: string; at: string }[]; nowMs: number },
): string {
  const last = heats.at(-1);
  const spent = heats.filter((heat) => heat.kind !== 'reading').length;
  return [
    volume,
    ...(last ? [`read ${durationText((nowMs - Date.parse(last.at)) / 1000)} ago`] : []),
    ...(spent > 1 ? [`heat ${spent}`] : []),
  ].join(' · ');
}

/** All that a tap on the next thing would mean: a target for it is another target once any of this changes. */
export function meaning(next: Next, { shots }: { shots: unknown[] }): string {
  if (next.do === 'look') return `look ${next.shot.id} ${next.shot.marks.length}`;
  if (next.do === 'shot') return `shot ${next.mold.moldId} ${shots.length}`;
  return next.do === 'heat' ? `heat ${next.kind}` : next.do;
}
