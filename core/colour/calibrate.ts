import * as v from 'valibot';
import { positive } from '../bounds.ts';
import { Failure } from '../failure.ts';
import { optics, reflected } from './fields.ts';
import { bands, type Optics, type Rgb } from './light.ts';

export const calibrateSchema = v.strictObject({
  thicknessMm: v.pipe(positive(1e3), v.title('The step is thick')),
  mlPerL: v.pipe(positive(1000), v.title('Dosed, mL in a litre')),
  /** Of the step as it was seen over a black and over a white ground. */
  overBlack: reflected,
  overWhite: reflected,
  base: v.optional(optics),
});

/** Less than nothing by this much is a reading's noise, a mm. */
const NOISE = 0.005;

/** K and S of the whole melt in one band, a mm. Source: Kubelka–Munk inverted, white ground of 1. */
function inverted(r0: number, rw: number, d: number): { k: number; s: number } {
  if (r0 >= rw) throw tooOpaque();
  if (r0 === 0) return { k: -Math.log(rw) / (2 * d), s: 0 };
  if (rw === 1) return { k: 0, s: r0 / ((1 - r0) * d) };
  const a = (rw + (r0 - rw + 1) / r0) / 2;
  const b = Math.sqrt(a * a - 1);
  const ratio = (1 - a * r0) / (b * r0);
  if (!(ratio > 1)) throw tooOpaque();
  const s = Math.atanh(1 / ratio) / (b * d);
  return { k: s * (a - 1), s };
}

const tooOpaque = () =>
  new Failure(
    'too-opaque',
    'It looks no lighter over white than over black, so nothing of the ground shows: measure a thinner step, or a weaker dose.',
    'overBlack',
  );

/** What the colourant adds beyond the plain plastic, at 1 mL/L. */
function added(whole: number, base: number, dose: number): number {
  const own = whole - base;
  if (own < -NOISE)
    throw new Failure(
      'base-mismatch',
      'The step is clearer than the plain plastic alone: measure a plain step of the same plastic, or leave it out.',
      'base',
    );
  return Math.max(0, own) / dose;
}

/**
 * What a colourant absorbs and scatters, from one step of known thickness and dose seen over black and over white.
 * @returns K and S a mm at 1 mL/L. @throws Failure `too-opaque`, `base-mismatch`.
 * Source: Kubelka–Munk, closed form for a black (0) and a white (1) ground.
 */
export function calibrate(input: v.InferOutput<typeof calibrateSchema>): Optics {
  const { thicknessMm, mlPerL, overBlack, overWhite, base } = input;
  const whole = ([0, 1, 2] as const).map((i) => inverted(overBlack[i], overWhite[i], thicknessMm));
  const none: Rgb = [0, 0, 0];
  const [baseK, baseS] = [base?.k ?? none, base?.s ?? none];
  return {
    k: bands((i) => added(whole[i]?.k as number, baseK[i], mlPerL)),
    s: bands((i) => added(whole[i]?.s as number, baseS[i], mlPerL)),
  };
}
