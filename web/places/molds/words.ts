import type { FILLS, MOLD_KINDS } from '../../../contract/molds.ts';

export const MOLD_KIND_WORDS: Record<(typeof MOLD_KINDS)[number], string> = {
  'silicone-open': 'silicone, open face',
  'silicone-wrap': 'silicone, wrap',
  'silicone-two-piece': 'silicone, two-piece',
  aluminium: 'machined aluminium',
  printed: 'printed',
  cast: 'cast',
  'dip-rods': 'dip rods',
};

export const FILL_WORDS: Record<(typeof FILLS)[number], string> = {
  'open-pour': 'open pour',
  injection: 'injected',
  gravity: 'gravity pour',
  dip: 'dipped',
};

/** Usual cup temperatures by the way it gets into the mold, °C; method sheets and the log win. */
export const WINDOW_C: Record<(typeof FILLS)[number], [low: number, high: number]> = {
  'open-pour': [165, 177],
  injection: [158, 180],
  gravity: [165, 177],
  dip: [150, 160],
};

/** A printed mold bursts or melts above this. */
export const PRINTED_WINDOW_C: [number, number] = [145, 155];

export interface Step {
  id: string;
  text: string;
  caution?: ('rubber' | 'vacuum' | 'hot')[];
}

/** The open-face mold, step by step, in the order in which it goes wrong. */
export const OPEN_FACE_STEPS: Step[] = [
  {
    id: 'board',
    text: 'Flat backs down on a flat board or tile, each held by a thin film of glue. Nothing may creep under.',
  },
  {
    id: 'spot',
    text: 'Spot of mixed rubber on the master’s material, left to cure: it must not stay tacky.',
    caution: ['rubber'],
  },
  { id: 'box', text: 'Box of board, card or plastic around them, seams sealed. Hot glue ready: it leaks anyway.' },
  { id: 'level', text: 'Box and bench level, both ways.' },
  {
    id: 'weigh',
    text: 'Weigh part A, then part B into the same tared cup. Scrape walls and bottom while mixing; tap "Mixed" when it is one colour.',
    caution: ['rubber'],
  },
  {
    id: 'bubbles',
    text: 'Vacuum until it rises and collapses by itself, 20–30 s more. Without: a thin stream from high, later low and slow, into one corner; draw a wire along ribs and eyes.',
    caution: ['vacuum'],
  },
  { id: 'pour', text: 'Pour into one corner and let it run over the masters to the line.' },
  {
    id: 'demold',
    text: 'Demold when the clock says so, not when it feels firm. Flex it off; keep the tails straight.',
  },
  { id: 'cure', text: 'Full cure: a day on a flat shelf.' },
  {
    id: 'first',
    text: 'First pour is a plain one: it dries and warms the mold and shows where air stays. It does not count as yield.',
    caution: ['hot'],
  },
];
