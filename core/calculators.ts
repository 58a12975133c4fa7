import type * as v from 'valibot';
import { Failure } from './failure.ts';
import { demold, demoldSchema, MOLD_STUFF, train, trainSchema } from './heat/demold.ts';
import { pourWindow, windowSchema } from './heat/window.ts';
import { buildFigures, buildSchema } from './mold/buildCalculator.ts';
import { bake, bakeSchema } from './mold/clay.ts';
import { dipPlan, dipSchema } from './mold/dip.ts';
import { plan, planSchema, topUp, topUpSchema } from './mold/silicone.ts';
import { cavities, cavitiesSchema } from './plan/cavities.ts';
import { batchFromCup, batchSize, fromCupSchema, sizeSchema } from './plastisol/batch.ts';
import { blend, blendSchema, modulus, modulusSchema } from './plastisol/hardness.ts';
import { scaleRecipe, scaleSchema } from './plastisol/recipe.ts';
import {
  airTrapsFile,
  airTrapsSchema,
  type Beside,
  bestTiltFile,
  bestTiltSchema,
  measureFile,
  measureSchema,
  partingFile,
  partingSchema,
  repairFile,
  repairSchema,
  sculptFigures,
  sculptSchema,
  thicknessFile,
  thicknessSchema,
  toolReachFile,
  toolReachSchema,
} from './shape/calculators.ts';
import { convert, convertSchema } from './units/convert.ts';
import { check } from './validate.ts';
import { fitKick, fitKickSchema } from './water/fitKick.ts';
import { hookFit, hookSchema } from './water/hook.ts';
import { kick, kickSchema } from './water/kick.ts';
import { salt, saltSchema, sink, sinkSchema } from './water/sink.ts';
import { trim, trimSchema } from './water/trim.ts';
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
import { survival, survivalSchema } from './yield/survival.ts';

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
  /** Takes the bytes of an STL or OBJ file beside its input, and may take seconds. */
  takesMesh?: boolean;
  run(input: unknown, beside?: Beside): unknown;
}

type About = Omit<Calculator, 'schema' | 'run'>;

function define<S extends v.GenericSchema>(
  schema: S,
  compute: (input: v.InferOutput<S>, beside?: Beside) => unknown,
  about: About,
): Calculator {
  return { ...about, schema, run: (input, beside) => compute(check(schema, input), beside) };
}

