import jstat from 'jstat';
import * as v from 'valibot';
import { fraction, id, openFraction, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Seeded } from '../seeded.ts';
import { REJECT_PRIOR } from '../yield/counts.ts';
import { productionSchema } from './production.ts';
import { greedy } from './productionGreedy.ts';
import { linesOf } from './productionPack.ts';
import { scored } from './productionSearch.ts';
import { counted, type Product, type Work, workOf } from './productionWork.ts';

export const promiseSchema = v.strictObject({
  plan: productionSchema,
  /** Lines that a date is looked for; their own is not read. */
  lineIds: v.pipe(v.array(id), v.minLength(1), v.maxLength(200, 'too-large'), v.title('Lines to be promised')),
  /** How often an evening that was meant for it is lost. */
  lostEvenings: v.optional(v.pipe(fraction, v.maxValue(0.9)), usual('lostEvenings')),
  /** The chance that a mold breaks with a shot. */
  breaksAShot: v.optional(v.pipe(fraction, v.maxValue(0.1)), usual('breaksAShot')),
  confidence: v.optional(openFraction, usual('confidence')),
  runs: v.optional(whole(20, 2000), usual('runsAhead')),
  seed: v.optional(whole(0, 2 ** 31), 1),
});
export type PromiseAsked = v.InferOutput<typeof promiseSchema>;

/** A day as it went in one run, by number; null: not within these days. */
export type Went = number | null;

/** A share of rejects as likely as the record leaves it. Source: Beta (1, 19) updated by the bait's own counts. */
const rejectShare = (asked: PromiseAsked['plan'], baitId: string, chance: number): number => {
  const past = asked.rejects.find((row) => row.baitId === baitId) ?? { made: 0, rejected: 0 };
  return jstat.beta.inv(chance, REJECT_PRIOR.alpha + past.rejected, REJECT_PRIOR.beta + past.made - past.rejected);
};

/** How many shots a bait really takes, where each of its cavities is good with this chance; drawn for so many baits. */
function shotsTaken({ need }: Product, cavities: number, good: number, chance: number): number {
  const mean = need / (cavities * good);
  // Of so many tries the count that is needed spreads as a negative binomial does.
  const sd = Math.sqrt((need * (1 - good)) / good ** 2) / cavities;
  return Math.max(Math.ceil(need / cavities), Math.ceil(mean + sd * jstat.normal.inv(chance, 0, 1) - 1e-9));
}

/** One run of these days: evenings are lost, molds break and rejects fall as they may; it is poured on until all are good. */
export function oneRun(work: Work, asked: PromiseAsked, random: Seeded): Went[] {
  const chance = () => Math.min(1 - 1e-9, Math.max(1e-9, random.next()));
  const days = work.days.map((day) => (random.next() < asked.lostEvenings ? { ...day, handsMin: 0 } : day));
  const broken = new Map<string, number>();
  for (const { id: moldId } of asked.plan.molds) {
    const shots =
      asked.breaksAShot > 0 ? Math.log(chance()) / Math.log(1 - asked.breaksAShot) : Number.POSITIVE_INFINITY;
    let drawn = 0;
    const bait = work.baits.find(({ moldIds }) => moldIds.includes(moldId));
    // As if it worked all it can: a mold that stands still breaks later than this.
    const day = days.findIndex((_, at) => {
      drawn += (bait?.freeOn(moldId, at) ?? 0) / 2;
      return drawn > shots;
    });
    if (day >= 0) broken.set(moldId, day);
  }
  const baits = work.baits.map((bait) => ({
    ...bait,
    mostShots: days.map((_, at) =>
      bait.moldIds.reduce(
        (sum, moldId) => sum + ((broken.get(moldId) ?? Number.POSITIVE_INFINITY) > at ? bait.freeOn(moldId, at) : 0),
        0,
      ),
    ),
  }));
  const rejected = new Map(work.baits.map(({ id: baitId }) => [baitId, rejectShare(asked.plan, baitId, chance())]));
  const products = work.products.map((product) => {
    if (product.shots === 0) return product;
    const mold = asked.plan.molds.find(({ id: moldId }) => work.baits[product.bait]?.moldIds.includes(moldId));
    const shots = shotsTaken(product, mold?.cavities ?? 1, 1 - (rejected.get(product.baitId) ?? 0), chance());
    return { ...product, ...counted(product.need, shots) };
  });
  const run: Work = { ...work, days, baits, products };
  const lines = linesOf(run, scored(run, greedy(run, 1)).packed);
  const at = new Map(work.days.map(({ day }, index) => [day, index]));
  const mine = new Set(asked.lineIds);
  return lines
    .filter(({ lineId }) => mine.has(lineId))
    .map(({ packedOn }) => (packedOn === null ? null : (at.get(packedOn) as number)));
}

