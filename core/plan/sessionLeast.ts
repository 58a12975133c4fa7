import type { Evening } from './sessionMoves.ts';
import type { MoldNow, SessionCup, State } from './sessionState.ts';

/** No evening that begins so ends earlier: by the hands alone, by each mold alone, by the oven alone. */
export function least(evening: Evening, state: State): number {
  const { shots, molds, stirS, loadS } = evening.session;
  let hands = state.now;
  const chain = state.molds.map((mold) => mold.from);
  shots.forEach(({ goes }, row) => {
    const at = evening.molds[row] as number;
    const mold = state.molds[at] as MoldNow;
    const left = state.left[row] as number;
    const filling = goes.reduce((sum, { fillS }) => sum + fillS, 0);
    const between = goes.slice(0, -1).reduce((sum, { waitS }) => sum + waitS, 0);
    hands += left * filling;
    chain[at] = (chain[at] as number) + left * (filling + between);
    if (mold.row === row && !mold.full) {
      const rest = goes.slice(mold.go);
      hands += rest.reduce((sum, { fillS }) => sum + fillS, 0);
      chain[at] =
        (chain[at] as number) +
        rest.reduce((sum, { fillS, waitS }, i) => sum + fillS + (i < rest.length - 1 ? waitS : 0), 0);
    }
  });
  molds.forEach(({ openS, demoldS }, at) => {
    const mold = state.molds[at] as MoldNow;
    const toFill =
      evening.molds.reduce((sum, one, row) => sum + (one === at ? (state.left[row] as number) : 0), 0) +
      (mold.row >= 0 && !mold.full ? 1 : 0);
    const opens = toFill + (mold.full ? 1 : 0);
    hands += opens * openS;
    let waits = opens * openS;
    for (let nth = mold.shots; nth < mold.shots + toFill; nth++)
      waits += demoldS[Math.min(nth, demoldS.length - 1)] as number;
    chain[at] = opens > 0 ? (chain[at] as number) + waits : 0;
  });
  let oven = state.ovenFrom;
  state.cups.forEach((cup, index) => {
    const { bursts } = evening.session.cups[index] as SessionCup;
    if (cup.stage === 'cold') {
      hands += loadS + bursts.length * stirS;
      oven += loadS + bursts.reduce((sum, s) => sum + s + stirS, 0);
    } else if (cup.stage === 'cooking') {
      hands += cup.bursts * stirS;
      oven = Math.max(oven, cup.until) + stirS;
      for (let burst = cup.bursts - 1; burst > 0; burst--) oven += (bursts[bursts.length - burst] as number) + stirS;
    } else if (cup.stage === 'degas') hands += loadS;
    else if (cup.stage === 'ready') {
      const cold = evening.cold(state, index);
      // One that went cold in vain, and would again: no evening goes on from here.
      if (cold) hands += cold.mayHeat ? loadS + stirS : Number.POSITIVE_INFINITY;
    }
  });
  return Math.max(hands, oven, ...chain);
}

/** What is the same from here on: two such evenings go on alike. */
export function key({ now, ovenFrom, ovenCup, pumpFrom, warm, cups, molds, left, injectors }: State): string {
  const parts: (string | number)[] = [
    now,
    ovenCup < 0 ? Math.max(now, ovenFrom) : -1 - ovenCup,
    Math.max(now, pumpFrom),
  ];
  for (const { stage, bursts, until, t0, c0, heldC, unused } of cups)
    if (stage === 'ready') parts.push(Math.max(now, until), t0, c0, heldC, unused);
    else parts.push(stage, bursts, until);
  for (const { shots, row, go, full, from } of molds) parts.push(shots, row, full ? -1 : go, Math.max(now, from));
  return `${parts.join()}|${warm.join()}|${left.join()}|${injectors.map(({ cup, fresh }) => (fresh ? -2 - cup : cup)).join()}`;
}