/** A wedge of 40 × 20 × 10 mm with one sloping face, as the text of an OBJ. */
const EXAMPLE_MESH = {
  text: 'v 0 0 0\nv 40 0 0\nv 40 20 0\nv 0 20 0\nv 0 0 10\nv 0 20 10\nf 1 4 3 2\nf 1 2 5\nf 4 6 3\nf 2 3 6 5\nf 1 5 6 4\n',
};
const EXAMPLE_TAIL = {
  scale: '00',
  hardness: 34,
  wristThicknessMm: 4,
  wristHeightMm: 6,
  wristLengthMm: 12,
  paddleDiameterMm: 14,
  paddleThicknessMm: 4,
};

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
  define(sculptSchema, sculptFigures, {
    name: 'bait.sculpt',
    title: 'Sculpt a bait',
    asks: 'What does this shape measure: volume, size, and the figures of its tail?',
    formula: 'sections lofted through the stations, tail and limbs swept, joined and cut as solids, then measured',
    source: 'Monotone cubic through the stations (Fritsch & Carlson 1980); solid modelling; divergence theorem',
    limits: 'Faceted: volumes are within a few tenths of a percent of the drawn curves.',
    example: { start: 'paddle' },
  }),
  define(measureSchema, measureFile, {
    name: 'mesh.measure',
    title: 'Measure a mesh',
    asks: 'What are volume and size of this STL or OBJ, and is it sound?',
    formula: 'corners within 0.0001 mm joined; volume and centre by the divergence theorem; edges counted',
    source: 'Divergence theorem; an edge of a closed mesh has exactly two triangles',
    limits:
      'A mesh that is not closed has no volume. Parts that overlap count twice. Up to 64 MB, two million triangles.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH },
  }),
  define(repairSchema, repairFile, {
    name: 'mesh.repair',
    title: 'Repair a mesh',
    asks: 'Can corners, doubles, turned faces and small holes be mended, and what changes?',
    formula:
      'join near corners, drop doubles, turn what disagrees, close holes with a short edge, turn what is inside out',
    source: 'Half-edge bookkeeping; ear clipping for holes',
    limits: 'A large hole is a decision, not a repair: it is left and told.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH },
  }),
  define(thicknessSchema, thicknessFile, {
    name: 'mesh.thickness',
    title: 'Thickness of a bait',
    asks: 'Where is it thinnest, where will it tear or not fill, and which section cools last?',
    formula: 'distance to the opposite wall along the inward normal, capped by the largest ball that fits inside',
    source: 'Ray casting in a tree of boxes; largest inscribed ball by ascent of the distance to the wall',
    limits: 'Sampled at about 20,000 places; a sharp edge is thin by nature.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH },
  }),
  define(partingSchema, partingFile, {
    name: 'mesh.parting',
    title: 'Part a mold',
    asks: 'Along which pull do two halves come free, where is the parting, and what is caught?',
    formula: 'a place is caught when the straight way out along its half’s pull meets the bait again',
    source: 'Visibility by rays along both pulls; least wrong-sided area for a flat plane',
    limits: 'Without a direction it tries the three axes. Rubber bends round small undercuts, metal does not.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH, direction: [0, 0, 1] },
  }),
  define(airTrapsSchema, airTrapsFile, {
    name: 'mesh.airTraps',
    title: 'Find the air traps',
    asks: 'This way up, where does air stay in the cavity?',
    formula: 'local high points that face up, with the fall to the next higher one; at least 0.3 mm',
    source: 'Topographic prominence: sweep from the top with union–find',
    limits: 'Slow filling is assumed: fast plastic can trap air anywhere.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH, direction: [0, 0, 1] },
  }),
  define(bestTiltSchema, bestTiltFile, {
    name: 'mesh.bestTilt',
    title: 'Tilt the mold',
    asks: 'Which way up, within what I can prop, leaves the least air?',
    formula: 'air traps on rings of directions within the cone, then finer about the best',
    source: 'Direct search; volume of each pocket above its lowest way out',
    limits: 'Counts air without vents; a vent at each high point empties it.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH, coneDeg: 25 },
  }),
  define(toolReachSchema, toolReachFile, {
    name: 'mesh.toolReach',
    title: 'Reach of a cutter',
    asks: 'What does this ball cutter leave standing in the cavity, and which one reaches all?',
    formula: 'cavity as a height field from the parting plane, closed by the ball; distance from wall to ball',
    source: 'Grey-scale closing by a sphere; r(√2 − 1) where two square walls meet, r(√3 − 1) where three do',
    limits: 'Three-axis cutting from one side, cells of 0.2 mm or finer; no holder, no flute length.',
    takesMesh: true,
    example: { mesh: EXAMPLE_MESH, direction: [0, 0, 1], ballMm: 3 },
  }),
  define(buildSchema, buildFigures, {
    name: 'mold.build',
    title: 'Build a mold',
    asks: 'What does the mold of this bait look like: halves, channels, vents, pins, or boxes to cast silicone in?',
    formula:
      'cavities scaled by the allowance, heads to the runner; block less cavities, channels, vents and sockets; pins and pry slots added',
    source: 'Solids joined and cut (manifold-3d); vents at the high points, nose up; 1.5 % shrink is a starting value',
    limits: 'A flat parting plane. Fine undercuts are told, not removed. Machines: licensed or trained people.',
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
  define(kickSchema, kick, {
    name: 'bait.kick',
    title: 'Will the tail kick',
    asks: 'From which speed does this paddle kick, and which one change helps most?',
    formula:
      'wrist as a beam, paddle and the water it moves as the mass beyond it; onset = frequency × paddle ÷ Strouhal',
    source:
      'Cantilever with an end mass (Rayleigh), added mass of a disc, Strouhal’s relation; 0.6 and 0.2 are starting values',
    limits: 'An estimate for a paddle at the end of a wrist. Any other tail: test it in water.',
    example: EXAMPLE_TAIL,
  }),
  define(fitKickSchema, fitKick, {
    name: 'bait.fitKick',
    title: 'Fit the kick to your plastic',
    asks: 'What do this workshop’s own trials say of the two loose constants, and what to try next?',
    formula: 'a grid over both constants weighed by how well each explains the trials, starting from the usual values',
    source: 'Bayes’ rule on a grid; expected information of a yes-or-no trial (Lindley 1956)',
    limits: 'Few trials leave a wide range, and it is shown. A speed at which it kicks is a bound, not a measurement.',
    example: {
      trials: [
        { ...EXAMPLE_TAIL, hz: 4.4, kicksAtMPerS: 0.4 },
        { ...EXAMPLE_TAIL, wristThicknessMm: 5, hz: 6.1 },
        { ...EXAMPLE_TAIL, wristThicknessMm: 6, notAtMPerS: 0.4 },
      ],
      candidates: [{ ...EXAMPLE_TAIL, wristThicknessMm: 5.5 }],
      walkingMPerS: 0.6,
    },
  }),
  define(sinkSchema, sink, {
    name: 'bait.sink',
    title: 'How fast it sinks',
    asks: 'Does it float, hang or sink with this hook and weight, and how fast?',
    formula: '½ · water density · drag · plan area · speed² = weight not carried by the water',
    source: 'Terminal velocity of a body across the stream, drag 1.1',
    limits: 'Lying flat; nose-down it sinks faster. Sea water is 1.025 g/mL.',
    example: { volumeMl: 10, massG: 10.2, extraMassG: 1.4, extraVolumeMl: 0.18, planAreaMm2: 1100 },
  }),
  define(saltSchema, salt, {
    name: 'bait.salt',
    title: 'Salt for a sink rate',
    asks: 'How much salt to the cup makes it sink as I want?',
    formula: 'wanted mass from drag; salt share from volumes that add: 1/ρ = (1−w)/plastic + w/salt',
    source: 'Rule of mixtures by volume; terminal velocity',
    limits: 'Salt tears: above a few spoons a cup try it first. Grind it to flour.',
    example: { target: { mmPerS: 110 }, volumeMl: 10, extraMassG: 0.6, extraVolumeMl: 0.08, planAreaMm2: 1100 },
  }),
  define(trimSchema, trim, {
    name: 'bait.trim',
    title: 'How it hangs',
    asks: 'At rest, does it hang nose up or down, on its keel or its side?',
    formula: 'the centre of buoyancy comes to lie straight above the centre of mass',
    source: 'Hydrostatics of a submerged body',
    limits: 'At rest on a slack line; moving, the line and the lip of the paddle decide.',
    example: {
      volumeMl: 10,
      massG: 10.2,
      centroidMm: [42, 0, 0.2],
      extras: [{ massG: 1.4, volumeMl: 0.18, atMm: [30, 0, -3] }],
    },
  }),
  define(hookSchema, hookFit, {
    name: 'bait.hook',
    title: 'Fit a hook',
    asks: 'Does this hook sit right: point over the back, eye through the bore, slot long enough?',
    formula: 'shank laid along the bait from the eye; point at gap over the shank, back from the bend',
    source: 'Geometry of the drawn hook',
    limits: 'A single hook with a straight shank; measure yours, makers differ.',
    example: {
      outline: [
        { xMm: 0, topMm: 4, bottomMm: -4 },
        { xMm: 30, topMm: 8, bottomMm: -8 },
        { xMm: 80, topMm: 4, bottomMm: -4 },
      ],
      shankMm: 44,
      gapMm: 11,
      eyeMm: 3.4,
      boreMm: 4,
      slotMm: 24,
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
  define(survivalSchema, survival, {
    name: 'yield.survival',
    title: 'Which lasts longer',
    asks: 'How many fish does each variant last, when some were lost before they tore?',
    formula: 'share still holding after each fish; the two curves compared by the log-rank test',
    source: 'Kaplan & Meier 1958; Mantel 1966',
    limits: 'Lost baits are cut short, not torn. Days that were void are left out.',
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
  define(demoldSchema, demold, {
    name: 'heat.demold',
    title: 'Wait before demolding',
    asks: 'How long does this bait wait in this mold?',
    formula:
      'heat conducts from the bait through the wall to the air; the wait ends when the mean, the centre or the skin is at the wanted temperature and stays there',
    source:
      'Transient conduction (Carslaw & Jaeger 1959), finite volumes, Crank–Nicolson; material figures are typical ones',
    limits: 'One dimension, perfect contact, up to six hours. 80 °C mean is a starting guess: fit it to what you log.',
    example: {
      shape: 'cylinder',
      thicknessMm: 14,
      pourC: 168,
      moldC: 20,
      ambientC: 20,
      wallMm: 12,
      mold: MOLD_STUFF.aluminium,
    },
  }),
  define(trainSchema, train, {
    name: 'heat.train',
    title: 'Waits over an evening',
    asks: 'How does the wait grow from shot to shot?',
    formula:
      'as one wait after another; the wall keeps what the last shot left in it, less what it gives off while open',
    source: 'Transient conduction as in the single wait',
    limits: 'The same mold, opened for the same time after each shot. Up to 40 shots.',
    example: {
      shape: 'cylinder',
      thicknessMm: 14,
      pourC: 168,
      moldC: 20,
      ambientC: 20,
      wallMm: 12,
      mold: MOLD_STUFF.silicone,
      shots: 6,
      openS: 90,
    },
  }),
  define(windowSchema, pourWindow, {
    name: 'heat.window',
    title: 'Pour window',
    asks: 'Between which temperatures may this be poured, and who says so?',
    formula: 'the upper end is the least of what the method, each flake, the mold and the plastic bear',
    source: 'The makers’ own limits; 195 °C for scorch is a starting value',
    limits: 'A probe in the cup decides, and the data sheets of flake and plastic.',
    example: {
      lowC: 160,
      highC: 177,
      method: 'injection',
      flakeLimitsC: [{ id: 'Fine gold flake', c: 171 }],
      moldLimitC: 175,
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
];

const byName = new Map(calculators.map((calculator) => [calculator.name, calculator]));

/** @throws Failure `unknown-calculator`. */
export function mustFindCalculator(name: string): Calculator {
  const calculator = byName.get(name);
  if (!calculator) throw new Failure('unknown-calculator', `There is no calculator "${name}".`);
  return calculator;
}

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
export async function calculate(name: string, input: unknown, beside?: Beside): Promise<unknown> {
  const output = await mustFindCalculator(name).run(input, beside);
  if (!allFinite(output)) throw new Failure('too-large', 'These numbers are too large to work with; check the units.');
  return output;
}
