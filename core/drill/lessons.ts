import { usual } from '../defaults.ts';
import type { Said } from '../failure.ts';
import { type Fill, type HeatLimit, type MoldKind, methodWindow } from '../heat/window.ts';
import type { Join, Place } from '../plan/layers.ts';
import type { Degassing } from '../process/ways.ts';
import { celsius, say } from '../units/say.ts';

export interface LessonItem {
  id: string;
  name: string;
  kind: 'colourant' | 'flake' | 'salt';
  hex: string;
  amount: number;
  unit: 'drop' | 'tsp';
  limitC: number | null;
}

export interface LessonMold {
  id: string;
  name: string;
  kind: MoldKind;
  fill: Fill;
  cavities: number;
  shots: number;
  cavityMl: number;
  waitS: number[];
  shape: 'paddle' | 'ribbon' | 'claws' | 'shrimp' | 'stick';
}

export interface LessonLayer {
  place: Place;
  name: string;
  hex: string;
  joins: Join | null;
  items: LessonItem[];
}

/** An evening of training: what is laid out, and what it teaches. */
export interface Lesson {
  id: string;
  name: string;
  teaches: Said;
  /** What to watch for, said before it begins. */
  brief: Said[];
  roomC: number;
  degassing: Degassing;
  molds: LessonMold[];
  layers: LessonLayer[];
  cookMl: number;
}

const BLUE: LessonItem = {
  id: 'harbour',
  name: 'Harbour Blue liquid',
  kind: 'colourant',
  hex: '#2d5f8a',
  amount: 20,
  unit: 'drop',
  limitC: null,
};
const PINK: LessonItem = { ...BLUE, id: 'pink', name: 'Sea Pink liquid', hex: '#e58fa0', amount: 14 };
const SILVER: LessonItem = {
  id: 'silver',
  name: 'Silver flake 0.9',
  kind: 'flake',
  hex: '#c7ccd0',
  amount: 0.5,
  unit: 'tsp',
  limitC: null,
};
/** What the training's copper flake bears. */
const TENDER_C = 170;
const TENDER: LessonItem = { ...SILVER, id: 'copper', name: 'Copper flake 0.6', hex: '#b8703a', limitC: TENDER_C };

const one = (name: string, hex: string, items: LessonItem[]): LessonLayer[] => [
  { place: 'whole', name, hex, joins: null, items },
];

const OPEN: LessonMold = {
  id: 'worm',
  name: 'Ragworm 140 × 2, open face',
  kind: 'silicone-open',
  fill: 'open-pour',
  cavities: 2,
  shots: 2,
  cavityMl: 9,
  waitS: [300, 330],
  shape: 'ribbon',
};
const OPEN_WINDOW = methodWindow(OPEN);
const BLOCK: LessonMold = {
  id: 'block',
  name: 'Sandlance 110 × 4',
  kind: 'aluminium',
  fill: 'injection',
  cavities: 4,
  shots: 3,
  cavityMl: 11,
  waitS: [100, 120, 135],
  shape: 'paddle',
};

const COLD_SHED_C = 4;

/** The five lessons, in the order in which they are best taken. */
export const LESSONS: Lesson[] = [
  {
    id: 'open-pour',
    name: 'First open pour',
    teaches: say`Cook, stir, read, pour to the brim, wait, lay it flat.`,
    brief: [
      say`Cook in bursts, stir between, until it is clear; then colour.`,
      say`An open mold is filled between ${celsius(OPEN_WINDOW.lowC)} and ${celsius(OPEN_WINDOW.highC)}, level, and topped up while it sinks.`,
      say`Open it when its clock says so, and lay the baits flat.`,
    ],
    roomC: usual('roomC'),
    degassing: 'none',
    molds: [OPEN],
    layers: one('Sea Pink', PINK.hex, [PINK]),
    cookMl: 110,
  },
  {
    id: 'injection',
    name: 'First injection',
    teaches: say`Clamps, warm injector, steady push, light pressure, the sprue kept topped.`,
    brief: [
      say`Clamp corner to opposite corner, warm the injector.`,
      say`Push until it stops, hold light pressure, top the sprue.`,
      say`Read the cup again before each shot: it leaves its window sooner than you think.`,
    ],
    roomC: usual('roomC'),
    degassing: 'none',
    molds: [BLOCK],
    layers: one('Night Ferry', BLUE.hex, [BLUE, SILVER]),
    cookMl: 210,
  },
  {
    id: 'tender-flake',
    name: 'Heat-sensitive flake',
    teaches: say`A flake that turns above its limit goes in last, into a cup that has cooled to it.`,
    brief: [
      say`Copper flake turns above ${celsius(TENDER_C)}. Cook without it.`,
      say`Colour first; let the cup fall to its limit; then the flake, stirred just before each draw.`,
    ],
    roomC: usual('roomC'),
    degassing: 'none',
    molds: [{ ...BLOCK, shots: 2 }],
    layers: one('Slack Tide', '#4f8796', [{ ...BLUE, amount: 12 }, TENDER]),
    cookMl: 160,
  },
  {
    id: 'cold-shed',
    name: 'A cold shed',
    teaches: say`At ${celsius(COLD_SHED_C)} cup and mold lose heat fast: preheat the mold, draw hotter, keep the cups small.`,
    brief: [
      say`The shed is at ${celsius(COLD_SHED_C)}, for the air. A cold mold dents and fills short: preheat it.`,
      say`The cup leaves its window in a minute or two: reheat in time, never less air.`,
    ],
    roomC: COLD_SHED_C,
    degassing: 'none',
    molds: [{ ...BLOCK, waitS: [70, 80, 90] }],
    layers: one('Night Ferry', BLUE.hex, [BLUE]),
    cookMl: 210,
  },
  {
    id: 'laminate',
    name: 'A laminate',
    teaches: say`A belly, then a back on it: cold and firm first, its surface melted again, or they peel.`,
    brief: [
      say`Two cups, both in their window when they are wanted.`,
      say`The belly has to be cold and firm; melt its surface with the heat gun; then the back.`,
    ],
    roomC: usual('roomC'),
    degassing: 'none',
    molds: [{ ...OPEN, name: 'Gannet 160 × 2, open face', cavityMl: 14, shots: 2, shape: 'stick' }],
    layers: [
      { place: 'belly', name: 'Ebb Glass', hex: '#d9e4dd', joins: null, items: [{ ...PINK, amount: 4 }] },
      { place: 'back', name: 'Night Ferry', hex: BLUE.hex, joins: 'melted', items: [BLUE] },
    ],
    cookMl: 100,
  },
];

/** What flake in a lesson's cup bears, as far as it is in the cup or its recipe puts it there. */
export const limitsOfItems = (items: LessonItem[]): HeatLimit[] =>
  items.flatMap(({ name, limitC }) => (limitC === null ? [] : [{ name, c: limitC }]));
