import * as v from 'valibot';
import { finite, positive } from '../bounds.ts';
import { usual } from '../defaults.ts';
import { atField, Failure } from '../failure.ts';
import { modulus } from '../plastisol/hardness.ts';

export const END_PADDLE = 'end-paddle';

/** What a tail is, as far as its kick depends on it. */
export const tailFields = {
  tail: v.optional(v.pipe(v.string(), v.maxLength(60)), END_PADDLE),
  scale: v.picklist(['A', '00']),
  hardness: finite,
  wristThicknessMm: positive(1e3),
  wristHeightMm: positive(1e3),
  wristLengthMm: positive(1e3),
  paddleDiameterMm: positive(1e3),
  paddleThicknessMm: positive(1e3),
} as const;

const densities = {
  plastisolDensityGPerMl: v.optional(positive(25), usual('plastisolGPerMl')),
  waterDensityGPerMl: v.optional(positive(25), usual('waterGPerMl')),
} as const;

export const ADDED_MASS = 0.6;
export const STROUHAL = 0.2;

export const kickSchema = v.strictObject({
  ...tailFields,
  addedMassCoefficient: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(100)), ADDED_MASS),
  strouhal: v.optional(v.pipe(finite, v.gtValue(0), v.maxValue(10)), STROUHAL),
  ...densities,
});

export type KickInput = v.InferOutput<typeof kickSchema>;
type Tail = Omit<KickInput, 'addedMassCoefficient' | 'strouhal'>;

export function mustBePaddle(tail: string): void {
  if (tail === END_PADDLE) return;
  throw new Failure(
    'not-applicable',
    'Only a paddle at the end of a wrist has a model that can be trusted; for this tail the water tests are the teacher.',
    'tail',
  );
}

/** @throws Failure `out-of-range`, at the field that the maker filled in. */
const stiffness = ({ scale, hardness }: Pick<Tail, 'scale' | 'hardness'>): number =>
  atField('hardness', () => modulus({ scale, value: hardness }).mpa);

/**
 * A wrist as a beam with the paddle's mass beyond its end.
 * @returns modulus in MPa, stiffness in N/m, masses in kg: what swings is `fixedKg` + Ca·`waterKg`.
 */
export function beam(input: Tail) {
  const mpa = stiffness(input);
  const [h, w, l] = [input.wristHeightMm / 1e3, input.wristThicknessMm / 1e3, input.wristLengthMm / 1e3];
  const [d, t] = [input.paddleDiameterMm / 1e3, input.paddleThicknessMm / 1e3];
  const inertia = (h * w ** 3) / 12;
  const stiffnessNPerM = (3 * mpa * 1e6 * inertia) / (l ** 3 + 1.5 * l ** 2 * d + 0.75 * l * d ** 2);
  const disc = (Math.PI / 4) * d ** 2 * t;
  const plastic = input.plastisolDensityGPerMl * 1000;
  return {
    mpa,
    stiffnessNPerM,
    fixedKg: plastic * disc + 0.24 * plastic * w * h * l,
    waterKg: input.waterDensityGPerMl * 1000 * disc,
    paddleM: d,
  };
}

/** Natural frequency in Hz, and the speed from which the stream drives it, m/s. */
export function onset(row: ReturnType<typeof beam>, addedMassCoefficient: number, strouhal: number) {
  const mass = row.fixedKg + addedMassCoefficient * row.waterKg;
  const naturalHz = Math.sqrt(row.stiffnessNPerM / mass) / (2 * Math.PI);
  return { naturalHz, onsetMPerS: (naturalHz * row.paddleM) / strouhal };
}

const CHANGES: [change: string, apply: (input: KickInput) => KickInput][] = [
  ['wrist 10 % thinner', (one) => ({ ...one, wristThicknessMm: one.wristThicknessMm * 0.9 })],
  ['wrist 10 % longer', (one) => ({ ...one, wristLengthMm: one.wristLengthMm * 1.1 })],
  ['paddle 10 % wider', (one) => ({ ...one, paddleDiameterMm: one.paddleDiameterMm * 1.1 })],
  ['paddle 10 % thicker', (one) => ({ ...one, paddleThicknessMm: one.paddleThicknessMm * 1.1 })],
  ['10 points softer', (one) => ({ ...one, hardness: one.hardness - 10 })],
];

const inRange = (one: KickInput) => one.hardness >= (one.scale === 'A' ? 20 : 5);

/**
 * From which speed an end paddle kicks: an estimate, to be shown beside the water tests.
 * @returns modulus MPa, stiffness N/m, natural frequency Hz, onset speed m/s, and what one change each would do, the
 * most helpful first.
 * @throws Failure `not-applicable` for any other tail, `out-of-range` for the hardness.
 * Source: cantilever with an end mass beyond its tip (Rayleigh: 0.24 of the beam's mass swings with it), added mass of a
 * disc, and shedding at a fixed Strouhal number.
 */
export function kick(input: KickInput) {
  mustBePaddle(input.tail);
  const row = beam(input);
  const { addedMassCoefficient, strouhal } = input;
  const levers = CHANGES.map(([change, apply]) => ({ change, to: apply(input) }))
    .filter(({ to }) => inRange(to))
    .map(({ change, to }) => ({ change, onsetMPerS: onset(beam(to), addedMassCoefficient, strouhal).onsetMPerS }))
    .sort((a, b) => a.onsetMPerS - b.onsetMPerS);
  return {
    modulusMpa: row.mpa,
    stiffnessNPerM: row.stiffnessNPerM,
    ...onset(row, addedMassCoefficient, strouhal),
    levers,
  };
}
