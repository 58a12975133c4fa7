import { fitKick, fitKickSchema } from '../water/fitKick.ts';
import { hookFit, hookSchema } from '../water/hook.ts';
import { kick, kickSchema } from '../water/kick.ts';
import { salt, saltSchema, sink, sinkSchema } from '../water/sink.ts';
import { firms, firmsSchema, tomorrow, tomorrowSchema } from '../water/tomorrow.ts';
import { trim, trimSchema } from '../water/trim.ts';
import { type Calculator, define } from './define.ts';

const EXAMPLE_TAIL = {
  scale: '00',
  hardness: 34,
  wristThicknessMm: 4,
  wristHeightMm: 6,
  wristLengthMm: 12,
  paddleDiameterMm: 14,
  paddleThicknessMm: 4,
};

export const waterCalculators: Calculator[] = [
  define(firmsSchema, firms, {
    name: 'bait.firms',
    title: 'How baits firm',
    asks: 'How much firmer does a bait become by age and by cold, here?',
    formula:
      'differences of readings within a cup = points a degree × degrees colder + points a tenfold × log of its age',
    source: 'Ridge regression (Hoerl & Kennard 1970), drawn to starting values that are guesses',
    limits: 'On the scale 00; after two days of age nothing is counted.',
    example: {
      readings: [
        { cup: 'P201', hours: 1, c: 20, value: 24 },
        { cup: 'P201', hours: 24, c: 20, value: 30 },
        { cup: 'P201', hours: 26, c: 8, value: 33.5 },
      ],
    },
  }),
  define(tomorrowSchema, tomorrow, {
    name: 'bait.tomorrow',
    title: 'Tomorrow’s swim',
    asks: 'It kicks in the warm tub an hour after demolding: how will it swim cured, in cold water?',
    formula: 'onset goes with the root of the modulus; hardness by two slopes, per degree and per tenfold of hours',
    source: 'bait.kick and hardness.modulus; slopes by bait.firms',
    limits: 'An estimate: the water tests of the cured bait win.',
    example: { hardness: 30, now: { hours: 1, c: 38 }, cured: { hours: 24, c: 9 } },
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
];
