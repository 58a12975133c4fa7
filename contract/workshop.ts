import * as v from 'valibot';
import { type CookSchool, SCHOOLS } from '../core/heat/microwave.ts';
import { COLOUR_WHENS, type ColourWhen, SALT_WHENS, type SaltWhen } from '../core/process/adding.ts';
import type { ProcessClock } from '../core/process/clocks.ts';
import { DEGASSINGS, type Degassing } from '../core/process/ways.ts';
import type { Silhouette } from '../core/shape/silhouette.ts';
import {
  above0,
  type CanBeAway,
  called,
  count,
  density,
  from0,
  grams,
  name,
  roomC,
  tappedAt,
  type Versioned,
  volumeMl,
} from './fields.ts';

export const workshopBody = v.partial(
  v.strictObject({
    name,
    currency: v.pipe(v.string(), v.regex(/^[A-Z]{3}$/, 'must be three letters like EUR'), v.title('Money')),
    roomC: called(roomC, 'Room temperature'),
    glassMl: called(volumeMl, 'The cooking glass holds'),
    dropsPerMl: above0(100),
    remeltHeats: called(count(1, 50), 'Remelt is cooked at most, times'),
    eveningH: called(v.pipe(from0(24), v.minValue(1)), 'Hours given to an evening'),
    colourWhen: called(v.picklist(COLOUR_WHENS), 'Colour goes in'),
    saltWhen: called(v.picklist(SALT_WHENS), 'Salt goes in'),
    ovenWatts: called(v.pipe(above0(20_000), v.minValue(50)), 'The oven gives, W'),
    cookSchool: called(v.picklist(SCHOOLS), 'It is cooked'),
    degassing: called(v.picklist(DEGASSINGS), 'Bubbles are got out'),
    injectors: called(count(1, 24), 'Injectors'),
    platePlaces: called(count(0, 24), 'Places on a hot plate'),
    keepWarm: called(v.boolean(), 'Kept warm in the oven between shots'),
    glasses: called(count(1, 200), 'Glasses an evening has'),
    boardBaits: called(v.nullable(count(1, 1_000_000)), 'Baits that can lie and cure at once'),
    packS: called(from0(3600), 'To pack a bag, s'),
    clubFraction: called(v.pipe(from0(2)), 'A club pays, of the price'),
    shopFraction: called(v.pipe(from0(2)), 'A shop pays, of the price'),
    roundMinor: called(v.pipe(count(1, 10_000)), 'Prices are rounded to'),
    taxFraction: called(v.pipe(from0(1)), 'Tax, on top'),
  }),
);

export interface Workshop {
  name: string;
  currency: string;
  /** Room temperature at which rubber and cups are planned. */
  roomC: number;
  /** What the cooking glass holds at most. */
  glassMl: number;
  dropsPerMl: number;
  /** Heats above which remelt is warned of. */
  remeltHeats: number;
  /** Hours that are given to an evening at the bench. */
  eveningH: number;
  /** How this workshop adds. */
  colourWhen: ColourWhen;
  saltWhen: SaltWhen;
  ovenWatts: number;
  cookSchool: CookSchool;
  /** How bubbles are got out of a cup. */
  degassing: Degassing;
  injectors: number;
  platePlaces: number;
  keepWarm: boolean;
  /** Glasses that an evening has. */
  glasses: number;
  /** Baits that there is room for on the boards; null: nobody said. */
  boardBaits: number | null;
  /** To count, oil, scent and label a bag, s. */
  packS: number;
  /** What clubs and shops pay of a bait's price, and to how much prices are rounded. */
  clubFraction: number;
  shopFraction: number;
  roundMinor: number;
  /** On top of what is sold. */
  taxFraction: number;
  version: number;
}

export const makerBody = v.strictObject({
  name,
  system: called(v.picklist(['metric', 'us']), 'Units'),
  temperature: v.picklist(['C', 'F']),
});

export interface Maker extends Versioned, v.InferOutput<typeof makerBody> {}

/** A maker's own measure: so many of it, levelled, weighed together once. */
export const measureBody = v.strictObject({
  name: called(name, 'Called'),
  count: count(1, 1000),
  grams: called(grams, 'Weigh together'),
  densityGPerMl: v.optional(density, 1),
});

export interface OwnMeasure extends Versioned {
  name: string;
  count: number;
  grams: number;
  densityGPerMl: number;
  ml: number;
}

export const baitBody = v.partial(
  v.strictObject({
    name,
    packCount: called(count(1, 1000), 'To a pack'),
    priceMinor: called(v.nullable(count(0, 1e9)), 'Price of a pack'),
    wantedScale: v.nullable(v.picklist(['A', '00'])),
    wantedHardness: v.nullable(from0(100)),
    finishS: called(from0(3600), 'To finish one, s'),
    dryH: called(from0(240), 'It then dries, h'),
  }),
);

export interface Bait extends Versioned, CanBeAway {
  name: string;
  shape: Shape;
  packCount: number;
  priceMinor: number | null;
  wantedScale: 'A' | '00' | null;
  wantedHardness: number | null;
  /** Hands for eyes, paint or a clip once it cured, and how long that dries. */
  finishS: number;
  dryH: number;
}

/** What a bait looks like where it has a shape here: SVG paths in a box of 1 × 1, nose to the left. */
export interface BaitOutline extends Silhouette {
  baitId: string;
}

export const SHAPES = ['paddle', 'ribbon', 'claws', 'tube', 'shrimp', 'stick'] as const;
export type Shape = (typeof SHAPES)[number];
export const shape = v.picklist(SHAPES);

export const keptBody = v.strictObject({
  calculator: v.pipe(v.string(), v.maxLength(60)),
  title: called(name, 'Keep this result as'),
  input: v.record(v.string(), v.unknown()),
});

/** Another name. */
export const keptPatch = v.strictObject({ title: called(name, 'Called') });

/** What a maker gives of a result that is kept; its input is the tool’s. */
export const keptSheet = v.omit(keptBody, ['input']);

export interface Kept extends Versioned {
  calculator: string;
  title: string;
  input: Record<string, unknown>;
  output: Record<string, unknown>;
  createdAt: string;
}

export const clockBody = v.strictObject({ label: called(name, 'A clock of your own'), minutes: above0(60 * 24 * 60) });
/** A clock is seen to, or put off; a tap that waited for the Wi-Fi is of its own moment. */
export const clockTap = v.union([
  v.strictObject({ ended: v.literal(true), tappedAt }),
  v.strictObject({ addMinutes: above0(60 * 24), tappedAt }),
]);

export interface Clock extends Versioned {
  kind: ProcessClock | 'own';
  label: string;
  startedAt: string;
  dueAt: string;
  aboutType: string | null;
  aboutId: string | null;
  endedAt: string | null;
}

const LEAST_PASSCODE = 6;

/** A passcode that is set: not guessed in a moment, and nothing that a tablet's keyboard cannot type. */
export const passcodeRule = v.pipe(
  v.string(),
  v.check((text) => text.length >= LEAST_PASSCODE, `must have at least ${LEAST_PASSCODE} characters`),
  v.maxLength(200),
  v.regex(/^[^\p{C}]*$/u, 'must be made of letters, digits and signs that a tablet can type'),
  v.regex(/^\S(.*\S)?$/su, 'must not begin or end with a space'),
);

export const sessionBody = v.strictObject({ passcode: v.pipe(v.string(), v.minLength(1), v.maxLength(200)) });
