import type { MASTER_KINDS } from '../../../contract/masters.ts';
import type { Shape } from '../../../contract/workshop.ts';
import { usual } from '../../../core/defaults.ts';

export const KIND_WORDS: Record<(typeof MASTER_KINDS)[number], string> = {
  clay: 'Polymer clay, baked',
  wood: 'Wood, carved and sealed',
  print: 'Printed from a model',
  cast: 'Resin or plastic cast',
  'own-bait': 'An own bait with a flat back',
  natural: 'Natural specimen',
};

export const SHAPE_WORDS: Record<Shape, string> = {
  paddle: 'Paddle tail',
  ribbon: 'Ribbon tail',
  claws: 'Claws or twin tail',
  tube: 'Tube',
  shrimp: 'Shrimp, fan tail',
  stick: 'Straight, stick',
};

/** Usual densities to weigh against, by what the master is made of; the sheet of the actual material wins. */
export const DENSITY_G_PER_ML: Record<(typeof MASTER_KINDS)[number], number> = {
  clay: 1.75,
  wood: 0.6,
  print: 1.24,
  cast: 1.1,
  'own-bait': usual('plastisolGPerMl'),
  natural: 1.05,
};
