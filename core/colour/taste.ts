import { clampRgb, converter, type Lch65 } from 'culori';
import { usual } from '../defaults.ts';
import { flakesIn } from './flakes.ts';
import type { Melt } from './foresee.ts';
import { deltaE, labOf } from './lab.ts';
import { opacityOf, type Rgb } from './light.ts';
import { lookOf } from './look.ts';

/** What can be said of a colour without naming one: each from −1 (the first word) to 1 (the second). */
export const AXES = {
  light: ['dark', 'light'],
  vivid: ['muted', 'vivid'],
  warm: ['cool', 'warm'],
  clear: ['solid', 'clear'],
  glitter: ['plain', 'glittering'],
} as const;
export type Axis = keyof typeof AXES;
export const AXIS_IDS = Object.keys(AXES) as Axis[];
export type Traits = Record<Axis, number>;

type Said = Partial<Traits> & { hueDeg?: number };

/** Plain words of a theme, and what they say. Hues are angles of CIELAB. Source: common speech; a maker’s eye decides. */
const WORDS: [stems: string[], said: Said][] = [
  [['dark', 'night', 'dusk', 'deep', 'black', 'shadow', 'storm'], { light: -0.9 }],
  [['light', 'bright', 'day', 'white', 'pale', 'dawn', 'summer', 'snow'], { light: 0.8 }],
  [['vivid', 'loud', 'strong', 'shout', 'fire', 'candy', 'carnival'], { vivid: 0.9 }],
  [['muted', 'natural', 'quiet', 'dull', 'shy', 'real', 'subtle'], { vivid: -0.7 }],
  [['warm', 'autumn', 'rust', 'earth', 'sand', 'sunset', 'amber'], { warm: 0.9 }],
  [['cool', 'cold', 'ice', 'frost', 'winter', 'moon', 'steel'], { warm: -0.9 }],
  [['clear', 'glass', 'ghost', 'thin', 'see-through', 'jelly'], { clear: 0.9 }],
  [['solid', 'chalk', 'opaque', 'stone', 'milk'], { clear: -0.9 }],
  [['glitter', 'flash', 'sparkl', 'shine', 'shiny', 'scale', 'silver', 'star'], { glitter: 0.9 }],
  [['plain', 'matt', 'matte', 'bare'], { glitter: -0.9 }],
  [['murky', 'muddy', 'brown water', 'dirty water', 'flood'], { light: -0.5, clear: -0.7, vivid: 0.5 }],
  [['shrimp', 'prawn', 'crab'], { warm: 0.6, vivid: -0.2, clear: 0.4 }],
  [['fish', 'fry', 'minnow', 'sprat', 'sardine'], { warm: -0.4, glitter: 0.6, light: 0.2 }],
  [['worm', 'leech', 'slug'], { light: -0.5, warm: 0.5, vivid: -0.3 }],
  [['squid', 'pink'], { hueDeg: 0, light: 0.4 }],
  [['weed', 'moss', 'green', 'forest'], { hueDeg: 130 }],
  [['blue', 'sea', 'sky', 'ocean'], { hueDeg: 260 }],
  [['red', 'blood', 'berry'], { hueDeg: 30 }],
  [['orange', 'ember'], { hueDeg: 60 }],
  [['yellow', 'gold', 'sun', 'lemon'], { hueDeg: 90 }],
  [['violet', 'purple', 'plum'], { hueDeg: 310 }],
  [['brown', 'coffee'], { hueDeg: 65, light: -0.4, vivid: -0.4 }],
];

export interface Taste {
  axes: Partial<Traits>;
  hueDeg: number | null;
  /** Words of the theme that nothing is known of: nobody pretends to have understood them. */
  unheard: string[];
}

/** Small words that say nothing of a colour. */
const SMALL = new Set(
  'a an and as at but by for from in into it its like look looking looks not of off on or our over something some than that the them then this to under very water waters with without one of they we i my me is be'.split(
    ' ',
  ),
);

/** What a theme says, in so far as its words are known. @param theme in a customer’s own words. */
export function tasteOf(theme: string): Taste {
  let text = theme.toLowerCase();
  const said: Said[] = [];
  // What is said in two words says nothing of each alone.
  for (const [stems, one] of WORDS)
    for (const stem of stems)
      if (stem.includes(' ') && text.includes(stem)) {
        said.push(one);
        text = text.replaceAll(stem, ' ');
      }
  const unheard: string[] = [];
  for (const word of text.split(/[^\p{L}-]+/u)) {
    if (word === '' || SMALL.has(word)) continue;
    const found = WORDS.filter(([stems]) => stems.some((stem) => word.startsWith(stem))).map(([, one]) => one);
    if (found.length === 0) unheard.push(word);
    said.push(...found.filter((one) => !said.includes(one)));
  }
  const mean = (axis: Axis) => {
    const values = said.flatMap((one) => one[axis] ?? []);
    return values.length === 0 ? [] : [[axis, values.reduce((sum, one) => sum + one, 0) / values.length]];
  };
  return {
    axes: Object.fromEntries(AXIS_IDS.flatMap(mean)),
    hueDeg: said.find(({ hueDeg }) => hueDeg !== undefined)?.hueDeg ?? null,
    unheard,
  };
}

