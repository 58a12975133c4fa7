import type * as v from 'valibot';
import { Failure } from './failure.ts';
import { bake, bakeSchema } from './mold/clay.ts';
import { dipPlan, dipSchema } from './mold/dip.ts';
import { plan, planSchema, topUp, topUpSchema } from './mold/silicone.ts';
import { batchFromCup, batchSize, fromCupSchema, sizeSchema } from './plastisol/batch.ts';
import { blend, blendSchema, modulus, modulusSchema } from './plastisol/hardness.ts';
import { scaleRecipe, scaleSchema } from './plastisol/recipe.ts';
import { convert, convertSchema } from './units/convert.ts';
import { check } from './validate.ts';
import {
  balance,
  balanceSchema,
  chart,
  chartSchema,
  compare,
  compareSchema,
  shotsFor,
  shotsSchema,
} from './yield/counts.ts';

export interface Calculator {
  name: string;
  /** What a maker would call it. */
  title: string;
  /** The question it answers, in one line. */
  asks: string;
  /** The formula in words. */
  formula: string;
  source: string;
  /** Where it stops being right. */
  limits: string;
  schema: v.GenericSchema;
  example: Record<string, unknown>;
  run(input: unknown): unknown;
}

type About = Omit<Calculator, 'schema' | 'run'>;

function define<S extends v.GenericSchema>(
  schema: S,
  compute: (input: v.InferOutput<S>) => unknown,
  about: About,
): Calculator {
  return { ...about, schema, run: (input) => compute(check(schema, input)) };
}

const EXAMPLE_MIX = { by: 'mass', partA: 10, partB: 1, densityAGPerMl: 1.12, densityBGPerMl: 1.02 };

