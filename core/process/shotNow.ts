import { type CupNow, type Next, type NextMold, type NextShot, shotsOf } from './cupNow.ts';
import { saidOf } from './evidence.ts';
import { stageOf, type Way, wayOf } from './ways.ts';

/** How a mold is filled in this cup, by what goes into it last. */
export function wayInto(cup: Pick<CupNow, 'set'>, mold: NextMold): Way {
  const all = cup.set?.goes ?? [];
  return wayOf({ ...mold, cups: all.at(-1)?.cups.length ?? 1, layers: all.length || 1, rods: mold.rods ?? false });
}

/** Where the newest shot of a mold stands, and which of its shots it is. */
export function shotStage(cup: CupNow, mold: NextMold, shot: NextShot) {
  const nth = shotsOf(cup, mold.moldId).findIndex(({ id }) => id === shot.id) + 1;
  const way = wayInto(cup, mold);
  const sinceS = shot.at ? (cup.nowMs - Date.parse(shot.at)) / 1000 : Number.POSITIVE_INFINITY;
  const opensS = mold.opensAt ? (Date.parse(mold.opensAt) - cup.nowMs) / 1000 : 0;
  const { stage, leftS } = stageOf(way, sinceS, opensS);
  const said = (what: 'held' | 'topped') => saidOf(cup.ticks ?? [], what, { moldId: mold.moldId, nth });
  const over = (stage === 'hold' && said('held')) || (stage === 'top-up' && said('topped'));
  return { nth, way, stage: over ? ('cool' as const) : stage, leftS: over ? opensS : leftS };
}

type Staged<M, S> = ReturnType<typeof shotStage> & { mold: M; shot: S };

/** A shot that still sinks, where nothing else is to be done. */
export function topUp<M extends NextMold, S extends NextShot>(stages: Staged<M, S>[]): Next<M, S> | undefined {
  const found = stages.find(({ stage }) => stage === 'top-up');
  if (!found) return undefined;
  const { mold, shot, nth, leftS, way } = found;
  return { do: 'top', shot, mold, nth, leftS, say: `Top up ${mold.name}.`, why: way.topUp };
}
