import * as v from 'valibot';
import { Failure } from '../core/failure.ts';
import { parseAmount } from '../core/units/parse.ts';

// What travels between browser and server is checked here; bounds are those of a workshop, not of arithmetic.

const number = v.pipe(v.number(), v.finite());
const single = v.regex(/^[^\p{Cc}]*$/u, 'must be one line without control characters');

/** A schema whose field goes by a title of its own, where its name says too little. */
export const called = <const S extends v.GenericSchema>(schema: S, title: string): S =>
  v.pipe(schema, v.title(title)) as unknown as S;

export const name = v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120), single);
export const note = v.optional(v.pipe(v.string(), v.trim(), v.maxLength(4000)), '');
export const rowId = v.pipe(v.string(), v.uuid());
/** A bench row may bring its own id, so that marks can follow a shot that still waits for the Wi-Fi. */
export const ownId = v.optional(rowId);
/** When a tap was made, by the workshop's clock, where it had to wait for the Wi-Fi. */
export const tappedAt = v.optional(v.pipe(v.string(), v.isoTimestamp()));
export const hex = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour like #3a6f8f'));
/** A colour that is picked in a form: missing until it is. */
export const pickedHex = v.pipe(
  v.string(),
  v.minLength(1),
  v.regex(/^(#[0-9a-f]{6})?$/i, 'must be a colour like #3a6f8f'),
);
export { isoDay as day } from '../core/bounds.ts';

/** Above nothing by as much as any bench could tell, so that no quotient of two of them is nothing again. */
export const above0 = (most: number) => v.pipe(number, v.minValue(1e-6), v.maxValue(most));
export const from0 = (most: number) => v.pipe(number, v.minValue(0), v.maxValue(most));
export const count = (least: number, most: number) => v.pipe(number, v.integer(), v.minValue(least), v.maxValue(most));

export const lengthMm = above0(2000);
export const volumeMl = above0(20000);
export const grams = above0(100000);
export const gramsOr0 = from0(100000);
export const density = above0(25);
/** What a cup can be read as, °C. */
export const CUP_BOUNDS_C = [-30, 400] as const;
export const cupC = v.pipe(number, v.minValue(CUP_BOUNDS_C[0]), v.maxValue(CUP_BOUNDS_C[1]));
export const roomC = v.pipe(number, v.minValue(-40), v.maxValue(60));
export const waterC = v.pipe(number, v.minValue(-2), v.maxValue(45));
export const money = count(0, 1_000_000_000);
export const shore = v.picklist(['A', '00']);
export const shorePoints = v.pipe(number, v.minValue(0), v.maxValue(100));

/** `?q=&sort=&cursor=&limit=` of every list. */
export const listQuery = v.strictObject({
  q: v.optional(v.pipe(v.string(), v.maxLength(120))),
  sort: v.optional(v.pipe(v.string(), v.regex(/^-?[a-z]+$/i, 'must be a field, with - for descending'))),
  cursor: v.optional(v.pipe(v.string(), v.maxLength(400))),
  limit: v.optional(
    v.pipe(
      v.string(),
      v.regex(/^\d{1,3}$/, 'must be a whole number'),
      v.transform(Number),
      v.minValue(1),
      v.maxValue(200),
    ),
  ),
});
export type ListQuery = v.InferOutput<typeof listQuery>;

export interface Page<T> {
  items: T[];
  nextCursor: string | null;
}

export interface Versioned {
  id: string;
  version: number;
}

/** Out of the lists, or back in them. */
export const awayBody = v.strictObject({ away: v.boolean() });

/** What leaves the lists without leaving the records. */
export interface CanBeAway {
  /** Since when it is put away; null: in use. */
  awayAt: string | null;
}

/** What is still picked from. */
export const inUse = <T extends CanBeAway>(rows: T[]): T[] => rows.filter((row) => row.awayAt === null);

/** Names the row of a log that is taken back. */
export const undoBody = v.strictObject({ id: ownId, rowId, tappedAt });

/** What pictures are kept with; a dosing ledger has one for each look at the cup. */
export const PHOTO_ABOUT = [
  'master',
  'mold',
  'recipe',
  'colourway',
  'ledger',
  'pour',
  'water_test',
  'taste_wish',
] as const;
export type PhotoAbout = (typeof PHOTO_ABOUT)[number];

/** What one reads in `18 drops`: an amount over nothing, and a unit or none. */
export const written = v.pipe(
  v.string(),
  v.minLength(1),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed || dataset.value === '') return;
    const wrong = whyNoAmount(dataset.value);
    if (wrong) addIssue({ message: wrong });
  }),
  v.title('Amount'),
);

function whyNoAmount(text: string): string | undefined {
  try {
    return parseAmount(text).value > 0 ? undefined : 'an amount is more than nothing';
  } catch (error) {
    if (error instanceof Failure) return error.message.replace(/\.$/, '');
    throw error;
  }
}

/** A bait in a colour, as a row about it names them. */
export interface BaitInColour {
  baitId: string;
  baitName: string;
  colourwayId: string;
  colourwayName: string;
  hex: string;
}
