import * as v from 'valibot';
import type { CupNeed, LineNeed } from '../core/plan/need.ts';
import { LINE_MOST, LINES_MOST } from '../core/plan/orderBounds.ts';
import { PRICE_LISTS, type PriceList } from '../core/plan/prices.ts';
import { REASON_IDS, type Reason } from '../core/yield/grades.ts';
import {
  type BaitInColour,
  type CanBeAway,
  called,
  count,
  day,
  grams,
  listQuery,
  money,
  name,
  note,
  ownId,
  rowId,
  type Versioned,
} from './fields.ts';
import { tasteBody } from './tastes.ts';

const priceList = called(v.picklist(PRICE_LISTS), 'Pays as');
export const customerBody = v.strictObject({
  name,
  contact: note,
  notes: note,
  priceList: v.optional(priceList, 'private'),
});
/** Two records of one customer: all that is of the one goes to the other. */
export const mergeBody = v.strictObject({ intoId: rowId });

const packs = count(1, LINE_MOST.packs);
const perPack = called(count(1, LINE_MOST.perPack), 'To a pack');
export const MORE_THAN_A_LINE = `more than ${LINE_MOST.baits} baits on one line; split it`;

const lines = v.pipe(
  v.array(
    v.pipe(
      v.strictObject({
        baitId: rowId,
        colourwayId: rowId,
        packs: packs,
        perPack: perPack,
        priceMinor: v.optional(v.nullable(money)),
      }),
      v.check((line) => line.packs * line.perPack <= LINE_MOST.baits, MORE_THAN_A_LINE),
    ),
  ),
  v.maxLength(LINES_MOST),
);

/** A list of orders, or only those still to be sent, or only those that are done with. */
export const orderQuery = v.strictObject({ ...listQuery.entries, only: v.optional(v.picklist(['open', 'gone'])) });
export type OrderQuery = v.InferOutput<typeof orderQuery>;

export const orderBody = v.pipe(
  v.strictObject({
    customerId: v.optional(rowId),
    newCustomer: v.optional(v.strictObject({ name, contact: note, priceList: v.optional(priceList, 'private') })),
    dueOn: called(day, 'Due'),
    notes: note,
    /** Given away or swapped: nobody pays for it. */
    gift: v.optional(called(v.boolean(), 'A gift or a swap: nobody pays'), false),
    lines,
    /** Ordered by a theme: which colour, the customer says to a picture. */
    tastes: v.optional(v.pipe(v.array(tasteBody), v.maxLength(20)), []),
  }),
  v.forward(
    v.check((order) => order.lines.length + order.tastes.length > 0, 'an order wants a line, or a wish by taste'),
    ['lines'],
  ),
  v.check(
    (order) => Boolean(order.customerId) !== Boolean(order.newCustomer),
    'name the customer: customerId or newCustomer, one of them',
  ),
);

export const orderPatch = v.partial(
  v.strictObject({
    dueOn: called(day, 'Due'),
    notes: note,
    gift: called(v.boolean(), 'A gift or a swap: nobody pays'),
    sent: v.boolean(),
    cancelled: v.boolean(),
    /** What a pack of a line costs, agreed later than it was ordered. */
    lines: v.pipe(v.array(v.strictObject({ id: rowId, priceMinor: v.nullable(money) })), v.maxLength(LINES_MOST)),
  }),
);
/** More or fewer packs, other counts to a pack, or another colour: what was packed stays. */
export const lineChangeBody = v.strictObject({
  packs: v.optional(packs),
  perPack: v.optional(perPack),
  colourwayId: v.optional(rowId),
  why: note,
});
/** One more line of an order that was taken already. */
export const addLineBody = v.strictObject({
  baitId: rowId,
  colourwayId: rowId,
  packs: packs,
  perPack: perPack,
  priceMinor: v.optional(v.nullable(money)),
  why: note,
});
export const takeLineBody = v.strictObject({ why: note });
/** These lines go into one bag; without a name each has its own again. */
export const setBody = v.strictObject({
  name: called(v.pipe(v.string(), v.trim(), v.maxLength(60)), 'The set is called'),
  lineIds: v.pipe(v.array(rowId), v.minLength(1), v.maxLength(20)),
});
export const backOrderBody = v.strictObject({ dueOn: called(day, 'The rest is due') });

/** What was changed on a line after the order was taken. */
export interface LineChange {
  id: string;
  lineId: string;
  what: 'packs' | 'per-pack' | 'colour' | 'back-order' | 'added' | 'taken';
  /** The line in words, also where it is no more. */
  line: string;
  was: string;
  now: string;
  why: string;
  at: string;
}

export const packBody = v.pipe(
  v.strictObject({
    lineId: rowId,
    bags: v.optional(count(1, 500), 1),
    /** Which empty bags of the store; may be left out where there is one kind. */
    bagsId: v.optional(rowId),
    /** What was in it, weighed without its bag: of one bag. */
    grams: v.optional(called(grams, 'Weighs')),
    instrumentId: v.optional(v.nullable(rowId)),
  }),
  v.forward(
    v.check(({ grams: weighed, bags }) => weighed === undefined || bags === 1, 'is of one bag; pack them one by one'),
    ['grams'],
  ),
);
/** What lies on the rack: to sell, or kept for own water and offered to no order. */
export const RACK_GRADES = ['sell', 'own'] as const;
export type RackGrade = (typeof RACK_GRADES)[number];

