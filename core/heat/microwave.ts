import * as v from 'valibot';
import { celsius, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';

/** How a cup is cooked. Source: workshop practice, both schools. */
export const SCHOOLS = ['full-power', 'gentle'] as const;
export type CookSchool = (typeof SCHOOLS)[number];
export const SCHOOL_WORDS: Record<CookSchool, string> = {
  'full-power': 'at full power first',
  gentle: 'at reduced power throughout',
};

const cp = v.optional(v.pipe(positive(100), v.title('Heat it takes, J/gK')), usual('plastisolCpJPerGK'));
const watts = v.pipe(positive(1e6), v.title('The oven gives, W'));
const efficiency = v.optional(v.pipe(positive(1), v.title('Of it reaches the cup')), usual('ovenEfficiency'));

export const microwaveSchema = v.pipe(
  v.strictObject({
    massG: positive(1e6),
    fromC: celsius,
    toC: v.optional(celsius, usual('cookC')),
    watts,
    efficiency,
    cpJPerGK: cp,
    school: v.picklist(SCHOOLS),
  }),
  v.forward(
    v.check(({ fromC, toC }) => toC > fromC, 'it is as hot already; cook it to more than it is at'),
    ['toC'],
  ),
);

/** Of the oven's full power: the first burst, those until it is nearly there, and the last ones. */
const LEVELS: Record<CookSchool, readonly [number, number, number]> = {
  'full-power': [1, 1, 0.7],
  gentle: [0.7, 0.6, 0.3],
};
/** The longest first burst, those in between, the last ones, and what an oven's clock is set to, s. */
const [FIRST_S, LONG_S, SHORT_S, STEP_S] = [120, 60, 30, 5];
/** More bursts than this are no cooking. */
const MOST_BURSTS = 1000;

export interface Burst {
  seconds: number;
  /** Of full power, 0 to 1. */
  level: number;
  afterC: number;
}

/** Up to the next that the clock can be set to, one step at the least; what is a whole step already stays. */
const upTo = (seconds: number) => Math.max(1, Math.ceil(seconds / STEP_S - 1e-9)) * STEP_S;

/**
 * How a cup is cooked in bursts, with a stir between them.
 * @returns J; s in all; each burst with how warm the cup is after it by the energy given: none is lost in this reckoning.
 * @throws Failure `too-large`.
 * Source: E = m·cp·ΔT; workshop practice: half of it at once but two minutes at most, then by the minute, then by halves of one.
 */
export function microwave({
  massG,
  fromC,
  toC,
  watts,
  efficiency,
  cpJPerGK,
  school,
}: v.InferOutput<typeof microwaveSchema>) {
  const perC = massG * cpJPerGK;
  const energyJ = perC * (toC - fromC);
  const [first, middle, last] = LEVELS[school].map((level) => level * watts * efficiency) as [number, number, number];
  if (energyJ / last / SHORT_S > MOST_BURSTS)
    throw new Failure('too-large', 'That is hours in this oven: cook less at once, or take a stronger one.', 'massG');
  const bursts: Burst[] = [];
  let given = 0;
  const give = (seconds: number, part: 0 | 1 | 2, power: number) => {
    given += power * seconds;
    bursts.push({ seconds, level: LEVELS[school][part], afterC: fromC + given / perC });
  };
  give(Math.min(FIRST_S, upTo(energyJ / 2 / first)), 0, first);
  while ((energyJ - given) / middle > LONG_S) give(LONG_S, 1, middle);
  while (energyJ - given > 1e-9 * energyJ) give(Math.min(SHORT_S, upTo((energyJ - given) / last)), 2, last);
  return { energyJ, totalS: bursts.reduce((sum, { seconds }) => sum + seconds, 0), bursts };
}

const heated = v.pipe(
  v.strictObject({
    watts,
    level: v.pipe(positive(1), v.title('At this part of full power')),
    seconds: positive(1e5),
    massG: positive(1e6),
    beforeC: celsius,
    afterC: celsius,
  }),
  v.forward(
    v.check(({ beforeC, afterC }) => afterC > beforeC, 'a burst that warmed nothing tells nothing; leave it out'),
    ['afterC'],
  ),
);
export const efficiencySchema = v.strictObject({
  log: v.pipe(v.array(heated), v.minLength(1), v.maxLength(1000, 'too-large')),
  cpJPerGK: cp,
});

/**
 * How much of an oven's power reaches the cup, from bursts that were read before and after.
 * @returns a share of 1, and from how many bursts. Source: least squares through nothing, Σ E·P / Σ P².
 */
export function ovenEfficiency({ log, cpJPerGK }: v.InferOutput<typeof efficiencySchema>) {
  let [crossed, squared] = [0, 0];
  for (const { watts: power, level, seconds, massG, beforeC, afterC } of log) {
    const put = power * level * seconds;
    crossed += massG * cpJPerGK * (afterC - beforeC) * put;
    squared += put * put;
  }
  return { efficiency: crossed / squared, n: log.length };
}

export const holdSchema = v.pipe(
  v.strictObject({
    massG: positive(1e6),
    c: celsius,
    ambientC: celsius,
    tauS: v.pipe(positive(1e7), v.title('It cools with, s')),
    watts,
    efficiency,
    cpJPerGK: cp,
    everyS: v.optional(positive(1e5), 60),
  }),
  v.forward(
    v.check(
      ({ c, ambientC }) => c > ambientC,
      'it is no warmer than the room: nothing is lost that had to be given back',
    ),
    ['c'],
  ),
);

/**
 * What keeps a cup as warm as it is between two shots.
 * @returns W that it loses; the level of full power that gives them back, 0 to 1; how long the oven is on of each `everyS`.
 * @throws Failure `out-of-reach`. Source: Newton's cooling, m·cp·(c − room)/τ.
 */
export function hold({
  massG,
  c,
  ambientC,
  tauS,
  watts,
  efficiency,
  cpJPerGK,
  everyS,
}: v.InferOutput<typeof holdSchema>) {
  const lossW = (massG * cpJPerGK * (c - ambientC)) / tauS;
  const level = lossW / (watts * efficiency);
  if (level > 1)
    throw new Failure(
      'out-of-reach',
      'It loses more than this oven gives: a lid, a smaller cup, or a hot plate.',
      'watts',
    );
  return { lossW, level, onS: everyS * level };
}
