import { usual } from '../defaults.ts';
import type { Fill, MoldKind } from '../heat/window.ts';
import { saidOf, type Ticked, type TickId } from './evidence.ts';

export const WAY_IDS = [
  'injector',
  'together',
  'rods',
  'printed',
  'gravity',
  'open',
  'layers',
  'wrap',
  'two-piece',
  'dip',
] as const;
export type WayId = (typeof WAY_IDS)[number];

/** How plastic gets into one kind of mold, step by step. */
export interface Way {
  id: WayId;
  name: string;
  /** Ticked before it is filled. */
  before: TickId[];
  /** How it is filled, in a sentence. */
  fill: string;
  /** Light pressure is held so long after it stops, s; 0: none. */
  holdS: number;
  /** The sprue or brim sinks so long, s; 0: nothing to top up. */
  topUpS: number;
  topUp: string;
  /** Ticked when it is opened. */
  after: TickId[];
  /** When it is out. */
  out: string;
  /** Whose caution is shown at it. */
  caution: 'hot' | 'printed' | 'dip';
}

const LIE = 'Trim sprue and flash; lay each flat and straight, clear of the others: a bait sets as it lies.';
const TOP_UP = 'Keep the sprue topped until it stops sinking, or the nose has a hollow.';

const injected = (id: WayId, name: string, more: Partial<Way>): Way => ({
  id,
  name,
  before: ['clamps', 'mold', 'injector', 'insert'],
  fill: 'Draw from deep, square off the air, push steadily until it stops.',
  holdS: usual('holdS'),
  topUpS: usual('topUpS'),
  topUp: TOP_UP,
  after: ['felt', 'lie'],
  out: LIE,
  caution: 'hot',
  ...more,
});

const poured = (id: WayId, name: string, more: Partial<Way>): Way => ({
  ...injected(id, name, {}),
  before: ['level', 'mold', 'insert'],
  holdS: 0,
  after: ['lie'],
  ...more,
});

/** Every way into a mold and its own steps. Source: workshop practice; times are starting values. */
export const WAYS: Record<WayId, Way> = {
  injector: injected('injector', 'hand injector', {}),
  together: injected('together', 'injectors together', {
    fill: 'Both injectors warm, both cups at one heat; through the block, push alike and steadily until it stops.',
  }),
  rods: injected('rods', 'injector with core rods', {
    before: ['rods', 'clamps', 'mold', 'injector'],
    fill: 'Rods oiled and dry, pushed home; inject hot and at once: the rods chill it fast.',
    out: `Pull the rods straight while it is warm. ${LIE}`,
  }),
  printed: injected('printed', 'printed mold', {
    fill: 'Let the cup fall to what the mold bears; small pressure, plates behind both halves.',
    caution: 'printed',
  }),
  gravity: poured('gravity', 'gravity pour', {
    before: ['mold', 'clamps', 'insert'],
    fill: 'Into the hot mold in one thin stream, until it stands in the sprue.',
  }),
  open: poured('open', 'open pour', {
    fill: 'A thin stream, tail first, to the brim; swipe or leave what stands over.',
    topUpS: usual('topUpS'),
    topUp: 'It sinks while it cools: fill it to the brim again.',
    out: `Trim what stands over with a blade. ${LIE}`,
  }),
  layers: poured('layers', 'layer pour', {
    before: ['level', 'surface', 'mold'],
    fill: 'Thin and even, to its level; no draught over it.',
    topUp: 'Fill the last layer to the brim again as it sinks.',
  }),
  wrap: poured('wrap', 'wrap of silicone', {
    before: ['tilt', 'clamps', 'insert'],
    fill: 'Tail first with the mold tilted, then upright, through the sprue; flex the tail open if air stays.',
  }),
  'two-piece': poured('two-piece', 'two-piece silicone', {
    before: ['tilt', 'clamps', 'insert'],
    fill: 'Tail first with the mold tilted, then upright, through the sprue.',
  }),
  dip: poured('dip', 'dipping', {
    before: ['rods', 'insert'],
    fill: 'Oiled dry rod to its mark, out slowly, let it drip, again; a cooler cup builds more a dip.',
    topUpS: 0,
    topUp: '',
    after: ['quench', 'lie'],
    out: 'Quench well away from the cups, dry the rod, pull the tube; a hot rod drops it.',
    caution: 'dip',
  }),
};

/**
 * The way that a mold is filled.
 * @param cups that one go draws from; @param layers of what is made; @param rods core rods through its cavities.
 */
export function wayOf({
  kind,
  fill,
  cups,
  layers,
  rods,
}: {
  kind: MoldKind;
  fill: Fill;
  cups: number;
  layers: number;
  rods: boolean;
}): Way {
  if (fill === 'dip') return WAYS.dip;
  if (kind === 'printed') return WAYS.printed;
  if (fill === 'injection') return cups > 1 ? WAYS.together : rods ? WAYS.rods : WAYS.injector;
  if (layers > 1) return WAYS.layers;
  if (fill === 'gravity') return WAYS.gravity;
  if (kind === 'silicone-wrap') return WAYS.wrap;
  return kind === 'silicone-two-piece' ? WAYS['two-piece'] : WAYS.open;
}

export type ShotStage = 'hold' | 'top-up' | 'cool' | 'open';

/**
 * Where a shot stands so long after it was filled.
 * @param opensS seconds until it may be opened. @returns the stage, and how long it still lasts, s.
 */
export function stageOf(way: Way, sinceS: number, opensS: number): { stage: ShotStage; leftS: number } {
  if (sinceS < way.holdS) return { stage: 'hold', leftS: way.holdS - sinceS };
  if (sinceS < way.holdS + way.topUpS && opensS > 0) return { stage: 'top-up', leftS: way.holdS + way.topUpS - sinceS };
  return opensS > 0 ? { stage: 'cool', leftS: opensS } : { stage: 'open', leftS: 0 };
}

/** How bubbles are got out of a cup. Source: workshop practice, three schools. */
export const DEGASSINGS = ['none', 'vacuum', 'rest'] as const;
export type Degassing = (typeof DEGASSINGS)[number];
export const DEGASSING_WORDS: Record<Degassing, string> = {
  none: 'not degassed',
  vacuum: 'under vacuum',
  rest: 'by a hot rest',
};

/** What the shot before was said to be, for "as before": one tap for all of it. */
export const asBefore = (ticks: Ticked[], way: Way, shot: { moldId: string; nth: number; layer?: number }) =>
  shot.nth < 2
    ? []
    : way.before.flatMap((what) => {
        const said = saidOf(ticks, what, { ...shot, nth: shot.nth - 1 })?.said;
        return said && !saidOf(ticks, what, shot) ? [{ what, said }] : [];
      });
