import type { Shape } from '../../../contract/workshop.ts';
import type { MasterKind } from '../../../core/mold/masterStuff.ts';

export const KIND_WORDS: Record<MasterKind, string> = {
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
