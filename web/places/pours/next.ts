import type { Heat, Pour, PourMold, Shot } from '../../../contract/pours.ts';
import type { Dose } from '../../../contract/recipes.ts';
import { PRINTED_WINDOW_C, WINDOW_C } from '../molds/words.ts';

/** A reading older than this no longer says what the cup is now. */
export const STALE_READING_S = 300;

/** The window all molds of this cup share: the highest of the lows, the lowest of the highs. */
export function windowOf(molds: PourMold[]): { lowC: number; highC: number; by: string } {
  const windows = molds.map((mold) => ({
    window: mold.kind === 'printed' ? PRINTED_WINDOW_C : WINDOW_C[mold.fill],
    mold,
  }));
  const low = Math.max(...windows.map(({ window }) => window[0]));
  const limiting = windows.reduce((least, one) => (one.window[1] < least.window[1] ? one : least));
  return {
    lowC: low,
    highC: limiting.window[1],
    by:
      limiting.mold.fill === 'injection' ? 'by hand injector' : limiting.mold.fill === 'dip' ? 'dipping' : 'open pour',
  };
}

export interface Cup {
  pour: Pour;
  /** Its molds as they are now, taps on their way included. */
  molds: PourMold[];
  doses: Dose[];
  heats: Heat[];
  shots: Shot[];
  nowMs: number;
}

export const shotsOf = (cup: Cup, moldId: string) => cup.shots.filter((shot) => shot.moldId === moldId);
export const unmarkedIn = (shot: Shot, mold: PourMold) =>
  mold.cavities - shot.marks.filter((mark) => mark.result !== 'unmarked').length;

export type Next =
  | { do: 'heat'; say: string; why: string; kind: 'cook' | 'reheat' | 'reading' }
  | { do: 'dose'; say: string; why: string }
  | { do: 'look'; say: string; why: string; shot: Shot; mold: PourMold }
  | { do: 'shot'; say: string; why: string; mold: PourMold }
  | { do: 'wait'; say: string; why: string }
  | { do: 'close'; say: string; why: string };

/** Whether what is in the mold may be opened: its clock has run down. */
const opened = (mold: PourMold, nowMs: number) => !mold.opensAt || Date.parse(mold.opensAt) <= nowMs;

function heatNext(cup: Cup, show: (c: number) => string): Next | undefined {
  const { lowC, highC } = windowOf(cup.molds);
  const last = cup.heats.at(-1);
  if (!last)
    return {
      do: 'heat',
      kind: 'cook',
      say: `Cook to ${show(175)}, stir, read.`,
      why: 'Milk, then lumps, then a clear syrup. Stir between bursts; read after stirring.',
    };
  const ageS = (cup.nowMs - Date.parse(last.at)) / 1000;
  if (last.c < lowC)
    return {
      do: 'heat',
      kind: 'reheat',
      say: `Reheat: ${show(last.c)} is under ${show(lowC)}.`,
      why: 'Short bursts at low power, stir, read again.',
    };
  if (last.c > highC)
    return {
      do: 'heat',
      kind: 'reading',
      say: `Let it cool: ${show(last.c)} is over ${show(highC)}.`,
      why: 'Stir slowly and read again.',
    };
  if (ageS > STALE_READING_S)
    return {
      do: 'heat',
      kind: 'reading',
      say: 'Read the cup.',
      why: 'The last reading is more than five minutes old.',
    };
  return undefined;
}

/** All that a tap on the next thing would mean: a target for it is another target once any of this changes. */
export function meaning(next: Next, { shots }: Pick<Cup, 'shots'>): string {
  if (next.do === 'look') return `look ${next.shot.id} ${next.shot.marks.length}`;
  if (next.do === 'shot') return `shot ${next.mold.moldId} ${shots.length}`;
  return next.do === 'heat' ? `heat ${next.kind}` : next.do;
}

/** Exactly one next thing, in a whole sentence. */
export function nextOf(cup: Cup, show: (c: number) => string): Next {
  const { pour, nowMs } = cup;
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
      why: `Tap each bad bait and say why; then the rest good. ${n} to mark.`,
    };
  }
  if (toShoot.length > 0) {
    if (pour.recipeItems.length > 0 && cup.doses.length === 0 && cup.heats.length > 0)
      return { do: 'dose', say: 'Put in the colour.', why: 'As scaled for this cup, or dose by eye.' };
    const heat = heatNext(cup, show);
    if (heat) return heat;
    const free = toShoot.filter(({ shots, mold }) => !shots.some((shot) => unmarkedIn(shot, mold) > 0));
    const lane = free[0];
    if (lane)
      return {
        do: 'shot',
        mold: lane.mold,
        say: `Draw shot ${lane.shots.length + 1} of ${lane.mold.shots}: ${lane.mold.name}.`,
        why: 'Stir first: flake and salt sink. Keep the sprue topped until it stops sinking.',
      };
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
