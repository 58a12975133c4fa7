import * as v from 'valibot';
import { isoDay as day, finite, fraction, id, list, nonNegative, positive, whole } from '../bounds.ts';
import { usual } from '../defaults.ts';

const minutes = nonNegative(60 * 24 * 20);

const workDay = v.strictObject({
  day,
  /** Of all people together; 0: a day off. */
  handsMin: v.pipe(minutes, v.title('Hands, min')),
  /** How long the evening is for the one who stays longest; left out: as long as the hands' minutes. */
  lengthMin: v.optional(v.pipe(minutes, v.title('Evening, min'))),
  /** Cups that may be cooked, a glass each. */
  glasses: v.optional(whole(0, 200)),
  /** How long oven (or pot) and pump can be had; left out: nobody waits for them. */
  ovenMin: v.optional(v.pipe(minutes, v.title('Oven, min'))),
  pumpMin: v.optional(v.pipe(minutes, v.title('Vacuum, min'))),
  /** Baits that there is still room for to lie and cure; left out: for all. */
  boardBaits: v.optional(v.pipe(whole(0, 1e7), v.title('Room on the boards, baits'))),
});
const bait = v.strictObject({
  id,
  /** To count, oil, bag and label one bait. */
  packS: v.optional(v.pipe(nonNegative(1e5), v.title('Packing, s a bait')), 0),
  /** Eyes, paint, a clip: hands a bait, and how long it dries. */
  finishS: v.optional(v.pipe(nonNegative(1e5), v.title('Finishing, s a bait')), 0),
  dryH: v.optional(v.pipe(nonNegative(24 * 60), v.title('Dries, h')), 0),
  /** This plastic's own. */
  cureH: v.optional(v.pipe(nonNegative(24 * 60), v.title('Cure, h')), usual('cureH')),
});
const mold = v.strictObject({
  id,
  baitId: id,
  cavities: whole(1, 1e4),
  handsS: v.pipe(positive(1e5), v.title('Hands a shot, s')),
  waitS: v.pipe(nonNegative(1e6), v.title('Waits a shot, s')),
  /** What one shot takes out of the cups. */
  shotMl: positive(1e5),
  /** Filled by injectors: what is pushed together takes one for each cup. */
  injected: v.optional(v.boolean(), false),
  /** In use from this day on, and until that one, it among them. */
  from: v.optional(day),
  until: v.optional(day),
});
const colour = v.strictObject({
  id,
  /** 0 black to 1 white: light is poured before dark. */
  lightness: v.optional(fraction, 0.5),
  /** Takes other colours' remelt: it is poured last. */
  takesRemelt: v.optional(v.boolean(), false),
  /** Glasses that every shot of it is drawn from, and the largest one's share of it. */
  melts: v.optional(whole(1, 12), 1),
  share: v.optional(v.pipe(fraction, v.gtValue(0)), 1),
  /** Cups that are pushed into a mold at once. */
  pushed: v.optional(v.pipe(whole(1, 12), v.title('Cups pushed at once')), 1),
  /** What a glass of it takes of oven and pump: cooked, and heated again where it is not kept warm. */
  ovenMin: v.optional(v.pipe(minutes, v.title('Oven for a glass, min')), 0),
  pumpMin: v.optional(v.pipe(minutes, v.title('Vacuum for a glass, min')), 0),
  /** What goes into it of the store, over all its glasses, for each mL in the fullest one. */
  takes: v.optional(
    v.pipe(
      v.array(v.strictObject({ materialId: id, gPerMl: v.pipe(nonNegative(100), v.title('Takes, g for each mL')) })),
      v.maxLength(60, 'too-large'),
    ),
    [],
  ),
});
const line = v.strictObject({
  id,
  baitId: id,
  colourId: id,
  baits: whole(1, 1e6),
  /** They go into bags of so many, the last one of what is over. */
  perPack: v.optional(whole(1, 1e4), 1),
  due: day,
});
const stocked = v.strictObject({ baitId: id, colourId: id, baits: whole(1, 1e7), ready: day });
const reject = v.strictObject({ baitId: id, rejected: whole(0, 1e9), made: whole(0, 1e9) });
/** In the store; from a day on, as much as is wanted; without one, never more. */
const material = v.strictObject({ id, g: v.pipe(nonNegative(1e9), v.title('In the store, g')), from: v.optional(day) });
/** A colour that is to be poured on a day, and on none before that but others it is put on; or that is not to be poured then. */
const pin = v.strictObject({ colourId: id, day, on: v.optional(v.boolean(), true) });

/** Bounds on one plan's work. */
const MOST_DAYS = 90;
const MOST_LINES = 2000;

