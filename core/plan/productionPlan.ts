import type { Highs } from 'highs';
import { loadSolver } from '../highs.ts';
import { floorNear } from '../rounding.ts';
import type { Mean, PlannedCup, PlannedDay, PlannedLine, Production, ProductionPlan } from './production.ts';
import { broughtForward } from './productionAnneal.ts';
import { greedy } from './productionGreedy.ts';
import { linesOf } from './productionPack.ts';
import { type Beside, better, SAME, type Scored, Searcher, scored } from './productionSearch.ts';
import type { Standing } from './productionStanding.ts';
import { glassesFor, goodOf, type Product, shortIn, type Work, workOf } from './productionWork.ts';

const MEANS: Mean[] = ['hands', 'glasses', 'molds', 'oven', 'vacuum', 'boards', 'materials'];
type How = Pick<ProductionPlan, 'by' | 'stopped' | 'boundBaitDays' | 'fault'>;

/**
 * Shots of a bait over its molds, as many to each as it has room for, evenly.
 * @param drawn what the other colours of that day draw in each mold already; these are added to it.
 */
function overMolds(
  work: Work,
  bait: number,
  shots: number,
  day: number,
  drawn: Map<string, number>,
): { moldId: string; shots: number }[] {
  const { moldIds, freeOn } = work.baits[bait] as Work['baits'][number];
  const rows = moldIds.map((moldId) => ({
    moldId,
    shots: 0,
    before: drawn.get(moldId) ?? 0,
    most: freeOn(moldId, day),
  }));
  const fill = ({ shots: n, before, most }: (typeof rows)[number]) => (before + n) / most;
  for (let left = shots; left > 0; left--) {
    const [least] = rows.filter((row) => row.before + row.shots < row.most).sort((a, b) => fill(a) - fill(b));
    if (!least) break;
    least.shots += 1;
  }
  for (const row of rows) drawn.set(row.moldId, row.before + row.shots);
  return rows.filter((row) => row.shots > 0).map(({ moldId, shots: n }) => ({ moldId, shots: n }));
}

function cupsOn(work: Work, standing: Standing, day: number): PlannedCup[] {
  const { asked, products, drawnMl } = work;
  const inMolds = new Map<string, number>();
  const cups = standing.coloursOn(day).map((colour) => {
    const ml = standing.drawn(colour, day);
    const mix = asked.colours[colour] as Production['colours'][number];
    const molds = products.flatMap((product, p) => {
      const shots = standing.on(p, day);
      if (product.colour !== colour || shots === 0) return [];
      let before = 0;
      for (let earlier = 0; earlier < day; earlier++) before += standing.on(p, earlier);
      const baits = goodOf(product, before + shots) - goodOf(product, before);
      let told = 0;
      return overMolds(work, product.bait, shots, day, inMolds).map((row, index, rows) => {
        const share = index === rows.length - 1 ? baits - told : floorNear((baits * row.shots) / shots);
        told += share;
        return { ...row, baitId: product.baitId, baits: share };
      });
    });
    const glasses = glassesFor(ml, drawnMl) * mix.melts;
    return { mix, cup: { colourId: mix.id, glasses, molds, drawnMl: ml, pinned: work.pins[colour]?.[day] === 1 } };
  });
  // Light before dark; what takes remelt of the others last.
  cups.sort((a, b) => Number(a.mix.takesRemelt) - Number(b.mix.takesRemelt) || b.mix.lightness - a.mix.lightness);
  return cups.map(({ cup }) => cup);
}

/** What of a day is all used up: where one shot, or one glass, more would be too much. */
function fullOn(work: Work, standing: Standing, day: number, packMin: number): PlannedDay['full'] {
  const { handsMin, glasses: most, ovenMin, pumpMin, boardBaits } = work.days[day] as Work['days'][number];
  const { products, asked, stuffs } = work;
  const { means } = standing;
  const glasses = standing.glassesOn(day);
  if (glasses === 0) return [];
  const wanted = products.filter(({ shots }) => shots > 0);
  const least = (of: (product: Product) => number) => Math.min(...wanted.map(of));
  const mix = ({ colour }: Product) => asked.colours[colour] as Production['colours'][number];
  const molds = work.baits.some(({ mostShots }, bait) => {
    const shots = standing.ofBait(bait, day);
    return shots > 0 && shots >= (mostShots[day] as number);
  });
  const said: Record<Mean, boolean> = {
    hands: standing.pourMin(day) + packMin + least((product) => product.handsMin) > handsMin,
    glasses: glasses >= most,
    molds,
    oven: means.ovenMin(day) + least((product) => mix(product).ovenMin) > ovenMin,
    vacuum: means.pumpMin(day) + least((product) => mix(product).pumpMin) > pumpMin,
    boards: means.lie(day) + least(({ cavities }) => cavities) > boardBaits,
    materials: stuffs.some(({ until }, at) => day < until && means.shortOf(at)),
  };
  return MEANS.filter((mean) => said[mean]);
}

/** Why what is not packed is not: for want of what the store holds too little of, where that is all that hinders it. */
const shortWhy = (work: Work, standing: Standing, lines: PlannedLine[]): PlannedLine[] =>
  lines.map((line) => {
    if (line.why !== 'no-time') return line;
    const product = work.products[work.lines.find(({ id }) => id === line.lineId)?.product ?? -1];
    const short = work.stuffs.some(
      ({ until, gPerMl }, at) =>
        until === work.days.length && product && (gPerMl[product.colour] as number) > 0 && standing.means.shortOf(at),
    );
    return short ? { ...line, why: 'no-material' } : line;
  });

