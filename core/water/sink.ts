import * as v from 'valibot';
import { nonNegative, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';
import { ML_PER_CUP } from '../units/convert.ts';

/** Standard gravity, m/s². */
export const G_M_PER_S2 = 9.80665;
/** Slower than this a bait hangs in the water, mm/s. */
const NEUTRAL_MM_PER_S = 10;

export const waterDensity = v.optional(
  v.pipe(v.number(), v.finite(), v.minValue(0.9), v.maxValue(1.3)),
  usual('waterGPerMl'),
);
const cd = v.optional(positive(100), usual('acrossCd'));

export const sinkSchema = v.strictObject({
  volumeMl: positive(1e6),
  massG: positive(1e7),
  extraMassG: v.optional(nonNegative(1e7), 0),
  extraVolumeMl: v.optional(nonNegative(1e6), 0),
  planAreaMm2: positive(1e8),
  waterDensityGPerMl: waterDensity,
  cd,
});

/** Speed at which drag carries the weight that the water does not, mm/s; floats: negative. */
function speed(surplusG: number, planAreaMm2: number, waterGPerMl: number, drag: number): number {
  const newtons = (Math.abs(surplusG) / 1000) * G_M_PER_S2;
  const metres = Math.sqrt((2 * newtons) / (waterGPerMl * 1000 * drag * planAreaMm2 * 1e-6));
  return Math.sign(surplusG) * metres * 1000;
}

/**
 * Whether a bait sinks lying flat, and how fast.
 * @returns density of the whole (extras included) in g/mL, speed in mm/s (negative: it rises).
 * Source: terminal velocity, ½·ρw·Cd·A·v² = Δm·g; Cd 1.1 is that of a body across the stream.
 */
export function sink(input: v.InferOutput<typeof sinkSchema>) {
  const volume = input.volumeMl + input.extraVolumeMl;
  const mass = input.massG + input.extraMassG;
  const mmPerS = speed(mass - volume * input.waterDensityGPerMl, input.planAreaMm2, input.waterDensityGPerMl, input.cd);
  const buoyancy = Math.abs(mmPerS) < NEUTRAL_MM_PER_S ? 'neutral' : mmPerS > 0 ? 'sinks' : 'floats';
  return { densityGPerMl: mass / volume, mmPerS, buoyancy: buoyancy as 'floats' | 'neutral' | 'sinks' };
}

export const saltSchema = v.strictObject({
  target: v.union([
    v.strictObject({ mmPerS: v.pipe(v.number(), v.finite(), v.minValue(-1e5), v.maxValue(1e5)) }),
    v.strictObject({ densityGPerMl: positive(100) }),
  ]),
  volumeMl: positive(1e6),
  extraMassG: v.optional(nonNegative(1e7), 0),
  extraVolumeMl: v.optional(nonNegative(1e6), 0),
  planAreaMm2: positive(1e8),
  waterDensityGPerMl: waterDensity,
  cd,
  plastisolDensityGPerMl: v.optional(positive(25), usual('plastisolGPerMl')),
  saltDensityGPerMl: v.optional(positive(25), usual('saltGPerMl')),
  maxFraction: v.optional(v.pipe(v.number(), v.finite(), v.gtValue(0), v.ltValue(1)), 0.4),
});

/**
 * Salt that gives the whole bait a wanted sink rate or density.
 * @returns mass fraction of salt, and grams to a US cup of plastisol.
 * @throws Failure `out-of-reach` when no share of salt from 0 to `maxFraction` does it.
 * Source: volumes add, 1/ρ = (1−w)/ρp + w/ρs; drag as in `sink`.
 */
export function salt(input: v.InferOutput<typeof saltSchema>) {
  const { target, waterDensityGPerMl: water, planAreaMm2 } = input;
  const whole = input.volumeMl + input.extraVolumeMl;
  let massG: number;
  if ('densityGPerMl' in target) massG = target.densityGPerMl * whole;
  else {
    const metres = target.mmPerS / 1000;
    const newtons = (Math.sign(metres) * metres ** 2 * water * 1000 * input.cd * planAreaMm2 * 1e-6) / 2;
    massG = whole * water + (newtons / G_M_PER_S2) * 1000;
  }
  const { plastisolDensityGPerMl: plastic, saltDensityGPerMl: grain } = input;
  const density = (massG - input.extraMassG) / input.volumeMl;
  const w = (1 / plastic - 1 / density) / (1 / plastic - 1 / grain);
  const slack = 1e-12;
  if (!(density > 0) || !Number.isFinite(w) || w < -slack || w > input.maxFraction + slack) {
    throw new Failure(
      'out-of-reach',
      w < 0 || !(density > 0)
        ? 'Without any salt it is already heavier than that; take a lighter plastic, hook or weight.'
        : `That needs more than ${Math.round(input.maxFraction * 100)} % salt, which tears; add a weight instead.`,
      'target',
    );
  }
  const fraction = Math.max(0, w);
  return { saltMassFraction: fraction, gramsPerCup: (ML_PER_CUP * plastic * fraction) / (1 - fraction) };
}
