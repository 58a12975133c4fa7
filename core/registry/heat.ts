import { usual } from '../defaults.ts';
import { cooling, coolingSchema } from '../heat/cooling.ts';
import { demold, demoldSchema, MOLD_STUFF, train, trainSchema } from '../heat/demold.ts';
import { efficiencySchema, hold, holdSchema, microwave, microwaveSchema, ovenEfficiency } from '../heat/microwave.ts';
import { settle, settleSchema } from '../heat/settle.ts';
import { pourWindow, windowSchema } from '../heat/window.ts';
import { openingSchema, opensAfter } from '../process/opening.ts';
import { type Calculator, define } from './define.ts';

export const heatCalculators: Calculator[] = [
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
    source: 'The makers’ own limits; where it scorches is a default',
    limits: 'A probe in the cup decides, and the data sheets of flake and plastic.',
    example: {
      lowC: 160,
      highC: 177,
      method: 'injection',
      flakeLimitsC: [{ id: 'Fine gold flake', c: 171 }],
      moldLimitC: 175,
    },
  }),
  define(openingSchema, opensAfter, {
    name: 'heat.opening',
    title: 'When a mold is opened',
    asks: 'How long does each shot wait in this mold before it is opened?',
    formula: `as waits over an evening; left out: poured in the middle of its window, a wall of ${usual('siliconeWallMm')} mm (${usual('metalWallMm')} of metal), a mold as warm as the room. An open face gives little off over one side in four, so its bait counts as a third thicker; never under ${usual('leastWaitS')} s`,
    source: 'Transient conduction as in the single wait; equivalent diameter (Incropera et al. 2007)',
    limits:
      'Of rods, and where no thickness is known, a starting guess by the kind of mold. Later shots wait as long as the last one told.',
    example: { kind: 'aluminium', fill: 'injection', thicknessMm: 14, roomC: 20, shots: 6 },
  }),
  define(settleSchema, settle, {
    name: 'heat.settle',
    title: 'How long a stir lasts',
    asks: 'How fast do this flake and salt sink in the cup, and when is it stirred again?',
    formula: 'weight against drag in creeping flow; stir when the fastest has sunk 10 mm',
    source: 'Stokes 1851; a thin disc in creeping flow, Happel & Brenner 1965',
    limits: 'A starting viscosity of 0.35 Pa·s: a cooling cup is thicker. The finest dust stays up for longer.',
    example: { particle: 'flake', sizeMm: 0.9, thicknessMm: 0.05, densityGPerMl: 1.38, depthMm: 60 },
  }),
  define(microwaveSchema, microwave, {
    name: 'heat.microwave',
    title: 'Cook in bursts',
    asks: 'Which bursts cook this cup in this oven, and how warm is it after each?',
    formula:
      'energy is mass × heat it takes × degrees; half of it first, two minutes at most, then by the minute, then by half a minute',
    source: 'E = m·cp·ΔT; workshop practice for the bursts',
    limits: 'Nothing is lost to the air in it: read after each stir, and go by what you read.',
    example: { massG: 405, fromC: 20, watts: 700, school: 'full-power' },
  }),
  define(efficiencySchema, ovenEfficiency, {
    name: 'heat.efficiency',
    title: 'Learn your oven',
    asks: 'How much of this oven’s power reaches the cup?',
    formula: 'energy that the cup took over energy that the oven gave, by least squares over all bursts',
    source: 'Least squares through nothing',
    limits: 'Of this oven with this glass in its middle; more bursts make it surer.',
    example: { log: [{ watts: 900, level: 0.7, seconds: 60, massG: 240, beforeC: 60, afterC: 101 }] },
  }),
  define(coolingSchema, cooling, {
    name: 'heat.cooling',
    title: 'When a cup is where',
    asks: 'From these readings: when is the cup in its window, and when does it leave it?',
    formula:
      'the logarithm of the degrees over the room falls in a line; few readings are drawn to how cups usually cool',
    source: 'Newton’s law of cooling; least squares with a starting value',
    limits: 'Of a cup that stands and is stirred now and then; a lid, a draught or a shot drawn change it: read again.',
    example: {
      readings: [
        { s: 0, c: 176 },
        { s: 90, c: 170 },
      ],
      ambientC: 20,
      targetsC: [168, 158],
    },
  }),
  define(holdSchema, hold, {
    name: 'heat.hold',
    title: 'Keep a cup warm',
    asks: 'At which power does the cup stay as warm as it is?',
    formula:
      'what it loses, mass × heat × degrees over the room ÷ time constant, over what of the oven’s power reaches it',
    source: 'Newton’s law of cooling',
    limits: 'Ovens pulse at low power: so many seconds of each minute. Stir before each reading.',
    example: { massG: 300, c: 170, ambientC: 20, tauS: 600, watts: 900 },
  }),
];
