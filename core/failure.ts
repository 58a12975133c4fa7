import type { Dimension } from './units/dimension.ts';

/** Every refusal's code and what it says of the request; the sentence that comes with it names the figures. */
export const REFUSALS = {
  'invalid-input': 'A field is missing, or holds what it cannot hold; `path` names it.',
  'too-early': 'Its clock still runs; `sure` does it all the same, and it is noted.',
  'contradicts-itself': 'Two figures cannot both be right; `sure` keeps them all the same.',
  'too-large': 'More at once than is worked on: a bound on work, not of the trade.',
  'malformed-json': 'The body is no JSON.',
  'unknown-calculator': 'No calculator goes by this name.',
  'unknown-unit': 'A unit that nobody here has heard of.',
  'unit-mismatch': 'A unit that measures something else.',
  'out-of-range': 'Outside of what the formula holds for.',
  'out-of-reach': 'No amount within bounds gets there.',
  'not-a-measure': 'What was typed is no measure.',
  'not-applicable': 'The question has no sense for this input.',
  'too-opaque': 'Nothing of the ground shows through the step: it is too thick or too strong to be measured.',
  'base-mismatch': 'The step is clearer than the plain plastic it is said to be made of.',
  'foamy-puck': 'The puck is full of air: nothing can be told of its density or colour.',
  'does-not-sink': 'It is no heavier than what it lies in.',
  'not-creeping-flow': 'It sinks faster than the formula holds for.',
  never: 'It never gets there under these conditions.',
  'box-too-small': 'The masters do not fit into this box.',
  'does-not-fit': 'What is to be set in or built does not fit.',
  'shot-exceeds-injector': 'One shot is more than the injector holds.',
  'layers-missing': 'A layer is not in the mold yet.',
  'cups-missing': 'Another cup gave to the same baits; it is weighed with this one.',
  'too-few-injectors': 'More is pushed into a mold at once than there are injectors.',
  'too-many-cups': 'More cups than one evening is laid out in at once.',
  'layers-not-whole': 'The layers of a colourway do not fill the bait, or more than fill it.',
  'level-unknown': 'A layer goes up to a level, and nobody knows the shape of the mold’s bait.',
  'cup-too-small': 'The cup does not hold a single shot.',
  'hardness-out-of-reach': 'No blend of these reaches the hardness.',
  'mass-not-conserved': 'More came out than went in.',
  'bad-mesh': 'The file holds no mesh that can be read.',
  'no-bore': 'The bait has no bore for a rod.',
  'breaks-through': 'A channel or slot would break through.',
  'wall-too-thin': 'A wall is thinner than it may be.',
  'pins-overlap': 'Pins stand in each other’s way.',
  'gate-misses': 'The gate does not meet the bait.',
  'not-found': 'There is no such record.',
  'no-such-record': 'A record that this one names is not there.',
  'unknown-route': 'The API has no such address.',
  'stale-version': 'Somebody else was first; the current row is in `current`.',
  'version-required': 'The version that was seen has to be sent as If-Match.',
  'already-exists': 'The name or code is taken.',
  'already-reversed': 'It was taken back already.',
  'already-closed': 'It was closed, sent or cancelled already.',
  'already-started': 'It runs already; a second tap starts no second one.',
  'pour-closed': 'The cup is closed and stands as it was.',
  'cavities-unmarked': 'Baits are not looked at yet.',
  'not-enough-stock': 'The rack has not so many.',
  'not-cured': 'What lies on the rack still cures.',
  'photo-missing': 'It is approved by a picture, and there is none yet.',
  'not-packed': 'Nothing was packed that could be sent.',
  'more-than-ordered': 'More packs than the order wants.',
  'more-than-there': 'More baits than are there.',
  'nothing-left': 'Nothing is left to pack or pour for it.',
  'in-use': 'Other records still point to it.',
  'key-reused': 'The Idempotency-Key belongs to another request.',
  cancelled: 'Whoever asked has left, or stopped it.',
  busy: 'Too much is being worked out at once; try again.',
  'bad-photo': 'The file is no photo.',
  'bad-backup': 'The archive is no whole backup.',
  'bad-workshop': 'The file is damaged.',
  'newer-workshop': 'A newer version of the program wrote it.',
  'foreign-file': 'The file was not written by this program.',
  'disk-full': 'The disk is full; nothing was written.',
  'passcode-needed': 'The workshop asks for its passcode first.',
  'wrong-passcode': 'That is not the passcode.',
  'too-many-tries': 'Too many wrong passcodes; wait.',
  'tls-needed': 'From another device only over HTTPS.',
  'wrong-host': 'The request was meant for another host.',
  'cross-site': 'Another site may not write here.',
  internal: 'A fault of the program; nothing was written.',
} as const;

export type RefusalCode = keyof typeof REFUSALS;

/** A figure inside a refusal's sentence, in mm, mL, g, °C, m/s, minor units of money or as a share of one. */
export interface Figure {
  value: number;
  as: Dimension | 'money' | 'percent';
}

/** A sentence whose figures are put in where it is shown, in the units of whoever reads it: `{0}` is the first. */
export interface Said {
  words: string;
  figures: Figure[];
  /** The same in metric units, for a log or a program. */
  text: string;
}

/** Words that are as they are, or with figures to be put in. */
export type Told = Said | string;

/** A refusal with a stable code, a sentence a maker understands and, where one field is to blame, its dotted path. */
export class Failure extends Error {
  readonly said: Said | undefined;
  constructor(
    readonly code: RefusalCode,
    message: Told,
    readonly path?: string,
    /** What the caller needs to recover with, such as the current row of a stale write. */
    readonly detail?: Record<string, unknown>,
  ) {
    super(typeof message === 'string' ? message : message.text);
    this.said = typeof message === 'string' || message.figures.length === 0 ? undefined : message;
    this.name = 'Failure';
  }

  get told(): Told {
    return this.said ?? this.message;
  }
}

/** The same refusal, told of the field that the maker filled in. */
export function atField<T>(path: string, compute: () => T): T {
  try {
    return compute();
  } catch (error) {
    if (error instanceof Failure) throw new Failure(error.code, error.told, path, error.detail);
    throw error;
  }
}

/** A refusal in words where a figure would stand. */
export function tried<T>(compute: () => T): { value: T; refused?: undefined } | { value?: undefined; refused: Told } {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof Failure) return { refused: error.told };
    throw error;
  }
}
