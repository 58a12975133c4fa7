import { usual } from '../defaults.ts';
import { dipPlan, dipSchema } from '../mold/dip.ts';
import { batchFromCup, batchSize, fromCupSchema, sizeSchema } from '../plastisol/batch.ts';
import { fitHardness, fitSchema } from '../plastisol/fit.ts';
import { blend, blendSchema, modulus, modulusSchema } from '../plastisol/hardness.ts';
import { know, knowSchema } from '../plastisol/know.ts';
import { scaleRecipe, scaleSchema } from '../plastisol/recipe.ts';
import { mixRemelt, remeltSchema } from '../plastisol/remelt.ts';
import { rescue, rescueSchema } from '../plastisol/rescue.ts';
import { convert, convertSchema } from '../units/convert.ts';
import { type Calculator, define } from './define.ts';

export const plasticCalculators: Calculator[] = [
  define(convertSchema, convert, {
    name: 'units.convert',
    title: 'Convert a measure',
    asks: 'What is this spoon, drop, inch or degree in the other unit?',
    formula: 'amount × size of the unit ÷ size of the other; volume to mass by density; degrees by their scale',
    source: 'US customary units by definition; drops and own measures as weighed by the maker',
    limits: 'A drop differs by bottle (0.03–0.06 mL): weigh twenty once.',
    example: { value: 0.5, from: 'cup', to: 'mL' },
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
  define(rescueSchema, rescue, {
    name: 'batch.rescue',
    title: 'Rescue a cup',
    asks: 'What can this leftover still make before it leaves its window, and for whom?',
    formula:
      'shots of the waiting molds within the plastic and the time that are left: most wanted baits first, then most plastic',
    source: 'Whole-number program, branch and bound (HiGHS)',
    limits: 'Up to twelve molds. Shots one after another by one pair of hands; a mold that is full is not waiting.',
    example: {
      availableMl: 180,
      secondsLeft: 240,
      molds: [
        { id: 'Sandlance 110 × 4', cavities: 4, cavityMl: 11.8, sprueMl: 4, secondsPerShot: 70, wanted: 8 },
        { id: 'Prawnlet 55 × 6', cavities: 6, cavityMl: 3.2, secondsPerShot: 60, wanted: 10 },
      ],
    },
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
    limits: `Linear mixing is a starting value: read the bait after ${usual('cureH')} h and correct.`,
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
  define(fitSchema, fitHardness, {
    name: 'hardness.fit',
    title: 'Fit your plastics',
    asks: 'How hard are these plastics really, by what came out of my own cups?',
    formula: 'h = C(Xᵀy/σ² + nominal/τ²), C = (XᵀX/σ² + I/τ²)⁻¹: shares of each cup against its cured reading',
    source: 'Rule of mixtures; ridge regression (Hoerl & Kennard 1970), shrunk to the label',
    limits: 'Cured readings of one scale, of cups without salt or remelt. σ 2 and τ 6 points are starting values.',
    example: {
      parts: [
        { id: 'Soft 22', nominal: 22 },
        { id: 'Firm 58', nominal: 58 },
      ],
      readings: [
        { fractions: { 'Soft 22': 1 }, hardness: 24 },
        { fractions: { 'Soft 22': 0.5, 'Firm 58': 0.5 }, hardness: 41 },
        { fractions: { 'Firm 58': 1 }, hardness: 60 },
      ],
    },
  }),
  define(remeltSchema, mixRemelt, {
    name: 'remelt.mix',
    title: 'Mix remelt',
    asks: 'How tired is this cup of fresh plastic and remelt?',
    formula: 'the most heats that at least a fifth of all grams has seen; one more once it is cooked',
    source: 'Workshop practice: plastisol yellows and hardens with each heat',
    limits: 'Grams of unknown heats count towards none, and are told apart. A fifth is a starting value.',
    example: {
      parts: [
        { grams: 300, heats: 0 },
        { grams: 120, heats: 3 },
        { grams: 40, heats: null },
      ],
    },
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
  define(knowSchema, know, {
    name: 'remelt.know',
    title: 'Know your scraps',
    asks: 'Given baits, unknown remelt: how much salt, how hard, what colour, and what to add for the one that is wanted?',
    formula:
      'salt from density by specific volumes; hardness as a mean with its scatter; colour from a puck over black and over white',
    source: 'Archimedes; rule of mixtures; Student’s t; Kubelka–Munk inverted, each error carried on',
    limits:
      'Each figure lies between the two beside it in 95 of 100; flake and bubbles make that wide, a foamy puck tells nothing.',
    example: {
      massG: 24.2,
      inWaterG: 2.2,
      flake: 'some',
      hardness: { scale: '00', readings: [48, 51, 50] },
      colour: { thicknessMm: 3, overBlack: [0.04, 0.1, 0.06], overWhite: [0.2, 0.42, 0.3] },
    },
  }),
];
