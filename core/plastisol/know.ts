import jstat from 'jstat';
import * as v from 'valibot';
import { nonNegative, positive } from '../bounds.ts';
import { calibrate } from '../colour/calibrate.ts';
import { reflected, thickness } from '../colour/fields.ts';
import { deltaE, labOf } from '../colour/lab.ts';
import { bands, type Optics, type Rgb } from '../colour/light.ts';
import { lookHex, lookOf } from '../colour/look.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { type Between, between, Z95 } from './between.ts';
import { type Added, addWishSchema, whatToAdd } from './toAdd.ts';

export const FLAKE_SEEN = ['none', 'some', 'much'] as const;
export const BUBBLES_SEEN = ['none', 'few', 'foamy'] as const;

/** What a puck tells. */
export const puckFields = {
  massG: v.pipe(positive(1e5), v.title('The puck weighs')),
  /** Hung on a thread in water, as the scale shows it. */
  inWaterG: v.optional(v.pipe(nonNegative(1e5), v.title('Hung in water it weighs'))),
  volumeMl: v.optional(v.pipe(positive(1e5), v.title('Or: the water rises by'))),
  waterDensityGPerMl: v.optional(positive(2), usual('waterGPerMl')),
  plastisolDensityGPerMl: v.optional(positive(3), usual('plastisolGPerMl')),
  saltDensityGPerMl: v.optional(positive(5), usual('saltGPerMl')),
  flake: v.optional(v.pipe(v.picklist(FLAKE_SEEN), v.title('Flake in it')), 'none'),
  bubbles: v.optional(v.pipe(v.picklist(BUBBLES_SEEN), v.title('Bubbles in it')), 'none'),
  hardness: v.optional(
    v.strictObject({
      scale: v.picklist(['A', '00']),
      readings: v.pipe(v.array(v.pipe(v.number(), v.minValue(0), v.maxValue(100))), v.minLength(1), v.maxLength(60)),
    }),
  ),
  colour: v.optional(v.strictObject({ thicknessMm: thickness, overBlack: reflected, overWhite: reflected })),
} as const;

export const knowSchema = v.pipe(
  v.strictObject({
    ...puckFields,
    wish: v.optional(addWishSchema),
  }),
  v.check(
    (input) => (input.inWaterG === undefined) !== (input.volumeMl === undefined),
    'weigh it hung in water, or read how far the water rises: one of the two',
  ),
  v.check(
    (input) => input.wish === undefined || input.colour !== undefined,
    'what to add needs its colour: read the puck',
  ),
);
export type KnowInput = v.InferOutput<typeof knowSchema>;

export interface Known {
  densityGPerMl: Between;
  /** Of its mass, 0 to 1. */
  salt: Between;
  /** Where it was pressed. */
  hardness?: Between & { scale: 'A' | '00' };
  /** Where it was looked at: K and S of the scrap itself, a mm; its look as thick as colours are matched, and how far off that may be (ΔE00). */
  colour?: { k: Rgb; s: Rgb; hex: string; deltaE95: number };
  toAdd?: Added;
  /** What makes the intervals wide, in words. */
  widenedBy: string[];
}

const FLAKE_MOST = { none: 0, some: usual('someFlakeMost'), much: usual('muchFlakeMost') } as const;
/** What flake and bubbles add to a reading of colour, of the light. */
const FLAKE_SD = { none: 0, some: 0.015, much: 0.04 } as const;
const BUBBLE_SD = { none: 0, few: 0.01, foamy: 0 } as const;

/** Standard deviation of what lies anywhere up to this. */
const uniformSd = (most: number) => most / Math.sqrt(12);

/** Density by Archimedes or by the risen water, with its own scatter. */
function densityOf({ massG, inWaterG, volumeMl, waterDensityGPerMl }: KnowInput): { value: number; sd: number } {
  if (volumeMl !== undefined) {
    const value = massG / volumeMl;
    return { value, sd: value * Math.hypot(usual('scaleSdG') / massG, usual('sunkSdMl') / volumeMl) };
  }
  const lift = massG - (inWaterG as number);
  if (!(lift > 0))
    throw new Failure('invalid-input', 'In water it weighs less than in air; weigh both again.', 'inWaterG');
  const value = (massG * waterDensityGPerMl) / lift;
  // ρ = m·w/(m − i): by both weighings, which are independent.
  const byMass = (waterDensityGPerMl * -(inWaterG as number)) / lift ** 2;
  const byHung = (massG * waterDensityGPerMl) / lift ** 2;
  return { value, sd: Math.hypot(byMass, byHung) * usual('scaleSdG') };
}

