import { buildFigures, buildSchema } from '../mold/buildCalculator.ts';
import { bake, bakeSchema } from '../mold/clay.ts';
import { dipFit, dipFitSchema } from '../mold/dipFit.ts';
import { plan, planSchema, topUp, topUpSchema } from '../mold/silicone.ts';
import { weighed, weighedSchema } from '../mold/weighed.ts';
import { cavities, cavitiesSchema } from '../plan/cavities.ts';
import { type Calculator, define } from './define.ts';

/** A wedge of 40 × 20 × 10 mm with one sloping face, as the text of an OBJ. */
const EXAMPLE_MESH = {
  text: 'v 0 0 0\nv 40 0 0\nv 40 20 0\nv 0 20 0\nv 0 0 10\nv 0 20 10\nf 1 4 3 2\nf 1 2 5\nf 4 6 3\nf 2 3 6 5\nf 1 5 6 4\n',
};

const EXAMPLE_MIX = { by: 'mass', partA: 10, partB: 1, densityAGPerMl: 1.12, densityBGPerMl: 1.02 };

export const moldCalculators: Calculator[] = [
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
  define(buildSchema, buildFigures, {
    name: 'mold.build',
    title: 'Build a mold',
    asks: 'What does the mold of this bait look like: halves, channels, vents, pins, or boxes to cast silicone in?',
    formula:
      'cavities scaled by the allowance, heads to the runner; block less cavities, channels, vents and sockets; pins and pry slots added',
    source: 'Solids joined and cut (manifold-3d); vents at the high points, nose up; 1.5 % shrink is a starting value',
    limits:
      'A flat seam, or one that rises and falls along the bait. Undercuts are told, not removed. Machines: licensed or trained people.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH, kind: 'printed', count: 2, direction: [0, 0, 1] },
  }),
  define(cavitiesSchema, cavities, {
    name: 'mold.cavities',
    title: 'One cavity or several',
    asks: 'What does each further cavity save of the evening, and what does it cost?',
    formula: 'shots = baits ÷ cavities, up; each shot is fill + wait + opening; mold cost grows by the cavity',
    source: 'Arithmetic of one mold and one pair of hands',
    limits: 'One mold at a time: several small molds filled in turn hide the wait as well.',
    example: { baitsWanted: 40, cavityMl: 10, waitS: 300, moldPerCavityMinor: 900, moldFixedMinor: 600 },
  }),
  define(weighedSchema, weighed, {
    name: 'mold.weighed',
    title: 'Weigh a mold’s baits',
    asks: 'What does a cavity really hold, and how much goes into sprue and runner?',
    formula: 'volume = mass ÷ density of the plastic, less what is set in; sprue and runner = shot − cavities × bait',
    source: 'Mass and density',
    limits: 'As good as the scale and the density: salted plastic is heavier than 1.02 g/mL.',
    example: {
      cavities: 4,
      estimate: { cavityMl: 12.6, channelsMl: 5 },
      readings: [
        { of: 'bait', count: 10, grams: 131 },
        { of: 'shot', count: 1, grams: 58.2 },
      ],
    },
  }),
  define(dipFitSchema, dipFit, {
    name: 'dip.fit',
    title: 'Wall by dips, from your log',
    asks: 'How much wall does one dip build here, and how does it change with the cup?',
    formula: 'wall ÷ dips fitted against 155 °C − cup, each reading as heavy as its dips, beside the starting values',
    source: 'Weighted least squares with the starting values as earlier readings',
    limits: 'A rod’s own warmth, the oil and the pace matter too: log your usual way of dipping.',
    example: {
      log: [
        { dips: 3, wallMm: 2.3, cupC: 155 },
        { dips: 3, wallMm: 2.0, cupC: 160 },
      ],
    },
  }),
];