const toLch = converter('lch65');
const toLinear = converter('lrgb');
const within = (value: number) => Math.min(1, Math.max(-1, value));
const lchOf = ([r, g, b]: Rgb): Lch65 => toLch({ mode: 'lrgb', r, g, b });

/** The angle between two hues, 0 to 180. */
const apart = (one: number, other: number) => Math.abs(((one - other + 540) % 360) - 180);
/** Warmest of all hues: between red and yellow. */
const WARMEST_DEG = 60;
/** A tail, where it is seen how clear a melt is, mm. */
const TAIL_MM = 3;

/** What a melt is like, as a theme speaks of it. */
export function traitsOf(melt: Melt): { traits: Traits; linear: Rgb; hueDeg: number | null } {
  const linear = lookOf(melt.optics);
  const { l, c, h } = lchOf(linear);
  const covered = melt.flakes.reduce((sum, flake) => sum + flakesIn(flake).behind(usual('matchedAtMm')).covered, 0);
  return {
    linear,
    hueDeg: c > 6 ? (h ?? null) : null,
    traits: {
      light: within((l - 50) / 40),
      vivid: within((c - 32) / 32),
      warm: c > 6 ? within(Math.cos(((h ?? 0) - WARMEST_DEG) * (Math.PI / 180)) * Math.min(1, c / 20)) : 0,
      clear: within(1 - 2 * opacityOf(melt.optics, TAIL_MM)),
      glitter: within(5 * covered + melt.sheen - 1),
    },
  };
}

/** How far a melt is from what a theme says, 0: all as said. What it does not speak of does not count. */
export function offTaste({ axes, hueDeg }: Taste, of: { traits: Traits; hueDeg: number | null }): number {
  const offs = AXIS_IDS.flatMap((axis) => (axes[axis] === undefined ? [] : [of.traits[axis] - (axes[axis] as number)]));
  // A grey has no hue: as far from any as a quarter of the circle.
  if (hueDeg !== null) offs.push((of.hueDeg === null ? 90 : apart(of.hueDeg, hueDeg)) / 60);
  return offs.length === 0 ? 0 : Math.sqrt(offs.reduce((sum, one) => sum + one * one, 0) / offs.length);
}

/** Proposals that look nearer to each other than this are one. */
const DIFFERENT_DELTA_E = 10;
/** Farther off than this a recipe is no answer to the theme, however few there are. */
const MOST_OFF = 0.8;
export const PROPOSALS = 3;
/** Of three at most so many come out of the book: one is always new. */
const FROM_BOOK = 2;

export interface Candidate {
  id: string;
  traits: Traits;
  linear: Rgb;
  hueDeg: number | null;
}

/** A colour that a theme asks for, linear light. @param turnDeg its hue turned so far, to be another one. */
function wantedOf({ axes, hueDeg }: Taste, turnDeg: number): Rgb {
  const { light = 0.1, vivid = 0.1, warm } = axes;
  const base = hueDeg ?? (warm === undefined ? 140 : warm > 0 ? WARMEST_DEG : WARMEST_DEG + 190);
  const clipped = clampRgb({ mode: 'lch65', l: 50 + 36 * light, c: Math.max(4, 34 + 30 * vivid), h: base + turnDeg });
  const found = toLinear(clipped);
  const inside = (one: number) => Math.min(1, Math.max(0, one));
  return [inside(found.r), inside(found.g), inside(found.b)];
}

/**
 * Three different answers to a theme: the nearest of the book, and colours to be made of what is in store.
 * @returns ids of recipes, and colours (linear light) to be matched; together three.
 */
export function proposalsFor(taste: Taste, book: Candidate[]): { book: string[]; wanted: Rgb[] } {
  const shown: Rgb[] = [];
  const isNew = (linear: Rgb) => shown.every((one) => deltaE(labOf(one), labOf(linear)) >= DIFFERENT_DELTA_E);
  const chosen: string[] = [];
  for (const one of [...book].sort((a, b) => offTaste(taste, a) - offTaste(taste, b))) {
    if (chosen.length === FROM_BOOK || offTaste(taste, one) > MOST_OFF) break;
    if (!isNew(one.linear)) continue;
    chosen.push(one.id);
    shown.push(one.linear);
  }
  const wanted: Rgb[] = [];
  // As the theme says, then its hue turned a little further to each side, until they are different.
  for (const turn of [0, 30, -30, 60, -60, 100, -100, 180]) {
    if (chosen.length + wanted.length === PROPOSALS) break;
    const linear = wantedOf(taste, turn);
    if (!isNew(linear)) continue;
    wanted.push(linear);
    shown.push(linear);
  }
  return { book: chosen, wanted };
}