export const productionSchema = v.pipe(
  v.strictObject({
    days: v.pipe(list(workDay, 'day'), v.maxLength(MOST_DAYS, 'too-large')),
    lines: v.pipe(v.array(line), v.maxLength(MOST_LINES, 'too-large'), v.title('Wanted')),
    stock: v.optional(v.pipe(v.array(stocked), v.maxLength(MOST_LINES, 'too-large')), []),
    baits: v.pipe(v.array(bait), v.maxLength(500, 'too-large')),
    molds: v.pipe(v.array(mold), v.maxLength(500, 'too-large')),
    colours: v.pipe(v.array(colour), v.maxLength(500, 'too-large')),
    rejects: v.optional(v.pipe(v.array(reject), v.maxLength(500, 'too-large')), []),
    /** What the store holds; what is not named here is there. */
    materials: v.optional(v.pipe(v.array(material), v.maxLength(500, 'too-large')), []),
    /** Left out: as many as are wanted. */
    injectors: v.optional(v.pipe(whole(0, 200), v.title('Injectors'))),
    /** What may be cooked in a glass. */
    glassMl: v.optional(v.pipe(positive(1e5), v.title('In a glass, mL')), usual('glassMl')),
    /** What stays in the cup and the wall of it. */
    residueMl: v.optional(v.pipe(nonNegative(1e4), v.title('Stays in the cup, mL')), 0),
    setUpMin: v.optional(v.pipe(minutes, v.title('To set up and clear away, min')), usual('setUpMin')),
    changeMin: v.optional(v.pipe(minutes, v.title('Each further colour, min')), usual('changeMin')),
    pins: v.optional(v.pipe(v.array(pin), v.maxLength(500, 'too-large')), []),
    confidence: v.optional(v.pipe(finite, v.minValue(0.5), v.maxValue(0.999)), usual('confidence')),
    timeLimitMs: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(120_000, 'too-large')), 1000),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const { days, lines, stock, baits, molds, colours, materials, pins } = dataset.value;
    const say = (path: (string | number)[], message: string) =>
      addIssue({
        message,
        path: path.map((key) => ({ type: 'object', origin: 'value', input: {}, key, value: undefined })) as never,
      });
    days.forEach((one, index) => {
      const before = days[index - 1];
      if (before && Date.parse(one.day) - Date.parse(before.day) !== 86_400_000)
        say(['days', index, 'day'], 'the days of a plan follow one another; a day off has no minutes');
    });
    const [knownBaits, knownColours] = [new Set(baits.map((one) => one.id)), new Set(colours.map((one) => one.id))];
    for (const [name, rows] of Object.entries({ lines, stock }) as ['lines', typeof lines][])
      rows.forEach((row, index) => {
        if (!knownBaits.has(row.baitId)) say([name, index, 'baitId'], `"${row.baitId}" is not among the baits`);
        if (!knownColours.has(row.colourId))
          say([name, index, 'colourId'], `"${row.colourId}" is not among the colours`);
      });
    molds.forEach((row, index) => {
      if (!knownBaits.has(row.baitId)) say(['molds', index, 'baitId'], `"${row.baitId}" is not among the baits`);
    });
    pins.forEach((row, index) => {
      if (!knownColours.has(row.colourId))
        say(['pins', index, 'colourId'], `"${row.colourId}" is not among the colours`);
      if (!days.some((one) => one.day === row.day)) say(['pins', index, 'day'], 'is not a day of this plan');
    });
    const seen = new Set<string>();
    for (const [name, rows] of Object.entries({ lines, baits, molds, colours, materials }))
      rows.forEach((row, index) => {
        if (seen.has(`${name} ${row.id}`))
          say([name, index, 'id'], `"${row.id}" is there twice; give each row its own id`);
        seen.add(`${name} ${row.id}`);
      });
  }),
);

export type Production = v.InferOutput<typeof productionSchema>;

/** What a cup of an evening is drawn into. */
export interface PlannedShots {
  moldId: string;
  baitId: string;
  shots: number;
  /** Good ones that are counted on. */
  baits: number;
}

/** One colour on one evening. */
export interface PlannedCup {
  colourId: string;
  glasses: number;
  molds: PlannedShots[];
  /** Cooked, and over the most that is drawn: what would be melted again, mL. */
  drawnMl: number;
  pinned: boolean;
}

export interface PlannedDay {
  day: string;
  /** In the order in which they are poured. */
  cups: PlannedCup[];
  /** Baits that are packed, by line. */
  packed: { lineId: string; baits: number }[];
  pourMin: number;
  packMin: number;
  handsMin: number;
  /** What takes all there is of it that day. */
  full: Mean[];
}

/** What an evening has only so much of. */
export type Mean = 'hands' | 'glasses' | 'molds' | 'oven' | 'vacuum' | 'boards' | 'materials';

export interface PlannedLine {
  lineId: string;
  /** The day on which the last of it is packed; null: not within these days. */
  packedOn: string | null;
  lateDays: number | null;
  /** Not packed within these days. */
  shortBaits: number;
  why: Lack | null;
}

/** Why baits of a line are not packed within the plan. */
export type Lack = 'no-mold' | 'too-large-for-a-glass' | 'too-few-injectors' | 'no-material' | 'no-time';

/** What these evenings take of the store. */
export interface PlannedMaterial {
  materialId: string;
  /** Before any more of it comes. */
  takesG: number;
  /** What all that is wanted would take, were it there, out of glasses that are full. */
  wantedG: number;
  /** Over what is there. */
  shortG: number;
}

export interface ProductionPlan {
  days: PlannedDay[];
  lines: PlannedLine[];
  /** Of what the store may not hold enough of, for all that is wanted. */
  materials: PlannedMaterial[];
  /** Baits that are not packed on their day, each day that they are not. */
  lateBaitDays: number;
  /** No plan has less; null: nothing was proved yet. */
  boundBaitDays: number | null;
  /** (late − bound) ÷ late; 0: none is less late. */
  gap: number | null;
  /** Colours, counted each evening they are poured. */
  changeovers: number;
  glasses: number;
  /** How it was found: 'heuristic' where no search gave a better one. */
  by: 'heuristic' | 'search';
  /** Why the solver gave none: it failed, was stopped, or had no time. */
  stopped: 'done' | 'time' | 'asked' | 'failed';
  /** What the solver said when it failed. */
  fault: string | null;
}
