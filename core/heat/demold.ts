import * as v from 'valibot';
import { finite, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { carry, Field, type HalfSection, halfSection } from './conduction.ts';

/** Plastisol as it conducts, a starting value. */
export const PLASTISOL = { conductivityWPerMK: 0.16, densityKgPerM3: 1000 * usual('plastisolGPerMl'), cpJPerKgK: 1800 };

/** Molds as they conduct: typical figures of handbooks. */
export const MOLD_STUFF = {
  aluminium: { conductivityWPerMK: 167, densityKgPerM3: 2700, cpJPerKgK: 896 },
  silicone: { conductivityWPerMK: 0.2, densityKgPerM3: 1150, cpJPerKgK: 1300 },
  pla: { conductivityWPerMK: 0.15, densityKgPerM3: 1240, cpJPerKgK: 1800 },
  resin: { conductivityWPerMK: 0.2, densityKgPerM3: 1180, cpJPerKgK: 1500 },
  steel: { conductivityWPerMK: 45, densityKgPerM3: 7850, cpJPerKgK: 490 },
} as const;

const stuff = v.strictObject({
  conductivityWPerMK: positive(1e4),
  densityKgPerM3: positive(1e5),
  cpJPerKgK: positive(1e5),
});
const temperature = v.pipe(finite, v.minValue(-60), v.maxValue(400));

const fields = {
  shape: v.picklist(['slab', 'cylinder']),
  /** All of it: the full thickness, or the diameter. */
  thicknessMm: v.pipe(positive(500), v.minValue(0.1)),
  pourC: temperature,
  demoldC: v.optional(temperature, usual('demoldC')),
  criterion: v.optional(v.picklist(['mean', 'centre', 'skin']), 'mean'),
  moldC: temperature,
  ambientC: temperature,
  wallMm: v.pipe(positive(1000), v.minValue(0.1)),
  outerWPerM2K: v.optional(nonNegative(1e5), usual('stillAirWPerM2K')),
  mold: stuff,
  plastisol: v.optional(stuff, PLASTISOL),
} as const;

export const demoldSchema = v.strictObject(fields);
export const trainSchema = v.strictObject({
  ...fields,
  shots: whole(1, 40),
  openS: v.optional(nonNegative(1e5), usual('openBetweenS')),
});

type Input = v.InferOutput<typeof demoldSchema>;

/** Longest wait that is looked at, s. */
const HORIZON_S = 6 * 3600;

const READ: Record<Input['criterion'], (field: Field) => number> = {
  mean: (field) => field.mean(),
  centre: (field) => field.centre(),
  skin: (field) => field.skin(),
};

const sectionFor = (input: Input) =>
  halfSection(
    input.shape,
    input.thicknessMm / 2000,
    input.wallMm / 1000,
    input.plastisol,
    input.mold,
    Math.max(input.outerWPerM2K, 1e-9),
  );

const never = () =>
  new Failure(
    'never',
    'After six hours in this mold and room it is still above that; a cooler room or mold, or a higher temperature to open at.',
    'demoldC',
  );

/** A bait at pour temperature in a wall that is as it is. */
function filled(section: HalfSection, wall: Float64Array, pourC: number): Float64Array {
  const c = new Float64Array(section.capacity.length).fill(pourC);
  c.set(wall, section.bait);
  return c;
}

/**
 * When it is cool enough and stays so: the last time that the reading comes down through the wanted one.
 * @throws Failure `never`.
 */
function waitS(input: Input, section: HalfSection, wall: Float64Array): number {
  if (input.pourC <= input.demoldC) return 0;
  const read = READ[input.criterion];
  const field = new Field(section, filled(section, wall, input.pourC), 0, input.ambientC);
  let [before, since] = [read(field), Number.NaN];
  carry(field, HORIZON_S, (from, to) => {
    const now = read(field);
    if (now > input.demoldC) since = Number.NaN;
    else if (Number.isNaN(since))
      since = before > input.demoldC ? from + ((to - from) * (before - input.demoldC)) / (before - now) : from;
    before = now;
  });
  if (Number.isNaN(since)) throw never();
  return since;
}

/**
 * How long a bait waits in its mold until it can be opened.
 * @returns seconds, 0 where it is poured cooler than that already.
 * @throws Failure `never` when it is still too warm, or warm again, six hours later.
 * Source: one-dimensional transient conduction (Carslaw & Jaeger 1959), finite volumes graded to the interface, Crank–Nicolson
 * with growing steps; perfect contact, convection outside.
 */
export function demold(input: Input): { seconds: number } {
  const section = sectionFor(input);
  const wall = new Float64Array(section.capacity.length - section.bait).fill(input.moldC);
  return { seconds: waitS(input, section, wall) };
}

/**
 * The same for one shot after another: the wall keeps what the last one left in it, less what it gives off while open.
 * @returns the wait of each shot, s.
 * @throws Failure `never` as soon as one of them never gets there.
 */
export function train(input: v.InferOutput<typeof trainSchema>): { demoldS: number[] } {
  const section = sectionFor(input);
  let wall = new Float64Array(section.capacity.length - section.bait).fill(input.moldC);
  const demoldS: number[] = [];
  for (let shot = 0; shot < input.shots; shot++) {
    const seconds = waitS(input, section, wall);
    demoldS.push(seconds);
    if (shot === input.shots - 1) break;
    const field = new Field(section, filled(section, wall, input.pourC), 0, input.ambientC);
    carry(field, seconds);
    const open = new Field(section, field.c, section.bait, input.ambientC);
    carry(open, input.openS);
    wall = open.c.slice(section.bait);
  }
  return { demoldS };
}

/**
 * How many such molds keep one person busy: while one waits, the others are filled and opened.
 * @param waitS from filled to cool enough. @param handS filling and opening, the person's own time a shot.
 */
export const moldsToKeepBusy = (waitS: number, handS: number) => 1 + Math.floor(waitS / handS + 1e-9);