export interface Promised {
  /** The day that is kept in so many of a hundred runs; null: none of these days is. */
  day: string | null;
  /** Of each day, the share of runs in which all of it was packed by then. */
  kept: { day: string; share: number }[];
}

/** What would bring it forward, and by how many days; null: it is not known, because one of the two dates is none of these days. */
export interface Forward {
  by: 'person' | 'mold' | 'one-colour';
  day: string | null;
  gainDays: number | null;
}

/** What is promised is poured after all that was promised before: its lines are due last. */
export function lastOfAll(asked: PromiseAsked): PromiseAsked['plan'] {
  const mine = new Set(asked.lineIds);
  const last = asked.plan.days.at(-1)?.day as string;
  return { ...asked.plan, lines: asked.plan.lines.map((line) => (mine.has(line.id) ? { ...line, due: last } : line)) };
}

/** The date alone, without what would bring it forward. */
export function dateKept(asked: PromiseAsked): Promised {
  const plan = lastOfAll(asked);
  const work = workOf(plan);
  const random = new Seeded(asked.seed);
  const counts = work.days.map(() => 0);
  for (let run = 0; run < asked.runs; run++) {
    const went = oneRun(work, { ...asked, plan }, random);
    if (went.length === 0 || went.some((day) => day === null)) continue;
    const last = Math.max(...(went as number[]));
    counts[last] = (counts[last] as number) + 1;
  }
  let sum = 0;
  const kept = work.days.map(({ day }, at) => {
    sum += counts[at] as number;
    return { day, share: sum / asked.runs };
  });
  return { day: kept.find(({ share }) => share >= asked.confidence)?.day ?? null, kept };
}

/** The same question with a pair of hands, a twin of each of its molds, or all of it in one colour. */
function changed(asked: PromiseAsked, by: Forward['by']): PromiseAsked | null {
  const { plan } = asked;
  const mine = plan.lines.filter(({ id: lineId }) => asked.lineIds.includes(lineId));
  if (by === 'person') {
    // Two work as long as one: the molds give no more for it.
    const days = plan.days.map((day) => {
      const lengthMin = day.lengthMin ?? day.handsMin;
      return { ...day, handsMin: day.handsMin + lengthMin, lengthMin };
    });
    return { ...asked, plan: { ...plan, days } };
  }
  if (by === 'mold') {
    const baits = new Set(mine.map(({ baitId }) => baitId));
    const twins = [...baits].flatMap((baitId) => {
      const [best] = plan.molds.filter((mold) => mold.baitId === baitId).sort((a, b) => b.cavities - a.cavities);
      return best ? [{ ...best, id: `${best.id} twin` }] : [];
    });
    return twins.length > 0 ? { ...asked, plan: { ...plan, molds: [...plan.molds, ...twins] } } : null;
  }
  const [first] = mine;
  if (!first || new Set(mine.map(({ colourId }) => colourId)).size < 2) return null;
  const lines = plan.lines.map((line) => (mine.includes(line) ? { ...line, colourId: first.colourId } : line));
  return { ...asked, plan: { ...plan, lines } };
}

const dayNumber = (day: string) => Date.parse(day) / 86_400_000;

/**
 * The date for these lines that is kept in nine of ten runs of the days ahead, all that was promised before kept first.
 * @returns the day, how sure each day is, and what would bring it forward by how much.
 * Source: Monte Carlo over lost evenings (Bernoulli), rejects (Beta–binomial by the record), shots needed (negative
 * binomial, normal limit) and mold breakage (geometric); each run poured by earliest due date.
 */
export function promised(asked: PromiseAsked): Promised & { forward: Forward[] } {
  const found = dateKept(asked);
  const forward = (['person', 'mold', 'one-colour'] as const).flatMap((by): Forward[] => {
    const other = changed(asked, by);
    if (!other) return [];
    const { day } = dateKept(other);
    const gainDays = day !== null && found.day !== null ? dayNumber(found.day) - dayNumber(day) : null;
    return [{ by, day, gainDays }];
  });
  return { ...found, forward };
}