/** Salt by density; flake makes heavier and air lighter, as far as each may be there. */
function saltOf(input: KnowInput, density: { value: number; sd: number }): { value: number; sd: number } {
  const { plastisolDensityGPerMl: plastic, saltDensityGPerMl: salt, flake, bubbles } = input;
  const flakeMost = FLAKE_MOST[flake];
  const airMost = bubbles === 'few' ? usual('fewBubblesMost') : 0;
  const [f, air] = [flakeMost / 2, airMost / 2];
  const per = 1 / plastic - 1 / salt;
  const perFlake = 1 / usual('flakeGPerMl') - 1 / plastic;
  const value = (1 / plastic + f * perFlake - (1 - air) / density.value) / per;
  const sd = Math.hypot(
    ((1 - air) / density.value ** 2 / per) * density.sd,
    ((1 - value - f) / plastic ** 2 / per) * usual('plastisolSdGPerMl'),
    (perFlake / per) * uniformSd(flakeMost),
    (1 / density.value / per) * uniformSd(airMost),
  );
  return { value, sd };
}

/** Readings of one puck: their own scatter where there are enough of them, else what a hand durometer scatters. */
function hardnessOf({ scale, readings }: NonNullable<KnowInput['hardness']>): NonNullable<Known['hardness']> {
  const n = readings.length;
  const mean = readings.reduce((sum, one) => sum + one, 0) / n;
  const trusted = 4;
  const squares = readings.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const degrees = trusted + n - 1;
  const sd = Math.sqrt((trusted * usual('readingSdPoints') ** 2 + squares) / degrees / n);
  const reach = jstat.studentt.inv(0.975, degrees) * sd;
  return { scale, value: mean, low: Math.max(0, mean - reach), high: Math.min(100, mean + reach) };
}

type Seen = NonNullable<KnowInput['colour']>;
const scrapOf = (seen: Seen): Optics => calibrate({ ...seen, mlPerL: 1 });

/** The scrap as it would read with one of the six readings a little off; the other way where that way it tells nothing. */
function readOff(seen: Seen, of: 'overBlack' | 'overWhite', band: number, by: number): Optics {
  const moved = (way: number): Seen => ({
    ...seen,
    [of]: seen[of].map((one, i) => (i === band ? Math.min(1, Math.max(0, one + way * by)) : one)) as Rgb,
  });
  try {
    return scrapOf(moved(1));
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    return scrapOf(moved(-1));
  }
}

const READINGS = (['overBlack', 'overWhite'] as const).flatMap((of) => [0, 1, 2].map((band) => ({ of, band })));

function colourOf(seen: Seen, sd: number): { optics: Optics; off: Optics[]; told: NonNullable<Known['colour']> } {
  const optics = scrapOf(seen);
  const off = READINGS.map(({ of, band }) => readOff(seen, of, band, sd));
  const look = labOf(lookOf(optics));
  const squares = off.reduce((sum, one) => sum + deltaE(look, labOf(lookOf(one))) ** 2, 0);
  return {
    optics,
    off,
    told: {
      k: bands((i) => optics.k[i]),
      s: bands((i) => optics.s[i]),
      hex: lookHex(optics),
      deltaE95: 2 * Math.sqrt(squares),
    },
  };
}

/** More salt than this is no bait: something heavy is in it. */
const MOST_SALT = 0.45;

/**
 * What given baits and unknown remelt are made of, from one puck that was weighed, sunk, pressed and looked at; each figure with
 * what it lies between in 95 of 100.
 * @throws Failure `foamy-puck`; `out-of-range` for what is lighter than plastisol or heavier than any salted bait; `too-opaque`.
 * Source: Archimedes; specific volumes add; a t interval over pooled scatter; Kubelka–Munk inverted, errors carried on linearly.
 */
export function know(input: KnowInput): Known {
  const { flake, bubbles, hardness, colour, wish } = input;
  if (bubbles === 'foamy')
    throw new Failure(
      'foamy-puck',
      'A foamy puck tells neither salt nor colour: let the melt rest hot or under vacuum, and pour another.',
      'bubbles',
    );
  const density = densityOf(input);
  const salt = saltOf(input, density);
  if (salt.value + Z95 * salt.sd < 0)
    throw new Failure(
      'out-of-range',
      'It is lighter than plastisol without salt: there is air in it, or it is another rubber. Pour another puck, or leave it out of the bin.',
      input.volumeMl === undefined ? 'inWaterG' : 'volumeMl',
    );
  if (salt.value - Z95 * salt.sd > MOST_SALT)
    throw new Failure(
      'out-of-range',
      'It is heavier than any salted bait: look for lead, hooks or sand in it, and weigh again.',
      'massG',
    );
  const seen = colour && colourOf(colour, usual('readingSdOfOne') + FLAKE_SD[flake] + BUBBLE_SD[bubbles]);
  const found = between(salt.value, salt.sd, 1);
  return {
    densityGPerMl: between(density.value, density.sd),
    salt: found,
    ...(hardness ? { hardness: hardnessOf(hardness) } : {}),
    ...(seen ? { colour: seen.told } : {}),
    ...(seen && wish ? { toAdd: whatToAdd(wish, seen, found) } : {}),
    widenedBy: [
      ...(flake === 'none' ? [] : [flake === 'much' ? 'much flake in it' : 'flake in it']),
      ...(bubbles === 'few' ? ['bubbles in it'] : []),
    ],
  };
}