export const stockOutBody = v.strictObject({
  id: ownId,
  kind: v.picklist(['fished', 'given', 'scrapped']),
  baitId: rowId,
  colourwayId: rowId,
  pourId: v.optional(rowId),
  grade: v.optional(v.picklist(RACK_GRADES), 'sell'),
  baits: count(1, 100000),
  note,
});

export interface Customer extends Versioned, CanBeAway {
  name: string;
  contact: string;
  notes: string;
  priceList: PriceList;
  mergedIntoId: string | null;
  orders: number;
}

/** A customer's page: what they took, what is open, what they found wrong. */
export interface CustomerWith extends Customer {
  /** Newest first. */
  ordered: OrderRow[];
  took: (BaitInColour & { packs: number; baits: number; lastOn: string })[];
  complaints: Complaint[];
}

/** What somebody found wrong with baits of a bag. */
export interface Complaint {
  id: string;
  bagCode: string;
  pourId: string;
  pourCode: string;
  moldId: string;
  moldName: string;
  baitName: string;
  colourwayId: string;
  colourwayName: string;
  baits: number;
  reason: Reason;
  note: string;
  customer: string | null;
  at: string;
}
export const complaintBody = v.strictObject({
  id: ownId,
  pourId: rowId,
  moldId: rowId,
  baits: count(1, 1000),
  reason: called(v.picklist(REASON_IDS), 'Wrong is'),
  note,
});
export const complaintQuery = v.strictObject({
  moldId: v.optional(rowId),
  colourwayId: v.optional(rowId),
});
export const remakeBody = v.strictObject({ dueOn: called(day, 'Due'), baits: count(1, 1000) });

/** Where a bag's baits can have come from: its cups with all that is known of them. */
export interface Origin {
  pourId: string;
  pourCode: string;
  colourwayName: string;
  pouredAt: string | null;
  baits: number;
  hardness: { scale: string; mean: number; readings: number } | null;
  lots: { materialName: string; lotCode: string; grams: number }[];
  molds: {
    moldId: string;
    moldName: string;
    shots: number;
    /** Cavities that gave something to sell in it. */
    cavities: number[];
    /** How its baits lay, where it was tapped. */
    lay: string[];
    /** Why baits of it were not sold. */
    rejects: { reason: Reason; count: number }[];
  }[];
}

export interface OrderLine {
  id: string;
  baitId: string;
  baitName: string;
  shape: string;
  colourwayId: string;
  colourwayName: string;
  hex: string;
  packs: number;
  perPack: number;
  priceMinor: number | null;
  /** Lines of one order with the same name go into one bag. */
  setName: string | null;
  packed: number;
}

export interface OrderRow extends Versioned {
  code: string;
  customerId: string;
  customer: string;
  dueOn: string;
  notes: string;
  sentAt: string | null;
  cancelledAt: string | null;
  gift: boolean;
  createdAt: string;
  lines: OrderLine[];
  state: 'short' | 'curing' | 'good' | 'ready' | 'sent' | 'cancelled' | 'in-pour' | 'asked';
  /** Wishes by taste that nobody approved yet. */
  undecided: number;
  shortBaits: number;
}

/** What of a cup nobody knows, because of the remelt in it. */
export type Unknown = 'hardness' | 'salt';

export interface Order extends OrderRow {
  need: { lines: LineNeed[]; cups: CupNeed[] };
  pours: {
    id: string;
    code: string;
    colourwayName: string;
    hex: string;
    closedAt: string | null;
    unknown: Unknown[];
  }[];
  bags: Bag[];
  changes: LineChange[];
  /** Empty bags in the store, by kind. */
  bagKinds: { id: string; name: string; left: number }[];
}

export interface Bag {
  id: string;
  code: string;
  lineId: string | null;
  contents: (BaitInColour & { baits: number })[];
  /** All of them. */
  baits: number;
  at: string;
  unpacked: boolean;
  pours: { id: string; code: string; baits: number }[];
  order: { id: string; code: string; customer: string } | null;
}

/** What came out of the same cups: where it lies, and who has it. */
export interface Recall {
  bags: { code: string; baits: number; at: string; customer: string | null; sentAt: string | null; pourCode: string }[];
  /** Still on the rack, of each of the bag's cups. */
  onRack: { pourCode: string; baits: number }[];
}

export interface RackRow extends BaitInColour {
  shape: string;
  pourId: string;
  pourCode: string;
  grade: RackGrade;
  baits: number;
  curedAt: string;
  cured: boolean;
  promised: number;
}

export interface StockMove {
  id: string;
  kind: string;
  baitName: string;
  colourwayName: string;
  hex: string;
  pourId: string;
  pourCode: string;
  grade: RackGrade;
  baits: number;
  note: string;
  at: string;
  reversed: boolean;
}
