import { type CupWindow, cupWindow } from '../heat/window.ts';
import type { Join } from '../plan/layers.ts';
import { durationText } from '../units/show.ts';
import { type CupNow, type Go, type Next, type NextMold, type NextShot, shotsOf, unmarkedIn } from './cupNow.ts';
import { cookOn, DEGAS, fits, type Heating, heatNext, isCooking, type Show } from './heatNext.ts';
import { shotStage, topUp } from './shotNow.ts';

const opened = (mold: NextMold, nowMs: number) => !mold.opensAt || Date.parse(mold.opensAt) <= nowMs;

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