/** Every calculator, in the order of the work. */
export const calculators: Calculator[] = [
  define(convertSchema, convert, {
    name: 'units.convert',
    title: 'Convert a measure',
    asks: 'What is this spoon, drop, inch or degree in the other unit?',
    formula: 'amount × size of the unit ÷ size of the other; volume to mass by density; degrees by their scale',
    source: 'US customary units by definition; drops and own measures as weighed by the maker',
    limits: 'A drop differs by bottle (0.03–0.06 mL): weigh twenty once.',
    example: { value: 0.5, from: 'cup', to: 'mL' },
  }),
  define(bakeSchema, bake, {
    name: 'clay.bake',
    title: 'Bake a clay master',
    asks: 'How long in the oven for the thickest section?',
    formula: 'minutes per 6 mm × thickness ÷ 6, up to the next whole minute',
    source: 'The usual packet rule: 14–15 min per 6 mm at 130–135 °C',
    limits: 'The packet wins. Too hot scorches and fumes; never the oven that cooks food.',
    example: { thicknessMm: 18 },
  }),
  define(planSchema, plan, {
    name: 'silicone.plan',
    title: 'Plan a silicone mold',
    asks: 'What box, how much of each part, in how many mixes, and how long does it stay workable?',
    formula:
      'smallest grid of masters with gaps and walls; rubber = block − masters, plus waste; grams split by the ratio; times × 2^((rated − room)/10)',
    source: 'Geometry; ten-degree rule for cure rate; vacuum cup four times the mix',
    limits: 'Masters lie flat and are not turned. The rubber’s own sheet wins on ratio, times and inhibition.',
    example: {
      pour: 'open-face',
      masters: [{ volumeMl: 13.2, lengthMm: 110, widthMm: 16, heightMm: 17, count: 3 }],
      mix: EXAMPLE_MIX,
      potLifeMin: 20,
      demoldMin: 240,
      roomC: 17,
    },
  }),
  define(topUpSchema, topUp, {
    name: 'silicone.topUp',
    title: 'Top up a short mold',
    asks: 'The mix came up short: how much more, and is there time?',
    formula: 'base of the box × missing depth, plus waste; bonds while younger than three pot lives',
    source: 'Geometry; three pot lives is a working rule',
    limits: 'Rubber past its gel may not bond: scuff and test a corner when late.',
    example: {
      mix: EXAMPLE_MIX,
      boxLengthMm: 130,
      boxWidthMm: 84,
      missingDepthMm: 4,
      minutesSinceMixed: 8,
      potLifeMin: 30,
    },
  }),
  define(sizeSchema, batchSize, {
    name: 'batch.size',
    title: 'Size a batch',
    asks: 'How much plastisol for these shots, and how much comes back as sprue?',
    formula: 'Σ shots × (cavities + sprue + runner, with feed) + dead volume a load + film on the cup',
    source: 'Conservation of volume; feed 6 %, dead 3 mL and film 8 mL are starting values',
    limits: 'Weigh a bait once: the cavity volume is the figure that matters most.',
    example: { molds: [{ id: 'Sandlance 110 × 4', shots: 6, cavities: 4, cavityMl: 11.8, sprueMl: 4 }] },
  }),
  define(fromCupSchema, batchFromCup, {
    name: 'batch.fromCup',
    title: 'What a cup still fills',
    asks: 'This much is left: how many shots is that?',
    formula: 'the most shots whose plastisol, dead volume and film fit in the cup',
    source: 'As batch.size, turned round',
    limits: 'Counts volume only; the cup must still be in its window.',
    example: { availableMl: 240, mold: { cavities: 4, cavityMl: 11.8, sprueMl: 4 } },
  }),
  define(scaleSchema, scaleRecipe, {
    name: 'recipe.scale',
    title: 'Scale a recipe',
    asks: 'How many drops and which spoons for this cup?',
    formula: 'amount × batch ÷ basis × strength ÷ bottle strength; drops to whole, spoons to 1/64 tsp',
    source: 'Proportion; rounding error is shown and above 10 % calls for the scale',
    limits: 'Spoons of flake and powder vary with packing: grams repeat best.',
    example: {
      basisMl: 236.5882365,
      batchMl: 380,
      items: [
        { id: 'Harbour Blue liquid', amount: 18, unit: 'drop' },
        { id: 'Fine silver flake', amount: 0.25, unit: 'tsp', bulkGPerMl: 0.9 },
      ],
    },
  }),
  define(modulusSchema, modulus, {
    name: 'hardness.modulus',
    title: 'Stiffness from Shore',
    asks: 'How stiff is this plastic, in MPa?',
    formula: 'A: Gent’s relation. 00: 0.0852 · exp(0.0103 S)',
    source: 'Gent 1958 for A; for 00 published 100 % moduli of soft rubbers × 12/7 (neo-Hookean)',
    limits: 'A from 20 to 80, 00 from 5 to 60; the 00 fit is a starting value.',
    example: { scale: '00', value: 34 },
  }),
  define(blendSchema, blend, {
    name: 'hardness.blend',
    title: 'Blend to a hardness',
    asks: 'How much of each plastic for this hardness, at the least cost?',
    formula: 'shares sum to 1; hardness mixes linearly; least price within the tolerance, then nearest to the target',
    source: 'Rule of mixtures; two linear programs solved with HiGHS',
    limits: 'Linear mixing is a starting value: read the bait after 24 h and correct.',
    example: {
      scale: '00',
      target: 34,
      batchG: 400,
      parts: [
        { id: 'Soft 22', hardness: 22, pricePerKgMinor: 1450 },
        { id: 'Firm 58', hardness: 58, pricePerKgMinor: 1600 },
      ],
    },
  }),
  define(shotsSchema, shotsFor, {
    name: 'yield.shots',
    title: 'Shots for good baits',
    asks: 'How many shots make this many good ones, nine times in ten?',
    formula: 'least shots with P(good ≥ needed) at the wanted confidence, rejects beta-binomial',
    source: 'Beta prior (1, 19) updated by the mold’s own counts',
    limits: 'Assumes the next evening is like the past ones.',
    example: { goodNeeded: 40, cavities: 4, rejects: { rejected: 11, made: 240 } },
  }),
  define(balanceSchema, balance, {
    name: 'yield.balance',
    title: 'Balance a cup',
    asks: 'What became of the grams that were cooked?',
    formula: 'yield = good ÷ cooked; unaccounted = cooked − good − rejects − returned − residue',
    source: 'Conservation of mass',
    limits: 'As good as the scale: tare the cup.',
    example: { cookedG: 388, goodG: 288, rejectG: 12, returnedG: 61, residueG: 9 },
  }),
  define(chartSchema, chart, {
    name: 'yield.chart',
    title: 'Chart the rejects',
    asks: 'Has a mold or an evening gone out of its usual range?',
    formula: 'mean reject share; exact binomial limits per point; runs of eight on one side',
    source: 'Shewhart p-chart with exact limits at 0.135 % and 99.865 %',
    limits: 'Few baits a point give wide limits; that is honest, not broken.',
    example: {
      points: [
        { made: 24, rejected: 1 },
        { made: 32, rejected: 3 },
        { made: 28, rejected: 9 },
      ],
    },
  }),
  define(compareSchema, compare, {
    name: 'yield.compare',
    title: 'Compare two counts',
    asks: 'Is one really better, or was it luck?',
    formula: 'Fisher’s exact test, two-sided',
    source: 'Fisher 1922',
    limits: 'Small samples prove little, and it says so.',
    example: { a: { made: 40, rejected: 2 }, b: { made: 36, rejected: 9 } },
  }),
  define(dipSchema, dipPlan, {
    name: 'dip.plan',
    title: 'Plan dipped tubes',
    asks: 'How many dips, and how deep a cup?',
    formula: 'dips = wall ÷ wall per dip (thicker in a cooler cup), up; plastisol = tubes + drips + standing depth',
    source: 'Geometry of the tube; 0.7 mm a dip at 155 °C is a starting value',
    limits: 'Cup from 140 to 180 °C. Oil the rod, keep it dry, quench well away from the cup.',
    example: { rodMm: 8, lengthMm: 80, wallMm: 2, tubes: 12 },
  }),
];

const byName = new Map(calculators.map((calculator) => [calculator.name, calculator]));

/** Whether every number in a result is finite. */
function allFinite(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (value === null || typeof value !== 'object') return true;
  return Object.values(value).every(allFinite);
}

/**
 * Runs a calculator by name on unchecked input.
 * @throws Failure `unknown-calculator`, `invalid-input`, `too-large` or the calculator's own.
 */
export async function calculate(name: string, input: unknown): Promise<unknown> {
  const calculator = byName.get(name);
  if (!calculator) throw new Failure('unknown-calculator', `There is no calculator "${name}".`);
  const output = await calculator.run(input);
  if (!allFinite(output)) throw new Failure('too-large', 'These numbers are too large to work with; check the units.');
  return output;
}
