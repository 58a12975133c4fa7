import * as v from 'valibot';
import { positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { Failure } from '../failure.ts';

export const settleSchema = v.pipe(
  v.strictObject({
    particle: v.picklist(['grain', 'flake']),
    /** Across: a grain's diameter, a flake's width. */
    sizeMm: v.pipe(positive(1e3), v.title('Across')),
    thicknessMm: v.optional(v.pipe(positive(1e3), v.title('A flake is thick'))),
    densityGPerMl: positive(100),
    fluidDensityGPerMl: v.optional(positive(100), usual('hotMeltGPerMl')),
    viscosityPaS: v.optional(positive(1e6), usual('hotMeltPaS')),
    depthMm: positive(1e5),
  }),
  v.check(
    ({ particle, thicknessMm }) => (particle === 'flake') === (thicknessMm !== undefined),
    'flakes have a thickness, grains have none',
  ),
);

/** Standard acceleration of gravity, m/s². */
const G = 9.80665;
/** What sinks this far from where it was stirred to shows, mm. */
export const SHOWS_MM = 10;

/**
 * How fast flake or salt sinks in a cup, and how long a stir lasts.
 * @returns mm/s, s; Reynolds' number. @throws Failure `does-not-sink`, `not-creeping-flow`.
 * Source: Stokes 1851 for grains; a thin disc in creeping flow (Happel & Brenner 1965): all ways alike π·Δρ·g·a·t/(12μ), edge-on 3π·Δρ·g·a·t/(32μ).
 */
export function settle(input: v.InferOutput<typeof settleSchema>) {
  const { particle, sizeMm, thicknessMm, densityGPerMl, fluidDensityGPerMl, viscosityPaS, depthMm } = input;
  const heavier = (densityGPerMl - fluidDensityGPerMl) * 1000;
  if (!(heavier > 0))
    throw new Failure('does-not-sink', 'It is not heavier than the hot plastic: it floats or stays.', 'densityGPerMl');
  const size = sizeMm / 1000;
  const grain = (heavier * G * size * size) / (18 * viscosityPaS);
  const plate = (Math.PI * heavier * G * (size / 2) * ((thicknessMm ?? 0) / 1000)) / viscosityPaS;
  const [speed, fastest] = particle === 'grain' ? [grain, grain] : [plate / 12, (3 * plate) / 32];
  const reynolds = (fluidDensityGPerMl * 1000 * speed * size) / viscosityPaS;
  if (reynolds > 1)
    throw new Failure(
      'not-creeping-flow',
      'It would sink too fast for this formula: take a smaller grain or a thicker melt.',
      'sizeMm',
    );
  return {
    mmPerS: speed * 1000,
    fastestMmPerS: fastest * 1000,
    secondsToSettle: depthMm / (speed * 1000),
    stirEveryS: SHOWS_MM / (fastest * 1000),
    reynolds,
  };
}