function told(work: Work, { standing, packed }: Scored, how: How): ProductionPlan {
  const days = work.days.map(({ day, handsMin }, at): PlannedDay => {
    const packMin = packed.packMin[at] as number;
    return {
      day,
      cups: cupsOn(work, standing, at),
      packed: (packed.days[at] as { line: number; baits: number }[]).map(({ line, baits }) => ({
        lineId: work.lines[line]?.id as string,
        baits,
      })),
      pourMin: standing.pourMin(at),
      packMin,
      handsMin,
      full: fullOn(work, standing, at, packMin),
    };
  });
  const late = packed.lateBaitDays;
  const bound = how.boundBaitDays === null ? null : Math.min(late, Math.max(0, how.boundBaitDays));
  return {
    days,
    lines: shortWhy(work, standing, linesOf(work, packed)),
    materials: shortIn(work).map((short) => ({
      ...short,
      takesG: standing.means.taken(work.stuffs.findIndex(({ id }) => id === short.materialId)),
    })),
    lateBaitDays: late,
    gap: bound === null ? null : late <= SAME ? 0 : (late - bound) / late,
    changeovers: standing.changeovers,
    glasses: work.days.reduce((sum, _, day) => sum + standing.glassesOn(day), 0),
    ...how,
    boundBaitDays: bound,
  };
}

/** What stands beside the search: its clock, who looks on, and who may stop it. */
export interface Search extends Beside {
  /** Each better plan as it is found. */
  better?(plan: ProductionPlan): void;
  solver?(): Promise<Highs>;
}

/** How far ahead a colour that stands is filled up: tried from not at all to a fortnight. */
const AHEAD = [0, 1, 2, 4, 14];
/** Baits and colours × days that the solver has done at once. */
const SMALL = 60;
/** Shares of what time is left: for first steps, for the whole by lateness, and by changes; the rest is for steps again. */
const [FIRST_STEPS, FOR_LATENESS, FOR_CHANGES] = [0.35, 0.25, 0.1];

/** The best plan by due dates alone, and whether none can be better. */
function begun(work: Work): { first: Scored; how: How; best: boolean } {
  const first = AHEAD.map((far) => scored(work, greedy(work, far))).reduce((a, b) => (better(b, a) ? b : a));
  // Each colour that is wanted is begun once at least: where none is begun twice and nothing is late, none is better.
  const colours = new Set(work.products.flatMap(({ shots, colour }) => (shots > 0 ? [colour] : [])));
  const late = first.packed.lateBaitDays > SAME;
  return {
    first,
    how: { by: 'heuristic', stopped: 'time', boundBaitDays: late ? null : 0, fault: null },
    best: !late && first.standing.changeovers <= colours.size,
  };
}

const filledUp = (work: Work, { standing }: Scored) => scored(work, broughtForward(work, standing.poured()));

/** The plan that there is at once, without any search: the same whoever asks, of the same orders and hands. */
export function plannedAtOnce(asked: Production): ProductionPlan {
  const work = workOf(asked);
  const { first, how, best } = begun(work);
  return best ? told(work, filledUp(work, first), { ...how, stopped: 'done' }) : told(work, first, how);
}

/**
 * Dated cups for what is wanted: least late, then fewest colours begun, evenings and glasses.
 * @returns days with their cups in the order they are poured, when each line is packed, what is short and why, how far from
 * the least possible lateness it may be.
 * Source: mixed-integer lot sizing with set-ups; branch and cut by HiGHS (Huangfu and Hall 2018), begun from a plan by
 * earliest due date and by simulated annealing (Kirkpatrick et al. 1983); whatever the solver says is packed and summed
 * again here.
 */
export async function produced(asked: Production, search: Search): Promise<ProductionPlan> {
  const work = workOf(asked);
  const untilMs = search.nowMs() + asked.timeLimitMs;
  const { first, best, how: asBegun } = begun(work);
  let how = asBegun;
  search.better?.(told(work, first, how));
  if (best) return told(work, filledUp(work, first), { ...how, stopped: 'done' });
  if (asked.timeLimitMs <= 0) return told(work, first, how);
  const searcher = await (search.solver ?? loadSolver)().then(
    (highs) =>
      new Searcher(highs, work, search, first, (one) => {
        how = { ...how, by: 'search' };
        search.better?.(told(work, one, how));
      }),
    (error: unknown) => (error instanceof Error ? error : Promise.reject(error)),
  );
  // A solver that cannot be had takes no plan away: what stands is told, and why it is not looked at further.
  if (searcher instanceof Error) return told(work, first, { ...how, stopped: 'failed', fault: searcher.message });
  const over = () => (search.stopped?.() ?? false) || search.nowMs() >= untilMs;
  const share = (of: number) => search.nowMs() + of * (untilMs - search.nowMs());
  const large = work.products.length * work.days.length > SMALL;
  if (large) searcher.steps(share(FIRST_STEPS));
  let whole = true;
  try {
    if (!over() && searcher.best.packed.lateBaitDays > SAME) {
      const ended = searcher.look({ least: 'late' }, share(FOR_LATENESS));
      how = { ...how, boundBaitDays: ended.bound };
      whole = ended.whole;
    } else if (searcher.best.packed.lateBaitDays <= SAME) how = { ...how, boundBaitDays: 0 };
    if (!over()) {
      const mostLate = searcher.best.packed.lateBaitDays + SAME;
      whole = searcher.look({ least: 'changes', mostLate }, share(FOR_CHANGES)).whole && whole;
    }
    if (!whole && !over()) searcher.steps(untilMs);
    how = { ...how, stopped: search.stopped?.() ? 'asked' : whole ? 'done' : 'time' };
  } catch (error) {
    // It broke while it looked: the best that stood by then is told, and what it said.
    if (!(error instanceof Error)) throw error;
    how = { ...how, stopped: 'failed', fault: error.message };
  }
  return told(work, filledUp(work, searcher.best), how);
}
