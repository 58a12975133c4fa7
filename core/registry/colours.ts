import { calibrate, calibrateSchema } from '../colour/calibrate.ts';
import { dose, doseSchema } from '../colour/dose.ts';
import { match, matchSchema } from '../colour/match.ts';
import { PLAIN_PLASTIC } from '../colour/nominal.ts';
import { predict, predictSchema } from '../colour/predict.ts';
import { type Calculator, define } from './define.ts';

const PLAIN = PLAIN_PLASTIC;
const BLUE = { k: [0.082, 0.031, 0.008], s: [0.004, 0.006, 0.011] };
const YELLOW = { k: [0.003, 0.012, 0.14], s: [0.012, 0.01, 0.004] };
const RED = { k: [0.006, 0.11, 0.075], s: [0.011, 0.004, 0.004] };

export const colourCalculators: Calculator[] = [
  define(predictSchema, predict, {
    name: 'colour.predict',
    title: 'Foresee a colour',
    asks: 'How does this melt look at this thickness, over this ground, and how much of it does it hide?',
    formula: 'K and S of what is dosed add up by mL/L; light up and down through the layer gives what comes back',
    source: 'Kubelka–Munk, two constants, three bands of linear-light sRGB; surface reflection uncorrected',
    limits: 'Three bands are no spectrum, and the surface’s own gloss is left out. Calibrate what you dose.',
    example: {
      base: PLAIN,
      items: [
        { ...BLUE, mlPerL: 3 },
        { ...YELLOW, mlPerL: 1.5 },
      ],
      thicknessesMm: [1, 5, 15],
      background: [1, 1, 1],
    },
  }),
  define(calibrateSchema, calibrate, {
    name: 'colour.calibrate',
    title: 'Measure a colourant',
    asks: 'From one step over black and over white: what does a mL/L of it absorb and scatter?',
    formula: 'Kubelka–Munk solved for K and S, less the plain plastic, divided by the dose',
    source: 'Kubelka–Munk inverted in closed form for a black and a white ground',
    limits: 'A step through which nothing shows cannot be measured: make it thinner. Photos need a known white.',
    example: {
      thicknessMm: 4,
      mlPerL: 4,
      overBlack: [0.05, 0.08, 0.14],
      overWhite: [0.22, 0.42, 0.66],
      base: PLAIN,
    },
  }),
  define(matchSchema, (input, beside) => match(input, beside?.nowMs), {
    name: 'colour.match',
    title: 'Match a colour',
    asks: 'Which drops of what is in store come nearest to this colour, and how far off is that?',
    formula:
      'sets of colourants, each drawn towards the wanted colour, then whole drops tried about the best; ΔE00 decides',
    source: 'Kubelka–Munk; CIEDE2000; beam search with damped least squares',
    limits: 'The same answer by the same seed. At one thickness over one ground: look at the others too.',
    example: {
      target: { hex: '#2f7d5c' },
      thicknessMm: 8,
      background: [1, 1, 1],
      base: PLAIN,
      colourants: [
        { id: 'blue', ...BLUE },
        { id: 'yellow', ...YELLOW },
        { id: 'red', ...RED },
      ],
      batchMl: 237,
    },
  }),
  define(doseSchema, dose, {
    name: 'colour.dose',
    title: 'Dose to the bait',
    asks: 'How much of this colourant until so much of the ground is hidden at this thickness?',
    formula: 'doses scanned from the least, the first that hides enough refined by halving',
    source: 'Opacity as luminance over black by luminance over white; Kubelka–Munk',
    limits: 'Opacity does not rise with every drop: the least dose that is enough, not the only one.',
    example: {
      base: PLAIN,
      items: [{ ...BLUE, mlPerL: 3 }],
      itemIndex: 0,
      thicknessMm: 3,
      opacityWanted: 0.5,
    },
  }),
];
