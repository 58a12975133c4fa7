import * as v from 'valibot';
import { maySay, TICK_IDS, TICKS } from '../core/process/evidence.ts';
import { GRADES, graded, REASON_IDS, TRIMMED } from '../core/yield/grades.ts';
import { above0, called, count, cupC, from0, ownId, rowId, tappedAt, volumeMl } from './fields.ts';

export const heatBody = v.strictObject({
  id: ownId,
  kind: v.picklist(['cook', 'reheat', 'reading']),
  c: cupC,
  /** The instrument that told it; not said: it was typed. */
  instrumentId: v.optional(v.nullable(rowId), null),
  tappedAt,
});
/** What a shot drew of one cup, as the cup was when it was tapped: its last dose and its last heat, by their own ids. */
const partBody = v.pipe(
  v.strictObject({
    layer: v.optional(count(0, 11), 0),
    pourId: rowId,
    lastDose: v.nullable(rowId),
    lastHeat: v.nullable(rowId),
    /** Of the layer; not said: cups that share it give alike. */
    share: v.optional(v.pipe(above0(1))),
    ml: v.optional(volumeMl),
  }),
  v.check((part) => part.share === undefined || part.ml === undefined, 'say a share or mL, one of the two'),
);
const partsBody = v.pipe(
  v.array(partBody),
  v.minLength(1),
  v.maxLength(24),
  v.check(
    (parts) => new Set(parts.map(({ layer, pourId }) => `${layer} ${pourId}`)).size === parts.length,
    'a cup is there twice for one layer; add the two',
  ),
);
/** The oven is started on a cup. */
export const burstBody = v.strictObject({
  id: ownId,
  level: called(v.pipe(v.number(), v.gtValue(0), v.maxValue(1)), 'At this part of full power'),
  seconds: called(v.pipe(v.number(), v.gtValue(0), v.maxValue(1800)), 'For, s'),
  tappedAt,
});

/** Something was said by a tap: of the evening, of a cup, or of one shot of a mold. */
export const tickBody = v.pipe(
  v.strictObject({
    id: ownId,
    what: v.picklist(TICK_IDS),
    said: v.pipe(v.string(), v.maxLength(40)),
    moldId: v.optional(rowId),
    /** Which shot of it in this cup, from 1. */
    nth: v.optional(count(1, 2000)),
    layer: v.optional(count(0, 11)),
    /** What it is that was laid out. */
    note: v.optional(v.pipe(v.string(), v.maxLength(120)), ''),
    tappedAt,
  }),
  v.check(({ what, said }) => maySay(what, said), 'that cannot be said of it'),
  v.check(
    ({ what, moldId, nth }) => (TICKS[what].about === 'shot') === (moldId !== undefined && nth !== undefined),
    'of a shot, say which mold and which shot of it; of a cup or an evening, none',
  ),
);

/** The cup was stirred. */
export const stirBody = v.strictObject({ id: ownId, tappedAt });

/** Without parts, as earlier pages say it: all of it from this cup as it stands when the tap arrives. */
export const shotBody = v.strictObject({ id: ownId, moldId: rowId, parts: v.optional(partsBody), tappedAt });
/** The next layers of a shot. */
export const morePartsBody = v.strictObject({ parts: partsBody, tappedAt });
/** A layer that was lifted out of a cavity and is poured again. */
export const redoBody = v.strictObject({
  id: ownId,
  layer: count(0, 11),
  cavity: count(1, 1000),
  /** Again from this cup. */
  pourId: rowId,
  minutes: v.optional(v.nullable(from0(240)), null),
  reason: v.optional(v.nullable(v.picklist(REASON_IDS)), null),
  tappedAt,
});

export const marksBody = v.strictObject({
  marks: v.pipe(
    v.array(
      v.pipe(
        v.strictObject({
          id: ownId,
          cavity: count(1, 1000),
          grade: v.optional(v.picklist([...GRADES, 'unmarked'])),
          /** As earlier pages say it, some of which still wait in a tablet. */
          result: v.optional(v.picklist(['good', 'bad', 'unmarked'])),
          reason: v.optional(v.picklist(REASON_IDS)),
        }),
        v.check((mark) => (mark.grade === undefined) !== (mark.result === undefined), 'say its grade'),
        v.transform(graded),
        v.check(
          ({ grade, reason }) =>
            grade === 'own' || grade === 'remelt'
              ? reason !== undefined
              : reason === undefined || (grade === 'sell' && reason === TRIMMED),
          'what is not to sell needs a reason; of what is, only trimmed flash is noted',
        ),
      ),
    ),
    v.minLength(1),
    v.maxLength(1000),
    v.check((rows) => new Set(rows.map((row) => row.cavity)).size === rows.length, 'a cavity is marked twice'),
  ),
  tappedAt,
});
