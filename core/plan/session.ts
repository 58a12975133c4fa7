import * as v from 'valibot';
import { celsius, fraction, id, list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { key as keyOf, least as leastOf } from './sessionLeast.ts';
import { Evening } from './sessionMoves.ts';
import {
  type Bar,
  type Session,
  type SessionMold,
  type SessionShots,
  type State,
  startOf,
  workOf,
} from './sessionState.ts';

const seconds = nonNegative(1e5);
const some = positive(1e5);

const cup = v.strictObject({
  id,
  bursts: v.pipe(v.array(some), v.minLength(1), v.maxLength(40, 'too-large'), v.title('Bursts of the oven, s')),
  reheatS: v.pipe(some, v.title('Reheated in, s')),
  cookedC: v.optional(v.pipe(celsius, v.title('Cooked to')), usual('cookC')),
  degasS: v.optional(v.pipe(seconds, v.title('Under vacuum, s')), 0),
  tauS: v.optional(v.pipe(positive(1e6), v.title('Cools with, s')), usual('cupTauS')),
  lightness: v.optional(v.pipe(fraction, v.title('Light, 0 to 1')), 0.5),
});
const mold = v.strictObject({
  id,
  openS: v.optional(v.pipe(seconds, v.title('Open between two shots, s')), usual('openBetweenS')),
  demoldS: v.pipe(v.array(seconds), v.minLength(1), v.maxLength(200, 'too-large'), v.title('Waits after each shot, s')),
  fullForS: v.optional(v.pipe(seconds, v.title('Full already, opens in, s'))),
});
const go = v.strictObject({
  cupIds: v.pipe(v.array(id), v.minLength(1), v.maxLength(6, 'too-large'), v.title('Drawn from')),
  fillS: v.pipe(some, v.title('To fill, s')),
  /** Left out: all the while. */
  drawS: v.optional(v.pipe(some, v.title('Of that, drawn from the cup, s'))),
  lowC: celsius,
  highC: celsius,
  injected: v.optional(v.boolean(), true),
  waitS: v.optional(v.pipe(seconds, v.title('Before the next layer, s')), 0),
});
const shots = v.strictObject({
  moldId: id,
  count: whole(1, 200),
  goes: v.pipe(v.array(go), v.minLength(1), v.maxLength(12, 'too-large')),
});

/** As many pieces of work for the hands as an evening may hold. */
const MOST_WORK = 600;

export const sessionSchema = v.pipe(
  v.strictObject({
    cups: v.pipe(list(cup, 'id'), v.maxLength(24, 'too-large')),
    molds: v.pipe(list(mold, 'id'), v.maxLength(24, 'too-large')),
    shots: v.pipe(v.array(shots), v.minLength(1), v.maxLength(60, 'too-large')),
    injectors: v.optional(v.pipe(whole(0, 24), v.title('Injectors')), 1),
    plates: v.optional(v.pipe(whole(0, 24), v.title('Places on a hot plate')), 0),
    keepWarm: v.optional(v.pipe(v.boolean(), v.title('Kept warm in the oven between shots')), true),
    /** Each is cooked after the one before it; else whichever is best. */
    inOrder: v.optional(v.pipe(v.boolean(), v.title('Cooked in this order')), false),
    roomC: v.optional(celsius, usual('roomC')),
    stirS: v.optional(v.pipe(seconds, v.title('To stir and scrape, s')), usual('stirS')),
    loadS: v.optional(v.pipe(seconds, v.title('Into the oven, s')), usual('loadS')),
    wipeS: v.optional(v.pipe(seconds, v.title('Injector wiped for a darker colour, s')), usual('wipeS')),
    cleanS: v.optional(v.pipe(seconds, v.title('Injector cleaned for a lighter colour, s')), usual('cleanS')),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const { value } = dataset;
    const wrong = (message: string, key: string) =>
      addIssue({ message, path: [{ type: 'object', origin: 'value', input: value, key, value }] });
    const cups = new Set(value.cups.map((one) => one.id));
    const molds = new Set(value.molds.map((one) => one.id));
    if (value.shots.some(({ moldId }) => !molds.has(moldId))) wrong('a shot names a mold that is not there', 'shots');
    const goes = value.shots.flatMap((row) => row.goes);
    if (goes.some(({ cupIds }) => new Set(cupIds).size < cupIds.length)) wrong('a layer names a cup twice', 'shots');
    if (goes.some(({ cupIds }) => cupIds.some((one) => !cups.has(one))))
      wrong('a shot names a cup that is not there', 'shots');
    const drawn = new Set(goes.flatMap(({ cupIds }) => cupIds));
    if (value.cups.some((one) => !drawn.has(one.id))) wrong('a cup is there that no shot is drawn from', 'cups');
    if (goes.some(({ lowC, highC }) => highC < lowC)) wrong('a window’s high end is under its low end', 'shots');
    if (goes.some(({ drawS = 0, fillS }) => drawS > fillS)) wrong('it is drawn from longer than it is filled', 'shots');
    if (goes.some(({ injected, cupIds }) => injected && cupIds.length > value.injectors))
      wrong('a shot is injected from more cups than there are injectors', 'injectors');
    const work =
      value.shots.reduce((sum, row) => sum + row.count * (row.goes.length + 1), 0) +
      value.cups.reduce((sum, one) => sum + one.bursts.length + 2, 0);
    if (work > MOST_WORK) wrong('too-large', 'shots');
  }),
);
export type SessionInput = v.InferInput<typeof sessionSchema>;
export type SessionPlan = v.InferOutput<typeof sessionSchema>;

export interface Simulated {
  totalS: number;
  /** Of that, the hands have nothing to do. */
  idleS: number;
  /** No order of the work is shorter; else the shortest of those that were tried. */
  exact: boolean;
  timeline: Bar[];
  /** Each resource's own work, the busiest first, s. */
  busy: { resource: string; s: number }[];
  /** What the evening waits for: the resource with most work of its own. */
  bottleneck: string;
  /** As many molds like these keep one person's hands full. */
  moldsToKeepBusy: number;
  /** How often each cup is heated after it was cooked. */
  reheats: Record<string, number>;
}

/** Beginnings that are carried on at most and at least; the more work, the fewer, so that it takes about a second. */
const [MOST_WIDE, LEAST_WIDE, WIDE_BY_WORK] = [4000, 12, 250_000];
/** So many times as many where cups are reheated. */
const MOST_REHEATING = 4;

interface Ranked {
  state: State;
  /** It ends no earlier, s. */
  least: number;
}

/** The shortest evening: by what is still to do, the most promising beginnings carried on. */
function shortest(evening: Evening): { last: State; exact: boolean } | null {
  const work = workOf(evening.session);
  const wide = Math.max(LEAST_WIDE, Math.min(MOST_WIDE, Math.floor(WIDE_BY_WORK / work ** 2)));
  let [best, exact]: [State | null, boolean] = [null, true];
  let level: Ranked[] = [{ state: startOf(evening.session), least: 0 }];
  while (level.length > 0) {
    if (level.length > wide) {
      exact = false;
      level.sort((a, b) => a.least - b.least || a.state.now - b.state.now);
      level.length = wide;
    }
    const [seen, next] = [new Set<string>(), [] as Ranked[]];
    // Reheating brings nothing nearer: it stays in its level, behind those that are there.
    for (let at = 0; at < level.length; at++) {
      const { state: from, least: before } = level[at] as Ranked;
      if (best && before >= best.now - 1e-9) continue;
      for (const state of evening.moves(from)) {
        if (state.workLeft === 0) {
          if (!best || state.now < best.now - 1e-9) best = state;
          continue;
        }
        const least = Math.max(before, leastOf(evening, state));
        const key = keyOf(state);
        if (seen.has(key) || !Number.isFinite(least) || (best && least >= best.now - 1e-9)) continue;
        seen.add(key);
        if (state.workLeft < from.workLeft) next.push({ state, least });
        else if (level.length < MOST_REHEATING * wide) level.push({ state, least });
        else exact = false;
      }
    }
    level = next;
  }
  return best ? { last: best, exact } : null;
}

function barsOf(last: State): Bar[] {
  const steps: Bar[][] = [];
  for (let state: State | null = last; state; state = state.before) steps.push(state.bars);
  return steps.reverse().flat();
}

/** How many molds like these keep one pair of hands busy: while one waits, the others are opened and filled. */
function keepBusy(shots: SessionShots[], molds: SessionMold[]): number {
  let [hands, waits] = [0, 0];
  for (const { moldId, count, goes } of shots) {
    const mold = molds.find((one) => one.id === moldId) as SessionMold;
    hands += count * (mold.openS + goes.reduce((sum, { fillS }) => sum + fillS, 0));
    for (let nth = 0; nth < count; nth++) waits += mold.demoldS[Math.min(nth, mold.demoldS.length - 1)] as number;
    waits += count * goes.slice(0, -1).reduce((sum, { waitS }) => sum + waitS, 0);
  }
  return Math.ceil((hands + waits) / hands - 1e-9);
}

/**
 * An evening as it can go at best: one pair of hands, one oven, its vacuum, injectors and molds; each piece of work begins as
 * early as its order allows, and nothing is drawn outside its window.
 * @returns s; bars of each resource; which is the busiest; whether no order is shorter (`exact`).
 * @throws Failure `never` where no order keeps every pour in its window.
 * Source: a search through the orders of the hands' work by the least they can come to (branch and bound, in levels).
 */
export function simulate(input: SessionPlan): Simulated {
  const session: Session = {
    ...input,
    shots: input.shots.map((row) => ({
      ...row,
      goes: row.goes.map((one) => ({ ...one, drawS: one.drawS ?? one.fillS })),
    })),
  };
  const evening = new Evening(session);
  const found = shortest(evening);
  if (!found)
    throw new Failure(
      'never',
      'Whatever comes first, some shot would be drawn outside its window: a cup falls out of it faster than a mold is filled. Keep the cups warm, fill faster, or pour layers from fewer cups at once.',
      'shots',
    );
  const { last, exact } = found;
  const timeline = barsOf(last);
  const sums = new Map<string, number>();
  for (const { resource, from, to } of timeline)
    if (!resource.startsWith('cup ')) sums.set(resource, (sums.get(resource) ?? 0) + to - from);
  const busy = [...sums].map(([resource, s]) => ({ resource, s })).sort((a, b) => b.s - a.s);
  return {
    totalS: last.now,
    idleS: last.now - (sums.get('person') ?? 0),
    exact,
    timeline,
    busy,
    bottleneck: busy[0]?.resource ?? 'person',
    moldsToKeepBusy: keepBusy(session.shots, session.molds),
    reheats: Object.fromEntries(session.cups.map((one, i) => [one.id, Math.max(0, (last.cups[i]?.heats ?? 1) - 1)])),
  };
}

/** A change to an evening, and what it would take then. */
export interface Helps {
  change: 'free-order' | 'one-more-mold';
  /** The mold of which there would be one more. */
  moldId?: string;
  /** The cups as they would then be begun. */
  order: string[];
  totalS: number;
  /** What it saves; less than nothing: it takes longer. */
  savesS: number;
}

/** The cups in the order in which they are cooked. */
const orderOf = ({ timeline }: Simulated): string[] => [
  ...new Set(timeline.flatMap(({ did, cup }) => (did === 'burst' && cup ? [cup] : []))),
];

/** The mold that holds the evening up most, once more, with half of its shots. */
function oneMore(session: SessionPlan, busy: Simulated['busy']): { moldId: string; session: SessionPlan } | null {
  const most = busy.find(
    ({ resource }) =>
      resource.startsWith('mold ') &&
      session.shots.some(({ moldId, count }) => `mold ${moldId}` === resource && count > 1),
  );
  if (!most) return null;
  const moldId = most.resource.slice('mold '.length);
  const mold = session.molds.find((one) => one.id === moldId) as SessionMold;
  const twin = `${moldId} (2)`;
  const rows = session.shots.flatMap((row) => {
    if (row.moldId !== moldId || row.count < 2) return [row];
    const half = Math.floor(row.count / 2);
    return [
      { ...row, count: row.count - half },
      { ...row, moldId: twin, count: half },
    ];
  });
  return {
    moldId,
    session: { ...session, molds: [...session.molds, { ...mold, id: twin, fullForS: undefined }], shots: rows },
  };
}

/** An evening as it is laid out, and what one more mold or another order of its cups would change. */
export function simulated(session: SessionPlan): Simulated & { helps: Helps[] } {
  const now = simulate(session);
  const helps: Helps[] = [];
  const add = (change: Helps['change'], tried: SessionPlan, moldId?: string) => {
    const then = simulate(tried);
    // The same order again is no other.
    if (change === 'free-order' && String(orderOf(then)) === String(orderOf(now))) return;
    const { totalS } = then;
    helps.push({ change, ...(moldId ? { moldId } : {}), order: orderOf(then), totalS, savesS: now.totalS - totalS });
  };
  if (session.inOrder && session.cups.length > 1) add('free-order', { ...session, inOrder: false });
  const more = oneMore(session, now.busy);
  if (more) add('one-more-mold', more.session, more.moldId);
  return { ...now, helps };
}
