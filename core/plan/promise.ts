import jstat from 'jstat';
import * as v from 'valibot';
import { fraction, id, isoDay, nonNegative, openFraction, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Seeded } from '../seeded.ts';
import { REJECT_PRIOR } from '../yield/counts.ts';
import { productionSchema } from './production.ts';
import { greedy } from './productionGreedy.ts';
import { linesOf } from './productionPack.ts';
import { scored } from './productionSearch.ts';
import { counted, type Product, shortIn, type Work, workOf } from './productionWork.ts';

export const promiseSchema = v.strictObject({
  plan: productionSchema,
  /** Lines that a date is looked for; their own is not read but where they keep their turn. */
  lineIds: v.pipe(v.array(id), v.minLength(1), v.maxLength(200, 'too-large'), v.title('Lines to be promised')),
  /** How often an evening that was meant for it is lost. */
  lostEvenings: v.optional(v.pipe(fraction, v.maxValue(0.9)), usual('lostEvenings')),
  /** The chance that a mold breaks with a shot. */
  breaksAShot: v.optional(v.pipe(fraction, v.maxValue(0.1)), usual('breaksAShot')),
  confidence: v.optional(openFraction, usual('confidence')),
  runs: v.optional(whole(20, 2000), usual('runsAhead')),
  /** What of a material could be melted again in its place, and how much of a cup of a colour that takes it. */
  remelt: v.optional(v.strictObject({ materialId: id, g: nonNegative(1e9), share: fraction })),
  /** What could be had for money; left out: nobody knows. */
  prices: v.optional(
    v.strictObject({
      hourMinor: v.optional(nonNegative(1e9)),
      moldMinor: v.optional(nonNegative(1e9)),
      materials: v.optional(
        v.pipe(
          v.array(v.strictObject({ materialId: id, perKgMinor: nonNegative(1e9) })),
          v.maxLength(500, 'too-large'),
        ),
        [],
      ),
    }),
    {},
  ),
  /** The day that somebody asks for. */
  wantedOn: v.optional(isoDay),
  /** They were promised before: each keeps its own turn. */
  inTurn: v.optional(v.boolean(), false),
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

const FORWARDS = ['one-colour', 'remelt', 'bought', 'person', 'mold'] as const;

/** What would bring it forward, and by how many days; null: it is not known, because one of the two dates is none of these days. */
export interface Forward {
  by: (typeof FORWARDS)[number];
  day: string | null;
  gainDays: number | null;
  /** What of it is needed: hours of the other hands, molds, or grams by material. */
  hours?: number;
  molds?: number;
  grams?: { materialId: string; g: number }[];
  /** What that costs; left out where nobody knows. */
  costMinor?: number;
}

/** The cheapest one that the wanted day is kept with; what costs nobody knows what comes last. */
export function cheapest(forward: Forward[], wantedOn: string): Forward | null {
  const keep = forward.filter(({ day }) => day !== null && day <= wantedOn);
  const cost = ({ costMinor }: Forward) => costMinor ?? Number.POSITIVE_INFINITY;
  return keep.sort((a, b) => cost(a) - cost(b) || ((a.day as string) < (b.day as string) ? -1 : 1))[0] ?? null;
}

/** What is promised is poured after all that was promised before: its lines are due last, unless they were promised too. */
export function lastOfAll(asked: PromiseAsked): PromiseAsked['plan'] {
  if (asked.inTurn) return asked.plan;
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

type Needs = Pick<Forward, 'hours' | 'molds' | 'grams'>;
type Cost = Pick<Forward, 'costMinor'>;

/** What the hands of the usual plan take over those there are, h. */
function hoursOver(plan: PromiseAsked['plan'], own: PromiseAsked['plan']): number {
  const work = workOf(plan);
  const { standing, packed } = scored(work, greedy(work, 1));
  const over = own.days.map(({ handsMin }, at) =>
    Math.max(0, standing.pourMin(at) + (packed.packMin[at] as number) - handsMin),
  );
  return over.reduce((sum, minutes) => sum + minutes, 0) / 60;
}

/** As if more of these materials were there today. */
const withMore = (asked: PromiseAsked, grams: { materialId: string; g: number }[]): PromiseAsked => ({
  ...asked,
  plan: {
    ...asked.plan,
    materials: asked.plan.materials.map((one) => ({
      ...one,
      g: one.g + (grams.find(({ materialId }) => materialId === one.id)?.g ?? 0),
    })),
  },
});

/** As if nothing were short. */
const withAll = (asked: PromiseAsked): PromiseAsked => ({ ...asked, plan: { ...asked.plan, materials: [] } });

/** What of that could come out of the bins, for colours that take it. */
function fromRemelt(asked: PromiseAsked): { materialId: string; g: number }[] {
  const { remelt, plan } = asked;
  const work = workOf(plan);
  const stuff = work.stuffs.find(({ id: materialId }) => materialId === remelt?.materialId);
  if (!remelt || !stuff) return [];
  const takeIt = work.products.reduce(
    (sum, { colour, shots, ml }) =>
      sum + (plan.colours[colour]?.takesRemelt ? shots * ml * (stuff.gPerMl[colour] as number) : 0),
    0,
  );
  const g = Math.min(remelt.g, remelt.share * takeIt, stuff.wantedG - stuff.g);
  return g > 0 ? [{ materialId: stuff.id, g }] : [];
}

/** The same question with another pair of hands, a twin of each of its molds, all of it in one colour, or what the store lacks. */
function changed(asked: PromiseAsked, by: Forward['by']): { asked: PromiseAsked; needs: Needs } | null {
  const { plan } = asked;
  const mine = plan.lines.filter(({ id: lineId }) => asked.lineIds.includes(lineId));
  if (by === 'remelt' || by === 'bought') {
    const grams =
      by === 'remelt'
        ? fromRemelt(asked)
        : shortIn(workOf(plan)).map(({ materialId, shortG: g }) => ({ materialId, g }));
    const then = by === 'remelt' ? withMore(asked, grams) : withAll(asked);
    return grams.length > 0 ? { asked: then, needs: { grams } } : null;
  }
  if (by === 'person') {
    // Two work as long as one: the molds give no more for it.
    const days = plan.days.map((day) => {
      const lengthMin = day.lengthMin ?? day.handsMin;
      return { ...day, handsMin: day.handsMin + lengthMin, lengthMin };
    });
    const more = { ...plan, days };
    return { asked: { ...asked, plan: more }, needs: { hours: hoursOver(more, plan) } };
  }
  if (by === 'mold') {
    const baits = new Set(mine.map(({ baitId }) => baitId));
    const twins = [...baits].flatMap((baitId) => {
      const [best] = plan.molds.filter((mold) => mold.baitId === baitId).sort((a, b) => b.cavities - a.cavities);
      return best ? [{ ...best, id: `${best.id} twin` }] : [];
    });
    const more = { ...plan, molds: [...plan.molds, ...twins] };
    return twins.length > 0 ? { asked: { ...asked, plan: more }, needs: { molds: twins.length } } : null;
  }
  const [first] = mine;
  if (!first || new Set(mine.map(({ colourId }) => colourId)).size < 2) return null;
  const lines = plan.lines.map((line) => (mine.includes(line) ? { ...line, colourId: first.colourId } : line));
  return { asked: { ...asked, plan: { ...plan, lines } }, needs: {} };
}

/** What it costs where its price is known; what is there already costs nothing. */
function costOf(by: Forward['by'], { hours = 0, molds = 0, grams = [] }: Needs, { prices }: PromiseAsked): Cost {
  const { hourMinor, moldMinor } = prices;
  if (by === 'one-colour' || by === 'remelt') return { costMinor: 0 };
  if (by === 'person') return hourMinor === undefined ? {} : { costMinor: hours * hourMinor };
  if (by === 'mold') return moldMinor === undefined ? {} : { costMinor: molds * moldMinor };
  let costMinor = 0;
  for (const { materialId, g } of grams) {
    const price = prices.materials.find((one) => one.materialId === materialId);
    if (!price) return {};
    costMinor += (g / 1000) * price.perKgMinor;
  }
  return { costMinor };
}

const dayNumber = (day: string) => Date.parse(day) / 86_400_000;

/**
 * The date for these lines that is kept in nine of ten runs of the days ahead, all that was promised before kept first.
 * @returns the day, how sure each day is, what would bring it forward by how much and for how much money, and the cheapest of
 * those with which the wanted day is kept; none where it is kept without, or with none of them.
 * Source: Monte Carlo over lost evenings (Bernoulli), rejects (Beta–binomial by the record), shots needed (negative
 * binomial, normal limit) and mold breakage (geometric); each run poured by earliest due date.
 */
export function promised(asked: PromiseAsked): Promised & { forward: Forward[]; cheapest?: Forward } {
  const found = dateKept(asked);
  const last = { ...asked, plan: lastOfAll(asked) };
  const forward = FORWARDS.flatMap((by): Forward[] => {
    const other = changed(last, by);
    if (!other) return [];
    const { day } = dateKept(other.asked);
    const gainDays = day !== null && found.day !== null ? dayNumber(found.day) - dayNumber(day) : null;
    return [{ by, day, gainDays, ...other.needs, ...costOf(by, other.needs, asked) }];
  });
  const { wantedOn } = asked;
  const kept = wantedOn === undefined || (found.day !== null && found.day <= wantedOn);
  const least = kept ? null : cheapest(forward, wantedOn);
  return { ...found, forward, ...(least ? { cheapest: least } : {}) };
}
