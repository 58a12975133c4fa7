import {
  balance,
  balanceSchema,
  chart,
  chartSchema,
  compare,
  compareSchema,
  shotsFor,
  shotsSchema,
} from '../yield/counts.ts';
import { survival, survivalSchema } from '../yield/survival.ts';
import { type Calculator, define } from './define.ts';

export const yieldCalculators: Calculator[] = [
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
  define(survivalSchema, survival, {
    name: 'yield.survival',
    title: 'Which lasts longer',
    asks: 'How many fish does each variant last, when some were lost before they tore?',
    formula:
      'share still holding after each fish; the two curves compared over all ways to part the baits, or by the log-rank’s χ² where these are too many',
    source: 'Kaplan & Meier 1958; permutation of the log-rank’s U (Peto & Peto 1972); Mantel 1966',
    limits: 'Lost baits and whole ones are cut short, not torn. Days that were void are left out.',
    example: {
      a: [
        { fish: 3, torn: true },
        { fish: 5, torn: true },
        { fish: 4, lost: true },
      ],
      b: [
        { fish: 7, torn: true },
        { fish: 9, lost: true },
        { fish: 11, torn: true },
      ],
    },
  }),
];
